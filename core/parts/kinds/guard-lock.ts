import { coilPart } from '../coil-parts.js';
import type { Part } from '../part.js';

/** Lock of a guard, by a spring; its magnet lets it go. */
export const guardLock: Part = {
  ...coilPart('guardLock', 'Y', {
    makes: [],
    breaks: [],
    operateMs: 40,
    releaseMs: 30,
    contactA: 0,
  }),
  exposed: () => true,
};
