import { solveNetwork, type CircuitElement } from '../circuit/index.js';
import type { Installation } from '../installation/index.js';
import type { Engine } from './engine.js';

/** A resistance, or why none can be measured. */
export type OhmReading =
  | { readonly ok: true; readonly ohm: number | null }
  | { readonly ok: false; readonly why: 'live' | 'same' };

/** Current a meter injects, A. */
const TEST_A = 1e-3;

/**
 * Resistance between two landings: a test current is injected and the voltage read. Refused while anything is live, as a
 * careful person would.
 *
 * @returns ohms, null where nothing joins the two (open)
 */
export function ohmsBetween(
  installation: Installation,
  engine: Engine,
  a: number,
  b: number,
): OhmReading {
  if (engine.isLive()) return { ok: false, why: 'live' };
  if (a === b) return { ok: false, why: 'same' };
  const g = engine.conductances();
  const name = (i: number): string => String(i);
  const elements: CircuitElement[] = installation.edgeA.flatMap((from, e): CircuitElement[] =>
    g[e] > 0
      ? [
          {
            id: `e${e}`,
            kind: 'resistor',
            a: name(from),
            b: name(installation.edgeB[e]),
            ohm: 1 / g[e],
          },
        ]
      : [],
  );
  const test: CircuitElement = {
    id: 'test',
    kind: 'currentSource',
    a: name(b),
    b: name(a),
    amps: TEST_A,
    complianceVolts: 1e6,
  };
  const solved = solveNetwork({
    reference: name(b),
    nodes: installation.landings.map((_, i) => name(i)),
    elements: [...elements, test],
  });
  const volts = solved.nodeVolts[name(a)];
  const open = volts === null || Math.abs(solved.elementAmps['test'] ?? 0) < TEST_A / 2;
  return { ok: true, ohm: open ? null : volts / TEST_A };
}
