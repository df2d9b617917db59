import * as v from 'valibot';

const text = (max: number) => v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(max));

/** What a window says of who looks at a job. */
export const presenceSchema = v.strictObject({
  window: v.pipe(v.string(), v.uuid()),
  name: text(120),
  /** Where in the job: a stage, by the last part of its address. */
  at: text(40),
  /** The window is closed, or went to another job. */
  gone: v.optional(v.boolean()),
});
export type PresenceNote = v.InferOutput<typeof presenceSchema>;

/** Somebody who has a job open. */
export interface Present {
  readonly window: string;
  readonly name: string;
  readonly at: string;
}

/** Without a word for so long a window counts as closed, ms. */
const FORGOTTEN_MS = 60_000;
/** Windows of one job that are told at most. */
const MOST = 50;

/** Who has which job open, as their windows say; kept in memory only, since it is nothing a minute later. */
export class Presence {
  private readonly jobs = new Map<string, Map<string, Present & { readonly seenMs: number }>>();

  constructor(private readonly now: () => number = Date.now) {}

  /**
   * Notes what a window says.
   *
   * @returns everybody at the job now, and whether that differs from before
   */
  note(
    jobId: string,
    { window, name, at, gone }: PresenceNote,
  ): { readonly present: Present[]; readonly changed: boolean } {
    const known = this.jobs.get(jobId) ?? new Map<string, Present & { seenMs: number }>();
    const before = JSON.stringify(this.listed(known));
    const seenMs = this.now();
    for (const [id, p] of known) if (seenMs - p.seenMs > FORGOTTEN_MS) known.delete(id);
    if (gone) known.delete(window);
    else if (known.has(window) || known.size < MOST)
      known.set(window, { window, name, at, seenMs });
    if (known.size > 0) this.jobs.set(jobId, known);
    else this.jobs.delete(jobId);
    const present = this.listed(known);
    return { present, changed: JSON.stringify(present) !== before };
  }

  private listed(known: ReadonlyMap<string, Present>): Present[] {
    return [...known.values()].map(({ window, name, at }) => ({ window, name, at }));
  }
}
