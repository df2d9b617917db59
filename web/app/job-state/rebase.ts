import * as v from 'valibot';
import {
  applyPatch,
  disjoint,
  jobSchema,
  patchBetween,
  type Evidence,
  type Job,
  type Operation,
} from '@tactron/core/job';
import type { Conflict, PendingChange, ServerChange } from './job.model';

/**
 * What becomes of waiting changes when the server has moved on. Only the client rebases: what is disjoint is laid over the new
 * document and the result is checked again; what touches the same thing is asked about.
 *
 * @param outbox waiting changes in their order
 * @param job the document as the server has it now
 * @param changes what was changed there since
 * @param options `tooFar`: that was too much to be told, whatever waits is asked about; `from`: revision that is known already,
 *   changes up to it are no news
 * @returns ids that have arrived already, waiting changes without the plan that went with them where another plan was adopted
 *   meanwhile, and the first change that cannot stand beside what others did
 */
export function clashOf(
  outbox: readonly PendingChange[],
  job: Job,
  changes: readonly ServerChange[],
  { tooFar = false, from = -1 }: { readonly tooFar?: boolean; readonly from?: number } = {},
): Clash {
  if (tooFar && outbox.length > 0) {
    const why = 'thousands of changes were made elsewhere since';
    return { arrived: [], thinned: [], conflict: { mine: outbox[0], theirs: [], since: [], why } };
  }
  const known = new Set(changes.map((c) => c.id));
  // What is in already is nobody else's: the answer to it came before these changes did.
  const since = changes.filter(
    (c) => c.revision > from && !outbox.some((mine) => mine.id === c.id),
  );
  const waiting = outbox.filter((c) => !known.has(c.id));
  const left = waiting.map((c) => withoutPlan(c, since));
  const thinned = left.filter((c, i) => c !== waiting[i]);
  const arrived = outbox.filter((c) => known.has(c.id)).map((c) => c.id);
  const touching = (mine: PendingChange) =>
    since.filter((theirs) => !disjoint(mine.patch, theirs.patch));
  const mine = left.find((c) => touching(c).length > 0);
  if (mine) return { arrived, thinned, conflict: { mine, theirs: touching(mine), since } };
  let doc = job;
  for (const change of left) {
    let why: string | undefined;
    try {
      doc = applyPatch(doc, change.patch);
      if (since.length) why = problemOf(doc);
    } catch {
      why = 'what it changes is no longer there';
    }
    if (why) return { arrived, thinned, conflict: { mine: change, theirs: since, since, why } };
  }
  return { arrived, thinned, conflict: null };
}

export interface Clash {
  readonly arrived: string[];
  readonly thinned: readonly PendingChange[];
  readonly conflict: Conflict | null;
}

const ofPlan = ({ path }: Operation): boolean =>
  path === '/adopted' || path.startsWith('/adopted/');

/**
 * A plan follows from what is wished; where another was adopted meanwhile, the wish goes in without its own, and the plan of
 * both is made afterwards. A change that adopts a plan and nothing else is a person's word and stays as it is.
 */
function withoutPlan(change: PendingChange, since: readonly ServerChange[]): PendingChange {
  if (!since.some((theirs) => theirs.patch.some(ofPlan))) return change;
  const wished = change.patch.filter((operation) => !ofPlan(operation));
  const wishes = wished.some((operation) => operation.op !== 'test');
  return wishes && wished.length < change.patch.length ? { ...change, patch: wished } : change;
}

function problemOf(job: Job): string | undefined {
  const result = v.safeParse(jobSchema, job);
  return result.success ? undefined : result.issues[0].message;
}

/** The change in question, and those of this window that build on it. */
function group({ mine }: Conflict, outbox: readonly PendingChange[]): Set<string> {
  return new Set(
    outbox.filter((c) => c.id === mine.id || !disjoint(c.patch, mine.patch)).map((c) => c.id),
  );
}

interface Settled {
  readonly job: Job;
  readonly outbox: readonly PendingChange[];
  readonly conflict: Conflict | null;
}

/** What others wrote stands: the change in question goes, the others stay and are looked at again. */
export function theirsStand(
  base: Job,
  outbox: readonly PendingChange[],
  conflict: Conflict,
): Settled {
  const gone = group(conflict, outbox);
  return settled(
    base,
    outbox.filter((c) => !gone.has(c.id)),
    conflict.since,
    new Set(),
  );
}

/** What was written here stands: it is laid over the places others changed; the rest is looked at again. */
export function mineStands(
  base: Job,
  outbox: readonly PendingChange[],
  conflict: Conflict,
): Settled {
  return settled(base, outbox, conflict.since, group(conflict, outbox));
}

function settled(
  base: Job,
  outbox: readonly PendingChange[],
  since: readonly ServerChange[],
  forced: ReadonlySet<string>,
): Settled {
  let doc = base;
  const next: PendingChange[] = [];
  const open = outbox.filter((c) => !forced.has(c.id));
  const { conflict } = clashOf(open, base, since);
  for (const change of outbox) {
    let after: Job;
    if (forced.has(change.id)) {
      after = applyForced(doc, change.patch);
      const patch = patchBetween(doc, after);
      if (patch.length) next.push({ ...change, patch });
    } else {
      try {
        after = applyPatch(doc, change.patch);
      } catch {
        next.push(change);
        return {
          job: base,
          outbox: [...next, ...outbox.slice(outbox.indexOf(change) + 1)],
          conflict: conflict ?? {
            mine: change,
            theirs: since,
            since,
            why: 'what it changes is no longer there',
          },
        };
      }
      next.push(change);
    }
    doc = after;
  }
  return { job: conflict ? base : doc, outbox: next, conflict };
}

/** Lays a change over a document that it no longer fits exactly: the same places get the wanted values. */
function applyForced(document: Job, patch: readonly Operation[]): Job {
  return patch.reduce((doc, operation) => {
    if (operation.op === 'test') return doc;
    try {
      return applyPatch(doc, [
        operation.op === 'replace' ? { ...operation, op: 'add' } : operation,
      ]);
    } catch {
      return doc;
    }
  }, document);
}

/** How much of a job's evidence is here from its first piece on, as the server chained it. */
export function chainedPart(evidence: readonly Evidence[]): { after: number; hash: string } {
  const next = new Map(evidence.flatMap((e) => (e.hash ? [[e.prevHash ?? '', e.hash]] : [])));
  let [after, hash] = [0, ''];
  for (let to = next.get(''); to !== undefined && after < next.size; to = next.get(hash)) {
    after++;
    hash = to;
  }
  return { after, hash };
}

/** The first pieces of a job's evidence in the order of their chain. */
export function inChain(evidence: readonly Evidence[], count: number): Evidence[] {
  const next = new Map(evidence.flatMap((e) => (e.hash ? [[e.prevHash ?? '', e] as const] : [])));
  const list: Evidence[] = [];
  for (let e = next.get(''); e && list.length < count; e = next.get(e.hash ?? '')) list.push(e);
  return list;
}

/** Evidence with more of it, each piece once; what came later about a piece stands. */
export const mergedEvidence = (now: readonly Evidence[], more: readonly Evidence[]): Evidence[] => {
  const byId = new Map(now.map((e) => [e.id, e]));
  for (const e of more) byId.set(e.id, e);
  return [...byId.values()];
};
