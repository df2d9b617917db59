import { longestTravelMs } from '../../drive/index.js';
import type { InstalledDrive } from '../../installation/index.js';
import type { Act } from '../../job/index.js';
import {
  actsOf,
  directionsOf,
  give,
  powerOnActs,
  powerUp,
  READY_MS,
  startActs,
  stopActs,
  take,
  type Arrangement,
  type Direction,
} from '../../scheme/index.js';
import { faultClasses, type FaultClass, type Moment } from './faults.js';

/** What is asked at a check: at rest before any start, in a run, after a stop, after power came back, at the end. */
export type CheckKind = 'quiet' | 'runs' | 'stopped' | 'returned' | 'end';

/** The standard script of the sweep, and the moments at which its healthy and its faulty run are compared. */
export interface SweepScript {
  readonly acts: readonly Act[];
  readonly endMs: number;
  /** Output expected of the healthy job is what its own run shows there. */
  readonly checks: readonly { readonly atMs: number; readonly kind: CheckKind }[];
  readonly faultMs: Readonly<Record<Moment, number>>;
}

const MARGIN_MS = 1500;
const DARK_MS = 60_000;
const BEFORE_MS = 200;
const RUNNING_HZ = 0.01;

/** Lays the script part by part; a check looks at the end of every part. */
class Parts {
  readonly acts: Act[] = [];
  readonly checks: { atMs: number; kind: CheckKind }[] = [];
  t = READY_MS;

  part(acts: readonly Act[], kind: CheckKind, lastsMs: number): void {
    this.acts.push(...acts);
    this.t += lastsMs;
    this.checks.push({ atMs: this.t - BEFORE_MS, kind });
  }
}

/**
 * Start, run and stop in each direction, stop from every station, emergency stop and its release, power cut and return
 * with nothing let go, and a last stop.
 */
export function sweepScript(a: Arrangement, drive: InstalledDrive): SweepScript {
  const travel = Math.min(600_000, longestTravelMs(drive.control)) + MARGIN_MS;
  const directions = directionsOf(a);
  const [first, second] = [directions[0] ?? 'forward', directions[1] ?? directions[0] ?? 'forward'];
  const p = new Parts();
  p.acts.push(...powerUp(a, 0.5));
  p.checks.push({ atMs: READY_MS - BEFORE_MS, kind: 'quiet' });
  // A run lasts two travels, so that a fault in its middle has come to rest before the run is looked at.
  const run = (d: Direction, station = 0): void => {
    p.part(startActs(a, d, p.t), 'runs', 2 * travel + a.warningMs);
    p.part(stopActs(a, d, p.t, station), 'stopped', travel);
  };
  const stopAt = READY_MS + 2 * travel + a.warningMs;
  run(first);
  run(second, a.stops.length > 1 ? 1 : 0);
  if (a.estop) {
    p.part(startActs(a, first, p.t), 'runs', travel + a.warningMs);
    p.part(actsOf(give(a, a.estop, p.t)), 'stopped', travel);
    p.part(stopActs(a, first, p.t), 'stopped', 1000);
    p.part([...actsOf(take(a, a.estop, p.t)), ...powerOnActs(a, p.t + 500)], 'stopped', 4000);
  }
  for (const condition of a.interlocks) {
    p.part(startActs(a, first, p.t), 'runs', travel + a.warningMs);
    p.part(actsOf(give(a, condition, p.t)), 'stopped', travel);
    p.part(stopActs(a, first, p.t), 'stopped', 1000);
    p.part(actsOf(take(a, condition, p.t)), 'stopped', 1000);
  }
  p.part(startActs(a, first, p.t), 'runs', 2 * travel + a.warningMs);
  p.part([{ do: 'supplyOff', atMs: p.t }], 'stopped', DARK_MS);
  p.part([{ do: 'supplyOn', atMs: p.t }], 'returned', 5000 + a.warningMs + travel);
  p.part(stopActs(a, first, p.t), 'end', travel);
  return {
    acts: p.acts,
    checks: p.checks,
    endMs: p.t,
    faultMs: {
      beforePower: 0,
      stopped: READY_MS - 600,
      running: READY_MS + a.warningMs + travel,
      stopping: stopAt + 250,
    },
  };
}

export const grade = (c: FaultClass): number => faultClasses.indexOf(c);

/** Compares what the motor does at every check after the fault came; never volts. */
export function classOf(
  { checks }: SweepScript,
  healthy: readonly number[],
  faulty: readonly number[],
  faultMs: number,
): FaultClass {
  const turns = (hz: number): boolean => Math.abs(hz) > RUNNING_HZ;
  const seen: FaultClass[] = ['noEffect'];
  let [wanted, lost] = [0, 0];
  checks.forEach(({ atMs, kind }, i) => {
    if (atMs < faultMs) return;
    const [h, f] = [healthy[i], faulty[i]];
    if (turns(h)) {
      if (kind === 'runs') wanted++;
      if (!turns(f) && kind === 'runs') lost++;
      else if (turns(f) && (h * f < 0 || Math.abs(h - f) > 0.05 * Math.abs(h)))
        seen.push('wrongDirectionOrSpeed');
    } else if (turns(f))
      seen.push(
        (kind === 'stopped' || kind === 'end') && i > 0 && turns(faulty[i - 1])
          ? 'losesStop'
          : 'startsByItself',
      );
  });
  if (lost > 0) seen.push(lost === wanted ? 'failsSafe' : 'losesFunction');
  return seen.reduce((worst, c) => (grade(c) > grade(worst) ? c : worst));
}
