import { formatNumber } from '../units/index.js';

export type Args = Readonly<Record<string, number | string | boolean>>;

/** A number as words show it; other values as they are. */
export const n = (x: unknown, digits = 2): string =>
  typeof x === 'number' ? formatNumber(x, digits) : String(x);
