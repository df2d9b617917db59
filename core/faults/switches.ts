import { CONTACT_OHM } from '../circuit/index.js';
import { BRIDGE_OHM, SWITCHES, type Installation } from '../installation/index.js';
import { faultKey, type Fault } from '../job/index.js';
import type { InstalledSwitches } from '../parts/index.js';

/** Faults that a switch of one edge can bring about while the installation runs. */
export type SwitchedFault = Extract<Fault, { kind: 'open' | 'short' | 'stuck' }>;

/** An installation in which faults can come and go, and the switch of each. */
export interface Switchable {
  readonly installation: Installation;
  /** Number of the switch that brings a fault about; undefined where what it names is not there. */
  switchOf(fault: SwitchedFault): number | undefined;
}

/**
 * Lays a switch for every fault into one compiled network, so that a fault is a bit and not a network of its own. It means
 * what `applyFault` means: the same trace comes of both.
 *
 * @example switchFault(installation, [{ kind: 'open', wire: 'w12' }]).switchOf({ kind: 'open', wire: 'w12' }) // 0
 */
export function switchFault(
  installation: Installation,
  faults: readonly SwitchedFault[],
): Switchable {
  const edgeA = [...installation.edgeA];
  const edgeB = [...installation.edgeB];
  const edges = [...installation.edges];
  const own = installation.devices.find((d) => d.id === SWITCHES) as InstalledSwitches;
  const switches = [...own.switches];
  const numbers = new Map<string, number>();
  const index = new Map(installation.landings.map((landing, i) => [landing, i]));
  for (const fault of faults) {
    const made = switchesFor(installation, fault);
    // Several faults may have a break or a short in common.
    if (made === undefined || numbers.has(faultKey(fault))) continue;
    let { edge } = made;
    if (fault.kind === 'short') {
      const [a, b] = [index.get(fault.a), index.get(fault.b)];
      if (a === undefined || b === undefined) continue;
      edge = edgeA.push(a) - 1;
      edgeB.push(b);
      edges.push({ of: SWITCHES, role: 'fault', a: fault.a, b: fault.b });
    }
    numbers.set(faultKey(fault), switches.push({ edge, g: made.g }) - 1);
  }
  const devices = installation.devices.map((d) => (d.id === SWITCHES ? { ...own, switches } : d));
  return {
    installation: { ...installation, edgeA, edgeB, edges, devices },
    switchOf: (fault) => numbers.get(faultKey(fault)),
  };
}

function switchesFor(
  { edges }: Installation,
  fault: SwitchedFault,
): { readonly edge: number; readonly g: number } | undefined {
  if (fault.kind === 'short') return { edge: -1, g: 1 / BRIDGE_OHM };
  const edge =
    fault.kind === 'open'
      ? edges.findIndex((e) => e.role === 'wire' && e.of === fault.wire)
      : edges.findIndex(
          (e) =>
            e.role === 'contact' &&
            e.of === fault.device &&
            e.a === `${fault.device}:${fault.contact}`,
        );
  if (edge < 0) return undefined;
  const closed = fault.kind === 'stuck' && fault.is === 'closed';
  return { edge, g: closed ? 1 / CONTACT_OHM : 0 };
}
