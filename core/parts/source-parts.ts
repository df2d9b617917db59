import type { Part } from './part.js';

/** Terminals of the supply that an analogue stage takes from outside, plus first. */
export const STAGE_SUPPLY = ['L+', 'M'] as const;

/** What an analogue stage draws from a supply of its own, Ω at 24 V; below the voltage it gives nothing. */
const STAGE_OHM = 400;
const STAGE_MIN_V = 18;

/** A speed signal of a controller; with `supplied` among its parameters its stage needs 24 V of its own. */
export function signalSource(kind: 'voltageSource' | 'currentSource'): Part {
  const gives = kind === 'voltageSource' ? 'volts' : 'amps';
  return {
    kind,
    letter: 'A',
    symbol: 'source',
    terminals: ({ params }) => [...(params['supplied'] === true ? STAGE_SUPPLY : []), '+', '-'],
    install: (layout, { id, tag, params }) => {
      const [plus, minus] = STAGE_SUPPLY.map((terminal) => `${id}:${terminal}`);
      const supply =
        params['supplied'] === true
          ? {
              ...layout.across(plus, minus, id, 'primary'),
              ohm: STAGE_OHM,
              minV: STAGE_MIN_V,
            }
          : undefined;
      const output =
        gives === 'volts'
          ? { edge: layout.edge(`${id}:+`, `${id}:-`, id, 'track'), modal: undefined }
          : layout.modalEdge(`${id}:-`, `${id}:+`, 'currentSource', id, 'track');
      return { kind: 'source', id, tag, gives, ...output, supply };
    },
  };
}
