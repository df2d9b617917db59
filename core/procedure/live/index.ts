import type { Profile } from '../../catalogue/index.js';
import type { Job, LiveSection, ProcedureStep } from '../../job/index.js';
import { trialsOf, type Trial } from '../../trials/index.js';
import { canTest, stepContext } from '../context.js';
import { energiseOf } from '../energise/index.js';
import { LiveTests } from '../sequence/tests.js';
import { bumpTests } from './bump.js';
import { contactTests } from './contacts.js';
import { inputTests } from './inputs.js';
import { motionTests } from './motions.js';
import { powerReturnTests } from './power-return.js';
import { powerTests } from './power.js';
import { simulatedOf } from './simulated.js';
import { cutWhileStoppingTest, guardLockTest } from './power-section.js';
import { keypadBump, sectionJob } from './section.js';
import { speedTests } from './speed.js';
import { stopTests } from './stops.js';
import { tellTests } from './tells.js';
import { topTests } from './top.js';

/** Parts of the live tests in rising energy, as one person does them. */
const parts = [
  powerTests,
  inputTests,
  contactTests,
  bumpTests,
  stopTests,
  motionTests,
  cutWhileStoppingTest,
  speedTests,
  guardLockTest,
  topTests,
  tellTests,
  powerReturnTests,
] as const;

/** What must have been passed before a section begins; a section of its own answers holds it. */
const heldBy: Readonly<Record<LiveSection, readonly LiveSection[]>> = {
  energise: [],
  power: ['energise'],
  simulated: [],
  inputs: ['power'],
  contacts: ['power'],
  bump: ['contacts', 'inputs'],
  stops: ['bump'],
  motions: ['bump', 'stops'],
  speed: ['bump', 'stops'],
  top: ['bump', 'stops'],
  tells: ['bump', 'stops'],
  return: ['bump', 'stops'],
};

/** The live tests of a job: the answers in the order in which they come, and each act as a trial that can be shown. */
export interface Live {
  readonly steps: readonly ProcedureStep[];
  readonly trials: readonly Trial[];
}

const nothing: Live = { steps: [], trials: [] };
const kept = new WeakMap<Job, WeakMap<Profile, Live>>();

/**
 * Live tests of this very job as one simulated sequence in rising energy; worked out once for the very same job and profile.
 *
 * @returns nothing until a plan is adopted, or where the behaviour of the device is not simulated yet
 * @example liveOf(job, profile).trials.map((t) => t.id) // ['live.supply.on', 'live.input.run', …]
 */
export function liveOf(job: Job, profile: Profile): Live {
  const known = kept.get(job)?.get(profile);
  if (known) return known;
  const made = makeLive(job, profile);
  const byProfile = kept.get(job) ?? new WeakMap<Profile, Live>();
  kept.set(job, byProfile.set(profile, made));
  return made;
}

/** Parts of the tests that a job can pass while only some of its wires are landed. */
const partsOfSection = [powerTests, inputTests, contactTests] as const;

/**
 * Live tests of what is landed so far: wires that are not are absent from the simulation, inputs and contacts are seen as far
 * as they are there, and the first turn is made from the keypad. No function that protects counts before everything is landed.
 *
 * @param landed ids of the wires that are landed
 * @example liveOfSection(job, profile, new Set(['w1', 'w2'])).steps.map((s) => s.section)
 */
export function liveOfSection(job: Job, profile: Profile, landed: ReadonlySet<string>): Live {
  if (!canTest(job, profile)) return nothing;
  const section = sectionJob(job, profile, landed);
  const tests = new LiveTests(stepContext(section.job, profile, true));
  for (const part of partsOfSection) part(tests);
  keypadBump(tests, section);
  return live(tests);
}

function makeLive(job: Job, profile: Profile): Live {
  if (!canTest(job, profile)) return nothing;
  const tests = new LiveTests(stepContext(job, profile));
  for (const part of parts) part(tests);
  return live(tests);
}

/** The tests behind the steps of switching on. */
function live({ c, s, steps }: LiveTests): Live {
  const energise = energiseOf(c);
  return { steps: withNeeds([...energise.steps, ...steps]), trials: [energise.trial, ...s.trials] };
}

/** The answers of a section wait for every answer of the sections that hold it. */
function withNeeds(steps: readonly ProcedureStep[]): ProcedureStep[] {
  const keysOf = (section: LiveSection): string[] =>
    steps.filter((s) => s.section === section).map((s) => s.key);
  return steps.map((s) => ({
    ...s,
    needs: s.section === undefined ? [] : heldBy[s.section].flatMap(keysOf),
  }));
}

/**
 * A trial by its id, whether it is one of the job's experiments or an act of its live tests: what *Show me* opens.
 *
 * @returns undefined where the job has none of that id
 * @example shownTrial(job, profile, 'live.estop')?.acts.length
 */
export function shownTrial(job: Job, profile: Profile, id: string): Trial | undefined {
  const trials = trialsOf(job, profile);
  return trials.has(id)
    ? trials.trial(id)
    : [...liveOf(job, profile).trials, ...simulatedOf(job, profile).trials].find(
        (trial) => trial.id === id,
      );
}

/**
 * Live tests of this very job, in the order in which they are done, every number taken from simulating its own wires and
 * settings, every function from what was wished.
 *
 * @returns as `liveOf`
 */
export const liveSteps = (job: Job, profile: Profile): readonly ProcedureStep[] =>
  liveOf(job, profile).steps;
