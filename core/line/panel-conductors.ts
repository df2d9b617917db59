import type { Size } from '../job/index.js';

/** Copper, PVC 70 °C, 40 °C air, one power circuit; B1: single wires in panel ducts. By mm²: two and three loaded conductors, A. */
const panelAmps: readonly (readonly [mm2: number, two: number, three: number])[] = [
  [1.5, 15.2, 13.5],
  [2.5, 20.9, 18.3],
  [4, 27.8, 24],
  [6, 35.7, 31],
  [10, 49.6, 44],
  [16, 66, 59],
  [25, 88, 77],
  [35, 109, 96],
];

/** AWG: copper at 75 °C and 30 °C air, and what terminals bear by the 60 °C column unless marked, A. */
const awgAmps: readonly (readonly [awg: string, at75: number, at60: number])[] = [
  ['14', 20, 15],
  ['12', 25, 20],
  ['10', 35, 30],
  ['8', 50, 40],
  ['6', 65, 55],
  ['4', 85, 70],
  ['3', 100, 85],
];

/** Factor of the 75 °C column at 40 °C air. */
const AT_40C = 0.88;
/** Conductors of a drive carry 125 % of its rated input current (NEC 430.122(A)). */
const NEC_SHARE = 1.25;

/** Ratings in which overcurrent protection is made, A (IEC 60947-2, preferred values). */
const ratings = [6, 10, 13, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125] as const;

/** What a feed wire is sized by. */
export interface FeedAsked {
  readonly practice: 'IEC' | 'NFPA';
  /** Conductors that carry current: two of a single phase, three. */
  readonly loaded: 2 | 3;
  /** Input current of the device, A. */
  readonly inputA: number;
  /** Rating of the protection ahead of it, A; the next one made where it is not known yet. */
  readonly protectionA?: number;
}

/**
 * What a wire in a panel duct may carry, A (IEC 60204-1 table 6 for three loaded, IEC 60364-5-52 × 0.87 for two; NEC 310.16
 * with its terminals).
 *
 * @returns undefined for a size that the table does not have
 * @example panelAmpacity({ mm2: 6 }, 3) // 31
 */
export function panelAmpacity(size: Size, loaded: 2 | 3): number | undefined {
  if ('mm2' in size) return panelAmps.find(([mm2]) => mm2 === size.mm2)?.[loaded === 2 ? 1 : 2];
  const row = awgAmps.find(([awg]) => awg === size.awg);
  return row && Math.min(row[1] * AT_40C, row[2]);
}

/** Current that a feed wire has to carry, A: in IEC practice what its protection lets through (IEC 60364-4-43 §433.1). */
export function feedCurrent({ practice, inputA, protectionA }: FeedAsked): number {
  if (practice === 'NFPA') return NEC_SHARE * inputA;
  return Math.max(inputA, protectionA ?? ratings.find((a) => a >= inputA) ?? inputA);
}

/**
 * Smallest feed wire in a panel duct that passes: I_B ≤ I_n ≤ I_z.
 *
 * @returns the largest of the table where none passes
 * @example feedSize({ practice: 'IEC', loaded: 3, inputA: 19, protectionA: 25 }) // { mm2: 6 }
 */
export function feedSize(asked: FeedAsked): Size {
  const amps = feedCurrent(asked);
  const sizes: Size[] =
    asked.practice === 'IEC'
      ? panelAmps.map(([mm2]) => ({ mm2 }))
      : awgAmps.map(([awg]) => ({ awg }));
  return (
    sizes.find((size) => (panelAmpacity(size, asked.loaded) ?? 0) >= amps) ?? (sizes.at(-1) as Size)
  );
}
