import type { TemporaryKind } from '../job/index.js';

/** Kinds of what is put in for a test, as they are said. */
export const temporaryNames: Readonly<Record<TemporaryKind, string>> = {
  jumper: 'jumper',
  liftedWire: 'lifted wire',
  forced: 'forced signal',
  bypass: 'bypass',
  testValue: 'test values',
  other: 'something else',
};
