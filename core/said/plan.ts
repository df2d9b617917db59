import {
  changesSpeed,
  goesInsideDelta,
  planningGaps,
  taskCode,
  type Profile,
} from '../catalogue/index.js';
import { drawnLandings } from '../drawings/index.js';
import type { Job } from '../job/index.js';
import { adoption, offersFor, wiringDifference, type planJob } from '../plan/index.js';
import { deviceKinds, handWords, say, sayName, sayNoPlan, wishNames } from '../words/index.js';
import type { Derived } from './types.js';

/** Why a job has no live tests, and what is to be done first. */
export function whyNoTests(profile: Profile, plan: ReturnType<typeof planJob>): string {
  if (planningGaps(profile).length > 0)
    return 'How this device behaves is not simulated yet, so nothing can be expected of it: there are no live tests.';
  if (!plan.ok) return `There is no plan, so nothing can be expected: ${sayNoPlan(plan)}`;
  return 'Nothing is wished yet. Say on the Scheme stage how it is started and stopped; the live tests come from the adopted plan.';
}

/** What the wishes of a job may be on its device. */
export const kindOf = (profile: Profile): Pick<Derived, 'speeds' | 'enables' | 'insideDelta'> => ({
  speeds: changesSpeed(profile),
  enables: taskCode(profile, 'reverse') !== undefined,
  insideDelta: goesInsideDelta(profile),
});

/** What a plan comes to, or why there is none, with the devices that can do what this one cannot. */
export function saidPlan(
  job: Job,
  profile: Profile,
  plan: ReturnType<typeof planJob>,
): Derived['plan'] {
  if (plan.ok) return { ok: true, cost: plan.cost, alternatives: plan.alternatives.length };
  const offers = plan.code === 'noSpeed' ? offersFor(job, profile) : [];
  return { ok: false, wishes: plan.wishes ?? [], text: sayNoPlan(plan, offers) };
}

/** What can be adopted, and what that would change; without a wish for start and stop a plan is a guess, and nothing to adopt. */
export function adoptable(
  job: Job,
  plan: ReturnType<typeof planJob>,
): Pick<Derived, 'adoption' | 'difference'> {
  if (!plan.ok || job.scheme.startStop === undefined) return { adoption: null, difference: [] };
  const difference = wiringDifference(job.adopted, plan.wiring).map((c) => say(c.said));
  return { adoption: adoption(plan), difference };
}

/** Words that stages ask for by code. */
export function namesOf(job: Job, profile: Profile): Record<string, string> {
  const said: Record<string, string> = {};
  for (const task of Object.values(profile.inputTasks)) said[task.meaning] = task.name;
  const { wire: saysWire } = handWords(job, profile);
  for (const [id, wire] of Object.entries(job.adopted?.wires ?? {}))
    said[`wire.${id}`] = saysWire(wire);
  for (const [id, d] of Object.entries(job.adopted?.devices ?? {}))
    said[`device.${id}`] = deviceKinds[d.kind] ?? d.kind;
  for (const [wish, name] of Object.entries(wishNames)) said[`wish.${wish}`] = name;
  for (const name of ['delta', 'star', 'series', 'parallel', 'none'])
    said[`link.${name}`] = sayName(name);
  return said;
}

/** Terminals to which a wire can be moved. */
export const landingsOf = ({ adopted }: Job, profile: Profile): Derived['landings'] => ({
  control: adopted ? drawnLandings(adopted, profile, 'control') : [],
  power: adopted ? drawnLandings(adopted, profile, 'power') : [],
});
