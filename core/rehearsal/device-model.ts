import {
  CONTACT_OHM,
  NO_OHM,
  type Board,
  type Deed,
  type Device,
  type Probe,
} from '../circuit/index.js';
import type { SignalSpec } from '../circuit/index.js';
import type { InstalledAnalogue, InstalledDevice } from '../installation/index.js';
import { logicOf, MOST_MA, PICK_UP_V } from '../installation/index.js';
import {
  shaftHz,
  turnsFreely,
  type DeviceLogic,
  type Reading,
  type ShaftState,
} from '../motor/index.js';
import { pathStretch, steady, stretchValue, type Stretch } from '../numeric/index.js';

export type KeyName = keyof Reading['keys'];

/** State of a device: its logic's, and what its terminals and keys stand at. */
export interface DeviceState {
  readonly logic: unknown;
  /** Level of each input terminal before the filter; then of each enable. */
  readonly inputs: readonly (0 | 1)[];
  readonly enables: readonly (0 | 1)[];
  readonly keys: Reading['keys'];
  readonly links: Readonly<Record<string, string>>;
  readonly relays: readonly boolean[];
  /** Signal at each analogue input in the units of its range, 1/10000. */
  readonly analogue: readonly number[];
  /** The dial of the device's own panel, 0 … 1. */
  readonly panelDial: number;
  readonly mains: Reading['mains'];
  /** +1 where the supply turns as L1, L2, L3; −1 the other way; 0 where it cannot be seen. */
  readonly rotation: number;
  readonly controlSupply: 0 | 1;
  /** 1 while its thermistor loop is cold; between the two resistances it keeps what it was. */
  readonly thermistor: 0 | 1;
  /** What has destroyed it, by its place in the list of what its terminals withstand, from 1; 0 while it is whole. */
  readonly destroyed: number;
}

/** State of a device that more has reached than it withstands. */
export const DESTROYED = 'destroyed';

const MAINS_PROBE_OHM = 1e6;
const OUTPUT_OHM = 10;
/** Voltage at which a device measures a thermistor loop, through this resistance: IEC 60947-8 allows 2.5 V at most. */
const THERMISTOR_V = 2;
const THERMISTOR_OHM = 10_000;

type Logic = DeviceLogic<unknown, unknown>;

/** A drive or soft starter in the circuit: its terminal block around the logic of its kind. */
export function deviceModel(d: InstalledDevice): Device<DeviceState> {
  const logic = logicOf(d.spec);
  const tasksOf = rememberedTasks(d);
  const thresholds = [...d.inputs, ...d.enables]
    .filter((i) => !i.ac)
    .flatMap((i) =>
      [i.onUv, -i.onUv, i.offUv, -i.offUv].map((uv) => ({
        plus: i.plus,
        minus: i.minus,
        volts: uv / 1e6,
      })),
    );
  return {
    id: d.id,
    signals: signalsOf(d, logic),
    // Only an analogue output follows the speed between two steps; a state may end with a ramp.
    stampsWithTime: d.output !== undefined && d.output.shows !== 'none',
    // Curves of a run-up have more pieces than their logic has wakes; the pieces of a ramp are its wakes.
    showsWithTime: logic.shown !== undefined,
    listens: [d.shaft],
    init: () => initial(d, logic),
    act: (s, act) => actOn(d, s, act),
    stamp: (s, t, board) => stampBlock(d, logic, s, t, board),
    sense: (s, probe) => senseBlock(d, s, probe),
    step: (s, sensed, t, peers) =>
      stepDevice(d, logic, tasksOf, s, sensed, t, peers(d.shaft) as ShaftState | undefined),
    wake: (s, t) => (s.destroyed > 0 ? Infinity : logic.wake(s.logic, t)),
    thresholds: () => thresholds,
    observe: (s, t) => observe(logic, s, t),
    rested: (s, t) => ({ ...s, logic: logic.rested(s.logic, t) }),
  };
}

/** Signals are named `device.*`, whatever the device is called in its wiring. */
function signalsOf(d: InstalledDevice, logic: Logic): SignalSpec[] {
  const of = { kind: 'device', id: d.id } as const;
  const level = (terminal: string): SignalSpec => ({
    id: `device.${terminal}`,
    of: { kind: 'landing', id: `${d.id}:${terminal}` },
    unit: '',
    kind: 'level',
  });
  return [
    { id: 'device.state', of, unit: '', kind: 'state', states: [...logic.states, DESTROYED] },
    { id: 'device.hz', of, unit: 'Hz', kind: 'value' },
    { id: 'device.fault', of, unit: '', kind: 'state', states: ['none', ...logic.faults] },
    { id: 'device.keypadHz', of, unit: 'Hz', kind: 'value' },
    ...(logic.shows ?? []).map(({ id, unit }): SignalSpec => ({
      id: `device.${id}`,
      of,
      unit,
      kind: 'value',
    })),
    ...d.inputs.map((i) => level(i.terminal)),
    ...d.enables.map((i) => level(i.terminal)),
    ...d.relays.map((r): SignalSpec => ({
      id: `device.relay.${r.id}`,
      of,
      unit: '',
      kind: 'level',
    })),
  ];
}

function initial(d: InstalledDevice, logic: Logic): DeviceState {
  return {
    logic: logic.init(),
    inputs: d.inputs.map(() => 0),
    enables: d.enables.map(() => 0),
    keys: { start: false, stop: false, reset: false, up: false, down: false },
    links: Object.fromEntries(d.links.map((l) => [l.id, l.position])),
    relays: d.relays.map(() => false),
    analogue: d.analogue.map(() => 0),
    panelDial: 0,
    mains: 0,
    rotation: 0,
    controlSupply: 0,
    thermistor: 1,
    destroyed: 0,
  };
}

function actOn(d: InstalledDevice, s: DeviceState, act: Deed): DeviceState {
  if (act.do === 'key')
    return s.keys[act.key] === act.down ? s : { ...s, keys: { ...s.keys, [act.key]: act.down } };
  if (act.do === 'dial' && act.device === d.id)
    return s.panelDial === act.to ? s : { ...s, panelDial: act.to };
  if (act.do !== 'link') return s;
  const there = d.links.some((l) => l.id === act.link && l.positions[act.position]);
  return there && s.links[act.link] !== act.position
    ? { ...s, links: { ...s.links, [act.link]: act.position } }
    : s;
}

function stampBlock(
  d: InstalledDevice,
  logic: Logic,
  s: DeviceState,
  t: number,
  board: Board,
): void {
  const { supplies, analogue } = logic.demand(s.logic, t);
  for (const input of d.inputs) board.g[input.edge] = 1 / input.ohm;
  for (const input of d.enables) board.g[input.edge] = 1 / input.ohm;
  for (const input of d.analogue)
    board.g[input.edge] = 1 / (currentMode(d, s, input) ? input.currentOhm : input.voltageOhm);
  if (d.supply24)
    board.modal[d.supply24.modal] = supplies
      ? { volts: d.supply24.volts, amps: d.supply24.amps, g: 1 / NO_OHM }
      : { volts: 0, amps: 0, g: 0 };
  if (d.reference10) {
    board.g[d.reference10.edge] = supplies ? 1 / Math.max(NO_OHM, d.reference10.ohm) : 0;
    board.emf[d.reference10.edge] = supplies ? d.reference10.volts : 0;
  }
  if (d.controlSupply) board.g[d.controlSupply.edge] = 1 / d.controlSupply.ohm;
  if (d.thermistor) {
    board.g[d.thermistor.edge] = 1 / THERMISTOR_OHM;
    board.emf[d.thermistor.edge] = supplies ? THERMISTOR_V : 0;
  }
  if (d.output) {
    const shown = supplies ? analogue[d.output.shows] : undefined;
    board.g[d.output.edge] = supplies ? 1 / OUTPUT_OHM : 0;
    const hz = shown ? stretchValue(shown, t) : 0;
    const slope = shown ? shown.dy + shown.ddy * ((t - shown.t0) / 1e6) : 0;
    board.emf[d.output.edge] = Math.abs(hz) * d.output.voltsPerHz;
    board.emfSlope[d.output.edge] = Math.sign(hz || slope) * slope * d.output.voltsPerHz;
  }
  stampContacts(d, s, board);
}

function stampContacts(d: InstalledDevice, s: DeviceState, board: Board): void {
  d.relays.forEach((relay, i) => {
    for (const edge of relay.no) board.g[edge] = s.relays[i] ? 1 / CONTACT_OHM : 0;
    for (const edge of relay.nc) board.g[edge] = s.relays[i] ? 0 : 1 / CONTACT_OHM;
  });
  for (const edge of d.mains.edges) board.g[edge] = 1 / MAINS_PROBE_OHM;
  for (const edge of d.joined) board.g[edge] = 1 / NO_OHM;
  for (const link of d.links)
    for (const name in link.positions)
      for (const edge of link.positions[name].edges)
        board.g[edge] = s.links[link.id] === name ? 1 / CONTACT_OHM : 0;
}

const currentMode = (
  d: InstalledDevice,
  s: DeviceState,
  { terminal }: InstalledAnalogue,
): boolean =>
  d.links.some((l) => {
    const analogue = l.positions[s.links[l.id]]?.analogue;
    return analogue?.terminal === terminal && analogue.current;
  });

/**
 * Bands of the inputs and enables (0 off, 1 between, 2 on), the analogue signals, then the supply: 0 off, 1 a phase missing,
 * 2 on, its rotation, and whether the control is fed.
 */
function senseBlock(d: InstalledDevice, s: DeviceState, probe: Probe): number[] {
  const sensed: number[] = [];
  for (const i of d.inputs) sensed.push(bandOf(i, probe));
  for (const i of d.enables) sensed.push(bandOf(i, probe));
  for (const input of d.analogue) {
    const volts = probe.volts(input.plus, input.minus) ?? 0;
    const share = currentMode(d, s, input) ? (volts / input.currentOhm) * 50 : volts / 10;
    sensed.push(Math.round(Math.min(Math.max(share, -1.05), 1.05) * input.fullScale * 1e4));
  }
  const { landings, minV, rotation } = d.mains;
  const pairs = landings.length === 2 ? landings.slice(0, 1) : landings;
  const lines = pairs.map(
    (l, i) => (probe.acVolts(l, landings[(i + 1) % landings.length]) ?? 0) >= minV,
  );
  const mains = lines.length > 0 && lines.every(Boolean) ? 2 : lines.some(Boolean) ? 1 : 0;
  const turns =
    mains === 2 && rotation.length === 3
      ? probe.rotation(rotation[0], rotation[1], rotation[2])
      : 0;
  const c = d.controlSupply;
  const fed =
    !c || Math.abs((c.ac ? probe.acVolts(c.a, c.b) : probe.volts(c.a, c.b)) ?? 0) >= c.minV;
  sensed.push(mains, turns, fed ? 1 : 0, stressed(d, s, probe), loopBand(d, probe));
  return sensed;
}

/** The thermistor loop: 0 hot or open, 1 between, 2 cold; cold as well where there is none. */
function loopBand({ thermistor }: InstalledDevice, probe: Probe): 0 | 1 | 2 {
  if (!thermistor) return 2;
  const volts = Math.abs(probe.volts(thermistor.a, thermistor.b) ?? 0);
  const ohm = volts >= THERMISTOR_V ? Infinity : (volts * THERMISTOR_OHM) / (THERMISTOR_V - volts);
  return ohm > thermistor.tripOhm ? 0 : ohm < thermistor.resetOhm ? 2 : 1;
}

/** The first terminal that has to bear more than it withstands, by its place from 1; 0 where none has. */
function stressed(d: InstalledDevice, s: DeviceState, probe: Probe): number {
  const { withstand, reference, earth, analogue } = d;
  for (const [i, { landing, output, mostDc, terminal }] of withstand.entries()) {
    const ac = Math.max(
      probe.acVolts(landing, reference) ?? 0,
      earth === undefined ? 0 : (probe.acVolts(landing, earth) ?? 0),
    );
    if (ac > PICK_UP_V) return i + 1;
    if (output) continue;
    const dc = Math.abs(probe.volts(landing, reference) ?? 0);
    if (dc > mostDc) return i + 1;
    const input = analogue.find((a) => a.terminal === terminal);
    if (input && currentMode(d, s, input) && (1000 * dc) / input.currentOhm > MOST_MA) return i + 1;
  }
  return 0;
}

function bandOf(i: InstalledDevice['inputs'][number], probe: Probe): number {
  const volts = (i.ac ? probe.acVolts(i.plus, i.minus) : probe.volts(i.plus, i.minus)) ?? 0;
  const uv = Math.abs(Math.round(volts * 1e6));
  return uv >= i.onUv ? 2 : uv <= i.offUv ? 0 : 1;
}

const levelOf = (band: number, before: 0 | 1): 0 | 1 => (band === 2 ? 1 : band === 0 ? 0 : before);

/** The list before, where the new one says the same. */
function keptList<T>(now: readonly T[], before: readonly T[]): readonly T[] {
  for (let i = 0; i < now.length; i++) if (now[i] !== before[i]) return now;
  return before;
}

function stepDevice(
  d: InstalledDevice,
  logic: Logic,
  tasksOf: (inputs: DeviceState['inputs']) => Reading['tasks'],
  s: DeviceState,
  sensed: readonly number[],
  t: number,
  shaft: ShaftState | undefined,
): DeviceState {
  if (s.destroyed > 0) return s;
  const [n, m] = [d.inputs.length, d.inputs.length + d.enables.length];
  const end = m + d.analogue.length;
  // Nothing of it works any more: its output, supplies and relays are as without supply.
  if (sensed[end + 3] > 0)
    return {
      ...initial(d, logic),
      links: s.links,
      panelDial: s.panelDial,
      destroyed: sensed[end + 3],
    };
  const inputs = levelsOf(sensed, 0, s.inputs);
  const enables = levelsOf(sensed, n, s.enables);
  const analogue = keptList(sensed.slice(m, end), s.analogue);
  const mains = sensed[end] as Reading['mains'];
  const [rotation, controlSupply] = [sensed[end + 1], sensed[end + 2] as 0 | 1];
  const thermistor = levelOf(sensed[end + 4], s.thermistor);
  const asBefore =
    inputs === s.inputs &&
    enables === s.enables &&
    analogue === s.analogue &&
    mains === s.mains &&
    rotation === s.rotation &&
    controlSupply === s.controlSupply &&
    thermistor === s.thermistor;
  const next: DeviceState = asBefore
    ? s
    : { ...s, inputs, enables, analogue, mains, rotation, controlSupply, thermistor };
  const reading = readingOf(d, next, tasksOf(next.inputs), shaft, t);
  const stepped = logic.step(s.logic, logic.sense(reading, s.logic), t);
  const given = logic.demand(stepped, t).relays;
  const relays = keptList(
    d.relays.map(({ task }) => given[task] === true),
    s.relays,
  );
  if (asBefore && stepped === s.logic && relays === s.relays) return s;
  return { ...next, logic: stepped, relays };
}

/** Levels from bands; the same list where none is otherwise. */
function levelsOf(
  bands: readonly number[],
  from: number,
  before: readonly (0 | 1)[],
): readonly (0 | 1)[] {
  for (let i = 0; i < before.length; i++)
    if (levelOf(bands[from + i], before[i]) !== before[i])
      return before.map((level, k) => levelOf(bands[from + k], level));
  return before;
}

/** Levels of the tasks that inputs hold; the same record while the same levels are asked for. */
function rememberedTasks(d: InstalledDevice): (inputs: DeviceState['inputs']) => Reading['tasks'] {
  let last: DeviceState['inputs'] | undefined;
  let tasks: Record<string, 0 | 1> = {};
  return (inputs) => {
    if (inputs === last) return tasks;
    last = inputs;
    tasks = {};
    d.inputs.forEach(({ task, inverted }, i) => {
      const level = inverted ? 1 - inputs[i] : inputs[i];
      tasks[task] = ((tasks[task] ?? 0) | level) as 0 | 1;
    });
    return tasks;
  };
}

function readingOf(
  d: InstalledDevice,
  s: DeviceState,
  tasks: Reading['tasks'],
  shaft: ShaftState | undefined,
  t: number,
): Reading {
  const channel = (name: 'A' | 'B'): 0 | 1 => {
    const i = d.enables.findIndex((e) => e.channel === name);
    return i < 0 ? 1 : s.enables[i];
  };
  const hz = shaft ? shaftHz(shaft, t) : 0;
  return {
    tasks,
    enableA: channel('A'),
    enableB: channel('B'),
    mains: s.mains,
    rotation: s.rotation,
    controlSupply: s.controlSupply,
    thermistor: s.thermistor,
    analogue: s.analogue.map((x) => x / 1e4),
    panelDial: s.panelDial,
    keys: s.keys,
    shaftHz: hz,
    shaftTurns: hz !== 0 || (shaft !== undefined && turnsFreely(shaft) && shaft.path.endUs > t),
  };
}

function observe(logic: Logic, s: DeviceState, t: number): Stretch[] {
  const view = logic.view(s.logic, t);
  const { output } = logic.demand(s.logic, t);
  return [
    steady(s.destroyed > 0 ? logic.states.length : logic.states.indexOf(view.state), t),
    output.kind === 'frequency' || output.kind === 'voltage'
      ? pathStretch(output.path, t)
      : steady(view.hz, t),
    steady(view.fault === null ? 0 : logic.faults.indexOf(view.fault) + 1, t),
    steady(view.keypadHz ?? 0, t),
    ...(logic.shown?.(s.logic, t) ?? []),
    ...s.inputs.map((level) => steady(level, t)),
    ...s.enables.map((level) => steady(level, t)),
    ...s.relays.map((on) => steady(on ? 1 : 0, t)),
  ];
}
