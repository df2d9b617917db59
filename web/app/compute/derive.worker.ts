import { expose } from 'comlink';
import type { Profile } from '@tactron/core/catalogue';
import { csv, recordFiles, type Table } from '@tactron/core/formats';
import {
  contentHashOf,
  standsAsFrozen,
  type Evidence,
  type EvidenceOf,
  type Job,
  type Scheme,
} from '@tactron/core/job';
import { motorCurves, plateContext, type MotorCurves } from '@tactron/core/line';
import { derivedParts, saidParts, type Derived, type PartsAndTools } from '@tactron/core/said';
import { arrangementsFor, startFrom } from '@tactron/core/scheme';
import { handWords } from '@tactron/core/words';

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
    const parts = derivedParts(job, profile, evidence);
    for (;;) {
      await breath();
      if (round !== latest) return null;
      const { done, value } = parts.next();
      if (done) return value;
    }
  },

  /** The fitted motor and its run-up; apart from `derive`, so that a keystroke elsewhere does not wait for a fit. */
  curves(job: Job, profile: Profile): MotorCurves | null {
    return motorCurves(plateContext(job, profile)) ?? null;
  },

  startFrom(scheme: Scheme, id: string, speeds: boolean): Scheme | null {
    const arrangement = arrangementsFor(speeds).find((a) => a.id === id);
    return arrangement ? startFrom(scheme, arrangement) : null;
  },

  parts: (job: Job, profile: Profile): PartsAndTools => saidParts(job, profile),

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
    recordFiles(job, profile, evidence, { beside: drawings, words: handWords(job, profile) }),

  /** Tables as CSV, by the name of the file. */
  csvs: (tables: Readonly<Record<string, Table>>): Record<string, string> =>
    Object.fromEntries(Object.entries(tables).map(([name, table]) => [name, csv(table)])),
};

export type DeriveWorker = typeof worker;

expose(worker);
