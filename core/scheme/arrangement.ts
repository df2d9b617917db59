import type { Job, Scheme } from '../job/index.js';
import { toBase } from '../units/index.js';

export type Direction = 'forward' | 'reverse';

/** A function that an input terminal must carry, and the contact that gives it. */
export interface InputFunction {
  /** Role in the station: `run.forward`. */
  readonly id: string;
  /** Task in the vocabulary of the control semantics. */
  readonly task: string;
  readonly device: string;
  readonly contact: { readonly feed: string; readonly load: string };
  /** Function through whose contact this one is fed; the common feed where absent. */
  readonly fedThrough?: string;
}

/** An operator device the wishes call for. Its id is its role. */
export interface ArrangedDevice {
  readonly id: string;
  readonly kind: string;
  readonly tag: string;
  readonly params: Readonly<Record<string, number | string | boolean>>;
}

/** What the wishes amount to, before any terminal is chosen. */
export interface Arrangement {
  readonly devices: readonly ArrangedDevice[];
  readonly inputs: readonly InputFunction[];
  /** How a run is given: by a contact that stays closed, or by a pulse that the device keeps until its stop circuit opens. */
  readonly givenBy: 'level' | 'pulse';
  /** Functions that start the motor, by direction; with a direction input the same function starts both. */
  readonly starts: Readonly<Partial<Record<Direction, string>>>;
  /** Function of the stop circuit, of a pulse start. */
  readonly stop?: string;
  /** Function that turns the direction, where there is one. */
  readonly direction?: string;
  /** Device whose wiper gives the reference, where a dial is wished. */
  readonly dial: string | undefined;
  /** Meanings that settings must have, by role or policy, each with the wish it comes from. */
  readonly meanings: readonly { readonly role: string; readonly value: number | string | boolean; readonly wish: string }[];
}

const startKinds = {
  selector: 'selectorOffOn',
  levelContact: 'levelContact',
  pressureContact: 'pressureContact',
  maintainedButton: 'maintainedButton',
} as const;
const startTags = { selector: 'S1', levelContact: 'B1', pressureContact: 'B1', maintainedButton: 'S1' } as const;

/** Wishes that must be known before anything can be planned, and those still open. */
export function schemeMissing(s: Scheme): { needed: number; missing: string[] } {
  const wishes: (keyof Scheme)[] = ['startStop', 'direction', 'speed', 'powerReturn', 'exposed'];
  if (s.startStop === 'threeWire' || s.startStop === 'threeWireTwoStarts') wishes.push('stationFeed');
  else wishes.push('startBy');
  if (s.direction === 'forwardReverse' && s.startStop !== 'threeWire' && s.startStop !== 'threeWireTwoStarts') wishes.push('directionBy');
  if (s.speed === 'dial') wishes.push('dialOhm');
  return { needed: wishes.length, missing: wishes.filter((wish) => s[wish] === undefined) };
}

type Station = Pick<Arrangement, 'devices' | 'inputs' | 'givenBy' | 'starts' | 'stop' | 'direction'>;

const make = { feed: '13', load: '14' } as const;
const device = (id: string, kind: string, tag: string): ArrangedDevice => ({ id, kind, tag, params: {} });

/** A contact that stays closed while the motor runs: selector, level contact, maintained button. */
function levelStation(s: Scheme): Station {
  const startBy = s.startBy ?? 'selector';
  const by = s.directionBy ?? 'selector';
  const forward: InputFunction = { id: 'run.forward', task: 'forward', device: 'contact.forward', contact: make };
  const one = device('contact.forward', startKinds[startBy], startTags[startBy]);
  if (s.direction !== 'forwardReverse') return { devices: [one], inputs: [forward], givenBy: 'level', starts: { forward: forward.id } };
  if (by === 'runAndDirection') {
    const run: InputFunction = { ...forward, id: 'run', task: 'run' };
    const turn: InputFunction = { id: 'direction', task: 'direction', device: 'select.direction', contact: make };
    const devices = [one, device('select.direction', 'selectorForwardReverse', startTags[startBy] === 'S1' ? 'S2' : 'S1')];
    return { devices, inputs: [run, turn], givenBy: 'level', starts: { forward: run.id, reverse: run.id }, direction: turn.id };
  }
  const starts = { forward: 'run.forward', reverse: 'run.reverse' };
  if (by === 'selector') {
    const inputs: InputFunction[] = [
      { ...forward, device: 'select.direction' },
      { id: 'run.reverse', task: 'reverse', device: 'select.direction', contact: { feed: '23', load: '24' } },
    ];
    return { devices: [device('select.direction', 'selectorReverseOffForward', 'S1')], inputs, givenBy: 'level', starts };
  }
  const two = device('contact.reverse', startKinds[startBy], startTags[startBy].replace('1', '2'));
  return { devices: [one, two], inputs: [forward, { id: 'run.reverse', task: 'reverse', device: 'contact.reverse', contact: make }], givenBy: 'level', starts };
}

/** Push buttons: a start pulse that the device keeps, and a stop contact that opens to stop. */
function pulseStation(s: Scheme): Station {
  const chained = s.stationFeed === 'chained';
  const both = s.direction === 'forwardReverse';
  const twoStarts = s.startStop === 'threeWireTwoStarts' && both;
  const stop: InputFunction = { id: 'stop', task: 'stop', device: 'button.stop', contact: { feed: '11', load: '12' } };
  const devices = [device('button.stop', 'stopButton', 'S1')];
  const inputs = [stop];
  const start = (id: string, task: string, button: string, tag: string): void => {
    devices.push(device(button, 'startButton', tag));
    inputs.push({ id, task, device: button, contact: make, ...(chained ? { fedThrough: stop.id } : {}) });
  };
  if (twoStarts) {
    start('start.forward', 'startForward', 'button.startForward', 'S2');
    start('start.reverse', 'startReverse', 'button.startReverse', 'S3');
    return { devices, inputs, givenBy: 'pulse', starts: { forward: 'start.forward', reverse: 'start.reverse' }, stop: stop.id };
  }
  start('start', 'start', 'button.start', 'S2');
  if (!both) return { devices, inputs, givenBy: 'pulse', starts: { forward: 'start' }, stop: stop.id };
  devices.push(device('select.direction', 'selectorForwardReverse', 'S3'));
  inputs.push({ id: 'direction', task: 'direction', device: 'select.direction', contact: make });
  return { devices, inputs, givenBy: 'pulse', starts: { forward: 'start', reverse: 'start' }, stop: stop.id, direction: 'direction' };
}

/**
 * Operator devices, functions and meanings that the wishes call for. Open wishes take the more careful answer for what
 * is planned; the stage goes on saying that they are open.
 *
 * @example arrange({ scheme: { startStop: 'threeWire' } }).inputs.map((f) => f.task) // ['stop', 'start']
 */
export function arrange(job: Pick<Job, 'scheme'>): Arrangement {
  const s = job.scheme;
  const pulse = s.startStop === 'threeWire' || s.startStop === 'threeWireTwoStarts';
  const station = pulse ? pulseStation(s) : levelStation(s);
  const dial = s.speed === 'dial' ? 'dial.speed' : undefined;
  const dialDevice: ArrangedDevice[] = dial ? [{ id: dial, kind: 'potentiometer', tag: 'R1', params: { ohm: s.dialOhm ? toBase(s.dialOhm, 'resistance') : 5000 } }] : []; // prettier-ignore
  return { ...station, devices: [...station.devices, ...dialDevice], dial, meanings: meanings(s, startMethodOf(station)) };
}

/** Start method whose inputs the station gives. */
function startMethodOf({ givenBy, starts, inputs }: Station): string {
  if (givenBy === 'level') return inputs.some((f) => f.task === 'run') ? 'levelRunDirection' : 'levelForwardReverse';
  return starts.forward === 'start' ? 'pulseStartStopDirection' : 'pulseForwardReverseStop';
}

function meanings(s: Scheme, startMethod: string): Arrangement['meanings'] {
  const maxHz = s.maxHz ?? 50;
  const list: { role: string; value: number | string | boolean; wish: string }[] = [
    { role: 'startMethod', value: startMethod, wish: 'startStop' },
    { role: 'noReverse', value: s.direction !== 'forwardReverse', wish: 'direction' },
    { role: 'maxHz', value: maxHz, wish: 'maxHz' },
    { role: 'minHz', value: s.minHz ?? 0, wish: 'minHz' },
    { role: 'stopMode', value: s.stopMode ?? 'ramp', wish: 'stopMode' },
    { role: 'onPowerReturn', value: s.powerReturn === 'restart' ? 'followLevel' : 'needFreshEdge', wish: 'powerReturn' },
    { role: 'onFaultReset', value: 'needFreshEdge', wish: 'powerReturn' },
    { role: 'commandSource', value: 'terminals', wish: 'startStop' },
  ];
  if (s.accelS !== undefined) list.push({ role: 'accelS', value: s.accelS, wish: 'accelS' });
  if (s.decelS !== undefined) list.push({ role: 'decelS', value: s.decelS, wish: 'decelS' });
  if (s.speed === 'dial') {
    list.push({ role: 'referenceSource', value: 'ai1', wish: 'speed' }, { role: 'ai1.mode', value: '0-10V', wish: 'speed' });
    list.push({ role: 'ai1.lowPct', value: 0, wish: 'speed' }, { role: 'ai1.highPct', value: 100, wish: 'speed' });
    list.push({ role: 'ai1.hzAtLow', value: 0, wish: 'speed' }, { role: 'ai1.hzAtHigh', value: maxHz, wish: 'maxHz' });
  } else if (s.speed === 'keypad') list.push({ role: 'referenceSource', value: 'keypad', wish: 'speed' });
  s.status?.forEach((task, i) => list.push({ role: `relay.${i + 1}.task`, value: task, wish: 'status' }));
  return list;
}
