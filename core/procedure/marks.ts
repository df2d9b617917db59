import { landingParts } from '../job/index.js';
import { tagOf, type StepContext } from './context.js';

/** A landing as it is marked on the panel: `tag:terminal`. */
export const marked = (c: StepContext, landing: string): string => {
  const { device, terminal } = landingParts(landing);
  return `${tagOf(c, device)}:${terminal}`;
};
