import type { Phase } from '../../trials/index.js';

/** When a fault comes: it may be harmless before power-up and start the motor while it stands. */
export const moments = ['beforePower', 'stopped', 'running', 'stopping'] as const;
export type Moment = (typeof moments)[number];

/** What a fault does, from harmless to gravest. */
export const faultClasses = [
  'noEffect',
  'failsSafe',
  'hidden',
  'losesFunction',
  'destroys',
  'wrongDirectionOrSpeed',
  'losesStop',
  'startsByItself',
] as const;
export type FaultClass = (typeof faultClasses)[number];

const RUNNING_HZ = 0.01;
/** Share by which a speed may differ and still be the same. */
const SAME_SPEED = 0.05;

export const grade = (c: FaultClass): number => faultClasses.indexOf(c);

/** What a fault that comes at one moment does, and the act after which that first shows. */
export interface Seen {
  readonly is: FaultClass;
  /** Mark of the phase at whose end it shows; undefined where nothing does. */
  readonly mark?: string;
}

/**
 * Compares what the motor does at the end of every phase after the fault came; never volts.
 *
 * @param healthy output frequency of the healthy job at each phase's look
 * @param faulty the same with the fault; not a number once the device is destroyed
 */
export function seenBy(
  phases: readonly Phase[],
  healthy: readonly number[],
  faulty: readonly number[],
  faultMs: number,
): Seen {
  const turns = (hz: number): boolean => Math.abs(hz) > RUNNING_HZ;
  let worst: Seen = { is: 'noEffect' };
  let [wanted, lost] = [0, 0];
  let firstLost = '';
  phases.forEach(({ lookMs, asks, mark }, i) => {
    const seen = (is: FaultClass): void => {
      if (grade(is) > grade(worst.is)) worst = { is, mark };
    };
    if (lookMs < faultMs) return;
    const [h, f] = [healthy[i], faulty[i]];
    if (Number.isNaN(f)) return seen('destroys');
    if (turns(h)) {
      if (asks === 'runs') wanted++;
      if (!turns(f) && asks === 'runs') {
        lost++;
        firstLost ||= mark;
      } else if (turns(f) && (h * f < 0 || Math.abs(h - f) > SAME_SPEED * Math.abs(h)))
        seen('wrongDirectionOrSpeed');
    } else if (turns(f)) {
      const ran = i > 0 && turns(faulty[i - 1]);
      seen((asks === 'stopped' || asks === 'end') && ran ? 'losesStop' : 'startsByItself');
    }
  });
  const loss: FaultClass = lost === wanted ? 'failsSafe' : 'losesFunction';
  return lost > 0 && grade(loss) > grade(worst.is) ? { is: loss, mark: firstLost } : worst;
}
