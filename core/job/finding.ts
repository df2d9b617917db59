/** What a finding or an event is about. */
export interface Where {
  readonly kind: 'wire' | 'landing' | 'device' | 'setting' | 'plate';
  readonly id: string;
}

export type Rank = 'protects' | 'moves' | 'tells';

/** Something a person must know or put right. Its sentences are made in `words`, by rule and arguments. */
export interface Finding {
  /** Rule and subject: the same from run to run. */
  readonly key: string;
  readonly rule: string;
  readonly severity: 'stop' | 'warn' | 'advise';
  /** What is at stake: somebody relies on it not to be hurt, the motor moves otherwise, or something is told wrongly. */
  readonly rank: Rank;
  /** Where it is put right. */
  readonly stage: 'plate' | 'scheme' | 'land' | 'key';
  readonly where: readonly Where[];
  readonly args: Readonly<Record<string, number | string | boolean>>;
  /** Standard, formula or simulation it rests on. */
  readonly source: string;
  /** Hash of what it depends on: an acceptance holds only while this is the same. */
  readonly basis: string;
  /** Trial that shows it, and the moment at which it shows. */
  readonly proof?: { readonly script: string; readonly atUs: number };
}

/** Key of a finding from its rule and subject. */
export function findingKey(rule: string, subject: string): string {
  return subject === '' ? rule : `${rule}:${subject}`;
}
