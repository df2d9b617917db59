import fc from 'fast-check';
import { checkJob, Sweep, type SweepRow } from '../hazards/index.js';
import type { Job, Scheme } from '../job/index.js';
import { starterRun, starterSamples, type StarterEvents } from '../testing/starter-case.js';
import { menuStarter, starterJob, withPlan } from '../testing/starter-jobs.js';
import type { Broken } from './broken.js';
import { starterInputs } from './vocabulary.js';

const whole: Broken = { shorted: 0, dead: 0, bypass: false };
const inside = (broken: Partial<Broken>, seesShort = true) => ({
  inside: { broken: { ...whole, ...broken }, seesShort },
});
const scripts = fc.array(
  fc.tuple(
    fc.integer({ min: 0, max: 40_000 }),
    fc.constantFrom(...starterInputs.filter((n) => !n.startsWith('phase'))),
    fc.constantFrom(0, 1),
  ),
  { minLength: 1, maxLength: 12 },
);
const methods = fc.constantFrom('twoWire', 'threeWire', 'twoEnables');
const sampleMs = Array.from({ length: 80 }, (_, i) => 25 + i * 500);

function levelAt(events: StarterEvents, input: string, ms: number, initial: 0 | 1): 0 | 1 {
  const own = events
    .map((e, i) => [e, i] as const)
    .filter(([[at, name]]) => name === input && at <= ms)
    .sort(([a, i], [b, j]) => a[0] - b[0] || i - j);
  return own.at(-1)?.[0][2] ?? initial;
}

describe('a soft starter in which something has failed', () => {
  it('feeds the motor with its bypass welded exactly while the mains reach it, whatever is asked', () => {
    fc.assert(
      fc.property(methods, scripts, fc.boolean(), (startMethod, raw, seesShort) => {
        const events = raw as unknown as StarterEvents;
        const more = inside({ bypass: true }, seesShort);
        return starterSamples({ startMethod }, events, sampleMs, more).every(
          ({ fed, voltsShare }, i) => {
            const at = (input: string): 0 | 1 => levelAt(events, input, sampleMs[i], 1);
            const reached = at('mains') === 1 && at('lineContactor') === 1;
            return fed === reached && voltsShare === (reached ? 1 : 0);
          },
        );
      }),
      { numRuns: 60, seed: 11 },
    );
  });

  it('says so within a second of standing, keeps saying it after a reset, and runs on', () => {
    const events: StarterEvents = [
      [5000, 'reset', 1],
      [5200, 'reset', 0],
    ];
    const shown = starterRun({}, events, [300, 1500, 6000], inside({ bypass: true }));
    expect(shown).toEqual(['ready', 'faulted shortedPole', 'faulted shortedPole']);
    const [, , last] = starterSamples({}, events, [300, 1500, 9000], inside({ bypass: true }));
    expect(last.rpm).toBeGreaterThan(1400);
  });

  it('never turns a resting shaft with a pole that does not fire, and trips for the missing phase', () => {
    const events: StarterEvents = [[100, 'run', 1]];
    const more = inside({ dead: 1 });
    const samples = starterSamples({ phaseLossMs: 1000 }, events, [600, 1000, 1300, 9000], more);
    expect(samples.map(({ rpm }) => rpm)).toEqual([0, 0, 0, 0]);
    expect(samples.map(({ state, fault }) => `${state} ${fault}`)).toEqual([
      'ramping null',
      'ramping null',
      'faulted phaseLoss',
      'faulted phaseLoss',
    ]);
    // √3/2 of the locked current of three phases, at half of the voltage and more.
    const [three] = starterSamples({}, events, [600]);
    expect(three.rpm).toBeGreaterThan(0);
    expect(samples[0].amps).toBeGreaterThan(0.8 * three.amps * (Math.sqrt(3) / 2));
  });

  it('with one pole shorted does not start where it measures its poles, and stands still unasked', () => {
    const events: StarterEvents = [[2000, 'run', 1]];
    const seen = starterSamples({}, events, [300, 1000, 4000], inside({ shorted: 1 }));
    expect(seen.map(({ fed }) => fed)).toEqual([false, false, false]);
    expect(seen[2].fault).toBe('shortedPole');
  });

  it('with one pole shorted and nothing that measures it, goes as if it were whole', () => {
    fc.assert(
      fc.property(methods, scripts, (startMethod, raw) => {
        const events = raw as unknown as StarterEvents;
        const more = inside({ shorted: 1 }, false);
        expect(starterSamples({ startMethod }, events, sampleMs, more)).toEqual(
          starterSamples({ startMethod }, events, sampleMs),
        );
      }),
      { numRuns: 25, seed: 3 },
    );
  });

  it('with two poles shorted hums from rest, and keeps a turning motor turning after its stop', () => {
    const events: StarterEvents = [
      [100, 'run', 1],
      [9000, 'run', 0],
    ];
    const two = inside({ shorted: 2 }, false);
    const [resting, running, stopped] = starterSamples({}, events, [50, 8000, 12_000], two);
    expect([resting.fed, resting.rpm, resting.amps > 0]).toEqual([true, 0, true]);
    expect(running.state).toBe('running');
    expect([stopped.state, stopped.fed]).toEqual(['ready', true]);
    expect(stopped.rpm).toBeGreaterThan(1300);
    const whole = starterSamples({}, events, [12_000])[0];
    expect(whole.fed).toBeFalse();
  });
});

describe('what fails inside a soft starter, at a whole panel', () => {
  const family = menuStarter;
  const built = (scheme: Partial<Scheme>): Job => withPlan(starterJob(scheme));
  const insideRows = (job: Job): Record<string, SweepRow['worst']> => {
    const sweep = new Sweep(job, family);
    const rows = sweep.faults.map((f) => sweep.judge(f));
    const parts = rows.filter(({ fault }) => fault.fault.kind === 'part');
    return Object.fromEntries(parts.map((r) => [r.fault.key, sweep.lookBehind(r, rows).worst]));
  };

  it('starts the motor where nothing stands ahead, and stops where a relay of its own opens the contactor', () => {
    expect(insideRows(built({ lineContactor: 'none' }))).toEqual({
      'poleShorted:device': 'failsSafe',
      'poleDead:device': 'failsSafe',
      'bypassWelded:device': 'startsByItself',
    });
    expect(insideRows(built({ lineContactor: 'byRelay', estop: 'contactor' }))).toEqual({
      'poleShorted:device': 'failsSafe',
      'poleDead:device': 'failsSafe',
      'bypassWelded:device': 'failsSafe',
      'contacts:contactor.line': 'losesStop',
    });
  });

  it('is a finding with the speed that remains, and names what stops it', () => {
    const found = (scheme: Partial<Scheme>) =>
      checkJob(built(scheme), family).find(({ args }) => 'byPower' in args);
    const bare = found({ lineContactor: 'none' });
    expect([bare?.rule, bare?.severity, bare?.args['byPower']]).toEqual([
      'starter.nothingAhead',
      'stop',
      true,
    ]);
    expect(Number(bare?.args['rpm'])).toBeGreaterThan(1400);
    const buttons = found({ lineContactor: 'byButtons', estop: 'contactor' });
    expect([buttons?.rule, buttons?.args['estop'] !== '']).toEqual(['starter.weldedRunsOn', true]);
    expect(found({ lineContactor: 'byRelay', estop: 'contactor' })).toBeUndefined();
  });

  it('is found as well where there is no bypass: then its poles may all conduct', () => {
    const bare = { ...family, policies: { ...family.policies, bypass: { fixed: 'none' } } };
    const of = starterJob({ lineContactor: 'none' });
    const found = checkJob(withPlan(of, bare), bare).find((f) => f.rule === 'starter.nothingAhead');
    expect([found?.args['poles'], found?.args['byPower'], found?.severity]).toEqual([
      true,
      true,
      'stop',
    ]);
  });
});
