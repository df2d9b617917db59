import type { Strip } from '@tactron/core/compare';
import { sayMark } from '@tactron/core/words';

/** A timing strip with its marks in words. */
export type SaidStrip = Omit<Strip, 'marks'> & {
  readonly marks: readonly { readonly atMs: number; readonly text: string }[];
};

export const saidStrip = (strip: Strip): SaidStrip => ({
  ...strip,
  marks: strip.marks.map(({ atMs, what }) => ({ atMs, text: sayMark(what) })),
});
