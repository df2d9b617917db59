import { factorySettings, modelOf, type Model, type Profile } from '@tactron/core/catalogue';
import { acceptanceSubject, checkJob, isAcceptable } from '@tactron/core/hazards';
import {
  contentHashOf,
  CORE_VERSION,
  hashOf,
  instrumentFor,
  signable,
  tickOf,
  usualRoles,
  type Author,
  type Evidence,
  type EvidenceKind,
  type Instrument,
  type InstrumentKind,
  type Job,
  type Ticked,
} from '@tactron/core/job';
import { expectedPhaseOhm } from '@tactron/core/line';
import { seeded } from '@tactron/core/numeric';
import { keyingLines } from '@tactron/core/plan';
import { deadOf, isolationSources, liveSteps, readingsOf } from '@tactron/core/procedure';
import {
  handGroups,
  handOverObstacles,
  handTasks,
  settingRows,
  stepRecords,
  type HandTask,
} from '@tactron/core/records';

const electrician: Author = { name: 'R. Quill', role: 'commissioning electrician' };
const owner: Author = { name: 'M. Stroud', role: 'maltings engineer' };

/** Minutes between two entries of a day at the panel. */
const PACE_MIN = 2;

/** A day at the panel: each entry some minutes after the one before. */
class Day {
  readonly evidence: Evidence[] = [];
  private atMs: number;

  constructor(
    private readonly job: Job,
    begins: string,
  ) {
    this.atMs = Date.parse(begins);
  }

  add(
    kind: EvidenceKind,
    subject: string,
    body: object,
    more: object = {},
    author: Author = electrician,
  ): void {
    const { id: jobId } = this.job;
    const hex = hashOf([jobId, kind, subject, this.evidence.length]);
    const id = `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
    this.atMs += PACE_MIN * 60_000;
    this.evidence.push({
      id,
      jobId,
      jobRevision: 0,
      kind,
      subject,
      body,
      ...more,
      author,
      atClient: new Date(this.atMs).toISOString(),
      coreVersion: CORE_VERSION,
    } as unknown as Evidence);
  }

  get last(): Evidence {
    return this.evidence[this.evidence.length - 1];
  }
}

const meter: Instrument = {
  name: 'Multimeter',
  serial: 'M2',
  calibratedUntil: '2027-03-31',
  measures: ['voltage', 'resistance', 'current'],
  category: 'CAT III 1000 V',
  trueRms: true,
};
const tester: Instrument = {
  name: 'Installation tester',
  serial: 'P1',
  calibratedUntil: '2027-01-31',
  measures: ['lowOhm', 'insulation', 'rotation'],
  category: 'CAT IV 600 V',
};
const twoPole: Instrument = {
  name: 'Two-pole tester',
  serial: 'T3',
  measures: ['voltageTest'],
  category: 'CAT IV 1000 V',
};
const clamp: Instrument = {
  name: 'Clamp',
  serial: 'C1',
  calibratedUntil: '2027-03-31',
  measures: ['current'],
  category: 'CAT III 600 V',
  trueRms: true,
};
const wheel: Instrument = { name: 'Tachometer', serial: 'H4', measures: ['speed'] };

/** With what is measured, by what it has to measure. */
const instruments: Readonly<Record<InstrumentKind, Instrument>> = {
  voltageTest: twoPole,
  voltage: meter,
  resistance: meter,
  lowOhm: tester,
  insulation: tester,
  current: clamp,
  speed: wheel,
  rotation: tester,
};

/** What else of a procedure: what is done after an answer, what of it is worked through, and the panel where it is not as planned. */
interface Through {
  readonly between?: (key: string) => void;
  readonly only?: 'dead';
  /** Answer after which the day ends. */
  readonly until?: string;
  readonly panel?: Job;
}

/** What is read and declared in the order of the procedure; the readings are those of the panel itself, a little off. */
function procedure(
  day: Day,
  job: Job,
  profile: Profile,
  seed: number,
  { between = () => undefined, only, until, panel = structuredClone(job) }: Through = {},
): void {
  let declared = '';
  let standing: string[] = [];
  for (const { step, values, verdict } of readingsOf(job, profile, panel, seeded(seed))) {
    if (only && step.part !== only) continue;
    if (step.isolation && step.isolation !== declared) {
      declared = step.isolation;
      const sources = isolationSources(job, profile).map(({ tag, what }, i) => ({
        name: tag,
        ...(what === 'load' ? {} : { lock: String(21 + i) }),
      }));
      day.add(
        'isolation',
        'isolation',
        { version: 2, state: declared, ...(declared === 'DEAD' ? { sources } : {}) },
        standing.length ? { supersedes: standing } : {},
      );
      standing = [day.last.id];
    }
    const kind = instrumentFor(step.instrument);
    day.add('reading', step.key, {
      version: 2,
      step,
      values,
      verdict,
      ...(kind ? { instrument: instruments[kind] } : {}),
    });
    between(step.key);
    if (step.key === until) return;
  }
}

/** Keyed in one session, from what was found to what is planned. */
function keyed(day: Day, job: Job, profile: Profile, model: Model): void {
  const factory = factorySettings(profile, model);
  day.add('snapshot', 'asFound', { which: 'asFound', source: 'typed', values: factory });
  day.add('keySession', 'session', { version: 1, state: 'begun', basis: hashOf(factory) });
  for (const line of keyingLines(job, profile, factory)) {
    if (line.hold === 'identify') {
      for (const [code, value] of Object.entries(measuredBy(job, profile)))
        day.add('keyed', code, { code, value });
      day.add('keyed', line.key, { code: line.key, value: 'standing' });
    } else if (line.code !== undefined && line.to !== undefined)
      day.add('keyed', line.key, { code: line.key, value: line.to });
  }
  day.add('keySession', 'session', { version: 1, state: 'ended', basis: hashOf(factory) });
}

/** What the device measures of its motor: a little off what the plate lets expect. */
function measuredBy(job: Job, profile: Profile): Record<string, number> {
  const ohm = expectedPhaseOhm(job, profile)?.nominal;
  const { results = [] } = profile.identification ?? {};
  if (ohm === undefined) return {};
  return Object.fromEntries(
    results.map((code) => {
      const { step = 0.001 } = profile.settings[code];
      return [code, Number((Math.round((1.06 * ohm) / step) * step).toFixed(3))];
    }),
  );
}

/** Every value as it stands in the device, read back. */
function readBack(day: Day, job: Job, profile: Profile, model: Model): void {
  const factory = factorySettings(profile, model);
  const left = Object.entries(job.adopted?.settings ?? {}).map(([code, { value }]) => [
    code,
    value,
  ]);
  const panel = settingRows(job, profile, factory, []).flatMap(({ code, panel: at, planned }) =>
    at?.planned === undefined ? [] : [[code, planned]],
  );
  day.add('snapshot', 'asLeft', {
    which: 'asLeft',
    source: 'typed',
    values: {
      ...factory,
      ...Object.fromEntries([...left, ...panel]),
      ...measuredBy(job, profile),
    },
  });
}

/** Every check with everything isolated, passed. */
export function deadDone(job: Job, profile: Profile): Evidence[] {
  const day = new Day(job, '2026-10-19T06:00:00.000Z');
  procedure(day, job, profile, 5, { only: 'dead' });
  return day.evidence;
}

/** Everything on the hand list landed, and tightened where the maker asks for a torque. */
function handsDone(day: Day, job: Job, profile: Profile): void {
  const tasks = handTasks(job, profile, []);
  const tick = (lines: readonly HandTask[], act: Ticked): void => {
    if (lines.length > 0)
      day.add(
        'handTick',
        'hand',
        tickOf(
          lines.map((t) => t.line),
          act,
          'device',
        ),
      );
  };
  for (const group of handGroups)
    tick(
      tasks.filter((t) => t.group === group),
      'landed',
    );
  tick(
    tasks.filter((t) => t.torqueNm.length > 0),
    'torque',
  );
}

/**
 * A job half done: landed, checked, keyed, tested up to its presets. One of them was keyed wrong, and its test has failed.
 *
 * @throws Error where that is not so
 */
export function halfDone(job: Job, profile: Profile): Evidence[] {
  const model = modelOf(profile, job.profile.model) as Model;
  const day = new Day(job, '2026-11-24T06:00:00.000Z');
  handsDone(day, job, profile);
  const preset = { code: '416', value: 25 };
  const panel: Job = {
    ...job,
    deviations: {
      slip: {
        ord: 1,
        where: { kind: 'setting', id: preset.code },
        actual: { kind: 'setting', ...preset },
        why: 'a slip of the finger',
      },
    },
  };
  procedure(day, job, profile, 23, {
    panel,
    until: 'preset.2',
    between: (key) => {
      if (key === 'supply.on') keyed(day, job, profile, model);
    },
  });
  const failed = day.evidence.flatMap((e) =>
    e.kind === 'reading' && e.body.verdict === 'fail' ? [e.subject] : [],
  );
  if (failed.join() !== 'preset.1') throw new Error(`${job.tag}: ${failed.join()} failed`);
  return day.evidence;
}

/**
 * A job handed over: landed, checked, keyed, tested, its findings accepted by name, signed by both roles.
 *
 * @throws Error where something stands against it: a demo that only looks complete is none
 */
export function handedOver(job: Job, profile: Profile): Evidence[] {
  const model = modelOf(profile, job.profile.model) as Model;
  const day = new Day(job, '2026-10-05T05:00:00.000Z');
  handsDone(day, job, profile);
  procedure(day, job, profile, 17, {
    between: (key) => {
      if (key !== 'supply.on') return;
      keyed(day, job, profile, model);
      readBack(day, job, profile, model);
    },
  });
  for (const finding of checkJob(job, profile))
    if (isAcceptable(finding))
      day.add(
        'acceptance',
        acceptanceSubject(finding),
        {
          rule: finding.rule,
          args: finding.args,
          reason: 'known to the owner; looked at once a year with the brake',
        },
        {},
        owner,
      );
  const open = handOverObstacles(
    job,
    [],
    stepRecords(liveSteps(job, profile), day.evidence),
    settingRows(job, profile, factorySettings(profile, model), day.evidence),
    day.evidence,
    stepRecords(deadOf(job, profile).steps, day.evidence),
  );
  if (open.length) throw new Error(`${job.tag}: ${open.map((o) => o.code).join(', ')}`);
  const contentHash = contentHashOf(job, profile, day.evidence);
  day.add('issue', 'issue.1', {
    version: 1,
    number: 1,
    contentHash,
    roles: [...usualRoles],
    covers: signable(day.evidence).map((e) => e.id),
  });
  usualRoles.forEach((role, i) =>
    day.add(
      'signature',
      'issue.1',
      {
        role,
        statement: `${role}: I stand for issue 1 of this record.`,
        documentHash: contentHash,
        mark:
          i === 0
            ? 'M12 60L40 22L58 66L92 30L120 58L160 44L210 52'
            : 'M14 40L30 66L52 28L70 62L96 36L132 60L184 40L236 46',
      },
      {},
      i === 0 ? electrician : owner,
    ),
  );
  return day.evidence;
}
