import { coilPart } from '../coil-parts.js';
import type { Part } from '../part.js';

/** Brake that a spring closes and its coil opens. */
export const brake: Part = {
  ...coilPart('brake', 'Y', {
    makes: [],
    breaks: [],
    operateMs: 80,
    releaseMs: 120,
    contactA: 0,
  }),
  holds: true,
  exposed: () => true,
};
