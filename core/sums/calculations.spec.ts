import fc from 'fast-check';
import { CalculationError, runCalculation, type ArgumentSpec } from '../calculation/index.js';
import { calculationGroups, calculations } from './index.js';

type Result = Record<string, number & { length: number }>;
const calc = (name: string, args: object) =>
  runCalculation(calculations[name], args as Record<string, unknown>).result as unknown as Result;
const near = (value: number, wanted: number, share = 1e-3): void => {
  expect(Math.abs(value - wanted))
    .withContext(`${value} against ${wanted}`)
    .toBeLessThanOrEqual(share * Math.max(Math.abs(wanted), 1e-9));
};

/** The numbers among the arguments, with the way to them. */
function* numbers(
  args: Readonly<Record<string, ArgumentSpec>>,
  path: string[] = [],
): Generator<{ path: string[]; spec: ArgumentSpec }> {
  for (const [name, spec] of Object.entries(args)) {
    if (spec.kind === 'record') yield* numbers(spec.fields ?? {}, [...path, name]);
    else if (spec.kind === undefined || spec.kind === 'number')
      yield { path: [...path, name], spec };
  }
}

function withValue(
  args: Readonly<Record<string, unknown>>,
  [head, ...rest]: string[],
  value: unknown,
): Record<string, unknown> {
  return {
    ...args,
    [head]: rest.length
      ? withValue((args[head] ?? {}) as Record<string, unknown>, rest, value)
      : value,
  };
}

describe('every calculation', () => {
  const all = calculationGroups.flatMap((g) => g.calculations);

  it('has the documented name once, a title, a formula, a source and titles of its results', () => {
    const documented =
      'analogScale analogScaleInverse analogBiasGain signalLoss bipolarReference shuntReading converterResolution controllerFullScale dialLoading dialChart shaftSpeed machineSpeed calibrate rampTime sCurveTime reversalTime shortestAcceleration inertiaAtMotor braking overhaulingBraking dcLinkRise dcLinkVoltage motorCurrent voltageDrop longestCable earthLeakage filterLeakage cableCharging reflectedWave unbalance unbalanceDerating singlePhaseFeed singlePhaseInputCurrent derating controlTransformer supplyBudget startDip minimumInsulation insulationAt40 polarizationIndex protectiveConductor discharge motorPoint motorBreakdown motorLoadPoint fitMotor runUp minimumStartVoltage startTorqueAtLimit tripTime startAgainstClass'.split(
        ' ',
      );
    expect(documented.filter((name) => !calculations[name])).toEqual([]);
    expect(new Set(all.map((c) => c.name)).size).toBe(all.length);
    for (const c of all)
      expect(c.example && [c.title, c.formula, c.source].every((text) => text.length > 3))
        .withContext(c.name)
        .toBeTrue();
  });

  for (const c of all) {
    it(`${c.name}: its example gives every result it names, and no other`, () => {
      const { result, working } = runCalculation(c, c.example ?? {});
      expect(Object.keys(result).sort()).toEqual(Object.keys(c.results).sort());
      expect(working.inputs.length).toBeGreaterThan(0);
    });

    it(`${c.name}: outside its range it names the argument and the limit`, () => {
      for (const { path, spec } of numbers(c.args)) {
        const name = path.join('.');
        const outside = [
          spec.max !== undefined ? spec.max + Math.abs(spec.max) * 0.01 + 1 : undefined,
          spec.above,
          spec.min !== undefined ? spec.min - 1 : undefined,
          NaN,
          'x',
        ];
        for (const value of outside.filter((v) => v !== undefined)) {
          let error: unknown;
          try {
            runCalculation(c, withValue(c.example ?? {}, path, value));
          } catch (e) {
            error = e;
          }
          expect(
            error instanceof CalculationError &&
              error.argument === name &&
              error.message.startsWith(name),
          )
            .withContext(`${name} = ${value}`)
            .toBeTrue();
        }
      }
    });
  }
});

describe('signals and speed', () => {
  it('read bias and gain in both definitions', () => {
    near(
      calc('analogBiasGain', {
        inputPct: 50,
        biasPct: 10,
        gainPct: 100,
        maxHz: 50,
        definition: 'twoPoint',
      })['hz'],
      27.5,
    );
    near(
      calc('analogBiasGain', {
        inputPct: 50,
        biasPct: 10,
        gainPct: 100,
        maxHz: 50,
        definition: 'slopeOffset',
      })['hz'],
      30,
    );
    expect(
      calc('analogBiasGain', {
        inputPct: 0,
        biasPct: -20,
        gainPct: 100,
        maxHz: 50,
        definition: 'twoPoint',
      }),
    ).toEqual({
      hz: 0,
      hzUnclamped: -10,
    } as never);
    for (const definition of ['twoPoint', 'slopeOffset'])
      near(
        calc('analogBiasGain', { inputPct: 37, biasPct: 0, gainPct: 100, maxHz: 60, definition })[
          'hz'
        ],
        22.2,
      );
  });

  it('lose a live-zero signal strictly below the threshold, and then do what is set', () => {
    const loss = (x: number, action: string, more = {}) =>
      calc('signalLoss', {
        x,
        lossBelow: 3,
        xLow: 4,
        xHigh: 20,
        hzAtLow: 0,
        hzAtHigh: 50,
        action,
        ...more,
      }) as unknown;
    expect(loss(3, 'stop')).toEqual({ lost: false, hz: 0 });
    expect(loss(12, 'fault')).toEqual({ lost: false, hz: 25 });
    expect(loss(2.999, 'holdLast', { lastHz: 31 })).toEqual({ lost: true, hz: 31 });
    expect(loss(0, 'preset', { presetHz: 15 })).toEqual({ lost: true, hz: 15 });
    expect(loss(0, 'minimum', { minHz: 5 })).toEqual({ lost: true, hz: 5 });
    expect(loss(0, 'fault')).toEqual({ lost: true, hz: 0 });
    expect(() => loss(0, 'preset')).toThrowError(CalculationError, /presetHz is missing/u);
  });

  it('take a reference on both sides of zero', () => {
    const hz = (voltsV: number, more = {}): number =>
      calc('bipolarReference', { voltsV, maxHz: 50, ...more })['hz'];
    expect([hz(-10), hz(5), hz(-12)]).toEqual([-50, 25, -50]);
    expect([hz(0.2, { deadbandV: 0.2 }), hz(0.3, { deadbandV: 0.2 })]).toEqual([0, 1.5]);
    near(hz(5.1, { deadbandV: 0.2, deadbandShape: 'shifted' }), 25);
    fc.assert(
      fc.property(
        fc.double({ min: -12, max: 12, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (v, deadbandV) => hz(v, { deadbandV }) === -hz(-v, { deadbandV }),
      ),
    );
  });

  it('convert loops, counts and commands', () => {
    expect(calc('shuntReading', { mA: 20, shuntOhm: 500, inputOhm: 500 })).toEqual({
      idealV: 10,
      loadedV: 5,
    } as never);
    expect(
      calc('converterResolution', { bits: 10, fullScale: 10.23, x: 5.114, maxHz: 102.3 }),
    ).toEqual({
      count: 511,
      step: jasmine.any(Number),
      quantised: jasmine.any(Number),
      stepHz: jasmine.any(Number),
    } as never);
    near(
      calc('converterResolution', { bits: 10, fullScale: 10.23, x: 5.114, maxHz: 102.3 })[
        'quantised'
      ],
      5.11,
    );
    near(calc('controllerFullScale', { command: 900, fullScale: 1800, maxHz: 60 })['hz'], 30);
    near(
      calc('machineSpeed', { shaftRpm: 1460, gearRatio: 730, drumDiameterM: 3 })['surfaceMPerS'],
      (Math.PI * 3 * 2) / 60,
    );
    expect(calc('machineSpeed', { shaftRpm: 1460, gearRatio: 730 })['surfaceMPerS']).toBeNull();
  });

  it('make a dial chart that agrees mark by mark with the loaded dial', () => {
    const chart = calc('dialChart', {
      potOhm: 10_000,
      inputOhm: 20_000,
      maxHz: 50,
      marks: 3,
      ratedRpm: 1440,
    }) as unknown as {
      rows: { dial: number; volts: number; hz: number; rpm: number }[];
      worstErrorPct: number;
    };
    expect(chart.rows.map((r) => r.volts.toFixed(3))).toEqual([
      '0.000',
      '3.000',
      '6.000',
      '10.000',
    ]);
    near(chart.rows[3].rpm, 1440);
    near(chart.worstErrorPct, -6.667);
  });

  it('calibrate: find the line back, and the correction lands on the wanted one', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.double({ min: -10, max: 10, noNaN: true }),
        fc.integer({ min: 2, max: 12 }),
        (gain, offset, n) => {
          const points = Array.from({ length: n }, (_, i) => ({ x: i, y: gain * i + offset }));
          const r = calc('calibrate', { points, idealGain: 2, idealOffset: 1, span: 10 });
          near(r['gain'], gain, 1e-9);
          near(r['r2'], 1, 1e-9);
          for (const p of points)
            near(r['correctionGain'] * p.y + r['correctionOffset'], 2 * p.x + 1, 1e-6);
        },
      ),
    );
    // Anscombe's first set: y = 3.00 + 0.500 x, r² = 0.67 (The American Statistician 27, 1973).
    const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
    const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
    const r = calc('calibrate', {
      points: x.map((at, i) => ({ x: at, y: y[i] })),
      idealGain: 0.5,
      idealOffset: 3,
      span: 10,
    });
    expect([r['gain'].toFixed(3), r['offset'].toFixed(2), r['r2'].toFixed(2)]).toEqual([
      '0.500',
      '3.00',
      '0.67',
    ]);
    expect(() =>
      calc('calibrate', {
        points: [
          { x: 1, y: 1 },
          { x: 1, y: 2 },
        ],
        idealGain: 1,
        idealOffset: 0,
        span: 1,
      }),
    ).toThrowError(CalculationError, /two different x/u);
  });
});
