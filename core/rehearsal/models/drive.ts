import { CONTACT_OHM, NO_OHM } from '../../circuit/index.js';
import {
  initialDrive, outputStretch, restingLevels, scaleAnalogue, shaftStretch, stepDrive, valueAt, viewDrive, wakeDrive,
  type DriveState, type InputName, type Levels, type StateName,
} from '../../drive/index.js'; // prettier-ignore
import type { InstalledDrive } from '../../installation/index.js';
import type { Device, Probe, SignalSpec } from '../device.js';

export const driveStates: readonly StateName[] = [
  'off', 'poweringUp', 'noMains', 'faulted', 'enableOpen', 'accelerating', 'atSpeed', 'decelerating', 'reversePause', 'jogging', 'coasting', 'blocked', 'ready',
]; // prettier-ignore

export interface DriveModelState {
  readonly logic: DriveState;
  /** Level of each input terminal before the filter. */
  readonly inputs: readonly (0 | 1)[];
  readonly keys: { readonly start: boolean; readonly stop: boolean; readonly reset: boolean };
  readonly links: Readonly<Record<string, string>>;
  readonly relays: readonly boolean[];
  /** Signal at the analogue input in the units of its range, 1/10000. */
  readonly analogue: number;
  readonly mains: number;
}

const MAINS_PROBE_OHM = 1e6;
const OUTPUT_OHM = 10;
const steady = (y: number, t: number) => ({ t0: t, y, dy: 0, ddy: 0 });

/** A drive in the circuit: its inputs, supplies and contacts around the command logic. */
export function driveModel(d: InstalledDrive): Device<DriveModelState> {
  return {
    id: d.id,
    signals: signalsOf(d),
    moves: true,
    init: () => initial(d),
    act: (s, act) => {
      if (act.do === 'key') return s.keys[act.key] === act.down ? s : { ...s, keys: { ...s.keys, [act.key]: act.down } };
      if (act.do === 'link' && d.links.some((l) => l.id === act.link && l.positions[act.position]) && s.links[act.link] !== act.position)
        return { ...s, links: { ...s.links, [act.link]: act.position } };
      return s;
    },
    stamp: (s, t, board) => stampDrive(d, s, t, board),
    sense: (s, probe) => senseDrive(d, s, probe),
    step: (s, sensed, t) => stepModel(d, s, sensed, t),
    wake: (s, t) => wakeDrive(s.logic, t),
    thresholds: () => d.inputs.flatMap((i) => [i.onUv, -i.onUv, i.offUv, -i.offUv].map((uv) => ({ plus: i.plus, minus: i.minus, volts: uv / 1e6 }))),
    observe: (s, t) => observeDrive(d, s, t),
  };
}

function signalsOf(d: InstalledDrive): SignalSpec[] {
  const of = { kind: 'device', id: d.id } as const;
  return [
    { id: `${d.id}.state`, of, unit: '', kind: 'state', states: driveStates },
    { id: `${d.id}.hz`, of, unit: 'Hz', kind: 'value' },
    { id: `${d.id}.shaftHz`, of, unit: 'Hz', kind: 'value' },
    ...d.inputs.map((i): SignalSpec => ({ id: `${d.id}.${i.terminal}`, of: { kind: 'landing', id: `${d.id}:${i.terminal}` }, unit: '', kind: 'level' })),
    ...d.relays.map((r): SignalSpec => ({ id: `${d.id}.relay.${r.id}`, of, unit: '', kind: 'level' })),
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
    mains: 0,
  };
}

function stampDrive(d: InstalledDrive, s: DriveModelState, t: number, board: Parameters<Device<unknown>['stamp']>[2]): void {
  const alive = s.logic.power.logic !== 'off';
  for (const input of d.inputs) board.g[input.edge] = 1 / input.ohm;
  if (d.supply24) board.modal[d.supply24.modal] = alive ? { volts: d.supply24.volts, amps: d.supply24.amps, g: 1 / NO_OHM } : { volts: 0, amps: 0, g: 0 };
  if (d.reference10) {
    board.g[d.reference10.edge] = alive ? 1 / Math.max(NO_OHM, d.reference10.ohm) : 0;
    board.emf[d.reference10.edge] = alive ? d.reference10.volts : 0;
  }
  if (d.analogue) board.g[d.analogue.edge] = 1 / (currentMode(d, s) ? d.analogue.currentOhm : d.analogue.voltageOhm);
  if (d.output) {
    const showing = alive && d.output.shows === 'frequency';
    const out = outputStretch(s.logic.motion, t);
    const hz = valueAt(out, t);
    const slope = out.dy + out.ddy * ((t - out.t0) / 1e6);
    board.g[d.output.edge] = alive ? 1 / OUTPUT_OHM : 0;
    board.emf[d.output.edge] = showing ? Math.abs(hz) * d.output.voltsPerHz : 0;
    board.emfSlope[d.output.edge] = showing ? Math.sign(hz || slope) * slope * d.output.voltsPerHz : 0;
  }
  d.relays.forEach((relay, i) => {
    for (const edge of relay.no) board.g[edge] = s.relays[i] ? 1 / CONTACT_OHM : 0;
    for (const edge of relay.nc) board.g[edge] = s.relays[i] ? 0 : 1 / CONTACT_OHM;
  });
  for (const edge of d.mains.edges) board.g[edge] = 1 / MAINS_PROBE_OHM;
  for (const edge of d.joined) board.g[edge] = 1 / NO_OHM;
  for (const link of d.links)
    for (const [name, position] of Object.entries(link.positions))
      for (const edge of position.edges) board.g[edge] = s.links[link.id] === name ? 1 / CONTACT_OHM : 0;
}

function currentMode(d: InstalledDrive, s: DriveModelState): boolean {
  return d.links.some((l) => l.positions[s.links[l.id]]?.currentMode === true);
}

/** Bands of the inputs (0 off, 1 between, 2 on), then the analogue signal, then 0 … 2 for the supply: off, a phase missing, on. */
function senseDrive(d: InstalledDrive, s: DriveModelState, probe: Probe): number[] {
  const bands = d.inputs.map((i) => {
    const uv = Math.abs(Math.round((probe.volts(i.plus, i.minus) ?? 0) * 1e6));
    return uv >= i.onUv ? 2 : uv <= i.offUv ? 0 : 1;
  });
  const volts = d.analogue ? (probe.volts(d.analogue.plus, d.analogue.minus) ?? 0) : 0;
  const share = d.analogue ? Math.min(Math.max(currentMode(d, s) ? (volts / d.analogue.currentOhm) * 50 : volts / 10, -1.05), 1.05) : 0;
  const analogue = Math.round(share * (d.analogue?.fullScale ?? 10) * 1e4);
  const { landings, minV } = d.mains;
  const lines = landings.map((l, i) => (probe.acVolts(l, landings[(i + 1) % landings.length]) ?? 0) >= minV);
  const mains = lines.every(Boolean) ? 2 : lines.some(Boolean) ? 1 : 0;
  return [...bands, analogue, mains];
}

function stepModel(d: InstalledDrive, s: DriveModelState, sensed: readonly number[], t: number): DriveModelState {
  const n = d.inputs.length;
  const inputs = d.inputs.map((_, i) => (sensed[i] === 2 ? 1 : sensed[i] === 0 ? 0 : s.inputs[i])) as (0 | 1)[];
  const analogue = sensed[n];
  const mains = sensed[n + 1];
  const reference = referenceOf(d, analogue / 1e4);
  const logic = stepDrive(
    d.control,
    d.link,
    s.logic,
    { levels: levelsOf(d, s, inputs, mains), referenceHz: reference.hz, referenceLost: reference.lost, phaseMissing: mains === 1 },
    t,
  );
  const relays = relaysOf(d, logic, t);
  const same =
    logic === s.logic && analogue === s.analogue && mains === s.mains && inputs.every((x, i) => x === s.inputs[i]) && relays.every((x, i) => x === s.relays[i]);
  return same ? s : { ...s, logic, inputs, analogue, mains, relays };
}

function referenceOf(d: InstalledDrive, signal: number): { hz: number; lost: boolean } {
  if (!d.analogue?.used) return { hz: 0, lost: false };
  const lost = d.analogue.liveZero && signal < d.control.lossThresholdMa;
  return { hz: Math.max(0, scaleAnalogue(signal, d.analogue.scale).hz), lost };
}

function levelsOf(d: InstalledDrive, s: DriveModelState, inputs: readonly (0 | 1)[], mains: number): Levels {
  const levels: Record<InputName, 0 | 1> = { ...restingLevels, mains: mains > 0 ? 1 : 0 };
  const given = new Set<string>();
  d.inputs.forEach((input, i) => {
    if (!(input.task in levels)) return;
    const name = input.task as InputName;
    levels[name] = given.has(name) ? ((levels[name] | inputs[i]) as 0 | 1) : inputs[i];
    given.add(name);
  });
  levels.keypadStart = s.keys.start ? 1 : 0;
  levels.keypadStop = s.keys.stop ? 1 : 0;
  if (s.keys.reset) levels.reset = 1;
  const before = s.logic.raw;
  return (Object.keys(levels) as InputName[]).every((name) => levels[name] === before[name]) ? before : levels;
}

function relaysOf(d: InstalledDrive, logic: DriveState, t: number): boolean[] {
  const { state, fault } = viewDrive(d.control, d.link, logic, t);
  const alive = logic.power.logic === 'on';
  const running = ['accelerating', 'atSpeed', 'decelerating', 'reversePause', 'jogging'].includes(state);
  return d.relays.map(({ task }) => {
    if (!alive) return false;
    return task === 'running'
      ? running
      : task === 'healthy'
        ? fault === null
        : task === 'fault'
          ? fault !== null
          : task === 'atSpeed'
            ? state === 'atSpeed'
            : false;
  });
}

function observeDrive(d: InstalledDrive, s: DriveModelState, t: number) {
  const view = viewDrive(d.control, d.link, s.logic, t);
  return [
    steady(driveStates.indexOf(view.state), t),
    view.hz === 0 && view.state === 'off' ? steady(0, t) : outputStretch(s.logic.motion, t),
    shaftStretch(s.logic.motion, t),
    ...s.inputs.map((level) => steady(level, t)),
    ...s.relays.map((on) => steady(on ? 1 : 0, t)),
  ];
}
