import type { Profile, Value } from '../../catalogue/index.js';
import { verdictOfStep, type Expectation, type Job, type ProcedureStep } from '../../job/index.js';
import { areaOf, copperOhm } from '../../line/index.js';
import { MAIN_POLES } from '../../parts/index.js';
import type { Trial } from '../../trials/index.js';
import { stepContext, type StepContext } from '../context.js';
import { deadOf } from '../dead/index.js';
import { DeadPanel, loopsOf } from '../dead/loops.js';
import { energiseOf } from '../energise/index.js';
import { liveOf } from '../live/index.js';
import { incomingOf } from '../live/power.js';
import { PanelRuns } from './runs.js';

/** What a given panel shows at a step of the procedure, and whether that is what was expected. */
export interface PanelReading {
  readonly step: ProcedureStep;
  readonly values: readonly {
    readonly where?: string;
    readonly value?: Value;
    readonly unit?: string;
    /** The meter shows no way. */
    readonly over?: boolean;
  }[];
  readonly verdict: 'pass' | 'fail';
}

/** Above this a meter in the range for wires shows no way, Ω. */
const WAY_OHM = 100;
/** A main contact that is closed, Ω. */
const CLOSED_OHM = 0.01;
/** Share of the room to the nearer limit that a sound panel takes at most. */
const MOST_OFF = 0.6;

/** What is read: a number, a word, or no way at all. */
type Read = { readonly value: Value } | 'over';

const as = (value: Value): Read => ({ value });

/** Both sides of a reading: the job as planned, and the panel as it really is. */
interface Sides {
  readonly planned: StepContext;
  readonly real: StepContext;
  readonly plannedDead: DeadPanel;
  readonly realDead: DeadPanel;
  /** Steps as the real panel would have them. */
  readonly own: ReadonlyMap<string, ProcedureStep>;
}

const found = (ohm: number | null): Read => (ohm !== null && ohm < WAY_OHM ? as(ohm) : 'over');

/** A protective conductor by the copper that is really there, between the ends that are meant. */
function protective({ planned, real }: Sides, wire: string): Read {
  const [meant, there] = [planned.job.adopted?.wires[wire], real.trials.panel.wires[wire]];
  if (!meant || there?.from !== meant.from || there.to !== meant.to) return 'over';
  return as(copperOhm(meant.lengthM, areaOf(there.size)));
}

/** A dead step on the real panel; undefined where its own procedure says what is read. */
function deadRead(sides: Sides, { key }: ProcedureStep): Read | undefined {
  const { planned, real, plannedDead, realDead } = sides;
  if (key.startsWith('dead.pe.')) return protective(sides, key.slice('dead.pe.'.length));
  if (key === 'dead.links') {
    const [links, there] = [planned.trials.panel.links, real.trials.panel.links];
    const same = Object.entries(links).every(([id, position]) => there[id] === position);
    return as(same ? 'asPlanned' : 'otherwise');
  }
  const loop = loopsOf(planned, plannedDead).find(({ name, id }) =>
    key.startsWith(`dead.loop.${name}.${id}.`),
  );
  if (!loop) return undefined;
  const worked = key.endsWith('.worked') ? [loop.id] : [];
  return found(realDead.ohms(loop.at[0], loop.at[1], worked));
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

/** Main poles that are stuck, by hand on the armature or at rest. */
function polesRead(
  { planned, real }: Sides,
  { key, fields = [''] }: ProcedureStep,
): Read[] | undefined {
  const part = {
    'dead.contactor': planned.arrangement.contactor,
    'dead.isolator': planned.installation.shaft.isolator,
  }[key.split('.').slice(0, 2).join('.')];
  const closed = /\.(?:pressed|on)$/u.test(key);
  if (part === undefined || (!closed && !/\.(?:rest|off)$/u.test(key))) return undefined;
  const stuck = MAIN_POLES.map((pole) => real.trials.panel.stuck[`${part}:${pole}`]);
  const welded = real.trials.panel.failed.some((f) => f.device === part && f.what === 'contacts');
  if (closed) return fields.map((_, i) => (stuck[i] === 'open' ? 'over' : as(CLOSED_OHM)));
  return [as(welded || stuck.includes('closed') ? 'through' : 'openLoop')];
}

/** An answer in the form in which the step asks for it: ohms that are no way, and a way where none was expected. */
function asAsked(read: Read, { expect }: ProcedureStep): Read {
  if (expect?.kind === 'state' && expect.is === 'openLoop')
    return as(read === 'over' || read.value === 'openLoop' ? 'openLoop' : 'through');
  if (expect?.kind === 'range' && read !== 'over' && typeof read.value !== 'number') return 'over';
  return read;
}

/** The value of a sound panel a little off, as instruments, copper and springs are; within what is accepted. */
function off(value: number, expect: Expectation | undefined, by: number, each: number): number {
  if (expect?.kind !== 'range' || value < expect.lo || value > expect.hi) return value;
  const room = by < 0 ? value - expect.lo : expect.hi - value;
  const shifted = value + by * MOST_OFF * Math.min(room, Math.max(0.02 * Math.abs(value), 0.01));
  const told = Math.min(expect.hi, Math.max(expect.lo, shifted * each));
  const digits = Math.max(0, 3 - Math.floor(Math.log10(Math.max(1e-3, Math.abs(told)))));
  return Number(told.toFixed(Math.min(4, digits)));
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
    plannedDead: new DeadPanel(planned),
    realDead: new DeadPanel(real),
    own: new Map(ownSteps.map((s) => [s.key, s])),
  };
  const runs = new PanelRuns(job, profile, real.trials.panel);
  const trials = new Map<string, Trial>(live.trials.map((t) => [t.id, t]));
  const seen = (step: ProcedureStep): Read | undefined => {
    const trial = step.from.kind === 'simulation' ? trials.get(step.from.script) : undefined;
    const value = trial && runs.seen(step, trial);
    return value === undefined ? undefined : as(value);
  };
  const one = (step: ProcedureStep): Read =>
    (step.part === 'dead' ? deadRead(sides, step) : undefined) ??
    wakes(sides, step) ??
    linkRead(sides, step) ??
    seen(step) ??
    ownRead(sides, step) ??
    'over';
  return [...dead.steps, ...live.steps].map((step) => {
    const reads = polesRead(sides, step) ?? supplyRead(sides, runs, step) ?? [one(step)];
    return judged(
      step,
      reads.map((read) => asAsked(read, step)),
      random,
    );
  });
}

function judged(step: ProcedureStep, reads: readonly Read[], random?: () => number): PanelReading {
  const { expect, fields = [''], unbalancePct } = step;
  // The places of one reading lie off together, and from each other by a part of what may be.
  const [by, apart] = random ? [2 * random() - 1, (unbalancePct ?? 0) * 0.003] : [0, 0];
  const unit = expect?.kind === 'range' ? { unit: expect.unit } : {};
  const values = fields.map((where, i) => {
    const at = where ? { where } : {};
    const read = reads[i] ?? reads[0];
    if (read === 'over') return { ...at, ...unit, over: true };
    const { value } = read;
    if (typeof value !== 'number') return { ...at, value };
    if (!random) return { ...at, ...unit, value };
    const each = fields.length > 1 ? 1 + apart * (2 * random() - 1) : 1;
    return { ...at, ...unit, value: off(value, expect, by, each) };
  });
  const given = values.flatMap((v) => ('value' in v && v.value !== undefined ? [v.value] : []));
  const whole = given.length === values.length;
  return { step, values, verdict: whole ? verdictOfStep(step, ...given) : 'fail' };
}
