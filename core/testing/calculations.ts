import { runCalculation } from '../calculation/index.js';
import { calculations } from '../sums/index.js';

/** A documented calculation by its name. @returns its results */
export const calc = (name: string, args: object) =>
  runCalculation(calculations[name], args as Record<string, unknown>).result as Record<
    string,
    number
  >;
/** Expects a value within a share of what is wanted. */
export const near = (value: number, wanted: number, share = 1e-3): void => {
  expect(Math.abs(value - wanted))
    .withContext(`${value} against ${wanted}`)
    .toBeLessThanOrEqual(share * Math.max(Math.abs(wanted), 1e-9));
};
