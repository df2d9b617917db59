import { changesSpeed, factorySettings, modelOf, type Profile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { landingName, type Evidence, type Job } from '../job/index.js';
import { plateFacts, plateMissing } from '../line/index.js';
import { linkLines, planJob, withTestValues } from '../plan/index.js';
import {
  deadOf,
  isolationSources,
  liveOfSection,
  liveSteps,
  simulatedOf,
} from '../procedure/index.js';
import {
  heldValues,
  keySessionSince,
  landedSection,
  pastRecords,
  settingRows,
  stepRecords,
  testValuesHeld,
  wrongLoops,
  type StepRecord,
} from '../records/index.js';
import { schemeMissing } from '../scheme/index.js';
import { sourceNames } from '../words/index.js';
import {
  saidDeviations,
  saidFact,
  saidFinding,
  saidObstacles,
  saidRequirements,
} from './findings.js';
import { handOf } from './hand.js';
import { keyingOf, saidTestValues } from './keying.js';
import { saidLoop } from './loop.js';
import { adoptable, kindOf, landingsOf, namesOf, saidPlan, whyNoTests } from './plan.js';
import { saidRow } from './settings.js';
import { saidSignals } from './signals.js';
import { saidSteps } from './steps.js';
import type { Derived } from './types.js';

/** A section of the tests turns the motor once, from the keypad. */
const turnsFromKeypad = (steps: readonly StepRecord['step'][]): boolean =>
  steps.some((s) => s.key === 'section.bump');

/**
 * Everything that is reckoned of a job, in words, part by part: between two parts a caller may stop and never ask again.
 *
 * @returns what a stage, the record and a card are made from; never stored
 * @example const parts = derivedParts(job, profile, []); // for (;;) { const { done, value } = parts.next(); … }
 */
export function* derivedParts(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Generator<undefined, Derived> {
  const model = modelOf(profile, job.profile.model);
  const factory = model ? factorySettings(profile, model) : {};
  const found = heldValues(job, profile, evidence, keySessionSince(evidence));
  const plan = planJob(job, profile, found);
  yield;
  const findings = checkJob(job, profile, found, plan).map((f) => saidFinding(f, evidence));
  yield;
  const landed = landedSection(job, evidence);
  // While test values are in the device, what is expected follows them.
  const tested = withTestValues(job, testValuesHeld(job, profile, evidence));
  const whole = liveSteps(tested, profile);
  const procedure = landed ? liveOfSection(tested, profile, landed).steps : whole;
  yield;
  const dead = deadOf(job, profile, wrongLoops(evidence));
  yield;
  // Like the real inputs, they wait until power is on and read.
  const needs = procedure.filter((s) => s.section === 'power').map((s) => s.key);
  const offered = landed
    ? []
    : simulatedOf(tested, profile).steps.map((step) => ({ ...step, needs }));
  yield;
  const rows = model ? settingRows(job, profile, factory, evidence) : [];
  const steps = stepRecords(procedure, evidence);
  const requirements = saidRequirements(job, profile);
  const obstacles = saidObstacles(job, evidence, findings, requirements, {
    rows,
    live: stepRecords(whole, evidence),
    dead: stepRecords(dead.steps, evidence),
  });
  return {
    facts: plateFacts(job, profile).map(saidFact),
    plate: plateMissing(job.plate),
    scheme: schemeMissing(job.scheme, changesSpeed(profile)),
    ...kindOf(profile),
    findings,
    requirements,
    plan: saidPlan(job, profile, plan),
    ...adoptable(job, plan),
    ...keyingOf(job, profile, evidence, factory),
    rows: rows.map((row) => saidRow(row, profile, job)),
    links: job.adopted ? linkLines(job, profile) : [],
    asBuilt: saidDeviations(job),
    testValues: saidTestValues(job, profile, evidence),
    steps: saidSteps(steps),
    offered: saidSteps(stepRecords(offered, evidence)),
    dead: saidSteps(stepRecords(dead.steps, evidence)),
    sources: isolationSources(job, profile).map(({ tag, what }) => ({
      tag,
      what: sourceNames[what],
      locked: what !== 'load',
    })),
    dischargeS: changesSpeed(profile) ? profile.dischargeS : undefined,
    notDead: dead.unseen.map((at) => landingName(job.adopted?.devices, at)),
    ...handOf(job, profile),
    section: landed ? { landed: landed.size, turns: turnsFromKeypad(procedure) } : null,
    noTests: procedure.length > 0 ? '' : whyNoTests(profile, plan),
    past: saidSteps(pastRecords([...procedure, ...offered, ...dead.steps], evidence)),
    obstacles,
    landings: landingsOf(job, profile),
    loop: saidLoop(tested, profile, evidence),
    signals: saidSignals(job, profile),
    names: namesOf(job, profile),
  };
}

/**
 * The same in one go, for where nothing waits for it.
 *
 * @example derivedOf(job, profile, evidence).requirements.every((r) => r.state === 'met')
 */
export function derivedOf(job: Job, profile: Profile, evidence: readonly Evidence[]): Derived {
  const parts = derivedParts(job, profile, evidence);
  for (;;) {
    const { done, value } = parts.next();
    if (done) return value;
  }
}
