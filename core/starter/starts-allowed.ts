import type { Profile } from '../catalogue/index.js';
import { REST_FACTOR, startsPerHour } from '../motor/index.js';
import type { StartFacts } from './start-facts.js';

/** Starts an hour that motor and device bear. */
export interface StartsAllowed {
  readonly perHour: number;
  readonly motorPerHour: number;
  readonly starterPerHour: number;
  /** The device has a duty in its profile; without one only the motor is judged. */
  readonly judged: boolean;
}

/**
 * Starts an hour of a start as it is set, by the image of the motor and the duty of the device.
 *
 * @returns undefined where the start is never over
 * @example startsAllowed(facts, profile.duty)?.perHour // 6.4
 */
export function startsAllowed(
  { startS, rmsA, runA, motorA, deviceA, tripClass, peakA }: StartFacts,
  duty: Profile['duty'],
): StartsAllowed | undefined {
  if (startS === null || startS <= 0) return undefined;
  const run = { startS, rmsA, runA, ratedA: motorA, peakA };
  const index = duty && { ...duty, ratedA: deviceA };
  const { motorPerHour, starterPerHour, perHour } = startsPerHour.run({
    run,
    tripClass,
    restFactor: REST_FACTOR,
    ...(index ? { duty: index as never } : {}),
  });
  return {
    perHour,
    motorPerHour,
    starterPerHour: starterPerHour ?? perHour,
    judged: duty !== undefined,
  };
}
