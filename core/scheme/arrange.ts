import { toBase } from '../units/index.js';
import type { Job, Scheme } from '../job/index.js';
import type { ControlFeed, InputTask } from '../catalogue/index.js';
import {
  DEVICE_ID,
  lineIds,
  type Arrangement,
  type ContactsSwitch,
  type OperationId,
} from './arrangement.js';
import { besideLoads, guardLock, lineSide } from './line-side.js';
import { ANSWERS_S } from './permission.js';
import { outputContactor, outputContacts } from './output-contactor.js';
import { plateContacts, plateInputs } from './plate-blocks.js';
import { Sketch } from './sketch.js';
import { speedGiver, type PresetCoding } from './speed.js';
import {
  controllerStation,
  levelStation,
  pulseStation,
  sealInStation,
  type Station,
  type StationContext,
} from './stations.js';
import { speedConflicts, starterMeanings } from './starter-wishes.js';
import { statusDevices } from './status.js';
import { Supplies } from './supplies.js';

/** What of the device an arrangement depends on. */
export interface DeviceLimits {
  /** Terminals of the device by name: no tag of a part equals one. */
  readonly terminals: readonly string[];
  readonly contactsSwitch: ContactsSwitch;
  readonly presetCoding: PresetCoding;
  /** Id it has in the wiring. */
  readonly device: string;
  /** Phases that feed it, and so the control supplies beside it. */
  readonly phases: 1 | 3;
  /** What the contacts of the station are fed from. */
  readonly control: ControlFeed;
  /** It turns its motor at other speeds than that of the supply. */
  readonly speeds: boolean;
  /** Without speeds: it has an enable for each direction, not one run. */
  readonly enables: boolean;
  /** It has terminals for a braking resistor. */
  readonly resistor: boolean;
  /** It has no chopper, and brings its DC link to terminals. */
  readonly link: boolean;
  /** It has terminals for the sensors of the motor's windings. */
  readonly thermistor: boolean;
}

/** Start-stop schools in which a start is a pulse. */
export const pulseSchools: readonly Scheme['startStop'][] = [
  'threeWire',
  'threeWireTwoStarts',
  'sealInRelay',
];

/** Wishes that must be known before anything can be planned, and those still open. */
export function schemeMissing(s: Scheme, speeds = true): { needed: number; missing: string[] } {
  const wishes: (keyof Scheme)[] = ['startStop', 'direction', 'powerReturn', 'exposed'];
  if (speeds) wishes.splice(2, 0, 'speed');
  else wishes.push('stopMode', 'lineContactor');
  const drivePulse = s.startStop === 'threeWire' || s.startStop === 'threeWireTwoStarts';
  if (drivePulse) wishes.push('stationFeed');
  else if (s.startStop === 'sealInRelay') wishes.push('latchSupply');
  else if (s.startStop === 'controller') wishes.push('controllerOutput');
  else if (s.startStop !== 'keypad') wishes.push('startBy');
  const level =
    s.startStop === undefined || s.startStop === 'twoWire' || s.startStop === 'lineContactor';
  if (s.direction === 'forwardReverse' && level) wishes.push('directionBy');
  if (s.speed === 'dial') wishes.push('dialOhm');
  if (s.speed === 'presets') wishes.push('presetsHz');
  return { needed: wishes.length, missing: wishes.filter((wish) => s[wish] === undefined) };
}

const interlockKinds = {
  level: 'levelInterlock',
  pressure: 'pressureInterlock',
  guard: 'guardContact',
  thermostat: 'thermostat',
} as const;

/** Contacts that must be closed for a run: interlocks of the process, and a foot stop. */
function conditionsOf(sketch: Sketch, s: Scheme): StationContext['conditions'] {
  const contacts = (s.interlocks ?? []).map((name) => {
    const device = sketch.device(`interlock.${name}`, interlockKinds[name], 'machine');
    sketch.operation(`interlock.${name}`, device);
    return [device, '11', '12'] as const;
  });
  if (!s.footStop || s.footStop === 'none') return contacts;
  const foot = sketch.device(
    'foot.stop',
    s.footStop === 'withBrake' ? 'footBrake' : 'footSwitch',
    'machine',
  );
  sketch.operation('foot', foot);
  return [...contacts, [foot, '11', '12'] as const];
}

function station(c: StationContext): Station {
  switch (c.scheme.startStop) {
    case 'threeWire':
    case 'threeWireTwoStarts':
      return pulseStation(c);
    case 'sealInRelay':
      return sealInStation(c);
    case 'controller':
      return controllerStation(c);
    case 'keypad':
      return { givenBy: 'level', starts: {}, stops: [], chained: false, startMethod: '' };
    default:
      return levelStation(c);
  }
}

/**
 * Where a jog is fed: behind the conditions for a run, and behind the stop of a relay that keeps itself in. With a stop of the
 * device's own the device itself holds a jog back.
 */
function jogFeed(sketch: Sketch, s: Scheme, contactsSwitch: ContactsSwitch): string {
  if (sketch.has('permit')) return 'permit';
  const sameSupply = contactsSwitch === 'plus24' && s.latchSupply !== 'own24';
  return s.startStop === 'sealInRelay' && sameSupply ? 'latch.stop' : 'feed';
}

/** Jog buttons, second ramps, local and remote: each an input of its own. */
function extraInputs(
  sketch: Sketch,
  s: Scheme,
  contactsSwitch: ContactsSwitch,
): Arrangement['jogs'] {
  const behind = jogFeed(sketch, s, contactsSwitch);
  const add = <T extends InputTask>(id: string, task: T, kind: string, wish: string): T => {
    const device = sketch.device(id, kind);
    const from = wish === 'jog' ? behind : 'feed';
    sketch.series(from, [[device, '13', '14']], task, task);
    sketch.input(task, task, device, wish === 'jogSelect' ? 'jog' : wish, task);
    return sketch.operation(task, device);
  };
  if (s.secondRamp) add('select.ramp', 'rampSelect', 'selectorOffOn', 'secondRamp');
  if (s.localRemote) add('select.local', 'local', 'selectorRemoteLocal', 'localRemote');
  const jogs: { forward?: OperationId; reverse?: OperationId } = {};
  if (s.jog === 'forward' || s.jog === 'bothWays')
    jogs.forward = add('button.jogForward', 'jogForward', 'startButton', 'jog');
  if (s.jog === 'bothWays')
    jogs.reverse = add('button.jogReverse', 'jogReverse', 'startButton', 'jog');
  // It only chooses the speed: a run has to be given as well.
  if (s.jog === 'select') add('select.jog', 'jogReferenceSelect', 'selectorOffOn', 'jogSelect');
  return jogs;
}

/** Sensors in the windings at the terminals of the device, which then watches them. */
function windingSensors(sketch: Sketch, s: Scheme, terminals: boolean): void {
  if (s.thermistor !== 'sensor') return;
  if (!terminals) return sketch.conflict(['thermistor'], 'noThermistor');
  const sensor = sketch.device('sensor.motor', 'windingSensor', 'machine');
  sketch.operation('thermistor', sensor);
  sketch.join('thermistor.1', '@thermistorA', 'thermistor.1', 'analogue');
  sketch.join('thermistor.1', `${sensor}:11`, 'thermistor.1', 'analogue');
  sketch.join('thermistor.2', '@thermistorB', 'thermistor.2', 'analogue');
  sketch.join('thermistor.2', `${sensor}:12`, 'thermistor.2', 'analogue');
  sketch.mean('thermistor', true, 'thermistor');
}

/** Poles in series with the windings: only of a device that keeps the frequency of the supply. */
const insideDelta = (s: Scheme, speeds: boolean): Pick<Arrangement, 'insideDelta'> =>
  !speeds && s.starterConnection === 'insideDelta' ? { insideDelta: true } : {};

/** The wishes, with the highest frequency that nobody answered taken from the plate of the motor. */
function withPlateHz({ scheme, plate }: Pick<Job, 'scheme' | 'plate'>): Scheme {
  const { hz } = plate.motor;
  return scheme.maxHz === undefined && hz ? { ...scheme, maxHz: toBase(hz, 'frequency') } : scheme;
}

/**
 * Devices, circuit, functions and meanings that the wishes call for. Open wishes take the more careful answer for what is
 * planned; the stage goes on saying that they are open.
 *
 * @param facts what the device fixes: which pole its contacts switch, how it codes presets, its phases
 * @example arrange({ practice: 'IEC', plate, scheme: { startStop: 'threeWire' } }).inputs.map((f) => f.task) // ['start', 'stop']
 */
export function arrange(
  job: Pick<Job, 'scheme' | 'practice' | 'plate'>,
  facts?: Partial<DeviceLimits>,
): Arrangement {
  const s = withPlateHz(job);
  const contactsSwitch = facts?.contactsSwitch ?? s.contactsSwitch ?? 'plus24';
  const sketch = new Sketch(facts?.terminals);
  const supplies = new Supplies(
    sketch,
    job.practice,
    facts?.phases === 1 || job.plate.supply.phases === 1,
    job.plate.line?.isolator !== undefined,
    facts?.control,
  );
  supplies.stationFeed(s.estopInFeed === true && s.estop !== undefined && s.estop !== 'none');
  const speeds = facts?.speeds ?? true;
  const delta = insideDelta(s, speeds);
  const beside = contactsBeside(sketch, job.plate, s, {
    sixLeads: delta.insideDelta === true,
    resistor: facts?.resistor ?? false,
    link: facts?.link ?? false,
    speeds,
  });
  const inhibits = speeds ? beside.early : [];
  const line = lineSide(sketch, supplies, s, { inhibits, trips: beside.hot });
  const both = s.direction === 'forwardReverse';
  const conditions = [...conditionsOf(sketch, s), ...(speeds ? [] : beside.early)];
  const runs = !speeds && facts?.enables !== true;
  const levelTask = (task: InputTask): InputTask => (runs && task === 'forward' ? 'run' : task);
  const context = { sketch, supplies, scheme: s, contactsSwitch, conditions, both, levelTask };
  const made = station(context);
  stationConflicts(sketch, s, conditions.length > 0);
  plateInputs(sketch, beside, { speeds, contactor: line.contactor });
  const jogs = extraInputs(sketch, s, contactsSwitch);
  windingSensors(sketch, s, facts?.thermistor ?? true);
  if (!speeds) speedConflicts(sketch, s);
  const { presetCoding: coding = 'binary', device = DEVICE_ID } = facts ?? {};
  const giver = speeds
    ? speedGiver(sketch, supplies, s, { coding, device })
    : { dial: undefined, presets: [] };
  statusDevices(sketch, supplies, s, stopPotential(sketch, s, made));
  besideLoads(sketch, supplies, s);
  if (speeds) outputContactor(sketch, supplies, s);
  const more = { ...guardLock(sketch, supplies, s), ...delta };
  if (speeds) wishMeanings(sketch, s, made.startMethod);
  else starterMeanings(sketch, s, made.startMethod, { both, enables: facts?.enables === true });
  const { devices, inputs, outputs, operations, meanings, conflicts } = sketch;
  const { startMethod: _known, ...run } = made;
  return {
    ...{ devices, inputs, outputs, operations, meanings, conflicts },
    nets: sketch.nets(),
    ...run,
    ...line,
    ...more,
    jogs,
    ...conditionsBy(sketch),
    ...giver,
    ...waits(s, made.givenBy),
    ...(job.plate.line?.isolator ? { isolator: lineIds.isolator } : {}),
    mainBreaker: lineIds.breaker,
    ...breakersBy(sketch, facts?.control ?? 'own'),
  };
}

/** Contacts of what Plate names beside a device and, of a drive, of a contactor between it and the motor. */
function contactsBeside(
  sketch: Sketch,
  plate: Job['plate'],
  s: Scheme,
  limits: Parameters<typeof plateContacts>[2] & { readonly speeds: boolean },
): ReturnType<typeof plateContacts> {
  const { early, hot } = plateContacts(sketch, plate, limits);
  if (limits.speeds) return { early: [...early, ...outputContacts(s)], hot };
  if (s.outputContactor) sketch.conflict(['outputContactor'], 'outputContactorOfDrive');
  return { early, hot };
}

/** What passes between the command and the earliest start: a horn, or the answer of a part of the machine. */
function waits(
  s: Scheme,
  givenBy: Station['givenBy'],
): Pick<Arrangement, 'warningMs' | 'hornMs' | 'permission'> {
  const hornMs = (s.startWarningS ?? 0) * 1000;
  const asks = s.permission !== undefined && (givenBy === 'level' || s.startStop === 'sealInRelay');
  if (!asks) return { warningMs: hornMs, hornMs };
  const ms = (s.permissionS ?? ANSWERS_S) * 1000;
  return { warningMs: ms + hornMs, hornMs, permission: { device: 'actuator.permission', ms } };
}

/** Conditions that the way of starting leaves no circuit for. */
function stationConflicts(sketch: Sketch, s: Scheme, conditions: boolean): void {
  if (s.startStop === 'keypad' && conditions)
    sketch.conflict(['interlocks', 'startStop'], 'keypadHasNoCircuit');
  if (s.startStop === 'keypad' && s.permission)
    sketch.conflict(['permission', 'startStop'], 'keypadHasNoCircuit');
  if (s.endLimits && !sketch.operations['end.forward'])
    sketch.conflict(['endLimits', 'startStop'], 'endsNeedLevel');
}

/** Potential behind the last stop contact, which a lamp can show; undefined where there is none. */
function stopPotential(sketch: Sketch, s: Scheme, made: Station): string | undefined {
  if (s.startStop === 'sealInRelay') return 'latch.stop';
  if (made.stops.length > 0) return 'stop';
  return sketch.has('permit') ? 'permit' : undefined;
}

/** Breakers beside the main one; where the control is fed beside it, the main one can be lost alone as well. */
function breakersBy(
  { devices }: Sketch,
  control: ControlFeed,
): Pick<Arrangement, 'ownBreakers' | 'lossBreakers'> {
  const ownBreakers = devices.flatMap(({ id, kind }) => (kind === 'breakerTwoPole' ? [id] : []));
  return {
    ownBreakers,
    lossBreakers: [...ownBreakers, ...(control === 'own' ? [] : [lineIds.breaker])],
  };
}

/** Operations that open a condition for a run, and those at the ends of a way. */
const conditionsBy = ({
  operations,
}: Sketch): Pick<Arrangement, 'interlocks' | 'ends' | 'thermistor'> => ({
  ...(operations.thermistor ? { thermistor: 'thermistor' as const } : {}),
  interlocks: (Object.keys(operations) as OperationId[]).filter(
    (id) => id.startsWith('interlock.') || id === 'foot',
  ),
  ends: {
    ...(operations['end.forward'] ? { forward: 'end.forward' as const } : {}),
    ...(operations['end.reverse'] ? { reverse: 'end.reverse' as const } : {}),
  },
});

function wishMeanings(sketch: Sketch, s: Scheme, startMethod: string): void {
  if (startMethod) sketch.mean('startMethod', startMethod, 'startStop');
  sketch.mean('noReverse', s.direction !== 'forwardReverse' && s.jog !== 'bothWays', 'direction');
  sketch.mean('maxHz', s.maxHz ?? 50, 'maxHz');
  sketch.mean('minHz', s.minHz ?? 0, 'minHz');
  sketch.mean(
    'stopMode',
    s.footStop === 'withBrake' ? 'coast' : (s.stopMode ?? 'ramp'),
    s.footStop === 'withBrake' ? 'footStop' : 'stopMode',
  );
  sketch.mean(
    'onPowerReturn',
    s.powerReturn === 'restart' ? 'followLevel' : 'needFreshEdge',
    'powerReturn',
  );
  sketch.mean('onFaultReset', 'needFreshEdge', 'powerReturn');
  sketch.mean('commandSource', s.startStop === 'keypad' ? 'keypad' : 'terminals', 'startStop');
  sketch.mean('accelS', s.accelS, 'accelS');
  sketch.mean('decelS', s.decelS, 'decelS');
  if (s.secondRamp) {
    sketch.mean('accel2S', s.accel2S ?? s.accelS, 'secondRamp');
    sketch.mean('decel2S', s.decel2S ?? s.decelS, 'secondRamp');
  }
  if (s.jog && s.jog !== 'none') sketch.mean('jogHz', s.jogHz ?? 5, 'jog');
}
