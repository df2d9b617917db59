import * as v from 'valibot';
import { instrumentSchema } from './instrument.js';
import { tolerancesSchema } from './tolerances.js';

const share = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(1));
const text = (max: number) =>
  v.pipe(v.string(), v.trim(), v.minLength(1, 'a name'), v.maxLength(max));
const id = v.pipe(v.string(), v.regex(/^[A-Za-z0-9][A-Za-z0-9._:-]{0,79}$/u, 'an id'));

/**
 * What a site settles for all its jobs: tolerances of readings, tables of its own, the roles that must sign, the
 * instruments it has, how its recorders name their columns. Versioned like a job, with a revision of its own.
 */
export const siteSchema = v.strictObject({
  format: v.literal('tactron-site'),
  version: v.literal(1),
  /** By how much readings may differ, where it is not the usual; a job takes them over. */
  tolerances: tolerancesSchema,
  /** Ampacity tables of the site, by name: amps by size. */
  tables: v.record(
    id,
    v.strictObject({
      title: text(120),
      amps: v.record(v.string(), v.pipe(v.number(), v.gtValue(0))),
    }),
  ),
  /** Roles whose signatures close a record, in order. */
  requiredRoles: v.pipe(v.array(text(80)), v.maxLength(12)),
  /** Instruments by id; added to, and put out of use, never taken out. */
  instruments: v.record(
    id,
    v.strictObject({ ...instrumentSchema.entries, outOfUse: v.optional(v.boolean()) }),
  ),
  /** Columns of a recorder's CSV by what they hold. */
  csvMappings: v.record(
    id,
    v.strictObject({
      title: text(120),
      columns: v.record(v.string(), text(120)),
      share: v.optional(share),
    }),
  ),
});
export type SiteDocument = v.InferOutput<typeof siteSchema>;

/** A site for which nothing was settled yet. */
export const emptySite = (): SiteDocument => ({
  format: 'tactron-site',
  version: 1,
  tolerances: {},
  tables: {},
  requiredRoles: [],
  instruments: {},
  csvMappings: {},
});
