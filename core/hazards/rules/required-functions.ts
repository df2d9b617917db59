import type { Finding, Job, StatedOtherwise } from '../../job/index.js';
import { judged, type Judged, type Requirement } from '../../requirements/index.js';
import {
  atPart,
  partOf,
  tagOf,
  tagOfOperation,
  type HazardContext,
  type HazardRule,
} from '../rule.js';

/** What a requirement is about: its id without the function. */
const baseOf = (id: string): string =>
  id.slice(0, id.lastIndexOf('.')).replace(/\.channel\.\d+$/u, '');

/** What the sentence of a requirement names. */
export const requirementArgs = (c: HazardContext, r: Requirement): Finding['args'] => ({
  requirement: r.id,
  device: tagOfOperation(c, r.operation),
  start: tagOfOperation(c, c.arrangement.starts.forward),
  restarts: r.must.kind === 'restarts',
  condition: /^(?:interlock|end)\./u.test(r.operation ?? '') || r.operation === 'foot',
  ...(c.arrangement.lock ? { lock: tagOf(c, c.arrangement.lock.device) } : {}),
  hot: r.operation === 'thermistor',
  level: /^stop\.1\.(?:stops|inTime)$/u.test(r.id) && c.arrangement.stops.length === 0,
  jog: Object.keys(c.arrangement.jogs).length > 0,
  selector: c.arrangement.direction ? tagOfOperation(c, c.arrangement.direction) : '',
  position: (r.operation && c.arrangement.operations[r.operation]?.position) ?? '',
  ...(r.must.kind === 'speed' || r.must.kind === 'atMost' ? { hz: r.must.hz } : {}),
  ...(r.must.kind === 'restsWithin' ? { s: r.must.s } : {}),
  ...(r.id.includes('.channel.') ? { channel: channelOf(c, r) } : {}),
  ...(r.must.kind === 'dead'
    ? {
        isolator: tagOf(c, c.arrangement.isolator),
        foreign: r.must.but
          .filter((id) => id.includes('supply'))
          .map((id) => tagOf(c, id))
          .join(', '),
      }
    : {}),
  ...(r.id === 'phase.comesBack' ? { phase: true } : {}),
  ...(r.id.startsWith('supply.')
    ? {
        breaker: tagOf(c, /^supply\.(.+)\.comesBack$/u.exec(r.id)?.[1]),
        ...(r.id.includes(`.${c.arrangement.mainBreaker}.`) ? { mains: true } : {}),
      }
    : {}),
  ...(r.must.kind === 'warns' ? { warningS: r.must.ms / 1000 } : {}),
  ...(r.must.kind === 'answersFirst'
    ? { answers: tagOf(c, c.arrangement.permission?.device), answerS: r.must.ms / 1000 }
    : {}),
  ...(r.must.kind === 'rises' ? { dial: tagOf(c, c.arrangement.dial) } : {}),
  ...(r.must.kind === 'shows' ? { shows: shownBy(c, r), on: r.must.on } : {}),
});

/** What shows it: a part by its tag, or the relay of the device by what it stands for. */
const shownBy = (c: HazardContext, { id, must }: Requirement): string =>
  must.kind !== 'shows'
    ? ''
    : id.startsWith('status.')
      ? (id.split('.')[1] ?? '')
      : tagOf(c, must.signal.replace(/\.\w+$/u, ''));

/** First terminal of the contact that a channel is. */
function channelOf(c: HazardContext, r: Requirement): string {
  const n = Number(/\.channel\.(\d+)\./u.exec(r.id)?.[1]);
  return c.trials.pace.channels(partOf(c, r.operation))[n - 1] ?? '';
}

/** What a requirement that is not met is called, by what is at stake. */
const ruleOf = ({ rank }: Requirement): string =>
  rank === 'protects'
    ? 'requirement.notMet'
    : rank === 'moves'
      ? 'requirement.otherMotion'
      : 'requirement.tellsOtherwise';

/** Functions that nobody can state away: an emergency stop that does nothing. */
const always = /^estop\.(?:stops|blocks|channel\.\d+\.blocks)$/u;

/** Whether a required function may be stated otherwise by a person. */
export const mayBeStated = (requirement: string): boolean => !always.test(requirement);

/** Who states that a function is not required; undefined where nobody does, or nobody can. */
export const statedOtherwise = (job: Job, requirement: string): StatedOtherwise | undefined =>
  mayBeStated(requirement) ? job.decisions.notRequired?.[requirement] : undefined;

/** A function that the machine must have by what was wished, and that this job as built does not have. */
export const requiredFunctions: HazardRule = {
  finds: {
    'requirement.notMet': 'protects',
    'requirement.otherMotion': 'moves',
    'requirement.tellsOtherwise': 'tells',
  },
  stage: 'land',
  look(c, find) {
    const unmet = judged(c.trials, c.variants).filter(
      (j) => j.state === 'notMet' && !statedOtherwise(c.job, j.requirement.id),
    );
    const stopless = new Set(
      unmet.flatMap(({ requirement: { id } }) => (id.endsWith('.stops') ? [baseOf(id)] : [])),
    );
    // A part that does not even stop the motor does nothing else either: one cause, one finding.
    return unmet
      .filter(({ requirement: { id } }) => id.endsWith('.stops') || !stopless.has(baseOf(id)))
      .map(({ requirement, does, proof }: Judged) =>
        find(ruleOf(requirement), {
          subject: requirement.id,
          severity: requirement.rank === 'tells' ? 'warn' : 'stop',
          where: atPart(partOf(c, requirement.operation)),
          args: { ...requirementArgs(c, requirement), does },
          source: 'required by what was wished; rehearsal of the job as built',
          rests: [requirement.must, requirement.wish],
          proof,
        }),
      );
  },
};
