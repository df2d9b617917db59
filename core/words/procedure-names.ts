import type { DisplaySeen } from '../job/index.js';
import { n, type Args } from './numbers.js';

const s = (x: unknown): string => String(x ?? '');

/** Usual cautions by code. */
export const cautions: Readonly<Record<string, string>> = {
  liveWork:
    'Live measurement: only by a competent person, guarded probes, covers back at once. Local rules apply.',
  category:
    'Meter and leads of the category the supply asks for; true RMS with a low-pass on a drive output.',
  contactsOpen: 'Every run contact open, dial at zero, everybody told.',
  cannotRun:
    'A run is asked for: only the speed, which is set to nothing, keeps the motor still. Stand clear of the machine.',
  turns: 'The motor turns. Guards on, everybody clear, a stop within reach.',
  neverAcrossStop:
    'A jumper never goes across a stop, a guard, a limit or an emergency stop. Note it while it is in.',
  freeToTurn: 'The machine must be declared free to turn, or the motor uncoupled.',
  automaticRestart: 'The motor starts by itself. Nobody at the machine.',
  releasedToOne: 'Letting go of one contact starts the motor the other way.',
  noProtection:
    'The station is not landed whole: no stop, guard or emergency stop counts. Power can be cut by hand at any moment.',
  proveDead:
    'Work inside the panel: only with every supply off, locked, and proved dead; wait the time that stands on the device.',
  provesDead:
    'Until this is done everything counts as live. Local rules, two-pole tester of the right category, guarded probes.',
  insulation:
    'Never an insulation tester on the device or on electronics: the cable must be off at both U, V, W and the brake.',
  notIsolated:
    'A stopped soft starter does not isolate: with its contactor closed, leakage stands at the motor. No work there but with the supply locked and proved dead.',
  openAgain:
    'If anything else happens, open it again, prove dead, and find what is fed past an open switch.',
  switchingOn:
    'From here on parts are live. One hand at what switches off; nobody with hands in the panel while something is switched.',
  movesAtEnd: 'Letting go at the end moves the motor once more. Stay clear until it stands.',
};

/** Parts of the live tests by their code. */
export const liveSectionNames: Readonly<Record<string, string>> = {
  energise: 'Switch on, branch by branch',
  power: 'Power',
  simulated: 'Inputs simulated, before the real ones',
  inputs: 'Inputs and signals',
  contacts: 'Stops and guards, seen at the device',
  bump: 'First turn',
  stops: 'Every stop under way',
  motions: 'Directions, and stops while speeding up',
  speed: 'Speed and current, start and stop',
  top: 'Emergency stop from full speed',
  tells: 'Lamps, signals, places',
  return: 'Power gone and back',
};

/** Parts of the dead checks, by their act. */
export const deadSectionNames: Readonly<Record<string, string>> = {
  isolate: 'Isolate and prove dead',
  links: 'What was delivered',
  pe: 'Protective conductors',
  loop: 'Loops of the control, at the device’s own terminals',
  dial: 'Dial',
  single: 'One by one: what no loop shows, or where a loop was wrong',
  coils: 'Coils',
  power: 'Power section',
  close: 'Earth, insulation, covers',
};

/** Short names of acts; a part of it stands for what comes after the point. */
const actNames: Readonly<Record<string, (a: Args, part: string) => string>> = {
  links: () => 'Links and switches',
  energise: () => 'From the source, one branch after the other',
  'dead.isolate': (a) => `${s(a['off'])} locked, proved dead`,
  'dead.links': () => 'As delivered: plate and links',
  'dead.pe': () => 'Each protective conductor',
  dead: (a, part) =>
    part.startsWith('single.')
      ? `Cable ${part.slice('single.'.length)}, wire by wire`
      : part.startsWith('loop')
        ? `${s(a['device'])} between ${s(a['a'])} and ${s(a['b'])}`
        : part,
  'dead.dial': (a) => `${s(a['device'])} at both ends`,
  'dead.power': () => 'Poles, windings, contactor',
  'dead.close': () => 'Earth, insulation, covers',
  'dead.single': () => 'Wires and contacts one by one',
  'dead.coils': () => 'Relays and coils',
  'supply.volts': () => 'Supply, pole by pole',
  'supply.rotation': () => 'Sequence of the phases',
  'branch.off': () => 'Power branch off',
  'branch.on': () => 'Power branch on',
  'start.full': () => 'A whole start: current and time',
  'start.again': () => 'Started again at once',
  end: (a) => `${s(a['device'])} at the end of the way`,
  'supply.on': () => 'Power on',
  input: (a) => `${s(a['device'])} at ${s(a['terminal'])}`,
  simulated: (a) =>
    a['unit'] ? `${s(a['a'])} by a calibrator` : `${s(a['terminal'])} by a jumper`,
  'dial.volts': (a) => `${s(a['device'])} at five places`,
  contact: (a) => `${s(a['device'])} opened`,
  bump: (a, part) =>
    `${part === 'reverse' ? 'In reverse' : 'Forward'}, ${a['giver'] === 'none' ? 'for a second' : 'slowly'}`,
  'stop.held': (a) => `${s(a['stop'])} against a held start`,
  station: (_a, part) => `Station ${part}`,
  estop: (a, part) =>
    part.startsWith('channel.')
      ? `${s(a['device'])}, channel ${part.slice(8)} alone`
      : `${s(a['device'])} under way`,
  'estop.full': (a) => `${s(a['device'])} from full speed`,
  interlock: (a) => `${s(a['device'])} opened under way`,
  foot: (a) => `${s(a['device'])} worked under way`,
  'direction.both': () => 'Both directions given',
  'direction.change': () => 'Direction changed under way',
  jog: (a) => `Jog with ${s(a['device'])}`,
  'stop.accelerating': () => 'Stop while speeding up',
  'estop.accelerating': (a) => `${s(a['device'])} while speeding up`,
  speed: () => 'Speed and current',
  presets: () => 'Presets',
  ramps: (a, part) =>
    a['giver'] === 'none' ? 'Stop, and time to rest' : part ? 'Second ramps' : 'Ramps',
  tells: () => 'Lamps and signals',
  meter: (a) => `Meter ${s(a['device'])}`,
  'place.keypad': () => 'Start key of the device',
  'section.bump': () => 'Forward from the keypad, slowly',
  'place.stop': (a) => `${s(a['stop'])} while the keypad commands`,
  supply: (a) => `${s(a['device'])} gone and back`,
  'signal.loss': (a) => `Signal of ${s(a['device'])} lost`,
  'jog.run': (a) => `Jog with ${s(a['jog'])} under way`,
  'place.takeover': (a) => `Place by ${s(a['key'])}`,
  'isolator.off': (a) => `${s(a['isolator'])} off`,
  'power.return': () => 'Power gone and back',
  'power.cut': (a) => `${s(a['off'])} under way`,
  'motor.dead': () => 'Nothing at the motor',
  thermistor: () => 'Sensors of the windings opened',
  guard: (a) => `${s(a['guard'])} locked until standstill`,
  'stop.cut': (a) => `${s(a['device'])} during the soft stop`,
};

/**
 * An act of the live tests by a short name.
 *
 * @param args what its first sentence names
 * @example sayAct('estop.full', { device: 'S1' }) // 'S1 from full speed'
 */
export function sayAct(act: string, args: Args): string {
  const exact = actNames[act];
  if (exact) return exact(args, '');
  const [head, ...rest] = act.split('.');
  return actNames[head]?.(args, rest.join('.')) ?? act;
}

/**
 * What is read at the device, in words: the keys that reach it, what stands there, the lamps.
 *
 * @example sayDisplay({ monitor: 'Z/20', keys: ['−'], shows: '1 0', lamps: [] }).at // 'Z/20 (−)'
 */
export function sayDisplay({ monitor, keys, shows, lamps }: DisplaySeen): {
  readonly at: string;
  readonly shows: string;
  readonly lamps: string;
} {
  const path = keys.length > 0 ? ` (${keys.join(', ')})` : '';
  return {
    at: monitor === '' ? 'display' : `${monitor}${path}`,
    shows: shows === '' ? 'dark' : shows,
    lamps: lamps.map(({ name, is }) => `${name} ${is}`).join(', '),
  };
}

/** The shaft before and after something is done. */
export function sayShaft(turns: string, hz: number): string {
  if (turns === 'rest') return 'at rest';
  return `${turns === 'forward' ? 'forward' : 'in reverse'}, ${n(Math.abs(hz), 1)} Hz`;
}
