import { Circuit, type Stamp } from './circuit.js';
import { CONTACT_OHM, NO_OHM, type CircuitElement, type Network } from './elements.js';
import type { ModalEdge, ModalValue } from './modes.js';

/** Voltages against the reference and currents from a to b; null where a landing floats. */
export interface NetworkResult {
  nodeVolts: Record<string, number | null>;
  elementAmps: Record<string, number>;
}

/** Thrown when the modes of diodes, limited supplies and current sources never agree with their own result. */
export class UnsettledNetworkError extends Error {}

/**
 * The voltage a meter would show on every node of a direct-current network, and the current of every element.
 *
 * @param network nodes and elements, checked by `networkSchema`
 * @returns volts against the reference, `null` where there is no path to it; amps counted from a to b
 * @throws UnsettledNetworkError when no state of the diodes and limited sources is consistent
 * @example
 * solveNetwork({ reference: '0V', nodes: ['+24', '0V'], elements: [
 *   { id: 'PS', kind: 'voltageSource', a: '+24', b: '0V', volts: 24 } ] }).nodeVolts['+24'] // 24
 */
export function solveNetwork(network: Network): NetworkResult {
  const index = new Map(network.nodes.map((node, i) => [node, i]));
  const modal: ModalEdge[] = [];
  network.elements.forEach((element, edge) => {
    const kind = modalKind(element);
    if (kind) modal.push({ edge, kind });
  });
  const at = (node: string): number => index.get(node) as number;
  const reference = at(network.reference);
  const circuit = new Circuit({
    nodeCount: network.nodes.length,
    edgeA: network.elements.map((e) => at(e.a)),
    edgeB: network.elements.map((e) => at(e.b)),
    modal,
    reference,
  });
  const stamp = circuit.emptyStamp();
  network.elements.forEach((element, edge) => stampFixed(element, edge, stamp));
  modal.forEach((m, i) => (stamp.modal[i] = modalValue(network.elements[m.edge])));
  const solution = circuit.solve(stamp);
  if (!solution.settled)
    throw new UnsettledNetworkError('the diodes and limited sources of this network never settle');
  const nodeVolts: Record<string, number | null> = {};
  network.nodes.forEach((node, i) => {
    nodeVolts[node] =
      solution.island[i] === solution.island[reference]
        ? solution.volts[i] - solution.volts[reference]
        : null;
  });
  const amps = circuit.currents();
  const elementAmps: Record<string, number> = {};
  network.elements.forEach((element, edge) => (elementAmps[element.id] = amps[edge]));
  return { nodeVolts, elementAmps };
}

function conductance(ohm: number): number {
  return 1 / Math.max(ohm, NO_OHM);
}

function modalKind(element: CircuitElement): ModalEdge['kind'] | undefined {
  if (element.kind === 'voltageSource')
    return element.limitA === undefined ? undefined : 'limitedSupply';
  if (
    element.kind === 'diode' ||
    element.kind === 'currentSource' ||
    element.kind === 'transmitter'
  )
    return element.kind;
  return undefined;
}

function stampFixed(element: CircuitElement, edge: number, stamp: Stamp): void {
  if (element.kind === 'resistor') stamp.g[edge] = conductance(element.ohm);
  else if (element.kind === 'contact')
    stamp.g[edge] = element.closed ? conductance(element.ohm ?? CONTACT_OHM) : 0;
  else if (element.kind === 'voltageSource') {
    stamp.g[edge] = conductance(element.ohm ?? 0);
    stamp.emf[edge] = element.volts;
  }
}

function modalValue(element: CircuitElement): ModalValue {
  const g = conductance(0);
  switch (element.kind) {
    case 'diode':
      return { volts: element.forwardVolts ?? 0.7, amps: 0, g };
    case 'currentSource':
      return { volts: element.complianceVolts ?? Infinity, amps: element.amps, g };
    case 'transmitter':
      return { volts: element.minVolts, amps: element.amps, g };
    case 'voltageSource':
      return {
        volts: element.volts,
        amps: element.limitA ?? Infinity,
        g: conductance(element.ohm ?? 0),
      };
    default:
      return { volts: 0, amps: 0, g };
  }
}
