/** One row of the table: what was measured, against which budget, and whether it was held. */
export interface Row {
  readonly what: string;
  readonly measured: string;
  readonly budget: string;
  readonly ok: boolean | null;
}

export const median = (list: readonly number[]): number =>
  [...list].sort((x, y) => x - y)[Math.floor(list.length / 2)];
export const p95 = (list: readonly number[]): number =>
  [...list].sort((x, y) => x - y)[Math.min(list.length - 1, Math.floor(list.length * 0.95))];
