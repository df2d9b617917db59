import { CONTACT_OHM, inert, type Device, type Probe } from '../../circuit/index.js';
import { steady } from '../../numeric/index.js';
import type { InstalledCoil, InstalledFuse, InstalledLoad } from '../installed.js';

/** A coil pulls in from this share of its voltage (IEC 60947-4-1: 85 %, with the usual reserve of the types). */
const PULL_IN = 0.75;
/** It drops out at this share, direct and alternating (IEC 60947-4-1 §8.2.1.2: between 20 and 75 % for AC). */
const DROP_OUT = { direct: 0.2, alternating: 0.5 } as const;
/** Share of the operate time after which the armature leaves its rest: break before make. */
const TRAVEL = 0.5;
/** No armature travels for longer than this: the time of a timer is waited for with its contacts at rest, µs. */
const MOST_TRAVEL_US = 20_000;
/** Changes of a contact within a second of model time, without a hand, after which it chatters. */
const CHATTER = 20;
const CHATTER_US = 1_000_000;

export interface CoilState {
  /** The coil holds. */
  readonly on: boolean;
  readonly makesClosed: boolean;
  readonly breaksClosed: boolean;
  /** The same of the contacts that lag behind, and when they follow. */
  readonly lateMakes: boolean;
  readonly lateBreaks: boolean;
  readonly lateMakesUs: number;
  readonly lateBreaksUs: number;
  /** When the armature leaves its rest, and when it arrives. */
  readonly leavesUs: number;
  readonly arrivesUs: number;
  readonly turns: number;
  readonly sinceUs: number;
  readonly chatters: boolean;
}

const rest: CoilState = {
  on: false,
  makesClosed: false,
  breaksClosed: true,
  lateMakes: false,
  lateBreaks: true,
  lateMakesUs: Infinity,
  lateBreaksUs: Infinity,
  leavesUs: Infinity,
  arrivesUs: Infinity,
  turns: 0,
  sinceUs: 0,
  chatters: false,
};

const across = (probe: Probe, { a, b }: InstalledLoad['across'], ac: boolean): number =>
  Math.abs((ac ? probe.acVolts(a, b) : probe.volts(a, b)) ?? 0);

/** Relay, contactor or timer: the coil's band decides, contacts follow with its times. A coil that turns back cancels. */
export function coilBehaviour(d: InstalledCoil): Device<CoilState> {
  const dropOut = d.ac ? DROP_OUT.alternating : DROP_OUT.direct;
  const of = { kind: 'device', id: d.id } as const;
  return {
    ...inert,
    id: d.id,
    signals: [
      { id: `${d.id}.on`, of, unit: '', kind: 'level' },
      { id: `${d.id}.chatters`, of, unit: '', kind: 'level' },
    ],
    init: () => rest,
    act: (s) => (s.turns ? { ...s, turns: 0 } : s),
    stamp: (s, _t, board) => {
      board.g[d.coil.edge] = 1 / d.ohm;
      const late = (edge: number): boolean => d.lagUs > 0 && d.late.includes(edge);
      for (const edge of d.makes)
        board.g[edge] = (late(edge) ? s.lateMakes : s.makesClosed) ? 1 / CONTACT_OHM : 0;
      for (const edge of d.breaks)
        board.g[edge] = (late(edge) ? s.lateBreaks : s.breaksClosed) ? 1 / CONTACT_OHM : 0;
    },
    sense: (_s, probe) => {
      if (d.dead) return [0];
      const share = across(probe, d.coil, d.ac) / d.volts;
      return [share >= PULL_IN ? 2 : share <= dropOut ? 0 : 1];
    },
    step: (s, [band], t) =>
      d.lagUs > 0 ? follow(d, stepCoil(d, s, band, t), t) : stepCoil(d, s, band, t),
    wake: (s, t) =>
      Math.min(...[s.leavesUs, s.arrivesUs, s.lateMakesUs, s.lateBreaksUs].filter((at) => at > t)),
    observe: (s, t) => [steady(s.makesClosed ? 1 : 0, t), steady(s.chatters ? 1 : 0, t)],
    // Turns of more than a second ago are counted anew in any case.
    rested: (s, t) =>
      s.sinceUs !== 0 && t - s.sinceUs > CHATTER_US && !s.chatters
        ? { ...s, turns: 0, sinceUs: 0 }
        : s,
  };
}

/** The contacts that lag come to where the others are, makes and breaks each by themselves. */
function follow(d: InstalledCoil, s: CoilState, t: number): CoilState {
  const due = (late: boolean, now: boolean, at: number): number =>
    late === now ? Infinity : at === Infinity ? t + d.lagUs : at;
  const makesUs = due(s.lateMakes, s.makesClosed, s.lateMakesUs);
  const breaksUs = due(s.lateBreaks, s.breaksClosed, s.lateBreaksUs);
  const lateMakes = t >= makesUs ? s.makesClosed : s.lateMakes;
  const lateBreaks = t >= breaksUs ? s.breaksClosed : s.lateBreaks;
  const lateMakesUs = t >= makesUs ? Infinity : makesUs;
  const lateBreaksUs = t >= breaksUs ? Infinity : breaksUs;
  const same =
    lateMakes === s.lateMakes &&
    lateBreaks === s.lateBreaks &&
    lateMakesUs === s.lateMakesUs &&
    lateBreaksUs === s.lateBreaksUs;
  return same ? s : { ...s, lateMakes, lateBreaks, lateMakesUs, lateBreaksUs };
}

function stepCoil(d: InstalledCoil, s: CoilState, band: number, t: number): CoilState {
  if (s.chatters) return s;
  const wanted = band === 2 ? true : band === 0 ? false : s.on;
  if (wanted !== s.on) {
    const turns = t - s.sinceUs > CHATTER_US ? 1 : s.turns + 1;
    const sinceUs = turns === 1 ? t : s.sinceUs;
    if (turns > CHATTER) return { ...rest, turns, sinceUs, chatters: true };
    const took = wanted ? d.operateUs : d.releaseUs;
    const settled = wanted ? s.makesClosed : s.breaksClosed;
    if (settled)
      return { ...s, on: wanted, leavesUs: Infinity, arrivesUs: Infinity, turns, sinceUs };
    return {
      ...s,
      on: wanted,
      leavesUs: t + Math.max(Math.round(took * TRAVEL), took - MOST_TRAVEL_US),
      arrivesUs: t + took,
      turns,
      sinceUs,
    };
  }
  if (t >= s.arrivesUs)
    return {
      ...s,
      makesClosed: s.on,
      breaksClosed: !s.on,
      leavesUs: Infinity,
      arrivesUs: Infinity,
    };
  if (t >= s.leavesUs) return { ...s, makesClosed: false, breaksClosed: false, leavesUs: Infinity };
  return s;
}

/** Lamp, horn, fan, meter: works above half its voltage. */
export function loadBehaviour(d: InstalledLoad): Device<{ readonly lit: boolean }> {
  return {
    ...inert,
    id: d.id,
    signals: [{ id: `${d.id}.lit`, of: { kind: 'device', id: d.id }, unit: '', kind: 'level' }],
    init: () => ({ lit: false }),
    act: (s) => s,
    stamp: (_s, _t, board) => void (board.g[d.across.edge] = 1 / d.ohm),
    sense: (_s, probe) => [!d.dead && across(probe, d.across, d.ac) >= d.volts / 2 ? 1 : 0],
    step: (s, [lit]) => (s.lit === (lit === 1) ? s : { lit: lit === 1 }),
    observe: (s, t) => [steady(s.lit ? 1 : 0, t)],
  };
}

const FUSE_OHM = 0.05;
/** A fuse carries this multiple for ever; above it the time falls with the square of the current (IEC 60269 shape). */
const FUSE_CARRIES = 1.6;
const FUSE_S_AT_TEN = 0.02;

export function fuseBehaviour(
  d: InstalledFuse,
): Device<{ readonly blown: boolean; readonly atUs: number; readonly tenths: number }> {
  return {
    ...inert,
    id: d.id,
    signals: [{ id: `${d.id}.blown`, of: { kind: 'device', id: d.id }, unit: '', kind: 'level' }],
    init: () => ({ blown: false, atUs: Infinity, tenths: 0 }),
    act: (s) => s,
    stamp: (s, _t, board) => void (board.g[d.across.edge] = s.blown ? 0 : 1 / FUSE_OHM),
    sense: (s, probe) => {
      const amps = s.blown
        ? 0
        : Math.max(across(probe, d.across, false), across(probe, d.across, true)) / FUSE_OHM;
      return [Math.min(10_000, Math.floor((amps / d.amps) * 10))];
    },
    step: (s, [tenths], t) => {
      if (s.blown) return s;
      if (t >= s.atUs) return { blown: true, atUs: Infinity, tenths: 0 };
      if (tenths === s.tenths) return s;
      const multiple = tenths / 10;
      if (multiple < FUSE_CARRIES) return { blown: false, atUs: Infinity, tenths };
      return {
        blown: false,
        atUs: t + Math.max(1000, Math.round((FUSE_S_AT_TEN * 100 * 1e6) / (multiple * multiple))),
        tenths,
      };
    },
    wake: (s, t) => (s.atUs > t ? s.atUs : Infinity),
    observe: (s, t) => [steady(s.blown ? 1 : 0, t)],
  };
}
