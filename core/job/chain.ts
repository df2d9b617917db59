import type { Author, Evidence } from './evidence.js';
import { hashOf } from './hash.js';
import type { Operation } from './patch.js';

/** What the hash of a change is taken over, besides the hash before it. */
export interface ChainedChange {
  readonly id: string;
  readonly jobId: string;
  readonly revision: number;
  readonly patch: readonly Operation[];
  readonly author: Author;
  readonly atClient: string;
  /** 2: the account that sent it is taken into the hash; absent as the first releases took it. */
  readonly formula?: 2 | null;
  readonly sentBy?: string | null;
}

/**
 * Hash that chains a change to the one before it.
 *
 * @param prevHash hash of the change before; empty for the first of a job
 * @returns SHA-256 in hexadecimal
 */
export function changeHash(
  prevHash: string,
  { id, jobId, revision, patch, author, atClient, formula, sentBy }: ChainedChange,
): string {
  const told = [prevHash, id, jobId, revision, patch, author, atClient];
  return hashOf(formula === 2 ? [...told, sentBy ?? null] : told);
}

/**
 * Hash that chains a piece of evidence to the one before it: over everything it says, with the times of both clocks.
 *
 * @param prevHash hash of the piece before; empty for the first of a job
 * @returns SHA-256 in hexadecimal
 */
export function evidenceHash(prevHash: string, e: Evidence): string {
  const { prevHash: _p, hash: _h, sentBy, ...said } = e;
  // The first formula did not know who had sent it.
  const told = said.formula === 2 ? { ...said, sentBy: sentBy ?? null } : said;
  return hashOf([prevHash, told]);
}

/** What a check of a chain of evidence found. */
export interface ChainCheck {
  readonly ok: boolean;
  /** Pieces that stand in the chain. */
  readonly count: number;
  /** Hash of the last piece: the same hash on paper and in a file is the same chain, to its end. */
  readonly ends: string;
  /** Pieces behind the chain that no server has taken yet: they wait on the device that wrote the file. */
  readonly waiting: number;
  /** The first place at which the chain does not hold. */
  readonly broken?: {
    readonly index: number;
    readonly id: string;
    readonly why: 'order' | 'content';
  };
}

/**
 * Checks that evidence stands as the server chained it: nothing changed, taken out, added between or put elsewhere. What is
 * missing at the end shows only in `ends`, to be compared with the printed record.
 *
 * @param list evidence of one job in its order
 * @returns where it does not hold: `order` its predecessor is another, `content` it was changed
 * @example verifyEvidence([]) // { ok: true, count: 0, ends: '', waiting: 0 }
 */
export function verifyEvidence(list: readonly Evidence[]): ChainCheck {
  const first = list.findIndex((e) => e.hash === undefined);
  const chained =
    first >= 0 && list.slice(first).every((e) => e.hash === undefined)
      ? list.slice(0, first)
      : list;
  const waiting = list.length - chained.length;
  let ends = '';
  for (const [index, e] of chained.entries()) {
    const why =
      e.prevHash !== ends ? 'order' : evidenceHash(ends, e) !== e.hash ? 'content' : undefined;
    if (why || e.hash === undefined)
      return {
        ok: false,
        count: index,
        ends,
        waiting,
        broken: { index, id: e.id, why: why ?? 'content' },
      };
    ends = e.hash;
  }
  return { ok: true, count: chained.length, ends, waiting };
}
