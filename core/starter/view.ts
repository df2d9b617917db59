import {
  askedOf,
  barredBy,
  levelAsked,
  supplySeen,
  waitsUntil,
  type StarterRefusal,
} from './command.js';
import { runPoint } from './plan-run.js';
import type { Direction, StarterState } from './state.js';
import type { StarterCore } from './core.js';
import type { StarterFault, StarterStateName } from './vocabulary.js';

/** What an observer sees of the command logic. */
export interface StarterView {
  readonly state: StarterStateName;
  readonly fed: boolean;
  readonly direction: Direction;
  readonly fault: StarterFault | null;
  readonly blockedBy: StarterRefusal | null;
}

/** Somebody asks for a run that is not followed, and why not. */
function blockOf({ control }: StarterCore, s: StarterState, t: number): StarterRefusal | null {
  const { direction, block } = askedOf(control, s);
  if (direction === 0 && block) return block;
  const level = levelAsked(control, s.levels) || s.levels.start === 1;
  if (direction === 0 && !level && s.missingUs === Infinity) return null;
  const barred = barredBy(s);
  if (s.missingUs !== Infinity || (direction !== 0 && supplySeen(s.levels) === 0)) return 'noMains';
  if (barred && (direction !== 0 || level)) return barred;
  if (direction === 0) return null;
  if (t < waitsUntil(control, s, direction)) return 'inhibit';
  return s.motion.kind === 'coast' ? 'coasting' : null;
}

/** The contactor ahead is worked by the device: without a run there is nothing to wait for at its terminals. */
export type ContactorBy = 'device' | 'others';

/**
 * State by the order in which they win: off, starting up, faulted, no mains, enable open, what feeds the motor, inhibit,
 * coasting, blocked, ready.
 */
export function viewStarter(
  core: StarterCore,
  s: StarterState,
  t: number,
  contactor: ContactorBy = 'others',
): StarterView {
  const m = s.motion;
  const fed = m.kind === 'start' || m.kind === 'softStop' || m.kind === 'unasked';
  const blockedBy = s.control === 'on' && !fed && m.kind !== 'brake' ? blockOf(core, s, t) : null;
  const name = nameOf(core, s, t, blockedBy, contactor);
  const direction = m.kind === 'off' || m.kind === 'coast' ? 0 : m.direction;
  return { state: name, fed, direction, fault: s.fault, blockedBy: s.fault ? null : blockedBy };
}

function nameOf(
  core: StarterCore,
  s: StarterState,
  t: number,
  blockedBy: StarterRefusal | null,
  contactor: ContactorBy,
): StarterStateName {
  if (s.control === 'off') return 'off';
  if (s.control === 'startingUp') return 'startingUp';
  if (s.fault) return 'faulted';
  const m = s.motion;
  if (m.kind === 'start')
    return t < m.run.kickUs ? 'kick' : t < m.run.bypassUs ? 'ramping' : 'running';
  if (m.kind === 'softStop') return 'softStopping';
  if (m.kind === 'brake') return 'braking';
  if (supplySeen(s.levels) === 0 && contactor === 'others')
    return blockedBy ? 'blocked' : 'noMains';
  if (s.levels.enable === 0) return 'enableOpen';
  const { direction } = askedOf(core.control, s);
  if (t < waitsUntil(core.control, s, direction || s.lastDirection)) {
    const inhibitUs = s.unfedUs + core.control.inhibitS * 1e6;
    // The pause before the other direction is no inhibit: it is seen as what the motor does meanwhile.
    if (t < inhibitUs || (direction !== 0 && s.motion.kind === 'off')) return 'inhibit';
  }
  if (m.kind === 'coast') return 'coasting';
  return blockedBy ? 'blocked' : 'ready';
}

/** Share of full voltage, current and torque of the motor at t; nothing where it is not fed. */
export function feedAt(
  s: StarterState,
  t: number,
): { share: number; amps: number; torqueNm: number } {
  const m = s.motion;
  if (m.kind !== 'start' && m.kind !== 'softStop' && m.kind !== 'unasked')
    return { share: 0, amps: 0, torqueNm: 0 };
  const { share, amps, torqueNm } = runPoint(m.run, t);
  return { share, amps, torqueNm };
}
