import type { Profile } from '../../catalogue/index.js';
import type { Job } from '../../job/index.js';
import { controlFacts } from './control-supplies.js';
import { plateContext, type PlateFact } from './context.js';
import { deviceFacts } from './device-side.js';
import { motorFacts } from './motor.js';
import { cableFacts } from './cable.js';
import { supplyFacts } from './supply-side.js';

/**
 * Everything that can be reckoned from what has been entered so far, in the order of the one-line picture.
 *
 * @returns facts only where all their inputs are there and within the range of their formula
 */
export function plateFacts(job: Job, profile?: Profile): PlateFact[] {
  const c = plateContext(job, profile);
  return [
    ...supplyFacts(c),
    ...deviceFacts(c),
    ...cableFacts(c),
    ...motorFacts(c),
    ...controlFacts(c),
  ];
}
