import type { Profile } from '../catalogue/index.js';
import { schemeFindings } from '../hazards/index.js';
import { installedOf } from '../installation/index.js';
import { hashOf, type Finding, type Job } from '../job/index.js';
import { adoption, planJob, type NoPlan, type PlanCost } from '../plan/index.js';
import { signalAt, type Trace } from '../trace/index.js';
import type { Arrangement } from '../scheme/index.js';
import { trialsOf, type Run } from '../trials/index.js';
import { withSchool, type Question, type School } from './questions.js';

/** A line of a strip: breakpoints in milliseconds and value, straight between them. */
export interface StripLine {
  readonly id: string;
  /** `output` is what the device drives the motor with, `speed` that of the shaft where it goes on turning by itself. */
  readonly kind: 'supply' | 'control' | 'output' | 'speed' | 'current' | 'torque';
  readonly tag: string;
  /** Highest value of the lane. */
  readonly top: number;
  readonly points: readonly (readonly [number, number])[];
}

export interface Strip {
  readonly endMs: number;
  readonly marks: readonly { readonly atMs: number; readonly what: string }[];
  readonly lines: readonly StripLine[];
}

/** What wishes come to on a job: how it behaves, or why it cannot be had. */
type Outcome =
  | { readonly ok: false; readonly plan: NoPlan }
  | {
      readonly ok: true;
      readonly strip: Strip;
      readonly cost: PlanCost;
      readonly findings: readonly Finding[];
      readonly devices: number;
      /** After the power cut with nothing let go. */
      readonly restarts: boolean;
      /** After letting go of a stop or an emergency stop with the start still given. */
      readonly startsOnRelease: boolean;
    };

/** What a school does on this very job. */
export type Card = { readonly id: string } & Outcome;

export interface Comparison {
  readonly question: string;
  readonly chosen: string | undefined;
  readonly cards: readonly Card[];
  readonly recommended: string | undefined;
  /** Why, as codes for words. */
  readonly reasons: readonly string[];
}

/** The schools of a question on this job, each planned, rehearsed and checked as it would be built. */
export function compareSchools(job: Job, profile: Profile, question: Question): Comparison {
  const cards = question.schools.map((school) => cardOf(job, profile, school));
  const chosen = question.schools.find((s) =>
    Object.entries(s.patch).every(
      ([wish, value]) => value === undefined || job.scheme[wish as keyof Job['scheme']] === value,
    ),
  )?.id;
  return {
    question: question.id,
    chosen: chosen ?? chosenBy(job, question),
    cards,
    ...recommend(job, question, cards),
  };
}

const chosenBy = (job: Job, question: Question): string | undefined => {
  const value = job.scheme[question.id as keyof Job['scheme']];
  return typeof value === 'string' ? value : undefined;
};

const kept = new WeakMap<Job, WeakMap<Profile, Map<string, Outcome>>>();

/** Card of one school. The school that is chosen is in every question the same job: each is worked out once. */
export function cardOf(job: Job, profile: Profile, school: School): Card {
  const scheme = withSchool(job.scheme, school.patch);
  const byProfile = kept.get(job) ?? new WeakMap<Profile, Map<string, Outcome>>();
  kept.set(job, byProfile);
  const known = byProfile.get(profile) ?? new Map<string, Outcome>();
  byProfile.set(profile, known);
  const key = hashOf(scheme);
  const outcome = known.get(key) ?? outcomeOf({ ...job, scheme }, profile);
  known.set(key, outcome);
  return { id: school.id, ...outcome };
}

function outcomeOf(varied: Job, profile: Profile): Outcome {
  const plan = planJob(varied, profile);
  if (!plan.ok) return { ok: false, plan };
  const built: Job = { ...varied, adopted: adoption(plan) };
  const findings = schemeFindings(built, profile, undefined, plan);
  const rule = (name: string): boolean => findings.some((f) => f.rule === name);
  return {
    ok: true,
    strip: stripOf(built, profile),
    cost: plan.cost,
    findings,
    devices: trialsOf(built, profile).arrangement.devices.length,
    restarts: rule('restart.powerReturn') || rule('latch.outlivesPower'),
    startsOnRelease:
      rule('stop.releaseStarts') ||
      rule('condition.returnStarts') ||
      findings.some((f) => String(f.args['requirement']).endsWith('.released')),
  };
}

/** What a built job does in the show trial, as lines to draw. */
export function stripOf(built: Job, profile: Profile): Strip {
  const trials = trialsOf(built, profile);
  const run = trials.tried('show');
  if (!run) return { endMs: 0, marks: [], lines: [] };
  const { endMs, phases } = run.trial;
  return {
    endMs,
    // The first phase only waits for the supply.
    marks: phases.slice(1).map(({ mark, fromMs }) => ({ atMs: fromMs, what: mark })),
    lines: linesOf(run, built, trials.arrangement),
  };
}

function linesOf({ trace, trial, installation }: Run, job: Job, a: Arrangement): StripLine[] {
  const tag = (id: string): string => job.adopted?.devices[id]?.tag ?? id;
  const worked = [
    ...Object.values(a.starts),
    ...a.stops.slice(0, 1),
    ...(a.direction ? [a.direction] : []),
    ...(a.estop ? [a.estop] : []),
  ];
  const devices = [...new Set(worked.flatMap((id) => a.operations[id]?.device ?? []))];
  const line = (id: string, kind: StripLine['kind'], name: string, top: number): StripLine => ({
    id,
    kind,
    tag: name,
    top,
    points: pointsOf(trace, id, trial.endMs),
  });
  const [supply] = installedOf(installation, 'supply');
  return [
    line(`${supply?.id}.on`, 'supply', '', 1),
    ...devices.map((id) => {
      const signal = trace.signals.find((s) => s.id === `${id}.position`);
      const top = Math.max(1, (signal?.states?.length ?? 2) - 1);
      return line(`${id}.position`, 'control', tag(id), top);
    }),
    line('device.hz', 'output', '', installation.device.facts.maxHz),
    ...ofMotor(trace, 'device.amps', () =>
      line('shaft.hz', 'speed', '', installation.device.facts.maxHz),
    ),
    ...ofMotor(trace, 'device.amps', (top) => line('device.amps', 'current', '', top)),
    ...ofMotor(trace, 'device.torqueNm', (top) => line('device.torqueNm', 'torque', '', top)),
  ];
}

/** A quantity of the motor, where the device knows it. */
function ofMotor(trace: Trace, id: string, made: (top: number) => StripLine): StripLine[] {
  const i = trace.signals.findIndex((s) => s.id === id);
  return i < 0 ? [] : [made(Math.max(1, ...trace.segments[i].y))];
}

/** Breakpoints of a signal; a curved piece is cut in eight. */
function pointsOf(trace: Trace, id: string, endMs: number): (readonly [number, number])[] {
  const index = trace.signals.findIndex((s) => s.id === id);
  if (index < 0) return [];
  const { t, ddy } = trace.segments[index];
  const points: [number, number][] = [];
  t.forEach((start, k) => {
    const end = Math.min(t[k + 1] ?? endMs * 1000, endMs * 1000);
    const cuts = ddy[k] === 0 ? 1 : 8;
    for (let i = 0; i < cuts; i++)
      points.push([
        (start + ((end - start) * i) / cuts) / 1000,
        signalAt(trace, id, start + ((end - start) * i) / cuts),
      ]);
    if (end > start) points.push([end / 1000, signalAt(trace, id, end - 1)]);
  });
  return points;
}

const graveness = { stop: 100, warn: 10, advise: 1 } as const;

/**
 * The school to recommend: the fewest and least grave hazards for those who can be exposed, then the order of the
 * schools. A restart that is wished is no hazard of the school.
 */
function recommend(
  job: Job,
  question: Question,
  cards: readonly Card[],
): Pick<Comparison, 'recommended' | 'reasons'> {
  const wishesRestart = job.scheme.powerReturn === 'restart';
  const weight = (card: Card): number => {
    if (!card.ok) return Infinity;
    const counted = card.findings.filter(
      (f) => !(wishesRestart && f.rule === 'restart.powerReturn'),
    );
    const missesRestart = wishesRestart && question.id !== 'powerReturn' && !card.restarts ? 50 : 0;
    return missesRestart + counted.reduce((sum, f) => sum + graveness[f.severity], 0);
  };
  const possible = cards.filter((c) => c.ok);
  if (possible.length === 0) return { recommended: undefined, reasons: [] };
  const best = possible.reduce((x, y) => (weight(y) < weight(x) ? y : x));
  const others = possible.filter((c) => c.id !== best.id);
  const reasons: string[] = [];
  if (best.ok) {
    if (wishesRestart && best.restarts) reasons.push('restartWished');
    else if (others.some((c) => c.ok && c.restarts) && !best.restarts)
      reasons.push(
        (job.scheme.exposed ?? 'atMachine') === 'nobody' ? 'noRestart' : 'noRestartPeople',
      );
    if (others.some((c) => c.ok && c.startsOnRelease) && !best.startsOnRelease)
      reasons.push('noReleaseStart');
    if (others.some((c) => weight(c) > weight(best))) reasons.push('fewerHazards');
    if (best.findings.length === 0) reasons.push('noHazard');
    if (others.every((c) => c.ok && c.devices >= best.devices)) reasons.push('fewestParts');
  }
  if (cards.some((c) => !c.ok)) reasons.push('othersImpossible');
  return { recommended: best.id, reasons };
}
