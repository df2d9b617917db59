import { presentTerminals, type Profile, type Terminal } from '../catalogue/index.js';
import type { Layout } from '../circuit/index.js';

/** Alternating voltage at a terminal that is nothing but pick-up, V. */
export const PICK_UP_V = 1;
/** What terminals for direct voltage bear beyond their own, V: usual limits of control electronics. */
const bears: Readonly<Partial<Record<Terminal['kind'], number>>> = {
  digitalInput: 33,
  enableInput: 33,
  inputCommon: 33,
  supply24: 33,
  zeroVolt: 33,
  analogueInput: 15,
  analogueOutput: 15,
};
/** Share by which a reference may be above its own voltage before another source is feeding it. */
const FED_SHARE = 1.05;
/** Current into an input switched to milliamperes that its burden bears, mA. */
export const MOST_MA = 30;

/** What a terminal of the device withstands, from its profile. */
export interface Withstood {
  readonly terminal: string;
  readonly landing: number;
  /** An output to the motor: no alternating voltage of the supply may reach it. */
  readonly output: boolean;
  /** Highest direct voltage against the reference, V. */
  readonly mostDc: number;
  /** Lowest voltage that can harm it, however its switch stands, V. */
  readonly leastHarmV: number;
}

/**
 * What the terminals of a device withstand: outputs to the motor and everything of the control.
 *
 * @example withstoodBy(profile, 'device', (l) => landings.indexOf(l)).find((w) => w.terminal === 'U')?.output // true
 */
export function withstoodBy(
  profile: Profile,
  device: string,
  landing: (name: string) => number,
): Withstood[] {
  return presentTerminals(profile).flatMap((terminal): Withstood[] => {
    const spec = profile.terminals[terminal];
    const at = { terminal, landing: landing(`${device}:${terminal}`) };
    if (spec.kind === 'motor')
      return spec.phase === 'PE' ? [] : [{ ...at, output: true, mostDc: Infinity, leastHarmV: 0 }];
    const mostDc = spec.kind === 'reference10' ? spec.volts * FED_SHARE : bears[spec.kind];
    if (mostDc === undefined) return [];
    // A current input has a burden of some hundred ohms: a few volts are too much for it.
    const leastHarmV = spec.kind === 'analogueInput' ? 0 : mostDc;
    return [{ ...at, output: false, mostDc, leastHarmV }];
  });
}

/** Own direct voltage of a device at a terminal of its control. */
interface OwnSupply {
  readonly id: string;
  readonly supply24: { readonly edge: number; readonly volts: number } | undefined;
  readonly reference10: { readonly edge: number; readonly volts: number } | undefined;
}

/**
 * Which of them something can reach that they do not withstand: a source that is not the device's own, a battery or bridge in
 * a hand, or a supply of the device that is too high for them, through whatever contacts, coils and wires there are. The
 * others need not be looked at.
 */
export function reachable(
  withstood: readonly Withstood[],
  { edges, edgeA, edgeB, modal, landings }: Layout,
  device: OwnSupply,
): Withstood[] {
  const up = landings.map((_, i) => i);
  const of = (i: number): number => {
    while (up[i] !== i) i = up[i] = up[up[i]];
    return i;
  };
  // Inside the device only what is joined for good or by a link counts: its inputs lead nothing on.
  edges.forEach((e, i) => {
    if (e.of !== device.id || e.role === 'join') up[of(edgeA[i])] = of(edgeB[i]);
  });
  const most = new Map<number, number>();
  const gives = (edge: number, volts: number): void => {
    for (const end of [edgeA[edge], edgeB[edge]])
      most.set(of(end), Math.max(volts, most.get(of(end)) ?? 0));
  };
  edges.forEach((e, i) => {
    if (e.of !== device.id && (e.role === 'source' || e.role === 'hand')) gives(i, Infinity);
  });
  for (const { edge } of modal) if (edges[edge].of !== device.id) gives(edge, Infinity);
  for (const own of [device.supply24, device.reference10]) if (own) gives(own.edge, own.volts);
  return withstood.filter((w) => {
    const volts = most.get(of(w.landing)) ?? 0;
    return volts === Infinity || volts > w.leastHarmV;
  });
}
