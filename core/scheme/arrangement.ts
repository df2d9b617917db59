import type { Job, Scheme } from '../job/index.js';
import { toBase } from '../units/index.js';

/** A function that an input terminal must carry, and the contact that gives it. */
export interface InputFunction {
  /** Role in the station: `run.forward`. */
  readonly id: string;
  /** Task in the vocabulary of the control semantics. */
  readonly task: string;
  readonly device: string;
  readonly contact: { readonly feed: string; readonly load: string };
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
  const wishes: (keyof Scheme)[] = ['startStop', 'startBy', 'direction', 'speed', 'powerReturn', 'exposed'];
  if (s.direction === 'forwardReverse') wishes.push('directionBy');
  if (s.speed === 'dial') wishes.push('dialOhm');
  return { needed: wishes.length, missing: wishes.filter((wish) => s[wish] === undefined) };
}

/**
 * Operator devices, functions and meanings that the wishes call for. Open wishes take the more careful answer for what
 * is planned; the stage goes on saying that they are open.
 */
export function arrange(job: Pick<Job, 'scheme'>): Arrangement {
  const s = job.scheme;
  const devices: ArrangedDevice[] = [];
  const inputs: InputFunction[] = [];
  const startBy = s.startBy ?? 'selector';
  if (s.direction === 'forwardReverse' && (s.directionBy ?? 'selector') === 'selector') {
    devices.push({ id: 'select.direction', kind: 'selectorReverseOffForward', tag: 'S1', params: {} });
    inputs.push({ id: 'run.forward', task: 'forward', device: 'select.direction', contact: { feed: '13', load: '14' } });
    inputs.push({ id: 'run.reverse', task: 'reverse', device: 'select.direction', contact: { feed: '23', load: '24' } });
  } else {
    devices.push({ id: 'contact.forward', kind: startKinds[startBy], tag: startTags[startBy], params: {} });
    inputs.push({ id: 'run.forward', task: 'forward', device: 'contact.forward', contact: { feed: '13', load: '14' } });
    if (s.direction === 'forwardReverse') {
      devices.push({ id: 'contact.reverse', kind: startKinds[startBy], tag: startTags[startBy].replace('1', '2'), params: {} });
      inputs.push({ id: 'run.reverse', task: 'reverse', device: 'contact.reverse', contact: { feed: '13', load: '14' } });
    }
  }
  const dial = s.speed === 'dial' ? 'dial.speed' : undefined;
  if (dial) devices.push({ id: dial, kind: 'potentiometer', tag: 'R1', params: { ohm: s.dialOhm ? toBase(s.dialOhm, 'resistance') : 5000 } });
  return { devices, inputs, dial, meanings: meanings(s) };
}

function meanings(s: Scheme): Arrangement['meanings'] {
  const maxHz = s.maxHz ?? 50;
  const list: { role: string; value: number | string | boolean; wish: string }[] = [
    { role: 'startMethod', value: 'levelForwardReverse', wish: 'startStop' },
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
