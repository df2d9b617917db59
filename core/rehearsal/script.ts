import type { Installation } from '../installation/index.js';
import type { Deed } from '../circuit/index.js';
import { Engine } from './engine.js';
import type { EngineOptions, TimedAct } from './engine-state.js';
import type { Trace } from '../trace/index.js';

/** Acts in order of time, in integer microseconds; acts of the same moment keep their order. */
export function timedActs(acts: readonly Deed[]): TimedAct[] {
  return acts
    .map((act, i) => ({ t: Math.round(act.atMs * 1000), act, i }))
    .sort((x, y) => x.t - y.t || x.i - y.i);
}

/**
 * Runs a script on an installation from switched-off to its end.
 *
 * @param endMs how long, ms; by default 2 s after the last act
 * @returns the trace; the same every time
 * @example rehearse(install(job, profile), [{ atMs: 0, do: 'supplyOn' }, { atMs: 1500, do: 'press', device: 'contact.forward' }], 9000)
 */
export function rehearse(
  installation: Installation,
  acts: readonly Deed[],
  endMs?: number,
  options?: EngineOptions,
): Trace {
  const timed = timedActs(acts);
  const endUs = endMs === undefined ? (timed.at(-1)?.t ?? 0) + 2_000_000 : Math.round(endMs * 1000);
  const engine = new Engine(installation, options);
  engine.runTo(
    endUs,
    timed.filter((act) => act.t <= endUs),
  );
  return engine.trace;
}
