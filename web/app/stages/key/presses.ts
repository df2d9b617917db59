import type { SaidLine } from '@tactron/core/said';

/** Key presses of a line as they are made at the device: `PRG × 2   + × 3   ENT (hold 2 s)`. */
export const pressText = ({ presses }: Pick<SaidLine, 'presses'>): string =>
  presses
    .map(
      (p) =>
        `${p.key}${p.times > 1 ? ` × ${p.times}` : ''}${p.holdS ? ` (hold ${p.holdS} s)` : ''}`,
    )
    .join('   ');
