import { inert, NO_OHM, type Device } from '../../circuit/index.js';
import { steady } from '../../numeric/index.js';
import type {
  InstalledHook,
  InstalledPower,
  InstalledSource,
  InstalledSupply,
  InstalledTransistor,
} from '../installed.js';
import { setShare } from './share.js';

/** Internal resistance of a supply phase, Ω. */
const SUPPLY_OHM = 0.05;
const NEUTRAL_OHM = 0.05;
/** Resistance of an unloaded primary, seen as a light load, Ω. */
const PRIMARY_OHM = 20_000;

interface SupplyState {
  readonly on: boolean;
  readonly lost: readonly string[];
}

/** Supply: on or off as a whole, and each phase by itself. Phases by their exact parts, so that no engine's cosine matters. */
export function supplyBehaviour(d: InstalledSupply): Device<SupplyState> {
  const parts = {
    L1: [1, 0],
    L2: [-0.5, -Math.sqrt(3) / 2],
    L3: [-0.5, Math.sqrt(3) / 2],
  } as const;
  return {
    ...inert,
    id: d.id,
    signals: [{ id: `${d.id}.on`, of: { kind: 'device', id: d.id }, unit: '', kind: 'level' }],
    init: () => ({ on: false, lost: [] }),
    act: (s, act) => {
      if (
        (act.do !== 'supplyOn' && act.do !== 'supplyOff') ||
        (act.device !== undefined && act.device !== d.id)
      )
        return s;
      const on = act.do === 'supplyOn';
      if (act.phase)
        return on === s.lost.includes(act.phase)
          ? { ...s, lost: on ? s.lost.filter((p) => p !== act.phase) : [...s.lost, act.phase] }
          : s;
      return s.on === on ? s : { ...s, on };
    },
    stamp: (s, _t, board) => {
      board.g[d.neutral] = 1 / NEUTRAL_OHM;
      for (const { phase, edge } of d.phases) {
        const live = s.on && !s.lost.includes(phase);
        board.g[edge] = live ? 1 / SUPPLY_OHM : 0;
        board.acRe[edge] = live ? d.phaseV * parts[phase][0] : 0;
        board.acIm[edge] = live ? d.phaseV * parts[phase][1] : 0;
      }
    },
    step: (s) => s,
    observe: (s, t) => [steady(s.on ? 1 : 0, t)],
  };
}

/** A control supply: a 24 V supply or a transformer behind its primary, or a source that is on until it is switched off. */
export function powerBehaviour(
  d: InstalledPower,
): Device<{ readonly fed: boolean; readonly off: boolean }> {
  const { primary, output } = d;
  return {
    ...inert,
    id: d.id,
    signals: [{ id: `${d.id}.on`, of: { kind: 'device', id: d.id }, unit: '', kind: 'level' }],
    init: () => ({ fed: primary === undefined, off: false }),
    act: (s, act) => {
      if ((act.do !== 'supplyOn' && act.do !== 'supplyOff') || act.device !== d.id) return s;
      return s.off === (act.do === 'supplyOff') ? s : { ...s, off: !s.off };
    },
    stamp: (s, _t, board) => {
      const live = s.fed && !s.off;
      if (primary) board.g[primary.edge] = 1 / PRIMARY_OHM;
      if (output.modal !== undefined)
        board.modal[output.modal] = live
          ? { volts: output.volts, amps: output.amps, g: 1 / NO_OHM }
          : { volts: 0, amps: 0, g: 0 };
      else {
        board.g[output.edge] = 1 / output.ohm;
        board.acRe[output.edge] = live ? output.volts : 0;
      }
    },
    sense: (_s, probe) =>
      primary ? [(probe.acVolts(primary.a, primary.b) ?? 0) >= primary.minV ? 1 : 0] : [1],
    step: (s, [fed]) => (s.fed === (fed === 1) ? s : { ...s, fed: fed === 1 }),
    observe: (s, t) => [steady(s.fed && !s.off ? 1 : 0, t)],
  };
}

const VOLT_SOURCE_OHM = 50;
const COMPLIANCE_V = 12;

interface SourceState {
  readonly at: number;
  /** Its stage has its supply. */
  readonly fed: boolean;
}

/** A signal of a controller: its share of the span is set by an act, its supply is the controller's own or one from outside. */
export function sourceBehaviour(d: InstalledSource): Device<SourceState> {
  const { supply } = d;
  const share = setShare(d.id, () => undefined);
  const of = { kind: 'device', id: d.id } as const;
  return {
    ...inert,
    id: d.id,
    signals: [
      ...share.signals,
      ...(supply ? [{ id: `${d.id}.fed`, of, unit: '', kind: 'level' } as const] : []),
    ],
    init: () => ({ ...share.init(), fed: supply === undefined }),
    act: (s, act, t) => {
      const { at } = share.act(s, act, t);
      return at === s.at ? s : { ...s, at };
    },
    stamp: (s, _t, board) => {
      if (supply) board.g[supply.edge] = 1 / supply.ohm;
      if (d.modal !== undefined)
        board.modal[d.modal] = {
          volts: COMPLIANCE_V,
          amps: s.fed ? 0.004 + 0.016 * s.at : 0,
          g: 1 / NO_OHM,
        };
      else {
        board.g[d.edge] = 1 / VOLT_SOURCE_OHM;
        board.emf[d.edge] = s.fed ? 10 * s.at : 0;
      }
    },
    sense: (_s, probe) =>
      supply ? [(probe.volts(supply.a, supply.b) ?? 0) >= supply.minV ? 1 : 0] : [],
    step: (s, [fed]) => (!supply || s.fed === (fed === 1) ? s : { ...s, fed: fed === 1 }),
    observe: (s, t) => [...share.observe(s, t), ...(supply ? [steady(s.fed ? 1 : 0, t)] : [])],
  };
}

const TRANSISTOR_OHM = 0.1;
/** A leakage is never driven above what stands across the output. */
const LEAKAGE_COMPLIANCE_V = 0.01;

/** A transistor output of a controller: worked like a contact, with a drop when on and a leakage when off. */
export function transistorBehaviour(d: InstalledTransistor): Device<{ readonly on: boolean }> {
  return {
    ...inert,
    id: d.id,
    signals: [
      {
        id: `${d.id}.position`,
        of: { kind: 'device', id: d.id },
        unit: '',
        kind: 'state',
        states: ['open', 'closed'],
      },
    ],
    init: () => ({ on: false }),
    act: (s, act) => {
      if (!('device' in act) || act.device !== d.id) return s;
      const on =
        act.do === 'press' || (act.do === 'turn' && act.position === 'closed')
          ? true
          : act.do === 'release' || act.do === 'turn'
            ? false
            : s.on;
      return on === s.on ? s : { on };
    },
    stamp: (s, _t, board) => {
      board.g[d.edge] = s.on ? 1 / TRANSISTOR_OHM : 0;
      board.emf[d.edge] = s.on ? d.dropV : 0;
      board.modal[d.modal] = {
        volts: LEAKAGE_COMPLIANCE_V,
        amps: s.on ? 0 : d.leakageA,
        g: 1 / NO_OHM,
      };
    },
    step: (s) => s,
    observe: (s, t) => [steady(s.on ? 1 : 0, t)],
  };
}

const BRIDGE_OHM = 0.05;
const BATTERY_OHM = 0.5;

interface HookState {
  readonly as: 'short' | 'volts' | 'amps' | 'off';
  readonly value: number;
}

/** A bridge, a battery or a calibrator that a hand puts between two landings. */
export function hookBehaviour(d: InstalledHook): Device<HookState> {
  return {
    ...inert,
    id: d.id,
    signals: [],
    init: () => ({ as: 'off', value: 0 }),
    act: (s, act) => {
      if (
        act.do !== 'hook' ||
        !((act.a === d.a && act.b === d.b) || (act.a === d.b && act.b === d.a))
      )
        return s;
      const value = (act.value ?? 0) * (act.a === d.a ? 1 : -1);
      return s.as === act.as && s.value === value ? s : { as: act.as, value };
    },
    stamp: (s, _t, board) => {
      board.g[d.edge] = s.as === 'short' ? 1 / BRIDGE_OHM : s.as === 'volts' ? 1 / BATTERY_OHM : 0;
      board.emf[d.edge] = s.as === 'volts' ? s.value : 0;
      board.modal[d.modal] = {
        volts: COMPLIANCE_V,
        amps: s.as === 'amps' ? s.value : 0,
        g: 1 / NO_OHM,
      };
    },
    step: (s) => s,
    observe: () => [],
  };
}
