import type { Strip } from '../compare/index.js';
import { sayMark } from '../words/index.js';

/** A timing strip with its marks in words. */
export type SaidStrip = Omit<Strip, 'marks'> & {
  readonly marks: readonly { readonly atMs: number; readonly text: string }[];
};

export const saidStrip = (strip: Strip): SaidStrip => ({
  ...strip,
  marks: strip.marks.map(({ atMs, what }) => ({ atMs, text: sayMark(what) })),
});
