import * as v from 'valibot';
import { actSchema } from './job.js';

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

/** From this share of its lower end on a range has no upper end to speak of. */
const OPEN_RATIO = 10_000;

/**
 * A range that only asks for so much or more: an instrument may show overload.
 *
 * @example isOpenEnded({ kind: 'range', lo: 1, hi: 100_000, nominal: 5, unit: 'MΩ' }) // true
 */
export const isOpenEnded = (expect: Expectation): boolean =>
  expect.kind === 'range' && expect.lo > 0 && expect.hi >= OPEN_RATIO * expect.lo;

/**
 * Judges a reading against what was expected of it; the ends of a range belong to it. An instrument that shows overload has
 * read `Infinity`.
 *
 * @example verdictOf({ kind: 'range', lo: 392, hi: 408, nominal: 400, unit: 'V' }, 398.5) // 'pass'
 */
export function verdictOf(
  expect: Expectation,
  reading: number | string | boolean,
): 'pass' | 'fail' {
  if (expect.kind === 'state') return reading === expect.is ? 'pass' : 'fail';
  if (reading === Infinity) return isOpenEnded(expect) ? 'pass' : 'fail';
  return typeof reading === 'number' && reading >= expect.lo && reading <= expect.hi
    ? 'pass'
    : 'fail';
}

/** A sentence of the core: its code and arguments; the words are made outside. */
export const phraseSchema = v.strictObject({ code: text(80), args: v.record(v.string(), value) });
export type Phrase = v.InferOutput<typeof phraseSchema>;

/** Parts of the live tests in rising energy; a later one begins when what holds it has been passed. */
export const liveSections = [
  'energise',
  'power',
  'simulated',
  'inputs',
  'contacts',
  'bump',
  'stops',
  'motions',
  'speed',
  'top',
  'tells',
  'return',
] as const;
export type LiveSection = (typeof liveSections)[number];

/** Which way the shaft turns, and the output frequency that would drive it so, Hz. */
export const shaftSchema = v.strictObject({
  turns: v.picklist(['rest', 'forward', 'reverse']),
  hz: v.number(),
});
export type ShaftSeen = v.InferOutput<typeof shaftSchema>;

/** What a device shows when a step looks at it. */
export const shownSchema = v.strictObject({
  /** Monitor that is read; empty for the resting display. */
  monitor: v.pipe(v.string(), v.maxLength(80)),
  keys: v.pipe(v.array(text(80)), v.maxLength(12)),
  shows: v.pipe(v.string(), v.maxLength(200)),
  lamps: v.array(v.strictObject({ name: text(80), is: v.picklist(['dark', 'lit', 'flashing']) })),
});
export type DisplaySeen = v.InferOutput<typeof shownSchema>;

/** What is looked at for an answer, so that the same can be looked at in a simulation of any fault. */
export const seesSchema = v.variant('kind', [
  /** A level: an input, a lamp, a contactor. */
  v.strictObject({ kind: v.literal('level'), signal: text(120) }),
  /** A voltage between two landings; as current through a resistance where one is given, mA. */
  v.strictObject({
    kind: v.literal('volts'),
    plus: text(120),
    minus: text(120),
    ac: v.optional(v.boolean()),
    throughOhm: v.optional(v.number()),
  }),
  /** Output frequency, which way the shaft turns, whether it was started, the state of the device. */
  v.strictObject({ kind: v.picklist(['hz', 'turns', 'starts', 'state']) }),
]);
export type Sees = v.InferOutput<typeof seesSchema>;

/** States of isolation, in rising danger. */
export const isolationState = v.picklist(['DEAD', 'CONTROL LIVE', 'MAIN LIVE']);

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
  /**
   * Required function that the step tests. `unmet` says what this job does instead: then no answer passes, and the finding
   * says why.
   */
  requirement: v.optional(v.strictObject({ id: text(80), unmet: v.optional(text(40)) })),
  /** Act at the panel that this is an answer to; answers of one act follow one another without anything let go. */
  act: v.optional(text(80)),
  section: v.optional(v.picklist(liveSections)),
  /** What is done for this answer, at ms from the beginning of its act. */
  acts: v.optional(v.pipe(v.array(actSchema), v.maxLength(200))),
  /** The shaft before anything is done for it, and when it is looked at: as simulated. */
  shaftBefore: v.optional(shaftSchema),
  shaftAfter: v.optional(shaftSchema),
  sees: v.optional(seesSchema),
  /** What display and lamps of the device show then: where it is read, by which keys, and as it stands there. */
  display: v.optional(shownSchema),
  /** What ends the act: everything let go, faults reset, the machine at rest. */
  then: v.optional(phraseSchema),
  /** Starts at the voltage of the supply that its act takes; only with the first answer of an act. */
  starts: v.optional(v.pipe(v.number(), v.integer(), v.minValue(1))),
  /** What comes after waits until this is passed. */
  hold: v.optional(v.boolean()),
  /** State of isolation that has to be declared for it. */
  isolation: v.optional(isolationState),
  /** Places that are each read: the phases of a supply, the leads of a motor. */
  fields: v.optional(v.pipe(v.array(text(40)), v.minLength(1), v.maxLength(12))),
  /** What each of the places is to show, where that is not the same; what the first one is to show stands in `expect` too. */
  each: v.optional(v.pipe(v.array(expectationSchema), v.minLength(1), v.maxLength(12))),
  /** How far the furthest of the places may be from their mean, %. */
  unbalancePct: v.optional(v.number()),
  basis: text(64),
});
export type ProcedureStep = v.InferOutput<typeof stepSchema>;

/**
 * How far the furthest of some readings is from their mean, % of the mean (NEMA MG 1 §12.45 takes volts so).
 *
 * @example unbalancePctOf([400, 400, 391]) // 1.51
 */
export function unbalancePctOf(readings: readonly number[]): number {
  const mean = readings.reduce((sum, x) => sum + x, 0) / readings.length;
  return mean === 0 ? 0 : (100 * Math.max(...readings.map((x) => Math.abs(x - mean)))) / mean;
}

/**
 * What one of the places of a step is to show.
 *
 * @param place from 0
 */
export const expectedAt = (
  { expect, each }: Pick<ProcedureStep, 'expect' | 'each'>,
  place: number,
): Expectation | undefined => each?.[place] ?? expect;

/**
 * Judges the answers to a step: as `verdictOf` for each place that is read, and their unbalance; a required function which
 * the job does not have is passed by none.
 */
export function verdictOfStep(
  step: Pick<ProcedureStep, 'expect' | 'each' | 'requirement' | 'unbalancePct'>,
  ...readings: readonly (number | string | boolean)[]
): 'pass' | 'fail' {
  const { each, requirement, unbalancePct } = step;
  if (requirement?.unmet !== undefined || readings.length === 0) return 'fail';
  if (each && readings.length !== each.length) return 'fail';
  for (const [place, reading] of readings.entries()) {
    const expect = expectedAt(step, place);
    if (!expect || verdictOf(expect, reading) === 'fail') return 'fail';
  }
  if (unbalancePct === undefined) return 'pass';
  return unbalancePctOf(readings.filter((x) => typeof x === 'number')) <= unbalancePct
    ? 'pass'
    : 'fail';
}
