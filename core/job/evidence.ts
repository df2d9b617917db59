import * as v from 'valibot';

const text = (max: number) => v.pipe(v.string(), v.maxLength(max));
const value = v.union([v.pipe(v.number(), v.finite()), text(400), v.boolean()]);

/** What a test step expects. */
export const expectationSchema = v.variant('kind', [
  v.strictObject({
    kind: v.literal('range'),
    lo: v.number(),
    hi: v.number(),
    nominal: v.number(),
    unit: text(20),
  }),
  v.strictObject({ kind: v.literal('state'), is: text(120) }),
]);
export type Expectation = v.InferOutput<typeof expectationSchema>;

/**
 * Judges a reading against what was expected of it; the ends of a range belong to it.
 *
 * @example verdictOf({ kind: 'range', lo: 392, hi: 408, nominal: 400, unit: 'V' }, 398.5) // 'pass'
 */
export function verdictOf(
  expect: Expectation,
  reading: number | string | boolean,
): 'pass' | 'fail' {
  if (expect.kind === 'state') return reading === expect.is ? 'pass' : 'fail';
  return typeof reading === 'number' && reading >= expect.lo && reading <= expect.hi
    ? 'pass'
    : 'fail';
}

/** A sentence of the core: its code and arguments; the words are made outside. */
export const phraseSchema = v.strictObject({ code: text(80), args: v.record(v.string(), value) });
export type Phrase = v.InferOutput<typeof phraseSchema>;

/** One step of a procedure; embedded whole in its readings, so that they still read correctly later. */
export const stepSchema = v.strictObject({
  key: text(160),
  part: v.picklist(['dead', 'energise', 'live']),
  do: phraseSchema,
  must: phraseSchema,
  instrument: v.optional(text(60)),
  needs: v.array(text(160)),
  cautions: v.array(text(80)),
  expect: v.optional(expectationSchema),
  from: v.variant('kind', [
    v.strictObject({ kind: v.literal('simulation'), script: text(200), atUs: v.number() }),
    v.strictObject({ kind: v.picklist(['formula', 'standard']), name: text(120) }),
  ]),
  basis: text(64),
});
export type ProcedureStep = v.InferOutput<typeof stepSchema>;

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

/** Bodies of the kinds of evidence kept so far. */
export const evidenceBodies = {
  reading: v.strictObject({
    step: stepSchema,
    reading: value,
    unit: v.optional(text(20)),
    verdict: v.picklist(verdicts),
    note: v.optional(text(2000)),
    instrument: v.optional(text(120)),
  }),
  snapshot: v.strictObject({
    which: v.picklist(['asFound', 'asLeft']),
    source: v.picklist(['typed', 'factory', 'imported']),
    values: v.record(text(80), value),
  }),
  keyed: v.strictObject({ code: text(80), value, undone: v.optional(v.boolean()) }),
  acceptance: v.strictObject({
    rule: text(80),
    args: v.record(v.string(), value),
    reason: v.pipe(text(1000), v.trim(), v.minLength(1, 'a reason')),
  }),
  isolation: v.strictObject({
    state: v.picklist(['DEAD', 'CONTROL LIVE', 'MAIN LIVE']),
    note: v.optional(text(400)),
  }),
  attachment: v.strictObject({
    sha256: v.pipe(v.string(), v.regex(/^[0-9a-f]{64}$/u, 'a SHA-256 in hexadecimal')),
    name: v.pipe(text(200), v.trim(), v.minLength(1, 'a name')),
    type: v.picklist(attachmentTypes),
    bytes: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(MAX_ATTACHMENT_BYTES)),
    /** A small picture of it, as a data URL. */
    thumbnail: v.optional(v.pipe(text(40_000), v.startsWith('data:image/'))),
    note: v.optional(text(2000)),
    /** Superseded by nothing: it was put there by mistake, and says so. */
    withdrawn: v.optional(v.boolean()),
  }),
  signature: v.strictObject({ role: text(80), statement: text(400), documentHash: text(64) }),
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
    supersedes: v.optional(v.pipe(v.string(), v.uuid())),
    why: v.optional(text(1000)),
    author: authorSchema,
    atClient: v.pipe(v.string(), v.isoTimestamp()),
    atServer: v.optional(v.string()),
    /** Seconds by which the clock of the sending device was ahead of the server's when it was sent. */
    clockAheadS: v.optional(v.pipe(v.number(), v.integer())),
    coreVersion: text(40),
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
]);
export type Evidence = v.InferOutput<typeof evidenceSchema>;
export type EvidenceOf<K extends EvidenceKind> = Extract<Evidence, { kind: K }>;

export { authorSchema };
