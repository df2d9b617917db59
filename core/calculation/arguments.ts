import type { ArgumentSpec } from './descriptor.js';

/** A number that may be zero or more, up to `max`. */
export const upTo = (
  title: string,
  unit: string,
  max: number,
  more: Partial<ArgumentSpec> = {},
): ArgumentSpec => ({ title, unit, min: 0, max, ...more });

/** A number above zero, up to `max`. */
export const positive = (
  title: string,
  unit: string,
  max: number,
  more: Partial<ArgumentSpec> = {},
): ArgumentSpec => ({ title, unit, above: 0, max, ...more });

/** A number between two limits. */
export const between = (
  title: string,
  unit: string,
  min: number,
  max: number,
  more: Partial<ArgumentSpec> = {},
): ArgumentSpec => ({
  title,
  unit,
  min,
  max,
  ...more,
});

/** One of named ways. */
export const choice = (
  title: string,
  choices: readonly string[],
  fallback?: string,
): ArgumentSpec => ({ title, unit: '', kind: 'choice', choices, fallback });

/** Title and unit of a result. */
export const result = (title: string, unit = ''): { title: string; unit: string } => ({
  title,
  unit,
});
