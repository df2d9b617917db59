import * as v from 'valibot';

const text = (max: number) => v.pipe(v.string(), v.maxLength(max));

/** What an instrument measures. */
export const instrumentKinds = [
  'voltageTest',
  'voltage',
  'resistance',
  'lowOhm',
  'insulation',
  'current',
  'speed',
  'rotation',
] as const;
export type InstrumentKind = (typeof instrumentKinds)[number];

/** An instrument as it was when a reading was taken with it: a copy, so that it stays true. */
export const instrumentSchema = v.strictObject({
  name: v.pipe(text(120), v.trim(), v.minLength(1, 'a name')),
  serial: v.optional(text(80)),
  /** Last day of its calibration, as year, month and day. */
  calibratedUntil: v.optional(text(40)),
  measures: v.optional(v.pipe(v.array(v.picklist(instrumentKinds)), v.maxLength(8))),
  /** Measuring category with its voltage, as it stands on it: CAT III 600 V. */
  category: v.optional(text(40)),
  trueRms: v.optional(v.boolean()),
});
export type Instrument = v.InferOutput<typeof instrumentSchema>;

/** What a step's instrument has to measure; what is not here needs none: a watch is on the page. */
const wanted: Readonly<Record<string, InstrumentKind>> = {
  'voltage tester': 'voltageTest',
  voltmeter: 'voltage',
  ohmmeter: 'resistance',
  'low-ohm meter': 'lowOhm',
  'insulation tester': 'insulation',
  ammeter: 'current',
  clamp: 'current',
  clampPeak: 'current',
  tachometer: 'speed',
  rotationTester: 'rotation',
};

/**
 * What has to be measured for a step; undefined where no instrument is asked for.
 *
 * @param instrument as the step names it
 * @example instrumentFor('clamp') // 'current'
 */
export const instrumentFor = (instrument: string | undefined): InstrumentKind | undefined =>
  instrument === undefined ? undefined : wanted[instrument];

/** Why an instrument does not do for a step. */
export type InstrumentDoubt = 'cannotMeasure' | 'notTrueRms' | 'outOfCalibration';

/**
 * What is against an instrument at a step: it cannot measure that, it shows a wrong current at the output of a device that
 * chops it, its calibration has ended. What is not known of it is not held against it.
 *
 * @param instrument as the step names it
 * @param today as year, month and day
 * @returns the gravest; undefined where nothing is against it
 * @example instrumentDoubt({ name: 'M1', measures: ['voltage'] }, 'ohmmeter', '2026-12-01') // 'cannotMeasure'
 */
export function instrumentDoubt(
  { measures, trueRms, calibratedUntil }: Instrument,
  instrument: string | undefined,
  today: string,
): InstrumentDoubt | undefined {
  const kind = instrumentFor(instrument);
  if (kind && measures && !measures.includes(kind)) return 'cannotMeasure';
  if (kind === 'current' && trueRms === false) return 'notTrueRms';
  return calibratedUntil && calibratedUntil < today ? 'outOfCalibration' : undefined;
}
