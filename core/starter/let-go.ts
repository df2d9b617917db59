import { imageTau, REST_FACTOR } from '../motor/index.js';
import { levelAsked } from './command.js';
import { us, type StarterCore, type StarterInputs } from './core.js';
import { heatAt } from './heat.js';
import type { Motion, StarterState } from './state.js';
import type { StarterControl, StarterFault } from './vocabulary.js';

export const off: Motion = { kind: 'off' };

/** The motor is let go: it coasts where it turns, the image cools, and waiting times count from here. */
export function unfed(core: StarterCore, s: StarterState, turns: boolean, t: number): StarterState {
  const m = s.motion;
  if (m.kind === 'off' || m.kind === 'coast') return s;
  const value = heatAt(core, s, t);
  return {
    ...s,
    motion: turns ? { kind: 'coast' } : off,
    heat: { value, atUs: t, toward: 0, tauS: REST_FACTOR * imageTau(core.control.tripClass) },
    unfedUs: t,
    lastDirection: m.direction,
    phaseUs: Infinity,
  };
}

/** A run ended otherwise than by its stop: the latch is lost, a level is followed again or not. */
export function interrupted(
  control: StarterControl,
  s: StarterState,
  follow: boolean,
): StarterState {
  const held = levelAsked(control, s.levels);
  return { ...s, latch: 0, needFresh: s.needFresh || (held && !follow) };
}

/** The shaft turns, however it came to. */
export const turning = ({ shaftTurns, shaftHz }: StarterInputs): boolean =>
  shaftTurns || shaftHz !== 0;

/** Trips: the motor is let go, the latch is lost, a level is followed again only after its reset. */
export function fail(
  core: StarterCore,
  s: StarterState,
  fault: StarterFault,
  inputs: StarterInputs,
  t: number,
): StarterState {
  if (s.fault) return s;
  const { control } = core;
  // Poles that conduct whatever the logic does go on feeding the motor.
  const at = s.motion.kind === 'unasked' ? s : unfed(core, s, turning(inputs), t);
  const resets = at.resetsLeft > 0;
  return {
    ...interrupted(control, at, true),
    fault,
    missingUs: Infinity,
    lineAskedUs: Infinity,
    autoResetUs: resets ? t + us(control.autoResetDelayS) : Infinity,
  };
}
