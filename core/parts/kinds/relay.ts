import { coilPart, pairsOf } from '../coil-parts.js';
import type { CoilSpec, Part } from '../part.js';

type Pair = readonly [string, string];

/** Switching times and contact rating of a small relay. */
const small = { operateMs: 15, releaseMs: 10, contactA: 6 } as const;

/** A relay on a plug-in base: its change-over contacts by the numbers of the base, common first. */
function plugIn(
  kind: string,
  coil: Pair,
  changeOvers: readonly (readonly [string, string, string])[],
): Part {
  const makes = changeOvers.map(([common, make]): Pair => [common, make]);
  const breaks = changeOvers.map(([common, , rest]): Pair => [common, rest]);
  return coilPart(kind, 'K', { ...small, makes, breaks }, 'coil', coil);
}

/** Relay with screw terminals: EN 50005. */
export const relay = coilPart('relay', 'K', {
  ...small,
  makes: pairsOf('13', '23'),
  breaks: pairsOf('31'),
});

/** Relay on a round base of 8 pins: IEC 61810-1 and the numbers on the base. */
export const relayPlug8 = plugIn(
  'relayPlug8',
  ['2', '7'],
  [
    ['1', '3', '4'],
    ['8', '6', '5'],
  ],
);

/** Relay on a round base of 11 pins. */
export const relayPlug11 = plugIn(
  'relayPlug11',
  ['2', '10'],
  [
    ['1', '3', '4'],
    ['6', '7', '5'],
    ['11', '9', '8'],
  ],
);

/** A relay that keeps itself in: the ends of its coil, the contact that holds it, the one it gives its command with. */
function keepsIn({ kind, coil }: Part): SealInRelay {
  const { coil: ends, makes } = coil as CoilSpec;
  const [hold, run] = makes;
  return { kind, coil: ends, hold, run };
}

interface SealInRelay {
  readonly kind: string;
  readonly coil: Pair;
  readonly hold: Pair;
  readonly run: Pair;
}

/** Relays that can keep themselves in, by what they sit on. */
export const sealInRelays = {
  screw: keepsIn(relay),
  plug8: keepsIn(relayPlug8),
  plug11: keepsIn(relayPlug11),
} as const;
