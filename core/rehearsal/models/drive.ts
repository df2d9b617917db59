import { CONTACT_OHM, NO_OHM } from '../../circuit/index.js';
import {
  initialDrive,
  nextCrossing,
  outputStretch,
  restingLevels,
  scaleAnalogue,
  shaftStretch,
  stepDrive,
  valueAt,
  viewDrive,
  wakeDrive,
  type DriveState,
  type InputName,
  type Levels,
  type StateName,
} from '../../drive/index.js';
import type { InstalledDrive } from '../../installation/index.js';
import type { Device, Probe, SignalSpec } from '../device.js';
import { steady } from './common.js';

export const driveStates: readonly StateName[] = [
  'off',
  'poweringUp',
  'noMains',
  'faulted',
  'enableOpen',
  'accelerating',
  'atSpeed',
  'decelerating',
  'reversePause',
  'jogging',
  'coasting',
  'blocked',
  'ready',
];

export interface DriveModelState {
  readonly logic: DriveState;
  /** Level of each input terminal before the filter. */
  readonly inputs: readonly (0 | 1)[];
  readonly keys: { readonly start: boolean; readonly stop: boolean; readonly reset: boolean };
  readonly links: Readonly<Record<string, string>>;
  readonly relays: readonly boolean[];
  /** Signal at the analogue input in the units of its range, 1/10000. */
  readonly analogue: number;
  /** The dial of the device's own panel, 0 … 1. */
  readonly panelDial: number;
  /** Level of each enable input before the filter. */
  readonly enables: readonly (0 | 1)[];
  readonly mains: number;
}

const MAINS_PROBE_OHM = 1e6;
const OUTPUT_OHM = 10;

/** A drive in the circuit: its inputs, supplies and contacts around the command logic. */
export function driveModel(d: InstalledDrive): Device<DriveModelState> {
  return {
    id: d.id,
    signals: signalsOf(d),
    moves: true,
    init: () => initial(d),
    act: (s, act) => {
      if (act.do === 'key')
        return s.keys[act.key] === act.down
          ? s
          : { ...s, keys: { ...s.keys, [act.key]: act.down } };
      if (act.do === 'dial' && act.device === d.id)
        return s.panelDial === act.to ? s : { ...s, panelDial: act.to };
      if (
        act.do === 'link' &&
        d.links.some((l) => l.id === act.link && l.positions[act.position]) &&
        s.links[act.link] !== act.position
      )
        return { ...s, links: { ...s.links, [act.link]: act.position } };
      return s;
    },
    stamp: (s, t, board) => stampDrive(d, s, t, board),
    sense: (s, probe) => senseDrive(d, s, probe),
    step: (s, sensed, t) => stepModel(d, s, sensed, t),
    wake: (s, t) => Math.min(wakeDrive(s.logic, t), brakeCrossing(d, s, t)),
    thresholds: () =>
      [...d.inputs, ...d.enables].flatMap((i) =>
        [i.onUv, -i.onUv, i.offUv, -i.offUv].map((uv) => ({
          plus: i.plus,
          minus: i.minus,
          volts: uv / 1e6,
        })),
      ),
    observe: (s, t) => observeDrive(d, s, t),
  };
}

function signalsOf(d: InstalledDrive): SignalSpec[] {
  const of = { kind: 'device', id: d.id } as const;
  return [
    { id: `${d.id}.state`, of, unit: '', kind: 'state', states: driveStates },
    { id: `${d.id}.hz`, of, unit: 'Hz', kind: 'value' },
    { id: `${d.id}.shaftHz`, of, unit: 'Hz', kind: 'value' },
    ...d.inputs.map((i): SignalSpec => ({
      id: `${d.id}.${i.terminal}`,
      of: { kind: 'landing', id: `${d.id}:${i.terminal}` },
      unit: '',
      kind: 'level',
    })),
    ...d.enables.map((i): SignalSpec => ({
      id: `${d.id}.${i.terminal}`,
      of: { kind: 'landing', id: `${d.id}:${i.terminal}` },
      unit: '',
      kind: 'level',
    })),
    ...d.relays.map((r): SignalSpec => ({
      id: `${d.id}.relay.${r.id}`,
      of,
      unit: '',
      kind: 'level',
    })),
  ];
}

function initial(d: InstalledDrive): DriveModelState {
  const levels: Levels = { ...restingLevels, mains: 0 };
  return {
    logic: initialDrive(d.control, { levels, referenceHz: 0 }),
    inputs: d.inputs.map(() => 0),
    keys: { start: false, stop: false, reset: false },
    links: Object.fromEntries(d.links.map((l) => [l.id, l.position])),
    relays: d.relays.map(() => false),
    analogue: 0,
    panelDial: 0,
    enables: d.enables.map(() => 0),
    mains: 0,
  };
}

function stampDrive(
  d: InstalledDrive,
  s: DriveModelState,
  t: number,
  board: Parameters<Device<unknown>['stamp']>[2],
): void {
  const alive = s.logic.power.logic !== 'off';
  for (const input of d.inputs) board.g[input.edge] = 1 / input.ohm;
  for (const input of d.enables) board.g[input.edge] = 1 / input.ohm;
  for (const { edge, ohm } of d.idleAnalogue) board.g[edge] = 1 / ohm;
  if (d.supply24)
    board.modal[d.supply24.modal] = alive
      ? { volts: d.supply24.volts, amps: d.supply24.amps, g: 1 / NO_OHM }
      : { volts: 0, amps: 0, g: 0 };
  if (d.reference10) {
    board.g[d.reference10.edge] = alive ? 1 / Math.max(NO_OHM, d.reference10.ohm) : 0;
    board.emf[d.reference10.edge] = alive ? d.reference10.volts : 0;
  }
  if (d.analogue)
    board.g[d.analogue.edge] =
      1 / (currentMode(d, s) ? d.analogue.currentOhm : d.analogue.voltageOhm);
  if (d.output) {
    const showing = alive && d.output.shows === 'frequency';
    const out = outputStretch(s.logic.motion, t);
    const hz = valueAt(out, t);
    const slope = out.dy + out.ddy * ((t - out.t0) / 1e6);
    board.g[d.output.edge] = alive ? 1 / OUTPUT_OHM : 0;
    board.emf[d.output.edge] = showing ? Math.abs(hz) * d.output.voltsPerHz : 0;
    board.emfSlope[d.output.edge] = showing
      ? Math.sign(hz || slope) * slope * d.output.voltsPerHz
      : 0;
  }
  d.relays.forEach((relay, i) => {
    for (const edge of relay.no) board.g[edge] = s.relays[i] ? 1 / CONTACT_OHM : 0;
    for (const edge of relay.nc) board.g[edge] = s.relays[i] ? 0 : 1 / CONTACT_OHM;
  });
  for (const edge of d.mains.edges) board.g[edge] = 1 / MAINS_PROBE_OHM;
  for (const edge of d.joined) board.g[edge] = 1 / NO_OHM;
  for (const link of d.links)
    for (const [name, position] of Object.entries(link.positions))
      for (const edge of position.edges)
        board.g[edge] = s.links[link.id] === name ? 1 / CONTACT_OHM : 0;
}

function currentMode(d: InstalledDrive, s: DriveModelState): boolean {
  return d.links.some((l) => l.positions[s.links[l.id]]?.currentMode === true);
}

/** Bands of the inputs (0 off, 1 between, 2 on), then the analogue signal, then 0 … 2 for the supply: off, a phase missing, on. */
function senseDrive(d: InstalledDrive, s: DriveModelState, probe: Probe): number[] {
  const bands = [...d.inputs, ...d.enables].map((i) => {
    const uv = Math.abs(Math.round((probe.volts(i.plus, i.minus) ?? 0) * 1e6));
    return uv >= i.onUv ? 2 : uv <= i.offUv ? 0 : 1;
  });
  const volts = d.analogue ? (probe.volts(d.analogue.plus, d.analogue.minus) ?? 0) : 0;
  const share = d.analogue
    ? Math.min(
        Math.max(currentMode(d, s) ? (volts / d.analogue.currentOhm) * 50 : volts / 10, -1.05),
        1.05,
      )
    : 0;
  const analogue = Math.round(share * (d.analogue?.fullScale ?? 10) * 1e4);
  const { landings, minV } = d.mains;
  const pairs = landings.length === 2 ? landings.slice(0, 1) : landings;
  const lines = pairs.map(
    (l, i) => (probe.acVolts(l, landings[(i + 1) % landings.length]) ?? 0) >= minV,
  );
  const mains = lines.every(Boolean) ? 2 : lines.some(Boolean) ? 1 : 0;
  return [...bands, analogue, mains];
}

function stepModel(
  d: InstalledDrive,
  s: DriveModelState,
  sensed: readonly number[],
  t: number,
): DriveModelState {
  const n = d.inputs.length + d.enables.length;
  const level = (band: number, before: 0 | 1): 0 | 1 => (band === 2 ? 1 : band === 0 ? 0 : before);
  const inputs = d.inputs.map((_, i) => level(sensed[i], s.inputs[i]));
  const enables = d.enables.map((_, i) => level(sensed[d.inputs.length + i], s.enables[i]));
  const analogue = sensed[n];
  const mains = sensed[n + 1];
  const reference = referenceOf(d, s, analogue / 1e4);
  const logic = stepDrive(
    d.control,
    d.link,
    s.logic,
    {
      levels: levelsOf(d, s, inputs, enables, mains),
      referenceHz: reference.hz,
      referenceLost: reference.lost,
      phaseMissing: mains === 1,
    },
    t,
  );
  const relays = relaysOf(d, s.relays, logic, t);
  const sameList = <T>(x: readonly T[], y: readonly T[]): boolean =>
    x.every((value, i) => value === y[i]);
  const same =
    logic === s.logic &&
    analogue === s.analogue &&
    mains === s.mains &&
    sameList(inputs, s.inputs) &&
    sameList(enables, s.enables) &&
    sameList(relays, s.relays);
  return same ? s : { ...s, logic, inputs, enables, analogue, mains, relays };
}

function referenceOf(
  d: InstalledDrive,
  s: DriveModelState,
  signal: number,
): { hz: number; lost: boolean } {
  if (d.control.referenceSource === 'panelDial')
    return { hz: s.panelDial * d.control.maxHz, lost: false };
  if (!d.analogue?.used) return { hz: 0, lost: false };
  const lost = d.analogue.liveZero && signal < d.control.lossThresholdMa;
  return { hz: Math.max(0, scaleAnalogue(signal, d.analogue.scale).hz), lost };
}

function levelsOf(
  d: InstalledDrive,
  s: DriveModelState,
  inputs: readonly (0 | 1)[],
  enables: readonly (0 | 1)[],
  mains: number,
): Levels {
  const levels: Record<InputName, 0 | 1> = { ...restingLevels, mains: mains > 0 ? 1 : 0 };
  const given = new Set<string>();
  d.inputs.forEach((input, i) => {
    if (!(input.task in levels)) return;
    const name = input.task as InputName;
    const level = input.inverted ? ((1 - inputs[i]) as 0 | 1) : inputs[i];
    levels[name] = given.has(name) ? ((levels[name] | level) as 0 | 1) : level;
    given.add(name);
  });
  d.enables.forEach(
    (input, i) => (levels[input.channel === 'A' ? 'enableA' : 'enableB'] = enables[i]),
  );
  levels.keypadStart = s.keys.start ? 1 : 0;
  levels.keypadStop = s.keys.stop ? 1 : 0;
  if (s.keys.reset) levels.reset = 1;
  const before = s.logic.raw;
  return (Object.keys(levels) as InputName[]).every((name) => levels[name] === before[name])
    ? before
    : levels;
}

const runningStates: readonly string[] = [
  'accelerating',
  'atSpeed',
  'decelerating',
  'reversePause',
  'jogging',
];

function relaysOf(
  d: InstalledDrive,
  before: readonly boolean[],
  logic: DriveState,
  t: number,
): boolean[] {
  const { state, fault, hz } = viewDrive(d.control, d.link, logic, t);
  const alive = logic.power.logic === 'on';
  const running = runningStates.includes(state);
  const closed: Readonly<Record<string, boolean>> = {
    running,
    healthy: fault === null,
    fault: fault !== null,
    atSpeed: state === 'atSpeed',
    ready: state === 'ready',
    reversing: running && hz < 0,
    local: logic.levels.local === 1,
    brakeRelease: running && Math.abs(hz) >= d.brakeReleaseHz - BRAKE_HYSTERESIS_HZ,
  };
  const now = d.relays.map(({ task }) => alive && closed[task] === true);
  return now.every((on, i) => on === before[i]) ? (before as boolean[]) : now;
}

/** What a crossing reckoned in microseconds may miss, Hz. */
const BRAKE_HYSTERESIS_HZ = 1e-3;

/** Next moment at which the output passes the frequency of the brake; Infinity where no relay works a brake. */
function brakeCrossing(d: InstalledDrive, s: DriveModelState, t: number): number {
  const { motion } = s.logic;
  if (motion.kind !== 'ramp' || !d.relays.some((r) => r.task === 'brakeRelease')) return Infinity;
  return nextCrossing(motion.ramp, d.brakeReleaseHz, t);
}

function observeDrive(d: InstalledDrive, s: DriveModelState, t: number) {
  const view = viewDrive(d.control, d.link, s.logic, t);
  return [
    steady(driveStates.indexOf(view.state), t),
    view.hz === 0 && view.state === 'off' ? steady(0, t) : outputStretch(s.logic.motion, t),
    shaftStretch(s.logic.motion, t),
    ...s.inputs.map((level) => steady(level, t)),
    ...s.enables.map((level) => steady(level, t)),
    ...s.relays.map((on) => steady(on ? 1 : 0, t)),
  ];
}
