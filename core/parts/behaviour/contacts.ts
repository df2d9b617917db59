import { CONTACT_OHM, inert, type Device } from '../../circuit/index.js';
import { steady } from '../../numeric/index.js';
import type {
  InstalledContacts,
  InstalledDial,
  InstalledSwitches,
  InstalledWires,
} from '../installed.js';
import { setShare } from './share.js';

export interface ContactsState {
  readonly position: string;
  /** Where it came from, while some contacts still stand as there. */
  readonly from: string;
  /** First terminals of the contacts that moved at once, joined by a plus; undefined when all have moved. */
  readonly first: string | undefined;
  /** When the others follow, µs. */
  readonly followUs: number;
}

const at = (position: string): ContactsState => ({
  position,
  from: position,
  first: undefined,
  followUs: Infinity,
});

/**
 * Selector, button, level contact, breaker: the position decides which contacts are closed. An act may say which contact
 * moves first and how long the others lag; otherwise all move together.
 */
export function contactsBehaviour(d: InstalledContacts): Device<ContactsState> {
  const of = { kind: 'device', id: d.id } as const;
  const turn = (
    s: ContactsState,
    position: string,
    { first, lagMs = 0 }: { first?: string; lagMs?: number },
    t: number,
  ): ContactsState => {
    if (position === s.position || !d.positions.includes(position)) return s;
    if (first === undefined || lagMs === 0) return at(position);
    return { position, from: s.position, first, followUs: t + Math.round(lagMs * 1000) };
  };
  const acted = d.positions.at(-1) === d.rest ? d.positions[0] : (d.positions.at(-1) as string);
  return {
    ...inert,
    id: d.id,
    signals: [{ id: `${d.id}.position`, of, unit: '', kind: 'state', states: d.positions }],
    init: () => at(d.rest),
    act: (s, act, t) => {
      if (!('device' in act) || act.device !== d.id) return s;
      if (act.do === 'turn') return turn(s, act.position, act, t);
      if (act.do === 'press') return turn(s, acted, act, t);
      return act.do === 'release' ? turn(s, d.rest, act, t) : s;
    },
    stamp: (s, _t, board) => {
      for (const { edge, terminal, closedIn } of d.contacts) {
        const moved = s.first === undefined || s.first.split('+').includes(terminal);
        const stands = moved ? s.position : s.from;
        board.g[edge] = closedIn.includes(stands) ? 1 / CONTACT_OHM : 0;
      }
    },
    step: (s, _sensed, t) => (t >= s.followUs ? at(s.position) : s),
    wake: (s, t) => (s.followUs > t ? s.followUs : Infinity),
    observe: (s, t) => [steady(d.positions.indexOf(s.position), t)],
  };
}

/** Least resistance of a potentiometer track beside the wiper, Ω. */
const TRACK_END_OHM = 0.1;

export function dialBehaviour(d: InstalledDial): Device<{ readonly at: number }> {
  return setShare(d.id, (s, _t, board) => {
    board.g[d.lower] = 1 / Math.max(TRACK_END_OHM, s.at * d.ohm);
    board.g[d.upper] = 1 / Math.max(TRACK_END_OHM, (1 - s.at) * d.ohm);
  });
}

/** All wires together: each whole or broken. */
export function wiresBehaviour(d: InstalledWires): Device<{ readonly broken: readonly string[] }> {
  const find = (name: string) => d.wires.find((w) => w.id === name || w.number === name);
  return {
    ...inert,
    id: d.id,
    signals: [],
    init: () => ({ broken: d.open }),
    act: (s, act) => {
      if (act.do !== 'breakWire' && act.do !== 'mendWire') return s;
      const wire = find(act.wire);
      if (!wire || (act.do === 'breakWire') === s.broken.includes(wire.id)) return s;
      return {
        broken:
          act.do === 'breakWire' ? [...s.broken, wire.id] : s.broken.filter((id) => id !== wire.id),
      };
    },
    stamp: (s, _t, board) => {
      for (const wire of d.wires)
        board.g[wire.edge] = s.broken.includes(wire.id) ? 0 : 1 / wire.ohm;
    },
    step: (s) => s,
    observe: () => [],
  };
}

/** Faults that are there or come while it runs: each thrown switch gives its edge what the fault makes of it. */
export function switchesBehaviour(
  d: InstalledSwitches,
): Device<{ readonly thrown: readonly number[] }> {
  return {
    ...inert,
    id: d.id,
    signals: [],
    init: () => ({ thrown: d.thrown }),
    act: (s, act) => {
      if (act.do !== 'switch' || act.on === s.thrown.includes(act.switch)) return s;
      return {
        thrown: act.on
          ? [...s.thrown, act.switch].sort((x, y) => x - y)
          : s.thrown.filter((i) => i !== act.switch),
      };
    },
    stamp: (s, _t, board) => {
      for (const i of s.thrown) board.g[d.switches[i].edge] = d.switches[i].g;
    },
    step: (s) => s,
    observe: () => [],
  };
}
