import type { Profile } from '../catalogue/index.js';
import type { Layouter } from '../drawings/index.js';
import { drawingFiles } from '../formats/index.js';
import { install } from '../installation/index.js';
import type { Job } from '../job/index.js';
import { circuitWords } from '../words/index.js';

/** What devices and terminals of a job are there for, in words; nothing without a plan. */
export const circuitWordsOf = (job: Job, profile: Profile): ReturnType<typeof circuitWords> =>
  job.adopted ? circuitWords(job, profile, install(job, profile).device) : {};

/**
 * The drawings of a job as built, with their words, as SVG by file name.
 *
 * @example Object.keys(await saidDrawings(job, profile, layouter)) // ['connection.svg', 'circuit.svg']
 */
export const saidDrawings = (
  job: Job,
  profile: Profile,
  layouter: Layouter,
): Promise<Record<string, string>> =>
  drawingFiles(job, profile, circuitWordsOf(job, profile), layouter);
