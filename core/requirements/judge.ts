import type { Policies, Run, Trials } from '../trials/index.js';
import { requirementsOf } from './list.js';
import type { Does, Judged, Look, Must, Requirement } from './requirement.js';

/** Output frequency of a motor that a person would see standing, Hz. */
const STANDSTILL_HZ = 0.05;

const standing = (hz: number): boolean => Math.abs(hz) <= STANDSTILL_HZ;

/** What the output does, and which way the shaft goes by it: the leads may turn it round. */
function doesAt(run: Run, mark: string): Does {
  if (standing(run.hz(mark))) return 'stands';
  const shaft = run.at(mark, 'shaft.hz');
  const way = standing(shaft) ? run.hz(mark) : shaft;
  return way > 0 ? 'runsForward' : 'runsReverse';
}

/** The same where the shaft itself is looked at: with a lead missing it stands, whatever the output does. */
const turnsAt = (run: Run, mark: string): Does =>
  standing(run.at(mark, 'shaft.hz')) ? 'stands' : doesAt(run, mark);

/** What any wished frequency may miss, Hz: settings are rounded. */
const ROUNDING_HZ = 0.5;

function isMet(must: Must, does: Does, hz: number): boolean {
  switch (must.kind) {
    case 'stopped':
    case 'staysStopped':
      return does === 'stands';
    case 'turns':
      return does === (must.way === 'forward' ? 'runsForward' : 'runsReverse');
    case 'speed':
      return Math.abs(hz - must.hz) <= Math.max(ROUNDING_HZ, must.share * must.hz);
    case 'restarts':
      return does === 'runsForward' || does === 'runsReverse';
  }
}

/** One look at one run: what is seen, or that nothing can be: a stop shows nothing where the motor never ran. */
function lookAt(run: Run, { mark, after }: Look, must: Must): { does: Does; shows: boolean } {
  if (after !== undefined && doesAt(run, after) === 'stands')
    return { does: 'neverRuns', shows: false };
  return { does: (must.kind === 'turns' ? turnsAt : doesAt)(run, mark), shows: true };
}

/** Holds one requirement against the job: every look, every way an unknown behaviour may turn out; the worst counts. */
function judge(trials: Trials, requirement: Requirement, variants: readonly Policies[]): Judged {
  let shown: Judged | undefined;
  for (const look of requirement.looks)
    for (const policies of variants) {
      const run = trials.run(look.trial, policies);
      const { does, shows } = lookAt(run, look, requirement.must);
      const [proof, hz] = [run.proof(look.mark), Math.abs(run.hz(look.mark))];
      if (!shows) continue;
      if (!isMet(requirement.must, does, hz)) {
        const other = requirement.must.kind === 'speed' && does !== 'stands';
        return { requirement, state: 'notMet', does: other ? 'otherSpeed' : does, hz, proof };
      }
      shown ??= { requirement, state: 'met', does, hz, proof };
    }
  return shown ?? { requirement, state: 'undecided', does: 'neverRuns', hz: 0, proof: undefined };
}

const kept = new WeakMap<Trials, Judged[]>();

/**
 * Every required function of a job, held against the job as built; each worked out once.
 *
 * @param variants ways in which behaviour that the profile does not know may turn out
 * @example judged(trialsOf(job, profile)).every((j) => j.state === 'met')
 */
export function judged(trials: Trials, variants: readonly Policies[] = [{}]): readonly Judged[] {
  const known = kept.get(trials);
  if (known) return known;
  const made = requirementsOf(trials).map((r) => judge(trials, r, variants));
  kept.set(trials, made);
  return made;
}
