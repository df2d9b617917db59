import type { Broken } from './broken.js';
import type { FedMachine } from './plan-run.js';
import type { StarterControl, StarterLevels } from './vocabulary.js';

/** What reaches the command logic at one moment. */
export interface StarterInputs {
  readonly levels: StarterLevels;
  /** Speed of the shaft as Hz, in the direction of the supply's sequence, and whether it turns by itself. */
  readonly shaftHz: number;
  readonly shaftTurns: boolean;
  /** −1 where the supply turns the other way; +1 also where it cannot be seen. */
  readonly rotation: 1 | -1;
}

/** What the logic of a starter is made from. */
export interface StarterCore {
  readonly control: StarterControl;
  readonly machine: FedMachine;
  /** Absent where everything inside works. */
  readonly broken?: Broken;
  /** It measures its poles, and has a fault of its own for one that conducts. */
  readonly seesShort?: boolean;
}

/** Microseconds of a time in s. */
export const us = (s: number): number => Math.round(s * 1e6);
