import * as v from 'valibot';
import { instrumentSchema } from './instrument.js';
import { stepSchema, isolationState } from './step.js';

const text = (max: number) => v.pipe(v.string(), v.maxLength(max));
const value = v.union([v.pipe(v.number(), v.finite()), text(400), v.boolean()]);

export const verdicts = ['pass', 'fail'] as const;

/** Kinds of files that are taken as evidence; nothing a browser would run. */
export const attachmentTypes = [
  'image/jpeg',
  'image/png',
  'image/webp',
  'application/pdf',
  'text/plain',
  'text/csv',
] as const;
export const MAX_ATTACHMENT_BYTES = 12_000_000;

const sha256 = v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal'));
const note = v.optional(text(2000));
const moment = v.pipe(v.string(), v.isoTimestamp());

/** One value read: where, what, in which unit, and as it was typed; `over` where the instrument showed overload. */
const readValue = v.strictObject({
  where: v.optional(text(120)),
  value: v.optional(value),
  unit: v.optional(text(20)),
  typed: v.optional(text(60)),
  over: v.optional(v.boolean()),
});

const verdict = v.picklist(verdicts);
/** A reading as the first release kept it: one value, the instrument by name. */
const firstReading = v.strictObject({
  step: stepSchema,
  reading: value,
  unit: v.optional(text(20)),
  verdict,
  note,
  instrument: v.optional(text(120)),
});
const reading = v.strictObject({
  version: v.literal(2),
  step: stepSchema,
  values: v.pipe(v.array(readValue), v.minLength(1, 'a value'), v.maxLength(12)),
  verdict,
  /** Who read the instrument, where somebody else wrote. */
  reader: v.optional(text(120)),
  note,
  instrument: v.optional(instrumentSchema),
});

const first = { version: v.literal(1) };

/** Bodies of the kinds of evidence; each carries its version, those of the first release carry none. */
export const evidenceBodies = {
  reading: v.union([reading, firstReading]),
  snapshot: v.strictObject({
    which: v.picklist(['asFound', 'asLeft']),
    source: v.picklist(['typed', 'factory', 'imported']),
    values: v.record(text(80), value),
    /** Picture of the page that shows a value, where it was taken from one. */
    pictures: v.optional(v.record(text(80), sha256)),
  }),
  keyed: v.strictObject({ code: text(80), value, undone: v.optional(v.boolean()) }),
  acceptance: v.strictObject({
    rule: text(80),
    args: v.record(v.string(), value),
    reason: v.pipe(text(1000), v.trim(), v.minLength(1, 'a reason')),
  }),
  isolation: v.strictObject({
    /** Absent as the first release took it. */
    version: v.optional(v.literal(2)),
    state: isolationState,
    /** Each source with the number of the lock on it. */
    sources: v.optional(
      v.pipe(
        v.array(v.strictObject({ name: text(120), lock: v.optional(text(60)) })),
        v.maxLength(40),
      ),
    ),
    /** Who holds the keys, where that is not who declares. */
    holder: v.optional(text(120)),
    permit: v.optional(text(80)),
    until: v.optional(moment),
    note: v.optional(text(400)),
  }),
  attachment: v.strictObject({
    sha256,
    name: v.pipe(text(200), v.trim(), v.minLength(1, 'a name')),
    type: v.picklist(attachmentTypes),
    bytes: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(MAX_ATTACHMENT_BYTES)),
    /** A small picture of it, as a data URL. */
    thumbnail: v.optional(v.pipe(text(40_000), v.startsWith('data:image/'))),
    note,
    /** Superseded by nothing: it was put there by mistake, and says so. */
    withdrawn: v.optional(v.boolean()),
  }),
  signature: v.strictObject({
    role: text(80),
    statement: text(400),
    documentHash: text(64),
    /** The mark that was drawn, as an SVG path. */
    mark: v.optional(v.pipe(text(20_000), v.regex(/^[MLC0-9 .,-]*$/u, 'a path'))),
  }),
  /** A line of the hand list done: landed, tugged or tightened, by what one touch covered. */
  handTick: v.strictObject({
    ...first,
    act: v.picklist(['landed', 'tugged', 'torque']),
    by: v.picklist(['line', 'cable', 'device', 'row']),
    lines: v.pipe(v.array(text(120)), v.minLength(1), v.maxLength(500)),
    basis: text(64),
    undone: v.optional(v.boolean()),
  }),
  /** A session at the keypad, from its holds to read-back; interrupted when the page was left. */
  keySession: v.strictObject({
    ...first,
    state: v.picklist(['begun', 'interrupted', 'ended']),
    basis: text(64),
    note,
  }),
  readBack: v.strictObject({
    ...first,
    code: text(80),
    value,
    /** The planned value was hidden until this one was typed. */
    blind: v.optional(v.boolean()),
    picture: v.optional(sha256),
  }),
  /** A hold point passed, or overridden with a reason. */
  confirmation: v.strictObject({
    ...first,
    hold: text(160),
    overridden: v.optional(v.boolean()),
    reason: v.optional(text(1000)),
  }),
  countdown: v.strictObject({
    ...first,
    what: v.picklist(['discharge', 'coolDown', 'inhibit']),
    startedAt: moment,
    seconds: v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(86_400)),
  }),
  /** Something put in for a test that must come out again. */
  temporary: v.strictObject({
    ...first,
    kind: v.optional(
      v.picklist(['jumper', 'liftedWire', 'forced', 'bypass', 'testValue', 'other']),
    ),
    /** Settings keyed for a test; put back, what they were put back to. */
    values: v.optional(v.record(text(80), value)),
    where: v.optional(text(120)),
    what: v.pipe(text(400), v.trim(), v.minLength(1, 'a few words')),
    removed: v.optional(v.boolean()),
  }),
  rotation: v.strictObject({
    ...first,
    at: text(120),
    order: v.picklist(['L1 L2 L3', 'L1 L3 L2']),
    instrument: v.optional(instrumentSchema),
  }),
  /** Something left open, by rank, and closed later. */
  punch: v.strictObject({
    ...first,
    text: v.pipe(text(1000), v.trim(), v.minLength(1, 'a few words')),
    rank: v.picklist(['mustFix', 'lookAt', 'advice']),
    /** By when it has to be closed. */
    category: v.optional(v.picklist(['beforePower', 'beforeProduction', 'later'])),
    owner: v.optional(text(120)),
    due: v.optional(text(40)),
    closed: v.optional(v.boolean()),
  }),
  calibration: v.strictObject({
    ...first,
    input: text(120),
    points: v.pipe(
      v.array(
        v.strictObject({
          signal: v.number(),
          reads: v.number(),
          unit: text(20),
          /** Share that was asked of the source, %. */
          askedPct: v.optional(v.number()),
          /** Speed of the shaft, where it was read too. */
          rpm: v.optional(v.number()),
        }),
      ),
      v.minLength(2),
      v.maxLength(50),
    ),
    instrument: v.optional(instrumentSchema),
  }),
  instrument: v.strictObject({ ...first, ...instrumentSchema.entries }),
  traceFile: v.strictObject({ ...first, sha256, name: text(200), mapping: v.optional(text(120)) }),
  /** The state of a job that signatures name: hash of document, profile and evidence. */
  issue: v.strictObject({
    ...first,
    number: v.pipe(v.number(), v.integer(), v.minValue(1)),
    contentHash: sha256,
    /** Opens this issue after the one before it was closed; why is told with it. */
    opens: v.optional(v.literal(true)),
    /** Roles that must sign it. */
    roles: v.optional(v.pipe(v.array(text(80)), v.minLength(1), v.maxLength(12))),
    /** Evidence that it covers. */
    covers: v.optional(v.pipe(v.array(v.pipe(v.string(), v.uuid())), v.maxLength(20_000))),
    /** What stays open, each kind with the reason for which it is signed all the same. */
    open: v.optional(
      v.pipe(
        v.array(
          v.strictObject({
            what: text(1000),
            reason: v.pipe(text(1000), v.trim(), v.minLength(1, 'a reason')),
          }),
        ),
        v.maxLength(100),
      ),
    ),
  }),
  recordFile: v.strictObject({ ...first, sha256, name: text(200), issue: text(80) }),
} as const;
export type EvidenceKind = keyof typeof evidenceBodies;
export type EvidenceBody<K extends EvidenceKind> = v.InferOutput<(typeof evidenceBodies)[K]>;

const authorSchema = v.strictObject({
  name: v.pipe(text(120), v.trim(), v.minLength(1, 'a name')),
  role: text(120),
});
export type Author = v.InferOutput<typeof authorSchema>;

function entriesOf<K extends EvidenceKind>(kind: K) {
  return v.strictObject({
    id: v.pipe(v.string(), v.uuid()),
    jobId: v.pipe(v.string(), v.uuid()),
    jobRevision: v.pipe(v.number(), v.integer(), v.minValue(0)),
    kind: v.literal(kind),
    subject: text(200),
    body: evidenceBodies[kind],
    /** One piece, or several that it stands for from now on. */
    supersedes: v.optional(
      v.union([
        v.pipe(v.string(), v.uuid()),
        v.pipe(v.array(v.pipe(v.string(), v.uuid())), v.minLength(1), v.maxLength(50)),
      ]),
    ),
    why: v.optional(text(1000)),
    author: authorSchema,
    atClient: v.pipe(v.string(), v.isoTimestamp()),
    atServer: v.optional(v.string()),
    /** Seconds by which the clock of the sending device was ahead of the server's when it was sent. */
    clockAheadS: v.optional(v.pipe(v.number(), v.integer())),
    coreVersion: text(40),
    /** How its hash is taken; 2 is over who sent it too. Absent: as the first release took it. */
    formula: v.optional(v.literal(2)),
    /** Account that sent it, where accounts were on. */
    sentBy: v.optional(v.pipe(v.string(), v.uuid())),
    prevHash: v.optional(text(64)),
    hash: v.optional(text(64)),
  });
}

/** One piece of evidence: append-only, superseded and never changed. */
export const evidenceSchema = v.variant('kind', [
  entriesOf('reading'),
  entriesOf('snapshot'),
  entriesOf('keyed'),
  entriesOf('acceptance'),
  entriesOf('isolation'),
  entriesOf('attachment'),
  entriesOf('signature'),
  entriesOf('handTick'),
  entriesOf('keySession'),
  entriesOf('readBack'),
  entriesOf('confirmation'),
  entriesOf('countdown'),
  entriesOf('temporary'),
  entriesOf('rotation'),
  entriesOf('punch'),
  entriesOf('calibration'),
  entriesOf('instrument'),
  entriesOf('traceFile'),
  entriesOf('issue'),
  entriesOf('recordFile'),
]);
export type Evidence = v.InferOutput<typeof evidenceSchema>;
export type EvidenceOf<K extends EvidenceKind> = Extract<Evidence, { kind: K }>;

export { authorSchema };

/**
 * Whether this release cannot know what it is given: a kind of evidence or a version of a body that a later one made. That
 * is no mistake of who sends it.
 *
 * @example isOfLaterRelease({ kind: 'handTick', body: { version: 9 } }) // true
 */
export function isOfLaterRelease(data: unknown): boolean {
  const { kind, body } = (data ?? {}) as { kind?: unknown; body?: { version?: unknown } };
  if (typeof kind !== 'string') return false;
  if (!(kind in evidenceBodies)) return true;
  const version = body?.version;
  const known = kind === 'reading' || kind === 'isolation' ? 2 : 1;
  return typeof version === 'number' && version > known;
}

/** Ids that a piece of evidence stands in for; none for most. */
export function supersededBy(e: Pick<Evidence, 'supersedes'>): readonly string[] {
  return e.supersedes === undefined
    ? []
    : typeof e.supersedes === 'string'
      ? [e.supersedes]
      : e.supersedes;
}

/** What a reading says, whichever release kept it. */
export interface ReadingTold {
  readonly values: readonly {
    readonly where?: string;
    readonly value?: number | string | boolean;
    readonly unit?: string;
    readonly over?: boolean;
  }[];
  readonly instrument: string;
}

/**
 * The values of a reading and the instrument it was taken with.
 *
 * @example readingTold(e.body).values[0].value // 24.1
 */
export function readingTold(body: EvidenceBody<'reading'>): ReadingTold {
  if ('version' in body) return { values: body.values, instrument: body.instrument?.name ?? '' };
  const { reading: read, unit, instrument = '' } = body;
  return { values: [{ value: read, ...(unit ? { unit } : {}) }], instrument };
}
