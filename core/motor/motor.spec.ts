import fc from 'fast-check';
import { CalculationError } from '../calculation/index.js';
import { integrate, largestBetween, leastSquares, rootBetween } from '../numeric/index.js';
import { breakdownSlip, loadSlip, motorAt, type MotorCircuit } from './circuit.js';
import { fitCircuit, fitErrors, type FitPlate } from './fit.js';
import {
  minimumStartVoltage,
  motorBreakdown,
  motorLoadPoint,
  startTorqueAtLimit,
} from './motor-point.js';
import type { LoadCurve } from './load-curve.js';
import { runUpOf } from './run-up.js';
import type { StartWay } from './start-way.js';
import { startAgainstClass, tripTime, type TripClass } from './thermal.js';

// Chapman, Electric Machinery Fundamentals, example 6-3 and 6-5: 460 V, 25 hp, 60 Hz, 4 poles, star.
const chapman: MotorCircuit = {
  lineV: 460,
  hz: 60,
  poles: 4,
  statorOhm: 0.641,
  statorLeakageOhm: 1.106,
  magnetisingOhm: 26.3,
  rotorLeakageOhm: 0.464,
  rotorOhm: 0.332,
};
// Fitzgerald, Kingsley and Umans, Electric Machinery, examples 6.2 and 6.3: 220 V, 7.5 kW, 60 Hz, 6 poles, star.
const fitzgerald: MotorCircuit = {
  lineV: 220,
  hz: 60,
  poles: 6,
  statorOhm: 0.294,
  statorLeakageOhm: 0.503,
  magnetisingOhm: 13.25,
  rotorLeakageOhm: 0.209,
  rotorOhm: 0.144,
};

const within = (value: number, wanted: number, share: number): void => {
  expect(Math.abs(value / wanted - 1))
    .withContext(`${value} against ${wanted}`)
    .toBeLessThanOrEqual(share);
};

const plate = (
  powerKw: number,
  lineV: number,
  hz: number,
  rpm: number,
  currentA: number,
  powerFactor: number,
  efficiency: number,
  a: number,
  t: number,
  k: number,
): FitPlate => ({
  powerKw,
  lineV,
  hz,
  rpm,
  currentA,
  powerFactor,
  efficiency,
  lockedCurrentRatio: a,
  lockedTorqueRatio: t,
  breakdownRatio: k,
});
const drum = plate(7.5, 400, 50, 1460, 14.4, 0.83, 0.907, 7.2, 2.3, 3);
const crush = plate(37, 400, 50, 1480, 66.8, 0.85, 0.94, 7.1, 2.2, 2.7);
const chip = plate(44.742, 460, 60, 1785, 68.9, 0.86, 0.95, 6.3, 1.6, 2.3);
const small = [
  drum,
  plate(2.2, 400, 50, 1440, 4.5, 0.81, 0.87, 6.4, 2.4, 3),
  plate(0.75, 230, 50, 1420, 3, 0.76, 0.826, 5.2, 2.4, 2.8),
  plate(1.1, 400, 50, 1435, 2.4, 0.78, 0.843, 6.1, 2.5, 2.9),
  plate(1.5, 400, 50, 1435, 3.2, 0.79, 0.856, 6.3, 2.6, 3.1),
  plate(11.1855, 460, 60, 1770, 18.8, 0.81, 0.924, 6.2, 1.8, 2.5),
];

describe('motor circuit', () => {
  it('gives the published currents, torques and powers of textbook machines', () => {
    const a = motorAt(chapman, 0.022);
    within(a.statorA, 18.88, 0.005);
    within(a.powerFactor, 0.833, 0.005);
    within(a.inputW, 12_530, 0.005);
    within(a.torqueNm, 62.8, 0.005);
    within(a.shaftW, 11_585, 0.005);
    const b = motorAt(fitzgerald, 0.02);
    within(b.statorA, 18.8, 0.005);
    within(b.powerFactor, 0.845, 0.005);
    within(b.torqueNm * ((4 * Math.PI * 60) / 6), 5740, 0.005);
    within(motorAt(fitzgerald, 1).torqueNm, 78, 0.01);
  });

  it('finds the breakdown where the closed form of one cage has it', () => {
    // The book rounds its Thevenin circuit (X_th ≈ X1), hence 2 %.
    within(breakdownSlip(chapman), 0.198, 0.02);
    within(motorBreakdown.run({ circuit: chapman }).torqueNm, 229, 0.02);
    within(breakdownSlip(fitzgerald), 0.192, 0.005);
    within(motorBreakdown.run({ circuit: fitzgerald }).torqueNm, 175, 0.005);
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 3, noNaN: true }), (k) => {
        const c = { ...chapman, rotorOhm: chapman.rotorOhm * k };
        const { statorOhm: r, statorLeakageOhm: x, magnetisingOhm: m } = c;
        // Thevenin of stator and magnetising branch, reckoned apart from the solver.
        const d = r * r + (x + m) ** 2;
        const rTh = (m * m * r) / d;
        const xTh = (m * (r * r + x * (x + m))) / d;
        within(breakdownSlip(c), c.rotorOhm / Math.hypot(rTh, xTh + c.rotorLeakageOhm), 1e-5);
      }),
      { numRuns: 40 },
    );
  });

  it('balances its powers, and scales with voltage', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.002, max: 1, noNaN: true }),
        fc.double({ min: 0.2, max: 1, noNaN: true }),
        (slip, share) => {
          const p = motorAt(chapman, slip);
          const copper =
            3 * (p.statorA ** 2 * chapman.statorOhm + p.rotorA ** 2 * chapman.rotorOhm);
          within(p.shaftW + copper, p.inputW, 1e-9);
          const less = motorAt(chapman, slip, chapman.lineV * share);
          within(less.torqueNm, p.torqueNm * share ** 2, 1e-9);
          within(less.statorA, p.statorA * share, 1e-9);
        },
      ),
    );
  });

  it('carries a load on the running side, and says the limit when it cannot', () => {
    const at = motorLoadPoint.run({ circuit: chapman, loadTorqueNm: 62.8 });
    within(at.slip, 0.022, 0.005);
    expect(() => motorLoadPoint.run({ circuit: chapman, loadTorqueNm: 240 })).toThrowError(
      CalculationError,
      /at most 230\.8 Nm/u,
    );
    expect(loadSlip(chapman, () => 0)).toBeLessThan(1e-6);
    within(
      minimumStartVoltage.run({ circuit: chapman, breakawayNm: 26 }).fraction,
      Math.sqrt(26 / motorAt(chapman, 1).torqueNm),
      1e-9,
    );
    expect(
      startTorqueAtLimit.run({ lockedCurrentRatio: 7, lockedTorqueRatio: 2.2, limitRatio: 3.5 }),
    ).toEqual({ voltageFraction: 0.5, torqueRatio: 0.55 });
  });
});

describe('fit of the circuit', () => {
  for (const p of [crush, ...small]) {
    it(`meets every number of the plate of ${p.powerKw} kW within 0.1 %`, () => {
      const { errors } = fitCircuit(p);
      for (const [name, error] of Object.entries(errors))
        if (name !== 'pullUp') expect(Math.abs(error)).withContext(name).toBeLessThan(0.001);
    });
  }

  it('finds back the circuit behind a made-up data sheet', () => {
    const one = fitCircuit(crush).circuit;
    const rated = motorAt(one, 1 - 1480 / 1500);
    const locked = motorAt(one, 1);
    const again = fitCircuit({
      ...crush,
      powerKw: (rated.torqueNm * 2 * Math.PI * 1480) / 60_000,
      currentA: rated.statorA,
      powerFactor: rated.powerFactor,
      lockedCurrentRatio: locked.statorA / rated.statorA,
      lockedTorqueRatio: locked.torqueNm / rated.torqueNm,
      breakdownRatio: motorBreakdown.run({ circuit: one }).torqueNm / rated.torqueNm,
    }).circuit;
    for (const slip of [0.005, 0.0133, 0.05, 0.2, 0.5, 1])
      within(motorAt(again, slip).torqueNm, motorAt(one, slip).torqueNm, 0.02);
  });

  it('weighs an assumed pull-up torque least: the plate of CHIP within 2 %', () => {
    const { circuit, errors } = fitCircuit(chip);
    expect(fitErrors(circuit, chip)).toEqual(errors);
    for (const [name, error] of Object.entries(errors))
      if (name !== 'pullUp') expect(Math.abs(error)).withContext(name).toBeLessThan(0.02);
  });

  it('refuses a speed at or above that of the field', () => {
    expect(() => fitCircuit({ ...crush, rpm: 3100 })).toThrowError(
      CalculationError,
      /below 3000 rpm/u,
    );
  });
});

describe('run-up', () => {
  const circuits = { crush: fitCircuit(crush).circuit, chip: fitCircuit(chip).circuit };
  const crushLoad: LoadCurve = {
    kind: 'square',
    constantNm: 0.08 * 238.7,
    torqueNm: 0.1 * 238.7,
    ratedRpm: 1500,
  };
  const chipLoad: LoadCurve = {
    kind: 'square',
    constantNm: 0.05 * 239.4,
    torqueNm: 0.55 * 239.4,
    ratedRpm: 1800,
  };
  const crushed = (start: StartWay, more = 1) =>
    runUpOf(circuits.crush, (0.44 + 8.5) * more, crushLoad, start);
  const chipped = (start: StartWay) => runUpOf(circuits.chip, 0.41 + 9.5, chipLoad, start);

  // Run-ups of the demo drives by an independent rough integration, ±20 %.
  for (const [limit, wanted] of [
    [undefined, 3],
    [3.5, 13],
    [3, 19],
    [2.5, 33],
  ] as const) {
    it(`of the crusher takes about ${wanted} s at ${limit ?? 'full voltage'}`, () => {
      const r = crushed(
        limit === undefined ? { kind: 'direct' } : { kind: 'currentLimit', limitA: limit * 66.8 },
      );
      expect(r.stalls).toBeFalse();
      within(r.startS as number, wanted, 0.2);
      if (limit) within(r.peakA, limit * 66.8, 1e-6);
    });
  }

  it('of the chipper reaches speed at 400 % and stalls at 300 %', () => {
    within(chipped({ kind: 'direct' }).startS as number, 6, 0.2);
    within(chipped({ kind: 'currentLimit', limitA: 4.5 * 68.9 }).startS as number, 15, 0.2);
    within(chipped({ kind: 'currentLimit', limitA: 4 * 68.9 }).startS as number, 22, 0.2);
    const stalled = chipped({ kind: 'currentLimit', limitA: 3 * 68.9 });
    expect([stalled.stalls, stalled.startS]).toEqual([true, null]);
    expect(stalled.curve[stalled.curve.length - 1].rpm).toBeLessThan(0.9 * 1800);
  });

  it('takes twice as long with twice the inertia', () => {
    within(
      crushed({ kind: 'direct' }, 2).startS as number,
      2 * (crushed({ kind: 'direct' }).startS as number),
      1e-3,
    );
  });

  it('agrees with a tenth of the step, and with a plain fixed-step integration', () => {
    for (const start of [
      { kind: 'direct' },
      { kind: 'rampAndLimit', fraction: 0.4, rampS: 4, limitA: 234 },
      { kind: 'voltageRamp', fraction: 0.5, rampS: 6 },
    ] as const) {
      const plain = runUpOf(circuits.crush, 8.94, crushLoad, start);
      within(
        runUpOf(circuits.crush, 8.94, crushLoad, start, { stepShare: 0.1 }).startS as number,
        plain.startS as number,
        0.005,
      );
      const [seconds, i2t] = euler(circuits.crush, 8.94, 19.096, 23.87 / 157.0796 ** 2, start);
      within(plain.startS as number, seconds, 0.005);
      within(plain.i2tA2s, i2t, 0.005);
    }
  });

  it('waits until the voltage breaks the load loose', () => {
    const r = runUpOf(
      circuits.crush,
      8.94,
      { ...crushLoad, breakawayNm: 240 },
      { kind: 'voltageRamp', fraction: 0.3, rampS: 10 },
    );
    const full = motorAt(circuits.crush, 1).torqueNm;
    within(r.breakawayS as number, ((Math.sqrt(240 / full) - 0.3) / 0.7) * 10, 1e-6);
    expect(
      runUpOf(
        circuits.crush,
        8.94,
        { ...crushLoad, breakawayNm: 240 },
        { kind: 'fixedVoltage', fraction: 0.5 },
      ).stalls,
    ).toBeTrue();
  });

  it('follows a torque ramp', () => {
    const way: StartWay = {
      kind: 'torqueRamp',
      initialTorquePct: 30,
      torqueLimitPct: 100,
      rampS: 5,
    };
    const r = runUpOf(circuits.crush, 8.94, crushLoad, way, { ratedTorqueNm: 200 });
    expect(r.stalls).toBeFalse();
    const followed = r.curve.filter((c) => c.t < 3.5 && c.voltageFraction < 1);
    expect(followed.length).toBeGreaterThan(5);
    for (const p of followed) within(p.torqueNm, 60 + 40 * p.t, 1e-6);
    for (const p of r.curve.filter((c) => c.t > 3.6 && c.voltageFraction < 1))
      within(p.torqueNm, 200, 1e-6);
  });

  it('refuses a load beyond the breakdown', () => {
    expect(() =>
      runUpOf(circuits.crush, 8.94, { kind: 'constant', torqueNm: 900 }, { kind: 'direct' }),
    ).toThrowError(CalculationError, /breakdown/u);
  });
});

/** Euler's method with a tenth of a millisecond, as plain as can be: time to 95 % of the final speed, and I²t. */
function euler(
  c: MotorCircuit,
  inertia: number,
  base: number,
  square: number,
  start: StartWay,
): [number, number] {
  const field = (4 * Math.PI * c.hz) / c.poles;
  const goal = 0.95 * field * (1 - (loadSlip(c, (w) => base + square * w * w) as number));
  let [w, t, i2t] = [0, 0, 0];
  const h = 1e-4;
  while (w < goal) {
    const p = motorAt(c, 1 - w / field);
    let k = 1;
    if (start.kind === 'voltageRamp' || start.kind === 'rampAndLimit')
      k = Math.min(
        1,
        (start.fraction as number) +
          ((1 - (start.fraction as number)) * t) / (start.rampS as number),
      );
    if (start.limitA) k = Math.min(k, start.limitA / p.statorA);
    w = Math.max(0, w + (h * (p.torqueNm * k * k - base - square * w * w)) / inertia);
    i2t += h * (p.statorA * k) ** 2;
    t += h;
  }
  return [t, i2t];
}

describe('overload', () => {
  const time = (tripClass: TripClass, currentRatio: number, from = 'cold') =>
    tripTime.run({ tripClass, currentRatio, from, threshold: 1.15 }).timeS;

  it('never trips at 1.05, always at 1.2, and at 7.2 within the window of its class (IEC 60947-4-1)', () => {
    for (const tripClass of ['10A', '10', '20', '30'] as const) {
      expect(time(tripClass, 1.05)).toBeNull();
      expect(time(tripClass, 1.05, 'hot')).toBeNull();
      expect(time(tripClass, 1.2)).toBeGreaterThan(60);
      const { timeS, windowMinS, windowMaxS } = tripTime.run({
        tripClass,
        currentRatio: 7.2,
        from: 'cold',
        threshold: 1.15,
      });
      expect(timeS).toBeCloseTo(windowMaxS, 9);
      expect(windowMinS).toBeLessThan(windowMaxS);
    }
  });

  it('integrates its own differential equation', () => {
    const tau = 20 / Math.log(51.84 / (51.84 - 1.3225));
    let [theta, t] = [1, 0];
    for (; theta < 1.3225; t += 1e-3) theta += (1e-3 * (16 - theta)) / tau;
    within(time('20', 4, 'hot') as number, t, 0.001);
  });

  it('trips earlier with more current and from hot', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.2, max: 9, noNaN: true }),
        fc.double({ min: 1.01, max: 2, noNaN: true }),
        (ratio, k) => {
          expect(time('10', ratio * k) as number).toBeLessThan(time('10', ratio) as number);
          expect(time('10', ratio, 'hot') as number).toBeLessThan(time('10', ratio) as number);
        },
      ),
    );
  });

  it('judges a start against the class', () => {
    const verdict = (startRatio: number, startS: number, tripClass: TripClass) =>
      startAgainstClass.run({ startRatio, startS, tripClass }).verdict;
    expect([
      verdict(1.1, 500, '10'),
      verdict(3.5, 5, '10'),
      verdict(3.5, 30, '10'),
      verdict(3.5, 200, '10'),
    ]).toEqual(['clear', 'clear', 'doubtful', 'trips']);
  });
});

describe('numerical helpers', () => {
  it('find roots, maxima, least squares and integrals of known functions', () => {
    expect(rootBetween(Math.cos, 0, 3)).toBeCloseTo(Math.PI / 2, 11);
    expect(() => rootBetween((x) => x * x + 1, -1, 1)).toThrowError(RangeError);
    expect(largestBetween((x) => -((x - 1.3) ** 2), 0, 3)).toBeCloseTo(1.3, 6);
    const fit = leastSquares(
      ([a, b]) => [1, 2, 3, 4].map((x) => a * Math.exp(b * x) - 2 * Math.exp(-0.5 * x)),
      [1, -1],
    );
    expect(fit.at.map((x) => x.toFixed(6))).toEqual(['2.000000', '-0.500000']);
    const pendulum = integrate((_t, [x, v]) => [v, -x], [1, 0], {
      end: 2 * Math.PI,
      scale: [1, 1],
      tolerance: 1e-9,
      longest: 1,
      until: () => false,
    });
    expect(pendulum[pendulum.length - 1].y[0]).toBeCloseTo(1, 6);
  });
});
