import { expose } from 'comlink';
import {
  changesSpeed,
  factorySettings,
  modelOf,
  planningGaps,
  goesInsideDelta,
  taskCode,
  type Profile,
  type Value,
} from '@tactron/core/catalogue';
import { drawnLandings } from '@tactron/core/drawings';
import { csv, recordFiles } from '@tactron/core/formats';
import {
  acceptanceOf,
  acceptanceSubject,
  checkJob,
  isAcceptable,
  requirementsHeld,
  mayBeStated,
} from '@tactron/core/hazards';
import {
  contentHashOf,
  landingName,
  standsAsFrozen,
  type Evidence,
  type EvidenceOf,
  type Finding,
  type Job,
  type Scheme,
} from '@tactron/core/job';
import {
  adoption,
  linkLines,
  partsList,
  offersFor,
  planJob,
  toolsList,
  keyingLines,
  wiringDifference,
  testValuesFor,
  withTestValues,
} from '@tactron/core/plan';
import {
  motorCurves,
  plateContext,
  plateFacts,
  plateMissing,
  type MotorCurves,
  type PlateFact,
} from '@tactron/core/line';
import { deadOf, isolationSources, liveOfSection, liveSteps } from '@tactron/core/procedure';
import {
  foundValues,
  handOverObstacles,
  heldValues,
  testValuesHeld,
  keyedShare,
  keyedSince,
  keySessionSince,
  landedSection,
  pastRecords,
  settingRows,
  stepRecords,
  wrongLoops,
  type SettingRow,
  type StepRecord,
} from '@tactron/core/records';
import { arrangementsFor, schemeMissing, startFrom } from '@tactron/core/scheme';
import {
  deviceKinds,
  handWords,
  say,
  sayDoing,
  sayFinding,
  sayName,
  sayNoPlan,
  sayRequirement,
  saySeverity,
  sayTitle,
  sayFaults,
  sourceNames,
  wishNames,
} from '@tactron/core/words';
import { handOf } from './said/hand';
import { saidLoop } from './said/loop';
import { saidSignals } from './said/signals';
import { saidLines, saidRow, valueText } from './said/settings';
import { saidSteps } from './said/steps';
import type { Derived, PartsAndTools, SaidFinding, SaidRequirement } from './compute.types';

/** Why a job has no live tests, and what is to be done first. */
function whyNoTests(profile: Profile, plan: ReturnType<typeof planJob>): string {
  if (planningGaps(profile).length > 0)
    return 'How this device behaves is not simulated yet, so nothing can be expected of it: there are no live tests.';
  if (!plan.ok) return `There is no plan, so nothing can be expected: ${sayNoPlan(plan)}`;
  return 'Nothing is wished yet. Say on the Scheme stage how it is started and stopped; the live tests come from the adopted plan.';
}

/** What the wishes of a job may be on its device. */
const kindOf = (profile: Profile): Pick<Derived, 'speeds' | 'enables' | 'insideDelta'> => ({
  speeds: changesSpeed(profile),
  enables: taskCode(profile, 'reverse') !== undefined,
  insideDelta: goesInsideDelta(profile),
});

/** What a plan comes to, or why there is none, with the devices that can do what this one cannot. */
function saidPlan(job: Job, profile: Profile, plan: ReturnType<typeof planJob>): Derived['plan'] {
  if (plan.ok) return { ok: true, cost: plan.cost, alternatives: plan.alternatives.length };
  const offers = plan.code === 'noSpeed' ? offersFor(job, profile) : [];
  return { ok: false, wishes: plan.wishes ?? [], text: sayNoPlan(plan, offers) };
}

/** What the machine must do, held against the job as built. */
function saidRequirements(job: Job, profile: Profile): SaidRequirement[] {
  return requirementsHeld(job, profile).map(
    ({ requirement, state, does, proof, args, stated }) => ({
      id: requirement.id,
      protects: requirement.rank === 'protects',
      text: sayRequirement(requirement.id, args),
      state,
      does: state === 'met' ? '' : sayDoing(does),
      proof,
      stated: stated ?? null,
      mayBeStated: mayBeStated(requirement.id),
      simulatedOnly: requirement.simulatedOnly === true,
    }),
  );
}

/** A plate fact with the titles of its working in words. */
function saidFact(fact: PlateFact): PlateFact {
  const said = <T extends { readonly title: string }>(row: T): T => ({
    ...row,
    title: sayTitle(row.title),
  });
  const { working } = fact;
  return {
    ...fact,
    working: {
      ...said(working),
      inputs: working.inputs.map(said),
      results: working.results.map(said),
    },
  };
}

/** What was found built otherwise than planned. */
const saidDeviations = (job: Job): Derived['asBuilt'] =>
  Object.entries(job.deviations)
    .sort(([, x], [, y]) => x.ord - y.ord)
    .map(([id, { actual, why }]) => ({ id, text: sayFaults([actual], job).what, why }));

const saidFinding = (finding: Finding, evidence: readonly Evidence[]): SaidFinding => ({
  finding,
  ...sayFinding(finding),
  mark: saySeverity(finding.severity),
  subject: acceptanceSubject(finding),
  accepted: acceptanceOf(finding, evidence) ?? null,
  acceptable: isAcceptable(finding),
});

/** What can be adopted, and what that would change; without a wish for start and stop a plan is a guess, and nothing to adopt. */
function adoptable(
  job: Job,
  plan: ReturnType<typeof planJob>,
): Pick<Derived, 'adoption' | 'difference'> {
  if (!plan.ok || job.scheme.startStop === undefined) return { adoption: null, difference: [] };
  const difference = wiringDifference(job.adopted, plan.wiring).map((c) => say(c.said));
  return { adoption: adoption(plan), difference };
}

/** A section of the tests turns the motor once, from the keypad. */
const turnsFromKeypad = (steps: readonly StepRecord['step'][]): boolean =>
  steps.some((s) => s.key === 'section.bump');

/** Words that stages ask for by code. */
function namesOf(job: Job, profile: Profile): Record<string, string> {
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

/** What is keyed in the session that goes on, and how far the whole is. */
function keyingOf(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
  factory: Readonly<Record<string, Value>>,
): Pick<Derived, 'lines' | 'keying'> {
  const since = keySessionSince(evidence);
  const first = foundValues(job, profile, evidence) ?? factory;
  const begun = heldValues(job, profile, evidence, since) ?? factory;
  const now = heldValues(job, profile, evidence) ?? factory;
  return {
    lines: saidLines(keyingLines(job, profile, begun), profile, keyedSince(evidence, since)),
    keying: keyedShare(job.adopted?.settings ?? {}, first, now),
  };
}

/** Values for the tests: those that are in the device, else those that are offered. */
function saidTestValues(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Derived['testValues'] {
  const planned = job.adopted?.settings ?? {};
  const inside = Object.entries(testValuesHeld(job, profile, evidence)).flatMap(([code, test]) =>
    planned[code] ? [{ code, test, planned: planned[code].value }] : [],
  );
  return (inside.length > 0 ? inside : testValuesFor(job, profile)).map((v) => ({
    ...v,
    held: inside.length > 0,
    name: profile.settings[v.code]?.name ?? '',
    testText: valueText(profile.settings[v.code], v.test),
    plannedText: valueText(profile.settings[v.code], v.planned),
  }));
}

/** What stands against hand-over, in words. */
function saidObstacles(
  job: Job,
  evidence: readonly Evidence[],
  findings: readonly SaidFinding[],
  requirements: readonly SaidRequirement[],
  {
    rows,
    live,
    dead,
  }: {
    readonly rows: readonly SettingRow[];
    readonly live: readonly StepRecord[];
    readonly dead: readonly StepRecord[];
  },
): Derived['obstacles'] {
  const open = findings.filter((f) => !f.accepted).map((f) => f.finding);
  const protects = (id: string): boolean => requirements.some((r) => r.id === id && r.protects);
  return handOverObstacles(job, open, live, rows, evidence, dead, protects).map((obstacle) => {
    const named = findings.find((f) => f.finding.key === obstacle.key);
    const args = named ? { ...obstacle.args, title: named.what } : obstacle.args;
    return { ...obstacle, text: say({ code: obstacle.code, args }) };
  });
}

/** Terminals to which a wire can be moved. */
const landingsOf = ({ adopted }: Job, profile: Profile): Derived['landings'] => ({
  control: adopted ? drawnLandings(adopted, profile, 'control') : [],
  power: adopted ? drawnLandings(adopted, profile, 'power') : [],
});

/** Lets the worker hear whether a later call has come. */
const breath = (): Promise<void> =>
  new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      done();
    };
    port2.postMessage(null);
  });

let latest = 0;

const worker = {
  /**
   * Everything that is reckoned of a job, part by part.
   *
   * @param round number of the call: a later one cancels it
   * @returns null where it was cancelled
   */
  async derive(
    round: number,
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
  ): Promise<Derived | null> {
    latest = Math.max(latest, round);
    const goesOn = async (): Promise<boolean> => {
      await breath();
      return round === latest;
    };
    if (!(await goesOn())) return null;
    const model = modelOf(profile, job.profile.model);
    const factory = model ? factorySettings(profile, model) : {};
    const found = heldValues(job, profile, evidence, keySessionSince(evidence));
    const plan = planJob(job, profile, found);
    if (!(await goesOn())) return null;
    const findings = checkJob(job, profile, found, plan).map((f) => saidFinding(f, evidence));
    if (!(await goesOn())) return null;
    const landed = landedSection(job, evidence);
    // While test values are in the device, what is expected follows them.
    const tested = withTestValues(job, testValuesHeld(job, profile, evidence));
    const whole = liveSteps(tested, profile);
    const procedure = landed ? liveOfSection(tested, profile, landed).steps : whole;
    if (!(await goesOn())) return null;
    const dead = deadOf(job, profile, wrongLoops(evidence));
    if (!(await goesOn())) return null;
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
      past: saidSteps(pastRecords([...procedure, ...dead.steps], evidence)),
      obstacles,
      landings: landingsOf(job, profile),
      loop: saidLoop(tested, profile, evidence),
      signals: saidSignals(job, profile),
      names: namesOf(job, profile),
    };
  },

  /** The fitted motor and its run-up; apart from `derive`, so that a keystroke elsewhere does not wait for a fit. */
  curves(job: Job, profile: Profile): MotorCurves | null {
    return motorCurves(plateContext(job, profile)) ?? null;
  },

  startFrom(scheme: Scheme, id: string, speeds: boolean): Scheme | null {
    const arrangement = arrangementsFor(speeds).find((a) => a.id === id);
    return arrangement ? startFrom(scheme, arrangement) : null;
  },

  parts(job: Job, profile: Profile): PartsAndTools {
    const parts = partsList(job, profile).map((p) => ({
      what: say(p.what),
      tag: p.tag,
      quantity: `${p.quantity}${p.unit ? ` ${p.unit}` : ''}`,
    }));
    const tools = toolsList(job, profile).map((t) => ({ what: say(t.what), why: say(t.why) }));
    const rows = [
      ...parts.map((p) => ['part', p.what, p.tag, p.quantity]),
      ...tools.map((t) => ['tool', t.what, '', t.why]),
    ];
    return { parts, tools, csv: csv({ heads: ['kind', 'what', 'tag', 'quantity or use'], rows }) };
  },

  /** Hash of what is signed now. */
  contentHash: (job: Job, profile: Profile, evidence: readonly Evidence[]): string =>
    contentHashOf(job, profile, evidence),

  /** Whether what was signed is still what the job is. */
  stands: (
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
    frozen: EvidenceOf<'issue'>,
  ): boolean => standsAsFrozen(job, profile, evidence, frozen),

  /** Files of the record; the drawings are made elsewhere and given. */
  files: (
    job: Job,
    profile: Profile,
    evidence: readonly Evidence[],
    drawings: Readonly<Record<string, string>>,
  ): Record<string, string> =>
    recordFiles(job, profile, evidence, { drawings, words: handWords(job, profile) }),
};

export type DeriveWorker = typeof worker;

expose(worker);
