import fc from 'fast-check';
import { CalculationError, runCalculation } from '../calculation/index.js';
import { calculations } from '../sums/index.js';
import { ampacityOf, ampacityTables, awgAreaMm2 } from './conductors.js';

const calc = (name: string, args: object) =>
  runCalculation(calculations[name], args as Record<string, unknown>).result as Record<
    string,
    number
  >;
const near = (value: number, wanted: number, share = 1e-3): void => {
  expect(Math.abs(value - wanted))
    .withContext(`${value} against ${wanted}`)
    .toBeLessThanOrEqual(share * Math.max(Math.abs(wanted), 1e-9));
};
const positive = (max: number) => fc.double({ min: 0.01, max, noNaN: true });

describe('acceleration and braking', () => {
  it('accelerates as a fine sum of small steps does, for every kind of load', () => {
    for (const loadKind of ['constant', 'linear', 'square'] as const) {
      const args = {
        inertiaKgm2: 0.5,
        availableTorqueNm: 60,
        loadKind,
        loadTorqueNm: 40,
        loadRatedRpm: 1500,
        speedRpm: 1300,
      };
      let seconds = 0;
      const n = 200_000;
      const w = (2 * Math.PI * 1300) / 60;
      for (let i = 0; i < n; i++) {
        const at = ((i + 0.5) / n) * (1300 / 1500);
        seconds +=
          (0.5 * w) / n / (60 - 40 * { constant: 1, linear: at, square: at * at }[loadKind]);
      }
      near(calc('shortestAcceleration', args)['timeS'], seconds, 1e-6);
    }
    expect(
      calc('shortestAcceleration', {
        inertiaKgm2: 1,
        availableTorqueNm: 10,
        loadKind: 'constant',
        loadTorqueNm: 10,
        speedRpm: 100,
      }) as unknown,
    ).toEqual({ possible: false, timeS: null });
  });

  it('doubling the inertia doubles the time', () => {
    fc.assert(
      fc.property(
        positive(10),
        fc.constantFrom('constant', 'linear', 'square'),
        (inertiaKgm2, loadKind) => {
          const t = (k: number) =>
            calc('shortestAcceleration', {
              inertiaKgm2: inertiaKgm2 * k,
              availableTorqueNm: 60,
              loadKind,
              loadTorqueNm: 40,
              speedRpm: 1400,
            })['timeS'];
          near(t(2), 2 * t(1), 1e-9);
        },
      ),
    );
  });

  const stop = {
    inertiaKgm2: 2,
    fromRpm: 1500,
    toRpm: 300,
    decelS: 4,
    loadTorqueNm: 0,
    efficiency: 1,
    chopperV: 750,
    chopperMaxA: 40,
    cycleS: 60,
    ratedTorqueNm: 50,
  };

  it('brakes exactly the kinetic energy away', () => {
    const kinetic = 0.5 * 2 * ((50 * Math.PI) ** 2 - (10 * Math.PI) ** 2);
    const r = calc('braking', stop);
    near(r['energyJ'], kinetic, 1e-9);
    near(r['averageStopPowerW'], kinetic / 4, 1e-9);
    near(r['averageCyclePowerW'], kinetic / 60, 1e-9);
    near(r['inertiaTorqueNm'], (2 * 40 * Math.PI) / 4, 1e-9);
    near(r['peakPowerW'], 20 * Math.PI * 50 * Math.PI, 1e-9);
    expect([r['minOhm'], r['windowExists'], r['needed']] as unknown[]).toEqual([18.75, true, true]);
  });

  it('a load that brakes enough needs no resistor; too hard a stop has no window', () => {
    const easy = calc('braking', { ...stop, loadTorqueNm: 80 });
    expect([
      easy['brakeTorqueNm'],
      easy['maxOhm'],
      easy['needed'],
      easy['windowExists'],
    ] as unknown[]).toEqual([0, null, false, true]);
    expect(calc('braking', { ...stop, decelS: 0.5 })['windowExists'] as unknown).toBeFalse();
    expect(() => calc('braking', { ...stop, toRpm: 1500 })).toThrowError(
      CalculationError,
      /toRpm must be below 1500/u,
    );
  });

  it('lowers a load, and lifts the link by its energy', () => {
    near(
      calc('overhaulingBraking', {
        massKg: 100,
        speedMPerS: 1,
        efficiency: 1,
        lowerS: 10,
        cycleS: 100,
        chopperV: 700,
      })['powerW'],
      980.665,
    );
    near(
      calc('overhaulingBraking', {
        massKg: 100,
        speedMPerS: 1,
        efficiency: 0.5,
        lowerS: 10,
        cycleS: 100,
        chopperV: 700,
      })['averageCyclePowerW'],
      49.033,
    );
    const rise = calc('dcLinkRise', { capacityUF: 1000, startV: 600, tripV: 800, energyJ: 140 });
    near(rise['afterV'], 800);
    near(rise['energyToTripJ'], 140);
    expect([
      rise['trips'],
      calc('dcLinkRise', { capacityUF: 1000, startV: 600, tripV: 800, energyJ: 139 })['trips'],
    ] as unknown[]).toEqual([true, false]);
  });
});

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

describe('supply', () => {
  it('derates for unbalance along the curve of NEMA MG 1', () => {
    expect(
      [0.5, 1, 2, 3, 5].map(
        (unbalancePct) => calc('unbalanceDerating', { unbalancePct })['factor'],
      ),
    ).toEqual([1, 1, 0.95, 0.88, 0.75]);
    near(calc('unbalanceDerating', { unbalancePct: 3.5 })['factor'], 0.85);
    expect(() => calc('unbalanceDerating', { unbalancePct: 5.1 })).toThrowError(
      CalculationError,
      /at most 5 %/u,
    );
  });

  it('feeds from one phase: the current of the workshop drive lies between 6.4 and 6.9 A', () => {
    for (const truePowerFactor of [0.6, 0.63]) {
      const { currentA } = calc('singlePhaseInputCurrent', {
        outputKw: 0.75,
        supplyV: 230,
        motorEfficiency: 0.826,
        driveEfficiency: 0.96,
        truePowerFactor,
      });
      expect(currentA).toBeGreaterThan(6.3);
      expect(currentA).toBeLessThan(6.95);
    }
    near(calc('singlePhaseFeed', { threePhaseInputA: 10 })['singlePhaseInputA'], 17.3205);
  });

  it('derates for altitude and heat by hand', () => {
    const air = {
      altitudeM: 1600,
      altitudeFromM: 1000,
      altitudePctPer100M: 1,
      ambientC: 45,
      ambientFromC: 40,
      ambientPctPerK: 2,
      ratedA: 10,
    };
    near(calc('derating', air)['usableA'], 10 * 0.94 * 0.9);
    expect(calc('derating', { ...air, altitudeM: 300, ambientC: 20 })['factor']).toBe(1);
    expect(() => calc('derating', { ...air, ambientPctPerK: 8, ambientC: 53 })).toThrowError(
      CalculationError,
      /below 52.5 °C/u,
    );
  });

  it('dips: the three rules agree for a stiff supply, and the phasors as worked apart', () => {
    const start = {
      sourceKVA: 250,
      sourceZPct: 4,
      motorKw: 37,
      efficiency: 0.94,
      powerFactor: 0.85,
      startMultiple: 7.1,
      startPowerFactor: 0.3,
    };
    const r = calc('startDip', start);
    near(r['shortCircuitKVA'], 6250);
    near(r['startKVA'], 328.8, 1e-3);
    near(r['dipSimplePct'], 5.26, 1e-3);
    near(r['dipDividerPct'], 328.785 / 65.78785, 1e-3);
    // |1/(1 + j·0.0526·e^(−jφ))| with sin φ = 0.9539, cos φ = 0.3
    near(
      r['dipPhasorPct'],
      100 * (1 - 1 / Math.hypot(1 + 0.052606 * 0.953939, 0.052606 * 0.3)),
      1e-3,
    );
    const stiff = calc('startDip', { ...start, sourceKVA: 250_000 });
    near(stiff['dipDividerPct'], stiff['dipSimplePct'], 1e-4);
  });

  it('has the short-circuit current of a transformer: S/(√3·U·z)', () => {
    near(calc('prospectiveCurrent', { sourceKVA: 250, sourceZPct: 4, volts: 400 })['kiloA'], 9.021);
    expect(
      calc('prospectiveCurrent', {
        sourceKVA: 250,
        sourceZPct: 4,
        volts: 400,
        lengthM: 50,
        areaMm2: 16,
      })['kiloA'],
    ).toBeLessThan(4.5);
  });

  it('budgets transformers and supplies by each rule', () => {
    const t = { holdingVA: [12, 8, 8], inrushVA: [90, 60, 60], ratingVA: 100 };
    const peak = (rule: string) => calc('controlTransformer', { ...t, rule })['peakVA'];
    expect([
      peak('sumPlusLargest'),
      peak('switchedOne'),
      peak('vectorSum').toFixed(3),
    ] as unknown[]).toEqual([118, 106, Math.hypot(28, 90).toFixed(3)]);
    near(calc('controlTransformer', { ...t, rule: 'vectorSum' })['neededVA'], 94.4);
    expect(() =>
      calc('controlTransformer', { ...t, inrushVA: [1], rule: 'vectorSum' }),
    ).toThrowError(CalculationError, /3 items/u);
    const ok = (more: object) =>
      calc('supplyBudget', {
        loadsA: [1, 0.5],
        largestInrushA: 0.5,
        ratingA: 2.5,
        reservePct: 20,
        ...more,
      })['ok'] as unknown;
    expect([
      ok({}),
      ok({ ratingA: 1.8 }),
      ok({ largestInrushA: 1.2 }),
      ok({ ratingA: 1.875, largestInrushA: 0 }),
    ]).toEqual([true, false, false, true]);
  });

  it('asks of insulation what IEEE 43 asks, and halves it for every 10 K', () => {
    expect(calc('minimumInsulation', { ratedKv: 0.4, winding: 'random' }) as unknown).toEqual({
      classicMOhm: 1.4,
      modernMOhm: 5,
    });
    near(calc('insulationAt40', { readingMOhm: 200, windingC: 20 })['at40MOhm'], 50);
    near(calc('insulationAt40', { readingMOhm: 50, windingC: 50 })['at40MOhm'], 100);
    expect(calc('polarizationIndex', { at1MinMOhm: 200, at10MinMOhm: 500 })['index']).toBe(2.5);
  });

  it('cools an enclosure, and says the air it needs', () => {
    const box = { lossW: [84, 30], areaM2: 1.6, ambientC: 30, maxC: 40 };
    near(calc('enclosureHeat', box)['riseK'], 114 / 8.8);
    expect(calc('enclosureHeat', box)['ok'] as unknown).toBeFalse();
    near(calc('enclosureHeat', box)['airM3PerH'], (3.1 * (114 - 88)) / 10);
    expect(calc('enclosureHeat', { ...box, areaM2: 3 })['airM3PerH']).toBe(0);
  });

  it('falls: distortion with reactance, torque with speed', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 9, noNaN: true }),
        (x) =>
          calc('currentDistortion', { reactancePct: x + 0.5 })['thdPct'] <
          calc('currentDistortion', { reactancePct: x })['thdPct'],
      ),
    );
    const limit = (hz: number, cooling = 'self') =>
      calc('lowSpeedTorque', { hz, ratedHz: 50, cooling })['limitPct'];
    expect([limit(0), limit(12.5), limit(25), limit(50), limit(100), limit(5, 'forced')]).toEqual([
      50, 75, 100, 100, 50, 100,
    ]);
  });
});
