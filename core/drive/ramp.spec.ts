import fc from 'fast-check';
import * as v from 'valibot';
import { naiveHz } from '../testing/naive-drive.js';
import { runDriveCase } from './case.js';
import { driveCaseSchema } from './vocabulary.js';
import { run, samples, type Events } from '../testing/drive-case.js';

describe('speed', () => {
  it('takes T·(1 + p/100) for a rounded full ramp and the short formula for small steps', () => {
    const rounded = { sCurvePct: 20, referenceHz: 50 };
    expect(run(rounded, {}, [[0, 'forward', 1]], [5950, 6050])).toEqual([
      'accelerating 50',
      'atSpeed 50',
    ]);
    const small = 2 * Math.sqrt((2 * 25 * 0.2) / 50);
    const [before, after] = samples(
      { sCurvePct: 20, referenceHz: 2 },
      {},
      [[0, 'forward', 1]],
      [small * 1000 - 20, small * 1000 + 20],
    );
    expect([before.state, after.state]).toEqual(['accelerating', 'atSpeed']);
  });

  it('holds the edge of a skip band that it came from', () => {
    const events: Events = [
      [0, 'forward', 1],
      [6000, 'referenceHz', 22],
      [9000, 'referenceHz', 30],
      [14000, 'referenceHz', 22],
    ];
    expect(
      run({ referenceHz: 10, skipBandsHz: [[20, 25]] }, {}, events, [5900, 8900, 13900, 17900]),
    ).toEqual(['atSpeed 10', 'atSpeed 20', 'atSpeed 30', 'atSpeed 25']);
  });

  it('runs at the lowest frequency or sleeps below it, by policy', () => {
    expect(run({ minHz: 8, referenceHz: 3 }, {}, [[0, 'forward', 1]], [3000])).toEqual([
      'atSpeed 8',
    ]);
    expect(
      run({ minHz: 8, referenceHz: 3, belowMin: 'sleep' }, {}, [[0, 'forward', 1]], [3000]),
    ).toEqual(['blocked 0']);
  });

  it('never jumps, and never reverses without passing zero', () => {
    const act = fc.record({
      atMs: fc.integer({ min: 0, max: 15_000 }),
      input: fc.constantFrom('forward', 'reverse', 'rampSelect', 'jogForward', 'quickStop'),
      level: fc.constantFrom(0, 1),
    });
    fc.assert(
      fc.property(
        fc.array(act, { minLength: 1, maxLength: 15 }),
        fc.constantFrom(0, 15),
        (acts, sCurvePct) => {
          const events = acts
            .sort((x, y) => x.atMs - y.atMs)
            .map((a): [number, string, number] => [a.atMs, a.input, a.level]);
          const times = Array.from({ length: 2500 }, (_, i) => i * 10);
          const out = samples(
            { accel2S: 2, decel2S: 3, quickStopS: 1, jogWhileRunning: 'wins', sCurvePct },
            {},
            events,
            times,
          );
          for (let i = 1; i < out.length; i++)
            expect(Math.abs(out[i].hz - out[i - 1].hz)).toBeLessThanOrEqual(0.01 * 50 + 1e-6);
        },
      ),
      { numRuns: 40, seed: 5 },
    );
  });

  it('agrees with a naive 1 ms model on random scripts', () => {
    const act = fc.record({
      atMs: fc.integer({ min: 1, max: 20_000 }),
      input: fc.constantFrom('forward', 'reverse', 'run', 'direction', 'enable', 'reference'),
      level: fc.nat(5),
    });
    const policy = fc.record({
      startMethod: fc.constantFrom('levelForwardReverse', 'levelRunDirection'),
      onBothDirections: fc.constantFrom('stop', 'firstWins'),
      onEnableReturn: fc.constantFrom('needFreshEdge', 'followLevel'),
      noReverse: fc.boolean(),
      reverseDeadMs: fc.constantFrom(0, 400),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(act, { maxLength: 14, selector: (a) => a.atMs }),
        policy,
        (acts, p) => {
          const events = acts
            .sort((x, y) => x.atMs - y.atMs)
            .flatMap(({ atMs, input, level }) =>
              input === 'enable'
                ? [
                    { atMs, input: 'enableA', level: level % 2 },
                    { atMs, input: 'enableB', level: level % 2 },
                  ]
                : [
                    {
                      atMs,
                      input: input === 'reference' ? 'referenceHz' : input,
                      level: input === 'reference' ? 10 * level : level % 2,
                    },
                  ],
            );
          const sampleMs = Array.from({ length: 120 }, (_, i) => 150 * i + 75).filter((ms) =>
            acts.every((a) => Math.abs(a.atMs - ms) > 3),
          );
          const input = v.parse(driveCaseSchema, {
            control: {
              maxHz: 50,
              accelS: 4,
              decelS: 6,
              referenceHz: 30,
              filterMs: 0,
              powerUpDelayMs: 0,
              ...p,
            },
            events,
            sampleMs,
          });
          const naive = naiveHz(input, sampleMs);
          runDriveCase(input).forEach((s, i) =>
            expect(Math.abs(s.hz - naive[i]))
              .withContext(`${s.atMs} ms: ${s.hz} against ${naive[i]}`)
              .toBeLessThan(0.15),
          );
        },
      ),
      { numRuns: 120, seed: 99 },
    );
  });
});
