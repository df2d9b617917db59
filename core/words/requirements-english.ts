import { n, type Args } from './numbers.js';

/** What the motor does, in words. */
const doings: Readonly<Record<string, string>> = {
  runsForward: 'the motor runs forward',
  runsReverse: 'the motor runs in reverse',
  startsUnwarned: 'the motor starts before the warning is over',
  startsUnanswered: 'the motor starts before it has answered',
  doesNotRise: 'the speed does not rise',
  isOn: 'it is on',
  isOff: 'it is off',
  otherSpeed: 'it runs at another speed',
  tooFast: 'it runs faster',
  staysLive: 'something stays live',
  opensUnderLoad: 'the contactor opens or closes while the device drives the motor',
  unlocksTurning: 'the guard can be opened while the machine turns',
  turnsLonger: 'the machine turns longer',
  stands: 'the motor stands still',
  hums: 'the motor stands under voltage and hums',
  runsDownUnknown: 'inertia or load is not entered, so that no time to rest is known',
  neverRuns: 'the motor never runs, so that nothing can be shown',
};
export const sayDoing = (does: string): string => doings[does] ?? does;

const turned = (a: Args, way: string): string =>
  a['selector'] ? ` with ${String(a['selector'])} at ${way}` : '';

/** A required function as a sentence, by the last part of its id. */
const functions: Readonly<Record<string, (device: string, a: Args) => string>> = {
  forward: (d, a) => `${d}${turned(a, 'forward')} turns the machine forward.`,
  reverse: (d, a) => `${d}${turned(a, 'reverse')} turns the machine in reverse.`,
  turns: (d) => `${d} moves the motor its own way.`,
  onlyHeld: (d) => `${d} moves the motor only while it is held.`,
  stops: (d, a) =>
    a['hot']
      ? `Hot windings (${d}) stop the motor.`
      : a['condition']
        ? `${d} opened stops the motor.`
        : a['level']
          ? `Letting go of ${d} stops the motor.`
          : `${d} stops the motor.`,
  dominates: (d, a) => `${d} stops the motor while ${String(a['start'])} is held.`,
  released: (d, a) =>
    a['hot']
      ? `Windings that have cooled start nothing, with ${String(a['start'])} still given.`
      : `${a['condition'] ? `${d} closed again` : `Letting go of ${d}`} starts nothing, with ${String(a['start'])} still given.`,
  blocks: (d, a) =>
    a['hot']
      ? `While the windings are hot, or ${d} is lifted, no start moves the motor.`
      : a['channel']
        ? `With its contact ${String(a['channel'])} alone open, ${d} refuses every start.`
        : `While ${d} is open no start${a['jog'] ? ' and no jog' : ''} moves the motor.`,
  speed: (d, a) =>
    `${d}${a['position'] ? ` at ${String(a['position'])}` : ''} gives ${n(Number(a['hz']), 1)} Hz.`,
  dead: (_d, a) =>
    `With ${String(a['isolator'])} off everything behind it is dead${a['foreign'] ? `, but for ${String(a['foreign'])}, which has a source of its own` : ''}.`,
  rises: (_d, a) => `The speed rises with ${String(a['dial'] || 'the signal')}.`,
  on: () => 'Power that comes on starts nothing, with every run contact open.',
  off: (d, a) => `${d} takes the power off: ${String(a['shows'])} drops out.`,
  remote: (d, a) => `Turning ${d} back starts nothing, with ${String(a['start'])} still given.`,
  leadsAway: (d) => `With ${d} open the other direction still leads away from it.`,
  stop: (d) => `${d} stops the motor also while the keypad commands.`,
  comesBack: (_d, a) =>
    a['phase']
      ? 'One phase of the supply that is lost under way and comes back starts nothing.'
      : a['mains']
        ? `The mains (${String(a['breaker'])}) that are lost under way and come back start nothing.`
        : `A supply of the control (${String(a['breaker'])}) that is lost under way and comes back starts nothing.`,
  sounds: (d, a) =>
    `The horn sounds for ${n(Number(a['warningS']), 1)} s before ${d} moves the motor.`,
  startsNothing: (d) => `${d} alone moves nothing: a run has to be given as well.`,
  answers: (d, a) =>
    `${String(a['answers'])} is asked and has answered (${n(Number(a['answerS']), 1)} s) before ${d} moves the motor.`,
  rest: (_d, a) => `At rest ${String(a['shows'])} is ${a['on'] ? 'on' : 'off'}.`,
  running: (_d, a) => `While it runs ${String(a['shows'])} is ${a['on'] ? 'on' : 'off'}.`,
  opens: (_d, a) => `The brake (${String(a['shows'])}) is open while the motor drives.`,
  closes: (_d, a) =>
    `The brake (${String(a['shows'])}) is closed whenever the motor does not drive.`,
  locked: (d, a) => `${d} cannot be opened while the machine turns: ${String(a['lock'])} holds it.`,
  frees: (d, a) => `${d} can be opened when the machine stands: ${String(a['lock'])} lets it go.`,
  alone: (d, a) =>
    `${d} stops the motor by its contact ${String(a['channel'])} alone, should the others fail.`,
  limits: (_d, a) =>
    `Whatever dial, presets and keypad are set to, the output stays at or below ${n(Number(a['hz']), 1)} Hz.`,
  unloaded: (d) =>
    `The contactor behind the device opens only after ${d} has taken the output away, and closes before it comes back.`,
  together: (_d, a) =>
    `Presets chosen together give no more than the fastest of them, ${n(Number(a['hz']), 1)} Hz.`,
  inTime: (d, a) =>
    `${a['level'] ? `Letting go of ${d}` : d} brings the machine to rest from its highest speed within ${n(Number(a['s']), 1)} s.`,
  lowest: (_d, a) => `Set as low as it goes, the speed is ${n(Number(a['hz']), 1)} Hz.`,
  highest: (_d, a) => `Set as high as it goes, the speed is ${n(Number(a['hz']), 1)} Hz.`,
  return: (_d, a) =>
    a['restarts']
      ? 'Power that returns starts the motor again, as wished.'
      : `Power that returns starts nothing, with ${String(a['start'])} still given.`,
};

/** What a relay of the device stands for. */
export const relayNames: Readonly<Record<string, string>> = {
  running: 'running',
  healthy: 'no fault',
  atSpeed: 'at speed',
  fault: 'fault',
  ready: 'ready',
};

const sayRelay = (when: string, a: Args): string =>
  `${when} the relay for “${relayNames[String(a['shows'])] ?? String(a['shows'])}” is ${a['on'] ? 'picked up' : 'not picked up'}.`;

/**
 * A required function in words.
 *
 * @example sayRequirement('estop.stops', { device: 'S1' }) // 'S1 stops the motor.'
 */
export function sayRequirement(id: string, args: Args): string {
  if (id.startsWith('status.'))
    return sayRelay(id.endsWith('.rest') ? 'At rest' : 'While it runs', args);
  const last = id.slice(id.lastIndexOf('.') + 1);
  return functions[last]?.(String(args['device'] ?? ''), args) ?? id;
}

const instead = (a: Args): string =>
  `As built it does not: ${sayDoing(String(a['does']))} instead.`;

/** Findings of requirements that are not met. */
export const requirementFindings = {
  'requirement.notMet': (a: Args) => ({
    what: `Required: ${sayRequirement(String(a['requirement']), a)} ${instead(a)}`,
    why: 'Somebody relies on it not to be hurt. It is required by what was wished, whatever the wires and settings make of it.',
    remedy:
      'Show me runs it. Compare the wires of the part with the plan, and its settings; it cannot be accepted, and its test cannot be passed, while it is so.',
  }),
  'requirement.otherMotion': (a: Args) => ({
    what: `Required: ${sayRequirement(String(a['requirement']), a)} ${instead(a)}`,
    why: 'The motor does otherwise than was wished.',
    remedy: 'Show me runs it. Compare wires and settings with the plan, or change the wish.',
  }),
  'requirement.tellsOtherwise': (a: Args) => ({
    what: `Required: ${sayRequirement(String(a['requirement']), a)} ${instead(a)}`,
    why: 'Whoever looks at it is told otherwise than its label says.',
    remedy: 'Show me runs it. Compare its wires and the task of its relay with the plan.',
  }),
} as const;
