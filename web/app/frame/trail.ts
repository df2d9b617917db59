import { signingOf, type Job, type Signing } from '@tactron/core/job';
import type { Derived, SaidFinding } from '@tactron/core/said';
import { stageNames, type StageName } from './stage-names';

/** A stage in the walk with its own small mark of what is missing. */
export interface TrailMark {
  readonly name: StageName;
  readonly title: string;
  readonly mark: string;
  readonly kind: 'done' | 'open' | 'bad';
  readonly tip: string;
}

export const stageTitles: Readonly<Record<StageName, string>> = {
  plate: 'Plate',
  scheme: 'Scheme',
  land: 'Land',
  key: 'Key',
  rehearse: 'Rehearse',
  dead: 'Dead',
  live: 'Live',
  handover: 'Hand over',
};

const fraction = (have: number, of: number): Pick<TrailMark, 'mark' | 'kind'> => ({
  mark: of === 0 ? '–' : have === of ? '✓' : `${have}/${of}`,
  kind: of > 0 && have === of ? 'done' : 'open',
});

/** How far checks or tests are: what failed or is stale before what is open. */
function answered(steps: Derived['steps'], what: string): Pick<TrailMark, 'mark' | 'kind' | 'tip'> {
  const passed = steps.filter((s) => s.state === 'pass').length;
  const bad = steps.filter((s) => s.state === 'fail' || s.state === 'stale').length;
  return bad
    ? { mark: `${bad} to redo`, kind: 'bad', tip: `${bad} failed or stale` }
    : { ...fraction(passed, steps.length), tip: `${passed} of ${steps.length} ${what} passed` };
}

const atPlate = (f: SaidFinding): boolean => f.finding.stage === 'plate';
const stops = (f: SaidFinding): boolean => f.finding.severity === 'stop' && !f.accepted;

export function trailOf(
  job: Job | null,
  d: Derived | null,
  signing: Signing = signingOf([]),
): TrailMark[] {
  const marks: Record<StageName, Pick<TrailMark, 'mark' | 'kind' | 'tip'>> = Object.fromEntries(
    stageNames.map((name) => [name, { mark: '', kind: 'open', tip: stageTitles[name] }]),
  ) as never;
  if (job && d) {
    marks.plate = {
      ...fraction(d.plate.needed - d.plate.missing.length, d.plate.needed),
      tip: `${d.plate.missing.length} plate facts missing`,
    };
    const stop = d.findings.find((f) => stops(f) && atPlate(f));
    if (stop) marks.plate = { mark: '!', kind: 'bad', tip: stop.what };
    marks.scheme = {
      ...fraction(d.scheme.needed - d.scheme.missing.length, d.scheme.needed),
      tip: `${d.scheme.missing.length} wishes open`,
    };
    marks.land = job.adopted
      ? { mark: '✓', kind: 'done', tip: `${Object.keys(job.adopted.wires).length} wires planned` }
      : { mark: '–', kind: 'open', tip: 'No plan yet' };
    marks.key = {
      ...fraction(d.keying.done, d.keying.of),
      tip: `${d.keying.done} of ${d.keying.of} settings keyed`,
    };
    const count = job.adopted ? Object.keys(job.scripts).length : 0;
    marks.rehearse = {
      mark: count ? `${count}` : '–',
      kind: 'open',
      tip: count === 1 ? '1 script kept' : `${count} scripts kept`,
    };
    marks.dead = answered(d.dead, 'checks');
    marks.live = answered(d.steps, 'tests');
    marks.handover = signing.closed
      ? { mark: '✓', kind: 'done', tip: `Issue ${signing.number} is signed and closed` }
      : d.obstacles.length
        ? {
            mark: `${d.obstacles.length} open`,
            kind: 'open',
            tip: `${d.obstacles.length} points block hand-over`,
          }
        : { mark: '✓', kind: 'done', tip: 'Nothing blocks hand-over' };
  }
  return stageNames.map((name) => ({ name, title: stageTitles[name], ...marks[name] }));
}

/** What is asked next within Dead or Live, for somebody who is there. */
function nextHere(stage: string, d: Derived): { stage: StageName; text: string } | null {
  if (stage !== 'dead' && stage !== 'live') return null;
  const steps = stage === 'dead' ? d.dead : d.steps;
  const step =
    steps.find((s) => s.state === 'fail' || s.state === 'stale') ??
    steps.find((s) => s.state === 'open');
  const how = step?.state === 'open' ? 'Next' : 'Again';
  // The card there says what is to be done: here its act is enough.
  return step ? { stage, text: `${how} here: ${step.title || step.do}` } : null;
}

/**
 * The next sensible act.
 *
 * @param here stage that is shown: what is open there comes before what is open elsewhere
 */
export function hintOf(
  job: Job | null,
  d: Derived | null,
  { closed, number, missing }: Signing = signingOf([]),
  here = '',
): { stage: StageName; text: string } | null {
  if (!job || !d) return null;
  if (closed) return { stage: 'handover', text: `Issue ${number} is signed and closed.` };
  const next = nextHere(here, d);
  if (next) return next;
  const plateStop = d.findings.find((f) => stops(f) && atPlate(f));
  if (plateStop) return { stage: 'plate', text: plateStop.what };
  if (d.plate.missing.length)
    return { stage: 'plate', text: `Plate: ${d.plate.missing.length} facts still to enter.` };
  if (d.scheme.missing.length)
    return {
      stage: 'scheme',
      text: `Scheme: ${d.scheme.missing.length} ${d.scheme.missing.length === 1 ? 'wish is' : 'wishes are'} still open.`,
    };
  const stop = d.findings.find(stops);
  if (stop)
    return {
      stage: stop.finding.stage,
      text: stop.what,
    };
  const line = d.keying.done < d.keying.of ? d.lines.find((l) => !l.done) : undefined;
  if (line)
    return {
      stage: 'key',
      text: line.code ? `Key setting ${line.code}, ${line.name}: ${line.toText}.` : line.reason,
    };
  const check = d.steps.some((s) => s.state !== 'open')
    ? undefined
    : d.dead.find((s) => s.state !== 'pass');
  if (check) return { stage: 'dead', text: `Next check: ${check.do}` };
  const redo = d.steps.find((s) => s.state === 'fail' || s.state === 'stale');
  if (redo) return { stage: 'live', text: `Test again: ${redo.do}` };
  const step = d.steps.find((s) => s.state === 'open');
  if (step) return { stage: 'live', text: `Next test: ${step.do}` };
  return {
    stage: 'handover',
    text: d.obstacles.length
      ? d.obstacles[0].text
      : `Nothing blocks hand-over: ${missing.join(' and ')} may sign.`,
  };
}
