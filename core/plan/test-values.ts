import { changesSpeed, settingForRole, type Profile, type Value } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { plateFacts } from '../line/index.js';

/** A setting that is keyed otherwise for the tests, and back again before handing over. */
export interface TestValue {
  readonly code: string;
  readonly planned: Value;
  readonly test: Value;
}

/** What a ramp of the tests keeps above the shortest that torque and braking allow. */
const MARGIN = 1.3;
/** Ramps that a person can time, s; unequal, so that an exchange of the two is seen. */
const SHORTEST_S = { accelS: 2, decelS: 3 } as const;
/** A frequency nobody keys by chance: where the display shows it, the value keyed is the one in force, Hz. */
const UNUSUAL_HZ = 7;

/** One frequency that nobody keys by chance, where something asks for one that no other test rests on: the jog, the first preset. */
function unusual({ scheme }: Job): Readonly<Record<string, number>> {
  if (scheme.jog && scheme.jog !== 'none') return { jogHz: UNUSUAL_HZ };
  return scheme.presetsHz?.length && (scheme.minHz ?? 0) < UNUSUAL_HZ
    ? { 'preset.1': UNUSUAL_HZ }
    : {};
}

/** Next half second that is not shorter. */
const upToHalf = (seconds: number): number => Math.ceil(2 * seconds) / 2;

/**
 * Short ramps of unequal length for the tests, within what the torque of the motor and the braking without a fault allow, and one
 * unusual frequency. Nothing that somebody relies on is among them.
 *
 * @returns nothing where the plan is as short, where the device keeps the frequency of the supply, or where neither inertia nor
 *   load tell what is allowed
 * @example testValuesFor(job, profile) // [{ code: '211', planned: 6, test: 2 }, …]
 */
export function testValuesFor(job: Job, profile: Profile): TestValue[] {
  const settings = job.adopted?.settings;
  if (!settings || !changesSpeed(profile)) return [];
  const facts = plateFacts(job, profile);
  const shortest = (id: string): number | undefined => {
    const value = facts.find((f) => f.id === id)?.value;
    return typeof value === 'number' ? value : undefined;
  };
  const [start, stop] = [shortest('shortestStart'), shortest('shortestStop')];
  if (start === undefined || stop === undefined) return [];
  const accelS = Math.max(SHORTEST_S.accelS, upToHalf(MARGIN * start));
  const least = Math.max(SHORTEST_S.decelS, upToHalf(MARGIN * stop));
  const decelS = least === accelS ? least + 1 : least;
  const wanted: Readonly<Record<string, number>> = {
    accelS,
    ...(job.scheme.stopMode === 'coast' ? {} : { decelS }),
    ...unusual(job),
  };
  return Object.entries(wanted).flatMap(([role, seconds]): TestValue[] => {
    const keyed = settingForRole(profile, role, seconds);
    const planned = keyed && settings[keyed.code]?.value;
    if (!keyed || typeof planned !== 'number' || typeof keyed.value !== 'number') return [];
    const helps = role === 'jogHz' ? planned !== keyed.value : keyed.value < planned;
    return helps ? [{ code: keyed.code, planned, test: keyed.value }] : [];
  });
}

/** A job with test values in its device: what is expected follows them. */
export function withTestValues(job: Job, values: Readonly<Record<string, Value>>): Job {
  const { adopted } = job;
  if (!adopted || Object.keys(values).length === 0) return job;
  const settings = { ...adopted.settings };
  for (const [code, value] of Object.entries(values))
    if (settings[code]) settings[code] = { ...settings[code], value };
  return { ...job, adopted: { ...adopted, settings } };
}
