import { askedOf, barredBy, supplySeen } from './command.js';
import { us, type StarterCore, type StarterInputs } from './core.js';
import { heatAt } from './heat.js';
import { turning, unfed } from './let-go.js';
import { asRad, planStart, runPoint } from './plan-run.js';
import type { Motion, StarterState } from './state.js';

/** What inside a soft starter does not work. */
export interface Broken {
  /** Poles that always conduct: a thyristor that is a short. */
  readonly shorted: number;
  /** Poles that never fire. */
  readonly dead: number;
  /** The contacts of the bypass do not open any more. */
  readonly bypass: boolean;
}

/** Time after which a starter that measures its poles sees that they conduct unasked, s. */
const SEEN_S = 0.5;

/**
 * Phases that reach the motor although nobody asks: 0, 2 or 3. One conducting pole alone closes no circuit through a motor
 * without neutral; two make no turning field, three are a direct start.
 */
export function conducting({ broken }: StarterCore, s: StarterState): 0 | 2 | 3 {
  const seen = supplySeen(s.levels);
  const poles = !broken ? 0 : broken.bypass ? 3 : broken.shorted;
  if (seen === 0 || poles < 2) return 0;
  return poles >= 3 && seen === 2 ? 3 : 2;
}

/** Poles through which a start can be fed: with one that does not fire it has two phases, until its bypass has closed. */
export const firing = ({ broken }: StarterCore, s: StarterState): 2 | 3 =>
  supplySeen(s.levels) === 2 && !broken?.dead ? 3 : 2;

/** The starter finds a pole that conducts when it measures them: before it fires, and while it feeds nothing. */
export const findsShort = ({ broken, seesShort }: StarterCore): boolean =>
  seesShort === true && broken !== undefined && (broken.bypass || broken.shorted > 0);

/** A motor that poles feed although nobody asks, whatever the command logic does; and since when that can be seen. */
export function unasked(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  if (!core.broken) return s;
  const phases = conducting(core, s);
  const m = s.motion;
  const measures = m.kind !== 'start' && findsShort(core) && supplySeen(s.levels) > 0;
  const shortUs = measures && s.control === 'on' ? Math.min(s.shortUs, t) : Infinity;
  if (shortUs !== s.shortUs) s = { ...s, shortUs };
  if (m.kind === 'start' || (m.kind === 'unasked' && m.phases === phases)) return s;
  if (phases === 0) return m.kind === 'unasked' ? unfed(core, s, turning(inputs), t) : s;
  const direction = m.kind === 'off' || m.kind === 'coast' ? s.lastDirection || 1 : m.direction;
  const rad =
    m.kind === 'off' || m.kind === 'coast'
      ? asRad(core.machine, Math.abs(inputs.shaftHz))
      : runPoint(m.run, t).rad;
  const from = { rad, heat: heatAt(core, s, t), t, phases, way: { kind: 'direct' } } as const;
  const run = planStart(core.control, core.machine, from);
  return { ...s, motion: { kind: 'unasked', direction, phases, run } };
}

/** A run is asked while poles already conduct, and nothing stands against it. */
export const takesOver = (core: StarterCore, s: StarterState): boolean =>
  s.motion.kind === 'unasked' &&
  s.fault === null &&
  !barredBy(s) &&
  askedOf(core.control, s).direction !== 0;

/** When what was measured is believed, µs. */
export const shortSeenUs = (s: StarterState): number => s.shortUs + us(SEEN_S);

/** Something feeds the motor that has to be followed from now on. */
export const changesBy = (core: StarterCore, s: StarterState): boolean => {
  if (!core.broken) return false;
  const m: Motion = s.motion;
  const phases = conducting(core, s);
  return m.kind === 'start' ? false : (m.kind === 'unasked' ? m.phases : 0) !== phases;
};
