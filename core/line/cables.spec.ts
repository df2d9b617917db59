import fc from 'fast-check';
import { CalculationError } from '../calculation/index.js';
import { calc, near } from '../testing/calculations.js';
import { ampacityOf, ampacityTables, awgAreaMm2 } from './conductors.js';

const positive = (max: number) => fc.double({ min: 0.01, max, noNaN: true });

describe('cables', () => {
  const cable = {
    system: 'three',
    currentA: 14.4,
    lengthM: 35,
    areaMm2: 2.5,
    conductorC: 70,
    powerFactor: 0.83,
    reactanceOhmPerM: 0.00008,
    nominalV: 400,
  };

  it('the longest cable drops exactly the limit, and so does the smallest conductor', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('three', 'single', 'dc'),
        positive(8),
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        (system, limitPct, powerFactor) => {
          const args = { ...cable, system, powerFactor };
          const { maxLengthM, minAreaMm2 } = calc('longestCable', { ...args, limitPct });
          if (maxLengthM <= 10_000)
            near(calc('voltageDrop', { ...args, lengthM: maxLengthM })['dropPct'], limitPct, 1e-9);
          if (minAreaMm2 !== null && minAreaMm2 < 1000)
            near(calc('voltageDrop', { ...args, areaMm2: minAreaMm2 })['dropPct'], limitPct, 1e-9);
        },
      ),
    );
    expect(
      calc('longestCable', {
        ...cable,
        lengthM: 9000,
        reactanceOhmPerM: 0.002,
        powerFactor: 0.5,
        limitPct: 1,
      })['minAreaMm2'],
    ).toBeNull();
  });

  it('measures a protective conductor by hand', () => {
    // 0.017241 Ω·mm²/m · 35 m / 2.5 mm²
    const r = calc('protectiveConductor', {
      areaMm2: 2.5,
      lengthM: 35,
      tempC: 20,
      allowanceOhm: 0.1,
      testA: 10,
    });
    near(r['wireOhm'], 0.24137);
    near(r['limitOhm'], 0.34137);
    near(r['dropV'], 2.4137);
  });

  it('knows the area of AWG sizes (ASTM B258)', () => {
    for (const [awg, mm2] of [
      ['14', 2.081],
      ['10', 5.261],
      ['3', 26.67],
      ['1/0', 53.49],
      ['4/0', 107.2],
    ] as const)
      near(awgAreaMm2(awg), mm2, 2e-3);
    expect(() => awgAreaMm2('5/0')).toThrowError(RangeError);
  });

  it('reads ampacity tables, whose values rise with size, and refuses what they do not hold', () => {
    near(
      calc('ampacity', { table: 'iecC', areaMm2: 2.5, ambientC: 40, grouped: 2 })['usableA'],
      24 * 0.87 * 0.8,
    );
    near(
      calc('ampacity', { table: 'nec75', awg: '10', ambientC: 36, grouped: 6 })['usableA'],
      35 * 0.88 * 0.8,
    );
    for (const table of ampacityTables) {
      table.amps.forEach(
        ([, amps], i) => i > 0 && expect(amps).toBeGreaterThan(table.amps[i - 1][1]),
      );
      for (const factors of [table.ambient, table.grouping])
        factors.forEach(([, k], i) => i > 0 && expect(k).toBeLessThan(factors[i - 1][1]));
      expect(() => ampacityOf(table, 3.3, 30, 1)).toThrowError(
        CalculationError,
        /size must be one of/u,
      );
      expect(() => ampacityOf(table, table.amps[0][0], 61, 1)).toThrowError(
        CalculationError,
        /ends/u,
      );
    }
  });

  it('sizes protective conductors of both practices', () => {
    const pe = (phaseMm2: number, reinforced = false) =>
      calc('peSize', { phaseMm2, reinforced })['peMm2'];
    expect([pe(2.5), pe(16), pe(25), pe(35), pe(70), pe(2.5, true), pe(25, true)]).toEqual([
      2.5, 16, 16, 16, 35, 10, 16,
    ]);
    const egc = (deviceA: number) => calc('groundingSize', { deviceA })['awg'] as unknown;
    expect([egc(15), egc(20), egc(30), egc(100), egc(150)]).toEqual(['14', '12', '10', '8', '6']);
  });
});

describe('reflected wave and leakage', () => {
  const wave = {
    linkV: 566,
    riseNs: 200,
    lengthM: 35,
    velocityMPerUs: 150,
    cableOhm: 80,
    motorOhm: 800,
    sourceOhm: 0,
  };

  it('doubles nearly beyond the critical length, and hardly below it', () => {
    const r = calc('reflectedWave', wave);
    expect([r['criticalLengthM'], r['reflection'].toFixed(4)] as unknown[]).toEqual([
      15,
      (720 / 880).toFixed(4),
    ]);
    near(r['linearRulePeakV'], 566 * (1 + 720 / 880), 1e-9);
    near(r['latticePeakV'], r['fullPeakV'], 1e-9);
    near(calc('reflectedWave', { ...wave, lengthM: 0 })['latticePeakV'], 566);
    expect(calc('reflectedWave', { ...wave, motorOhm: 80 })['latticePeakV']).toBeCloseTo(566, 6);
  });

  it('adds the reflections as a stepped line model does', () => {
    // Travelling waves on a line of N cells, stepped by one travel time a cell: an independent way to the same sum.
    for (const [lengthM, sourceOhm] of [
      [4, 0],
      [9, 20],
      [14, 0],
      [22, 40],
    ] as const) {
      const n = 200;
      const forward = new Array<number>(n).fill(0);
      const backward = new Array<number>(n).fill(0);
      const cellUs = lengthM / 150 / n;
      const atMotor = 720 / 880;
      const atSource = (sourceOhm - 80) / (sourceOhm + 80);
      let peak = 0;
      for (let step = 0; step < 40 * n; step++) {
        const u = 566 * Math.min(1, (step * cellUs) / 0.2);
        const arriving = forward.pop() as number;
        backward.push(arriving * atMotor);
        forward.unshift((u * 80) / (80 + sourceOhm) + (backward.shift() as number) * atSource);
        peak = Math.max(peak, arriving * (1 + atMotor));
      }
      near(calc('reflectedWave', { ...wave, lengthM, sourceOhm })['latticePeakV'], peak, 0.01);
    }
  });

  it('rises with length and falls with rise time', () => {
    fc.assert(
      fc.property(positive(60), positive(2), (lengthM, k) => {
        const peak = (more: object) =>
          calc('reflectedWave', { ...wave, lengthM, ...more })['linearRulePeakV'];
        expect(peak({ lengthM: lengthM * (1 + k) })).toBeGreaterThanOrEqual(peak({}));
        expect(peak({ riseNs: 200 * (1 + k) })).toBeLessThanOrEqual(peak({}));
      }),
    );
  });

  it('leaks what a capacitor leaks', () => {
    // 2π·50 Hz·100 nF·230 V = 7.226 mA
    near(
      calc('filterLeakage', {
        capacitanceUF: 0.1,
        count: 1,
        phaseToEarthV: 230,
        hz: 50,
        rcdMA: 30,
      })['onePhaseMA'],
      7.2257,
    );
    const cable = calc('earthLeakage', {
      capacitancePFPerM: 1000,
      lengthM: 100,
      phaseToEarthV: 230,
      hz: 50,
      rcdMA: 10,
    });
    near(cable['onePhaseMissingMA'], 7.2257);
    expect([
      cable['overHalf'],
      calc('filterLeakage', {
        capacitanceUF: 0.04,
        count: 1,
        phaseToEarthV: 230,
        hz: 50,
        rcdMA: 30,
      })['over3p5mA'],
    ] as unknown[]).toEqual([true, false]);
    expect(
      calc('cableCharging', {
        capacitancePFPerM: 300,
        lengthM: 100,
        linkV: 566,
        switchingKHz: 4,
      }) as unknown,
    ).toEqual({
      chargeUC: jasmine.any(Number),
      averageA: jasmine.any(Number),
    });
    near(
      calc('cableCharging', { capacitancePFPerM: 300, lengthM: 100, linkV: 566, switchingKHz: 4 })[
        'averageA'
      ],
      0.06792,
    );
  });
});
