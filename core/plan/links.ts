import type { Profile } from '../catalogue/index.js';
import { sortedEntries, type Job } from '../job/index.js';

/** A link or slide switch of the device, as it has to stand. */
export interface LinkLine {
  readonly id: string;
  readonly kind: string;
  readonly name: string;
  readonly position: string;
  /** What the position does, in the words of the profile. */
  readonly stands: string;
  /** It is delivered so. */
  readonly factory: boolean;
}

/**
 * Every link and slide switch of the device, with the position that the plan asks for; what the plan does not speak of stays as
 * delivered.
 *
 * @example linkLines(job, profile).map((l) => `${l.id}: ${l.stands}`) // ['CL: COM to 0E', …]
 */
export function linkLines({ adopted }: Job, profile: Profile): LinkLine[] {
  return sortedEntries(profile.links).map(([id, link]) => {
    const position = adopted?.links[id]?.position ?? link.factory;
    return {
      id,
      kind: link.kind,
      name: link.name,
      position,
      stands: link.positions[position]?.name ?? position,
      factory: position === link.factory,
    };
  });
}
