import { coilKinds, contactKind, loadKinds } from '../parts/index.js';
import type { Wiring } from '../job/index.js';
import type {
  InstalledCoil,
  InstalledDevice,
  InstalledPower,
  InstalledSupply,
} from './installation.js';
import type { Layout } from './layout.js';

type Device = Wiring['devices'][string];

const PSU_MIN_V = 85;
const TRANSFORMER_VA = 160;
const REGULATION = 0.05;

/**
 * Lays a device of the station or the line into the circuit.
 *
 * @param lineV voltage between two phases, or of the one phase
 * @returns undefined for a device without electrical behaviour of its own
 */
export function installStationDevice(
  layout: Layout,
  id: string,
  device: Device,
  lineV: number,
): InstalledDevice | undefined {
  const { kind, tag, params } = device;
  const at = (terminal: string): string => `${id}:${terminal}`;
  const number = (name: string, otherwise: number): number =>
    typeof params[name] === 'number' ? params[name] : otherwise;
  const contact = contactKind(kind, params);
  if (contact) {
    const contacts = contact.contacts.map((c) => ({
      edge: layout.edge(at(c.a), at(c.b)),
      closedIn: c.closedIn,
    }));
    const { positions, rest, momentary = false, latching = false } = contact;
    return { kind: 'contacts', id, tag, positions, rest, momentary, latching, contacts };
  }
  if (coilKinds[kind]) return installCoil(layout, id, device);
  const load = loadKinds[kind];
  if (load) {
    const across = layout.across(at(load[0]), at(load[1]));
    return {
      kind: 'load',
      id,
      tag,
      across,
      ac: params['ac'] === true,
      volts: number('volts', 24),
      ohm: number('ohm', 1000),
    };
  }
  switch (kind) {
    case 'potentiometer':
      return {
        kind: 'dial',
        id,
        tag,
        ohm: number('ohm', 5000),
        lower: layout.edge(at('1'), at('2')),
        upper: layout.edge(at('2'), at('3')),
      };
    case 'supplyThreePhase':
    case 'supplySinglePhase':
      return installSupply(layout, id, tag, kind === 'supplySinglePhase', lineV);
    case 'supply24':
    case 'loopSupply':
    case 'controlTransformer':
      return installPower(layout, id, device, lineV);
    case 'fuse':
      return {
        kind: 'fuse',
        id,
        tag,
        across: layout.across(at('1'), at('2')),
        amps: number('amps', 2),
      };
    case 'transistorOutput':
      return {
        kind: 'transistor',
        id,
        tag,
        edge: layout.edge(at('1'), at('2')),
        modal: layout.modalEdge(at('1'), at('2'), 'currentSource').modal,
        dropV: number('dropV', 0.5),
        leakageA: number('leakageMA', 0.5) / 1000,
      };
    case 'voltageSource':
      return {
        kind: 'source',
        id,
        tag,
        gives: 'volts',
        edge: layout.edge(at('+'), at('-')),
        modal: undefined,
      };
    case 'currentSource':
      return {
        kind: 'source',
        id,
        tag,
        gives: 'amps',
        ...layout.modalEdge(at('-'), at('+'), 'currentSource'),
      };
    default:
      return undefined;
  }
}

function installCoil(layout: Layout, id: string, { kind, tag, params }: Device): InstalledCoil {
  const spec = coilKinds[kind];
  const edges = (pairs: readonly (readonly [string, string])[]): number[] =>
    pairs.map(([a, b]) => layout.edge(`${id}:${a}`, `${id}:${b}`));
  const number = (name: string, otherwise: number): number =>
    typeof params[name] === 'number' ? params[name] : otherwise;
  const us = (ms: number): number => Math.round(ms * 1000);
  return {
    kind: 'coil',
    id,
    tag,
    coil: layout.across(`${id}:${spec.coil[0]}`, `${id}:${spec.coil[1]}`),
    ac: params['ac'] === true,
    volts: number('volts', 24),
    ohm: number('ohm', 900),
    operateUs: us(spec.operateMs + 1000 * number('delayOnS', 0)),
    releaseUs: us(spec.releaseMs + 1000 * number('delayOffS', 0)),
    makes: edges(spec.makes),
    breaks: edges(spec.breaks),
  };
}

function installSupply(
  layout: Layout,
  id: string,
  tag: string,
  single: boolean,
  lineV: number,
): InstalledSupply {
  const names = single ? (['L1'] as const) : (['L1', 'L2', 'L3'] as const);
  return {
    kind: 'supply',
    id,
    tag,
    phaseV: single ? lineV : lineV / Math.sqrt(3),
    phases: names.map((phase) => ({ phase, edge: layout.edge(`${id}:${phase}`, `${id}:N`) })),
    neutral: layout.edge(`${id}:N`, `${id}:PE`),
  };
}

function installPower(
  layout: Layout,
  id: string,
  { kind, tag, params }: Device,
  lineV: number,
): InstalledPower {
  const volts = typeof params['volts'] === 'number' ? params['volts'] : 24;
  const amps = typeof params['amps'] === 'number' ? params['amps'] : 1;
  if (kind === 'controlTransformer') {
    const primary = { ...layout.across(`${id}:P1`, `${id}:P2`), minV: lineV * 0.7 };
    const edge = layout.edge(`${id}:S1`, `${id}:S2`);
    return {
      kind: 'power',
      id,
      tag,
      primary,
      output: {
        edge,
        modal: undefined,
        volts,
        amps: TRANSFORMER_VA / volts,
        ohm: (REGULATION * volts * volts) / TRANSFORMER_VA,
      },
    };
  }
  const primary =
    kind === 'supply24' ? { ...layout.across(`${id}:L`, `${id}:N`), minV: PSU_MIN_V } : undefined;
  return {
    kind: 'power',
    id,
    tag,
    primary,
    output: { ...layout.modalEdge(`${id}:+`, `${id}:-`, 'limitedSupply'), volts, amps, ohm: 0 },
  };
}
