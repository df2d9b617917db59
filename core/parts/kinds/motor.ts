import type { Part } from '../part.js';

/** Terminals of a motor whose windings are joined inside or by links, and of one with both ends of each brought out (IEC 60034-8). */
export const THREE_LEADS = ['U', 'V', 'W'] as const;
export const SIX_LEADS = ['U1', 'V1', 'W1', 'U2', 'V2', 'W2'] as const;

/** The motor: what turns is its shaft; its windings are no part of the control network. */
export const motor: Part = {
  kind: 'motor',
  letter: 'M',
  symbol: 'motor',
  power: true,
  turns: true,
  terminals: ({ params }) => [...(params['leads'] === 6 ? SIX_LEADS : THREE_LEADS), 'PE'],
};
