import { landingParts, type Adopted } from '@tactron/core/job';

/** A landing as it is marked on the panel: `T1:IN2`. */
export function landingName(adopted: Adopted | undefined, landing: string): string {
  const { device, terminal } = landingParts(landing);
  return `${adopted?.devices[device]?.tag ?? device}:${terminal}`;
}
