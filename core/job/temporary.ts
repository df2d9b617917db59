import type { EvidenceBody, EvidenceOf, Evidence } from './evidence.js';

/** What is put in for a test and must come out again. */
export const temporaryKinds = [
  'jumper',
  'liftedWire',
  'forced',
  'bypass',
  'testValue',
  'other',
] as const;
export type TemporaryKind = (typeof temporaryKinds)[number];

/** One thing that was put in for a test: what and where, by whom, and by whom it was taken out again. */
export interface Temporary {
  /** Subject under which it was put in; it is taken out under the same. */
  readonly subject: string;
  readonly kind: TemporaryKind;
  readonly what: string;
  readonly where: string;
  readonly put: EvidenceOf<'temporary'>;
  readonly removed: EvidenceOf<'temporary'> | undefined;
}

/**
 * Everything put in for tests, in the order in which it was put in. What was taken out stays out, in whatever order the
 * evidence arrives: to put it in again is another thing with a subject of its own.
 *
 * @example temporaryRegister(evidence).filter((t) => !t.removed).length // jumpers that are still in
 */
export function temporaryRegister(evidence: readonly Evidence[]): Temporary[] {
  const own = evidence
    .filter((e): e is EvidenceOf<'temporary'> => e.kind === 'temporary')
    .sort((x, y) => x.atClient.localeCompare(y.atClient) || x.id.localeCompare(y.id));
  const subjects = [...new Set(own.map((e) => e.subject))];
  return subjects.flatMap((subject): Temporary[] => {
    const of = own.filter((e) => e.subject === subject);
    const put = of.find((e) => !e.body.removed) ?? of[0];
    const { kind = 'other', what, where = '' } = put.body;
    return [{ subject, kind, what, where, put, removed: of.find((e) => e.body.removed) }];
  });
}

/** Settings that stand in the device for tests, and are to be put back: by code. */
export const testValuesIn = (
  evidence: readonly Evidence[],
): NonNullable<EvidenceBody<'temporary'>['values']> =>
  Object.assign(
    {},
    ...temporaryRegister(evidence).flatMap((t) => (t.removed ? [] : [t.put.body.values ?? {}])),
  );

/** The body that takes out what was put in. */
export const takenOut = ({ put }: Temporary): EvidenceBody<'temporary'> => ({
  ...put.body,
  removed: true,
});
