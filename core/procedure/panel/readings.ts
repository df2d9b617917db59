import type { Profile } from '../../catalogue/index.js';
import type { Expectation, Job, ProcedureStep } from '../../job/index.js';
import type { Trial } from '../../trials/index.js';
import { stepContext, type StepContext } from '../context.js';
import { deadOf } from '../dead/index.js';
import { energiseOf } from '../energise/index.js';
import { liveOf } from '../live/index.js';
import { incomingOf } from '../live/power.js';
import { DeadReads } from './dead-readings.js';
import { as, judged, type PanelReading, type Read } from './judged.js';
import { PanelRuns } from './runs.js';

/** Both sides of a reading: the job as planned, and the panel as it really is. */
interface Sides {
  readonly planned: StepContext;
  readonly real: StepContext;
  /** Steps as the real panel would have them. */
  readonly own: ReadonlyMap<string, ProcedureStep>;
}

/** What was switched on wakes otherwise than the plan says. */
function wakes(sides: Sides, step: ProcedureStep): Read | undefined {
  if (step.section !== 'energise' || step.expect?.kind !== 'state') return undefined;
  const { is } = step.expect;
  if (is !== 'nothingHappens' && is !== 'onlyThese') return undefined;
  const now = energiseOf(sides.real, true).steps.find((s) => s.key === step.key)?.must.args;
  const same = (name: string): boolean => now?.[name] === step.must.args[name];
  if (same('parts') && same('gone')) return as(is);
  return as(is === 'nothingHappens' ? 'somethingHappens' : 'others');
}

/** A link or slide switch that is looked at before anything is switched on. */
function linkRead({ planned, real }: Sides, { key, expect }: ProcedureStep): Read | undefined {
  if (!key.startsWith('link.') || expect?.kind !== 'state') return undefined;
  const id = key.slice('link.'.length);
  const same = real.trials.panel.links[id] === planned.trials.panel.links[id];
  return as(same ? expect.is : 'otherwise');
}

const nominal = (expect: Expectation | undefined): Read | undefined =>
  expect && as(expect.kind === 'state' ? expect.is : expect.nominal);

/** What the real panel's own procedure says of the same step: what it does instead, where it is required otherwise. */
function ownRead({ own }: Sides, step: ProcedureStep): Read | undefined {
  const there = own.get(step.key);
  if (!there) return undefined;
  const unmet = there.requirement?.unmet;
  return unmet === undefined ? nominal(there.expect) : as(unmet);
}

/** Poles of the supply at the incoming side of the main breaker, with everything behind it open. */
function supplyRead({ planned }: Sides, runs: PanelRuns, step: ProcedureStep): Read[] | undefined {
  const at = step.key === 'supply.volts' ? incomingOf(planned) : [];
  const { trial } = energiseOf(planned);
  if (at.length < 2) return undefined;
  const atUs = Math.round(trial.endMs * 1000) - 1;
  return (step.fields ?? ['']).map((_, i) => {
    const [plus, minus] = [at[i], at[(i + 1) % at.length]];
    const from = { kind: 'simulation', script: trial.id, atUs } as const;
    const seen = runs.seen(
      { ...step, from, sees: { kind: 'volts', plus, minus, ac: true } },
      trial,
    );
    return typeof seen === 'number' ? as(seen) : 'over';
  });
}

/**
 * What a panel would show at every step of the procedure of a job, with the verdict: dead checks from the panel's own
 * circuit, switching on from what wakes in it, live tests by simulating the acts of the plan on it.
 *
 * @param job the job as planned; its procedure is worked through
 * @param panel the same job with what is really otherwise as its deviations
 * @param random numbers from 0 to 1 by which a reading lies off; without them it is as simulated
 * @returns nothing for a job without an adopted plan; a step that this panel has no answer to is read as over range
 * @example readingsOf(job, profile, job).every((r) => r.verdict === 'pass') // true
 */
export function readingsOf(
  job: Job,
  profile: Profile,
  panel: Job,
  random?: () => number,
): PanelReading[] {
  const [dead, live] = [deadOf(job, profile), liveOf(job, profile)];
  if (live.steps.length === 0) return [];
  const [planned, real] = [stepContext(job, profile), stepContext(panel, profile)];
  const ownSteps = [...deadOf(panel, profile).steps, ...liveOf(panel, profile).steps];
  const sides: Sides = {
    planned,
    real,
    own: new Map(ownSteps.map((s) => [s.key, s])),
  };
  const deadReads = new DeadReads(planned, real.trials.panel);
  const runs = new PanelRuns(job, profile, real.trials.panel);
  const trials = new Map<string, Trial>(live.trials.map((t) => [t.id, t]));
  const seen = (step: ProcedureStep): Read | undefined => {
    const trial = step.from.kind === 'simulation' ? trials.get(step.from.script) : undefined;
    const value = trial && runs.seen(step, trial);
    return value === undefined ? undefined : as(value);
  };
  const one = (step: ProcedureStep): Read =>
    wakes(sides, step) ?? linkRead(sides, step) ?? seen(step) ?? ownRead(sides, step) ?? 'over';
  return [...dead.steps, ...live.steps].map((step) => {
    const dead = step.part === 'dead' ? deadReads.at(step) : undefined;
    return judged(step, dead ?? supplyRead(sides, runs, step) ?? [one(step)], random);
  });
}
