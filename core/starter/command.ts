import type { Direction, StarterState } from './state.js';
import type { StarterControl, StarterLevels } from './vocabulary.js';

/** Why a run that is asked for is not followed. */
export type StarterRefusal =
  | 'stopOpen'
  | 'needFreshEdge'
  | 'enableOpen'
  | 'noMains'
  | 'bothDirections'
  | 'inhibit'
  | 'coasting'
  | 'wrongPlace'
  | 'noReverse'
  | 'inhibited';

/** Phases that reach the thyristors: 0 none, 1 some, 2 all. */
export function supplySeen(l: StarterLevels): 0 | 1 | 2 {
  if (!l.mains || !l.lineContactor) return 0;
  const phases = l.phase1 + l.phase2 + l.phase3;
  return phases === 3 ? 2 : phases === 0 ? 0 : 1;
}

/** A run level is closed: it would run if nothing stood against it. Pulses are none. */
export function levelAsked({ startMethod }: StarterControl, l: StarterLevels): boolean {
  if (startMethod === 'twoWire') return l.run === 1;
  return startMethod === 'twoEnables' && (l.forward === 1 || l.reverse === 1);
}

/** Direction in which it is asked to run, and why the inputs ask for none. */
export function askedOf(
  control: StarterControl,
  s: Pick<StarterState, 'levels' | 'latch' | 'firstDirection'>,
): { direction: Direction; block: StarterRefusal | null } {
  const l = s.levels;
  const level = levelAsked(control, l);
  if (control.commandSource === 'keypad') {
    const refused = level || l.start === 1 ? 'wrongPlace' : null;
    return { direction: s.latch, block: s.latch ? null : refused };
  }
  if (l.stop === 0) return { direction: 0, block: level || l.start === 1 ? 'stopOpen' : null };
  switch (control.startMethod) {
    case 'twoWire':
      return { direction: l.run, block: null };
    case 'threeWire':
      return { direction: s.latch, block: null };
    case 'twoEnables': {
      if (l.reverse && !l.forward && control.noReverse) return { direction: 0, block: 'noReverse' };
      if (!l.forward || !l.reverse)
        return { direction: l.forward ? 1 : l.reverse ? -1 : 0, block: null };
      const first = control.onBothDirections === 'firstWins' ? s.firstDirection : 0;
      return { direction: first, block: first === 0 ? 'bothDirections' : null };
    }
  }
}

/** What forbids any run now, whoever asks. */
export function barredBy(s: StarterState): StarterRefusal | null {
  if (s.levels.enable === 0) return 'enableOpen';
  if (s.levels.coastNow === 1) return 'inhibited';
  return s.needFresh ? 'needFreshEdge' : null;
}

/** Moment until which a start in a direction has to wait after the motor was last fed. */
export function waitsUntil(
  { inhibitS, reversePauseS }: StarterControl,
  { unfedUs, lastDirection }: StarterState,
  direction: Direction,
): number {
  if (unfedUs === -Infinity) return -Infinity;
  const turned = lastDirection !== 0 && direction !== 0 && direction !== lastDirection;
  return unfedUs + Math.round(Math.max(inhibitS, turned ? reversePauseS : 0) * 1e6);
}
