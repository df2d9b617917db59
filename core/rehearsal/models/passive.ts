import { CONTACT_OHM } from '../../circuit/index.js';
import type { InstalledContacts, InstalledDial, InstalledWire } from '../../installation/index.js';
import type { Device } from '../device.js';

import { nothing, setShare, steady } from './common.js';

/** Selector, level contact, breaker: the position decides which contacts are closed. */
export function contactsModel(d: InstalledContacts): Device<{ readonly position: string }> {
  const at = { kind: 'device', id: d.id } as const;
  const turn = (s: { readonly position: string }, position: string) =>
    position === s.position || !d.positions.includes(position) ? s : { position };
  return {
    ...nothing,
    id: d.id,
    signals: [{ id: `${d.id}.position`, of: at, unit: '', kind: 'state', states: d.positions }],
    init: () => ({ position: d.rest }),
    act: (s, act) => {
      if (!('device' in act) || act.device !== d.id) return s;
      if (act.do === 'turn') return turn(s, act.position);
      if (act.do === 'press')
        return turn(
          s,
          d.positions[d.positions.length - 1] === d.rest
            ? d.positions[0]
            : d.positions[d.positions.length - 1],
        );
      return act.do === 'release' ? turn(s, d.rest) : s;
    },
    stamp: (s, _t, board) => {
      for (const c of d.contacts)
        board.g[c.edge] = c.closedIn.includes(s.position) ? 1 / CONTACT_OHM : 0;
    },
    step: (s) => s,
    observe: (s, t) => [steady(d.positions.indexOf(s.position), t)],
  };
}

/** Least resistance of a potentiometer track beside the wiper, Ω. */
const TRACK_END_OHM = 0.1;

export function dialModel(d: InstalledDial): Device<{ readonly at: number }> {
  return setShare(d.id, (s, _t, board) => {
    board.g[d.lower] = 1 / Math.max(TRACK_END_OHM, s.at * d.ohm);
    board.g[d.upper] = 1 / Math.max(TRACK_END_OHM, (1 - s.at) * d.ohm);
  });
}

/** All wires together: each whole or broken. */
export function wiresModel(
  wires: readonly InstalledWire[],
): Device<{ readonly broken: readonly string[] }> {
  const find = (name: string) => wires.find((w) => w.id === name || w.number === name);
  return {
    ...nothing,
    id: 'wires',
    signals: [],
    init: () => ({ broken: [] }),
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
      for (const wire of wires) board.g[wire.edge] = s.broken.includes(wire.id) ? 0 : 1 / wire.ohm;
    },
    step: (s) => s,
    observe: () => [],
  };
}
