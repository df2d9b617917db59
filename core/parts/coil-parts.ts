import type { Layout } from '../circuit/index.js';
import type { InstalledCoil } from './installed.js';
import { numberOf, type CoilSpec, type Part, type PartSymbol, type PlacedPart } from './part.js';

/** First terminals of the three main poles of a contactor: IEC 60947-4-1. */
export const MAIN_POLES = ['1', '3', '5'] as const;

/** Contact pairs by their first terminals: 13 gives 13–14. */
export const pairsOf = (...starts: string[]): (readonly [string, string])[] =>
  starts.map((a) => [a, `${a.slice(0, -1)}${Number(a.slice(-1)) + 1}`] as const);

function installCoil(layout: Layout, part: PlacedPart, spec: CoilSpec): InstalledCoil {
  const { id, tag, params } = part;
  const edges = (pairs: CoilSpec['makes']): number[] =>
    pairs.map(([a, b]) => layout.edge(`${id}:${a}`, `${id}:${b}`, id, 'contact'));
  const us = (ms: number): number => Math.round(ms * 1000);
  const [makes, breaks] = [edges(spec.makes), edges(spec.breaks)];
  const pairs = [...spec.makes, ...spec.breaks];
  const first = pairs.findIndex(([a]) => a === params['first']);
  return {
    kind: 'coil',
    id,
    tag,
    coil: layout.across(`${id}:${spec.coil[0]}`, `${id}:${spec.coil[1]}`, id, 'coil'),
    ac: params['ac'] === true,
    volts: numberOf(part, 'volts', 24),
    ohm: numberOf(part, 'ohm', 900),
    operateUs: us(spec.operateMs + 1000 * numberOf(part, 'delayOnS', 0)),
    releaseUs: us(spec.releaseMs + 1000 * numberOf(part, 'delayOffS', 0)),
    contactA: spec.contactA,
    ...(spec.answers ? { answers: true as const } : {}),
    makes,
    breaks,
    late: first < 0 ? [] : [...makes, ...breaks].filter((_, i) => i !== first),
    lagUs: first < 0 ? 0 : us(numberOf(part, 'lagMs', 0)),
  };
}

/** A part with a coil, between A1 and A2 unless its base says otherwise. */
export function coilPart(
  kind: string,
  letter: string,
  spec: Omit<CoilSpec, 'coil'>,
  symbol: PartSymbol = 'coil',
  ends: CoilSpec['coil'] = ['A1', 'A2'],
): Part {
  const coil: CoilSpec = { coil: ends, ...spec };
  const terminals = [...new Set([...coil.coil, ...coil.makes.flat(), ...coil.breaks.flat()])];
  return {
    kind,
    letter,
    symbol,
    coil,
    terminals: () => terminals,
    install: (layout, part) => installCoil(layout, part, coil),
  };
}
