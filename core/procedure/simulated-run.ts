import type { Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { signalAt } from '../trace/index.js';
import { trialsOf } from '../trials/index.js';
import { shownTrial } from './live/index.js';

/** A moment of a simulated run: s since the output left nothing, its frequency, the shaft where its poles are known. */
export interface SimulatedPoint {
  readonly t: number;
  readonly hz: number;
  readonly rpm: number | null;
}

/** Points of a simulated run; a ramp of some seconds is straight between them. */
const POINTS = 600;

/**
 * A live act as the device runs it in simulation: what a recorder beside it would draw.
 *
 * @param act act of the live tests, such as `ramps`
 * @returns undefined where the job has no such act, or its motor stays at rest in it
 * @example simulatedRun(job, profile, 'ramps')?.at(-1)?.hz // 0
 */
export function simulatedRun(
  job: Job,
  profile: Profile,
  act: string,
): SimulatedPoint[] | undefined {
  const trial = shownTrial(job, profile, `live.${act}`);
  if (!trial) return undefined;
  const installation = trialsOf(job, profile).installed(trial.keypad, {}, trial.lag);
  const trace = rehearse(installation, trial.acts, trial.endMs);
  const { polePairs } = installation.shaft;
  const stepUs = trace.endUs / POINTS;
  const points = Array.from({ length: POINTS + 1 }, (_, i): SimulatedPoint => {
    const at = Math.round(i * stepUs);
    const shaft = Math.abs(signalAt(trace, 'shaft.hz', at));
    return {
      t: at / 1e6,
      hz: Math.abs(signalAt(trace, 'device.hz', at)),
      rpm: polePairs === undefined ? null : (60 * shaft) / polePairs,
    };
  });
  const moves = points.findIndex((p) => p.hz > 0 || (p.rpm ?? 0) > 0);
  if (moves < 0) return undefined;
  const from = points[Math.max(0, moves - 1)].t;
  return points.map((p) => ({ ...p, t: p.t - from }));
}
