import { isPulse, type Refusal } from './command.js';
import { outputHz } from './motion.js';
import type { DcLink } from './power.js';
import { wanted } from './step.js';
import type { DriveState, Fault } from './state.js';
import type { Control } from './vocabulary.js';

/** Names of what a drive is doing, in the order in which one hides the next. */
export const stateNames = [
  'off',
  'poweringUp',
  'noMains',
  'faulted',
  'enableOpen',
  'accelerating',
  'atSpeed',
  'decelerating',
  'reversePause',
  'jogging',
  'coasting',
  'blocked',
  'ready',
] as const;
export type StateName = (typeof stateNames)[number];

/** What an observer of the drive sees at one moment. */
export interface DriveView {
  readonly state: StateName;
  /** Output frequency, negative in reverse. */
  readonly hz: number;
  readonly fault: Fault | null;
  readonly blockedBy: Refusal | null;
  /** Frequency set at its keypad, Hz; absent where it has none of its own. */
  readonly keypadHz?: number;
}

/** Reasons that hold back a demand the logic has understood; the others mean that there is no run demand at all. */
const holding: ReadonlySet<Refusal> = new Set([
  'needFreshEdge',
  'noReverse',
  'inhibited',
  'zeroReference',
]);

/** State, frequency, fault and the reason why a demand is not followed, at t. */
export function viewDrive(
  control: Control,
  link: DcLink | undefined,
  s: DriveState,
  t: number,
): DriveView {
  const { levels, power, motion } = s;
  const unfed =
    levels.mains === 0 && !(control.controlSupplySeparate && levels.controlSupply === 1);
  if (power.logic === 'off' || (unfed && !link))
    return { state: 'off', hz: 0, fault: null, blockedBy: null };
  if (power.logic === 'poweringUp')
    return { state: 'poweringUp', hz: 0, fault: s.fault, blockedBy: null };
  const hz = outputHz(motion, t);
  const command = wanted(control, s);
  const keypad = control.keypadHz === undefined ? {} : { keypadHz: s.keypadHz };
  const seen = { hz, fault: s.fault, blockedBy: command.block, ...keypad };
  if (!power.linkUp) return { ...seen, state: s.fault ? 'faulted' : 'noMains' };
  if (s.fault) return { ...seen, state: 'faulted' };
  if (levels.enableA === 0 || levels.enableB === 0) return { ...seen, state: 'enableOpen' };
  if (motion.kind === 'dc' && t < motion.path.endUs) return { ...seen, state: 'decelerating' };
  if (motion.kind === 'pause') return { ...seen, state: 'reversePause' };
  if (motion.kind === 'ramp') {
    if (motion.purpose === 'jog' || motion.pair === 'jog') return { ...seen, state: 'jogging' };
    const moving = t < motion.ramp.endUs;
    const growing = Math.abs(motion.ramp.rest) > Math.abs(motion.ramp.stretches[0].y);
    if (moving) return { ...seen, state: growing ? 'accelerating' : 'decelerating' };
    if (hz !== 0) return { ...seen, state: 'atSpeed' };
    return { ...seen, state: 'blocked', blockedBy: 'zeroReference' };
  }
  if (motion.kind === 'coast') return { ...seen, state: 'coasting' };
  const held =
    isPulse(control) && levels.stop === 0
      ? false
      : command.block !== null && holding.has(command.block);
  return { ...seen, state: held ? 'blocked' : 'ready' };
}
