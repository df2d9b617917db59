import fc from 'fast-check';
import { CalculationError } from '../calculation/index.js';
import { calc, near } from '../testing/calculations.js';

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
    // Half of the inrush is wattless: only what is not counts.
    const half = { ...t, rule: 'pointEight', inrushPowerFactor: 0.5 };
    near(calc('controlTransformer', half)['neededVA'], 0.8 * (28 + 45));
    near(calc('controlTransformer', half)['peakVA'], 58.4);
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
