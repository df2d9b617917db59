/** Elements whose conductance depends on what they carry. Each has a small integer mode. */
export interface ModalEdge {
  readonly edge: number;
  readonly kind: 'diode' | 'currentSource' | 'transmitter' | 'limitedSupply';
}

/** What a modal edge is set to at this moment; devices may change it. */
export interface ModalValue {
  /** Forward volts, compliance volts, minimum volts or supply volts. */
  volts: number;
  /** Source amps or the current limit. */
  amps: number;
  /** Conductance when it acts as a voltage source, S. */
  g: number;
}

/** 0 = off (open), 1 = like a voltage source, 2 = like a current source. */
export type Mode = 0 | 1 | 2;

/** Currents below this are taken for none when a mode is judged, A. */
const NO_AMPS = 1e-9;

/** First mode tried for an element that was never solved before. */
export function firstMode(kind: ModalEdge['kind']): Mode {
  return kind === 'limitedSupply' ? 1 : kind === 'diode' ? 0 : 2;
}

/** Writes what the mode means into the edge arrays. */
export function applyMode(
  m: ModalEdge,
  mode: Mode,
  p: ModalValue,
  g: Float64Array,
  emf: Float64Array,
  j: Float64Array,
): void {
  const forward = m.kind === 'currentSource' ? -Math.sign(p.amps) * p.volts : p.volts;
  g[m.edge] = mode === 1 ? p.g : 0;
  emf[m.edge] = mode === 1 ? forward : 0;
  j[m.edge] = mode === 2 ? (m.kind === 'limitedSupply' ? -p.amps : p.amps) : 0;
}

/**
 * The mode that the result asks for; equal to the present one when the result does not contradict it.
 *
 * @param across volts of a above b, or null where the two ends have no common island
 * @param through amps from a to b
 * @param aAtReference whether a lies in the island of the reference
 */
export function judgeMode(
  kind: ModalEdge['kind'],
  mode: Mode,
  p: ModalValue,
  across: number | null,
  through: number,
  aAtReference: boolean,
): Mode {
  switch (kind) {
    case 'diode':
      if (mode === 1) return through < -NO_AMPS ? 0 : 1;
      return (across === null ? aAtReference : across > p.volts) ? 1 : 0;
    case 'currentSource':
      if (p.amps === 0 && mode !== 1) return mode;
      if (mode === 2)
        return across === null || -across * Math.sign(p.amps) > p.volts
          ? p.volts === Infinity
            ? 0
            : 1
          : 2;
      if (mode === 0) return across === null ? 0 : 2;
      return Math.abs(through) > Math.abs(p.amps) + NO_AMPS ? 2 : 1;
    case 'transmitter':
      if (mode === 2) return across === null ? 1 : across < p.volts ? 1 : 2;
      if (mode === 1) return through > p.amps + NO_AMPS ? 2 : through < -NO_AMPS ? 0 : 1;
      return (across === null ? aAtReference : across > p.volts) ? 1 : 0;
    case 'limitedSupply':
      if (mode === 1) return -through > p.amps + NO_AMPS ? 2 : 1;
      return across === null || across > p.volts ? 1 : 2;
  }
}
