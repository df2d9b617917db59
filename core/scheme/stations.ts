import type { Scheme } from '../job/index.js';
import { sealInRelays } from '../parts/index.js';
import type { InputTask } from '../catalogue/index.js';
import type { Arrangement, ContactsSwitch, Direction, OperationId } from './arrangement.js';
import { askFirst } from './permission.js';
import type { Sketch } from './sketch.js';
import { coilOn, type Supplies } from './supplies.js';

/** What a station is built from. */
export interface StationContext {
  readonly sketch: Sketch;
  readonly supplies: Supplies;
  readonly scheme: Scheme;
  readonly contactsSwitch: ContactsSwitch;
  /** Contacts that must be closed for a run, in series: interlocks, foot stop. */
  readonly conditions: readonly (readonly [device: string, a: string, b: string])[];
  readonly both: boolean;
  /** Task by which the device knows a run level; as it is where absent. */
  readonly levelTask?: (task: InputTask) => InputTask;
}

/** What a station comes to: who gives what. */
export interface Station extends Pick<
  Arrangement,
  'givenBy' | 'starts' | 'stops' | 'direction' | 'chained'
> {
  readonly startMethod: string;
}

const makeContact = ['13', '14'] as const;
const levelKinds = {
  selector: 'selectorOffOn',
  keySwitch: 'keySwitch',
  levelContact: 'levelContact',
  pressureContact: 'pressureContact',
  maintainedButton: 'maintainedButton',
} as const;

/** Potential that feeds the run contacts: behind the conditions where there are any. */
function permitted({ sketch, conditions }: StationContext, wire: string): string {
  if (conditions.length === 0) return 'feed';
  if (!sketch.has('permit')) sketch.series('feed', conditions, 'permit', wire);
  return 'permit';
}

/** Makes the run inputs of contacts that stay closed, behind a start warning where one is wished. */
function levelInput(
  c: StationContext,
  id: string,
  task: InputTask,
  contact: readonly [string, string, string],
  after: readonly (readonly [string, string, string])[] = [],
): void {
  const { sketch, supplies, scheme } = c;
  const [device, a, b] = contact;
  const asks = scheme.permission !== undefined;
  if (!scheme.startWarningS) {
    const from = permitted(c, 'permit');
    if (asks) {
      const { from: asked, contacts } = askFirst(c, task, from, contact);
      sketch.series(asked, [...contacts, ...after], id, id);
    } else sketch.series(from, [contact, ...after], id, id);
    return sketch.input(id, c.levelTask?.(task) ?? task, device, 'startStop', id);
  }
  const { plus, minus, ...on } = supplies.device();
  if (asks) sketch.conflict(['permission', 'startWarningS'], 'permissionOrWarning');
  const warn = sketch.device(`warn.${task}`, 'timerRelay', 'panel', {
    ...coilOn(on),
    delayOnS: scheme.startWarningS,
  });
  const call = `${id}.call`;
  sketch.join(plus, `${device}:${a}`, `feed.${call}`);
  sketch.join(call, `${device}:${b}`, call);
  sketch.join(call, `${warn}:A1`, `${call}.coil`);
  sketch.join(call, `${warn}:15`, `${call}.horn`);
  sketch.join(minus, `${warn}:A2`, `${call}.return`);
  if (!sketch.devices.some((d) => d.id === 'horn')) {
    sketch.device('horn', 'horn', 'machine', coilOn(on));
    sketch.join(minus, 'horn:X2', 'horn.return');
  }
  sketch.join('horn', `${warn}:16`, `horn.${task}`);
  sketch.join('horn', 'horn:X1', 'horn');
  sketch.series(permitted(c, 'permit'), [[warn, '25', '28'], ...after], id, id);
  sketch.input(id, c.levelTask?.(task) ?? task, warn, 'startStop', id);
}

/** The contact at the end of a way, where there is one: it opens the direction that leads there. */
function endContact(
  { sketch, scheme }: StationContext,
  direction: Direction,
): readonly (readonly [string, string, string])[] {
  if (!scheme.endLimits) return [];
  const device = sketch.device(`end.${direction}`, 'endLimit', 'machine');
  sketch.operation(`end.${direction}`, device);
  return [[device, '11', '12']];
}

/** A contact that stays closed while the motor runs: selector, level contact, maintained button. */
export function levelStation(c: StationContext): Station {
  const { sketch, scheme, both } = c;
  const kind = levelKinds[scheme.startBy ?? 'selector'];
  const by = both ? (scheme.directionBy ?? 'selector') : 'twoContacts';
  const stops: OperationId[] = [];
  const base = { givenBy: 'level', stops, chained: false } as const;
  if (by === 'selector') {
    const device = sketch.device('select.direction', 'selectorReverseOffForward');
    levelInput(c, 'run.forward', 'forward', [device, ...makeContact], endContact(c, 'forward'));
    levelInput(c, 'run.reverse', 'reverse', [device, '23', '24'], endContact(c, 'reverse'));
    const starts = {
      forward: sketch.operation('run.forward', device, 'forward'),
      reverse: sketch.operation('run.reverse', device, 'reverse'),
    };
    return { ...base, starts, startMethod: 'levelForwardReverse' };
  }
  const device = sketch.device(
    'contact.forward',
    kind,
    kind.endsWith('Contact') ? 'machine' : 'station',
  );
  if (by === 'runAndDirection') {
    levelInput(c, 'run', 'run', [device, ...makeContact]);
    const turn = directionInput(c);
    const run = sketch.operation('run', device);
    return {
      ...base,
      starts: { forward: run, reverse: run },
      direction: turn,
      startMethod: 'levelRunDirection',
    };
  }
  levelInput(c, 'run.forward', 'forward', [device, ...makeContact], endContact(c, 'forward'));
  const starts: Partial<Record<Direction, OperationId>> = {
    forward: sketch.operation('run.forward', device),
  };
  if (both) {
    const other = sketch.device('contact.reverse', kind);
    levelInput(c, 'run.reverse', 'reverse', [other, ...makeContact], endContact(c, 'reverse'));
    starts.reverse = sketch.operation('run.reverse', other);
  }
  return { ...base, starts, startMethod: 'levelForwardReverse' };
}

function directionInput({ sketch }: StationContext): OperationId {
  const device = sketch.device('select.direction', 'selectorForwardReverse');
  sketch.series('feed', [[device, ...makeContact]], 'direction', 'direction');
  sketch.input('direction', 'direction', device, 'direction', 'direction');
  return sketch.operation('direction', device, 'reverse');
}

/** Name of the n-th of several like things; the first keeps the plain name. */
const nth = <N extends string>(name: N, i: number): N | `${N}.${number}` =>
  i === 0 ? name : `${name}.${i + 1}`;

/** Stop buttons of all stations in series; behind the last one the stop potential. @returns the operations */
function stopButtons(
  { sketch, scheme, conditions }: StationContext,
  from: string,
  to: string,
): OperationId[] {
  const names = Array.from({ length: scheme.stations ?? 1 }, (_, i) => nth('button.stop', i));
  const contacts = names.map((id) => [sketch.device(id, 'stopButton'), '11', '12'] as const);
  sketch.series(from, [...conditions, ...contacts], to, 'stop');
  return names.map((device, i) => sketch.operation(nth('stop', i), device));
}

/** Push buttons: a start pulse that the device keeps, and stop contacts that open to stop. */
export function pulseStation(c: StationContext): Station {
  const { sketch, scheme, both } = c;
  const chained = scheme.stationFeed === 'chained';
  const twoStarts = scheme.startStop === 'threeWireTwoStarts' && both;
  const stops = stopButtons(c, 'feed', 'stop');
  if (scheme.startWarningS) sketch.conflict(['startStop', 'startWarningS'], 'warningNeedsLevel');
  if (scheme.permission) sketch.conflict(['startStop', 'permission'], 'permissionNeedsLevel');
  const start = (
    id: 'start' | 'start.forward' | 'start.reverse',
    task: InputTask,
    device: string,
  ): OperationId => {
    for (let i = 0; i < (scheme.stations ?? 1); i++) {
      const button = sketch.device(nth(device, i), 'startButton');
      sketch.join(
        chained ? 'stop' : 'feed',
        `${button}:13`,
        i === 0 ? `feed.${id}` : `feed.${nth(id, i)}`,
      );
      sketch.join(id, `${button}:14`, nth(id, i));
      sketch.operation(nth(id, i), button);
    }
    sketch.input(id, task, device, 'startStop', id);
    return id;
  };
  const base = { givenBy: 'pulse', stops, chained } as const;
  const finish = (
    starts: Station['starts'],
    startMethod: string,
    direction?: OperationId,
  ): Station => {
    sketch.input('stop', 'stop', 'button.stop', 'startStop', 'stop', 'first');
    return { ...base, starts, startMethod, ...(direction ? { direction } : {}) };
  };
  if (twoStarts)
    return finish(
      {
        forward: start('start.forward', 'startForward', 'button.startForward'),
        reverse: start('start.reverse', 'startReverse', 'button.startReverse'),
      },
      'pulseForwardReverseStop',
    );
  const forward = start('start', 'start', 'button.start');
  if (!both) return finish({ forward }, 'pulseStartStopDirection');
  return finish({ forward, reverse: forward }, 'pulseStartStopDirection', directionInput(c));
}

/** A relay that keeps itself in: start and stop at its coil, its contact a two-wire run of the drive. */
export function sealInStation(c: StationContext): Station {
  const { sketch, supplies, scheme, both } = c;
  const { plus, minus, ...on } =
    scheme.latchSupply === 'own24'
      ? { ...supplies.own24(), volts: 24, ac: false }
      : supplies.device();
  const relay = 'relay.sealIn';
  const stops = stopButtons(c, plus, 'latch.stop');
  const operations: OperationId[] = [];
  const { kind, coil, hold, run } = sealInRelays[scheme.relayBase ?? 'screw'];
  sketch.device(relay, kind, 'panel', coilOn(on, 900));
  for (let i = 0; i < (scheme.stations ?? 1); i++) {
    const button = sketch.device(nth('button.start', i), 'startButton');
    sketch.join('latch.stop', `${button}:13`, `feed.${nth('start', i)}`);
    sketch.join('latch.coil', `${button}:14`, nth('latch.start', i));
    operations.push(sketch.operation(nth('start', i), button));
  }
  sketch.join('latch.stop', `${relay}:${hold[0]}`, 'latch.hold');
  sketch.join('latch.coil', `${relay}:${hold[1]}`, 'latch.held');
  sketch.join('latch.coil', `${relay}:${coil[0]}`, 'latch.coil');
  sketch.join(minus, `${relay}:${coil[1]}`, 'latch.return');
  const plain: StationContext = { ...c, conditions: [] };
  const starts: Partial<Record<Direction, OperationId>> = { forward: 'start' };
  const base = { givenBy: 'pulse', stops, chained: true } as const;
  if (!both) {
    levelInput(plain, 'run.forward', 'forward', [relay, ...run]);
    return { ...base, starts, startMethod: 'levelForwardReverse' };
  }
  levelInput(plain, 'run', 'run', [relay, ...run]);
  return {
    ...base,
    starts: { ...starts, reverse: 'start' },
    direction: directionInput(c),
    startMethod: 'levelRunDirection',
  };
}

/** A controller's outputs as run contacts: dry relay contacts, or transistors on its own 24 V with their leakage. */
export function controllerStation(c: StationContext): Station {
  const { sketch, supplies, scheme, both, contactsSwitch } = c;
  const give = (
    id: 'run.forward' | 'run.reverse',
    task: InputTask,
    device: string,
  ): OperationId => {
    if (scheme.controllerOutput === 'transistor' && supplies.device().ac)
      sketch.conflict(['startStop', 'controllerOutput'], 'transistorOnAlternating');
    if (scheme.controllerOutput !== 'transistor') {
      sketch.device(device, 'controllerContact', 'machine');
      levelInput(c, id, task, [device, ...makeContact]);
    } else {
      if (scheme.permission)
        sketch.conflict(['controllerOutput', 'permission'], 'permissionNeedsContact');
      const { plus, minus } = supplies.controller();
      sketch.device(device, 'transistorOutput', 'machine', { leakageMA: 0.5, dropV: 0.5 });
      const [feed, load] = contactsSwitch === 'plus24' ? ['1', '2'] : ['2', '1'];
      const from = contactsSwitch === 'plus24' ? plus : minus;
      if (c.conditions.length) sketch.series(from, c.conditions, 'permit', 'permit');
      sketch.series(c.conditions.length ? 'permit' : from, [[device, feed, load]], id, id);
      sketch.input(id, c.levelTask?.(task) ?? task, device, 'startStop', id);
    }
    return sketch.operation(id, device);
  };
  const starts: Partial<Record<Direction, OperationId>> = {
    forward: give('run.forward', 'forward', 'controller.run'),
  };
  if (both) starts.reverse = give('run.reverse', 'reverse', 'controller.reverse');
  return {
    givenBy: 'level',
    stops: [],
    chained: false,
    starts,
    startMethod: 'levelForwardReverse',
  };
}
