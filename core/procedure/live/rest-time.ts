import { phrase, range, type StepContext } from '../context.js';
import type { Asked } from '../sequence/tests.js';

type Timed = Pick<Asked, 'must' | 'expect' | 'instrument' | 'requirement'>;

/** A time that somebody takes with a stopwatch, s. */
export const timed = (time: number, tolerance: number): Timed => ({
  must: phrase('seconds', { s: time }),
  instrument: 'stopwatch',
  expect: range(time, tolerance, 's'),
});

/**
 * The time to rest where one is required: never longer than that, whatever the simulation says; the simulated time is told
 * beside it where inertia and load are entered.
 *
 * @returns undefined where the job requires none
 */
export function inTime(
  { required, requirements }: Pick<StepContext, 'required' | 'requirements'>,
  id: string,
  time: number | undefined,
  tolerance: number,
): Timed | undefined {
  const must = requirements.find((r) => r.id === id)?.must;
  if (!required.has(id) || must?.kind !== 'restsWithin') return undefined;
  const known = time !== undefined && time <= must.s;
  return {
    must: phrase('rest.within', { s: must.s, ...(known ? { time } : {}) }),
    instrument: 'stopwatch',
    expect: {
      kind: 'range',
      lo: known ? Math.round(Math.max(0, time - tolerance) * 100) / 100 : 0,
      hi: known ? Math.round(Math.min(must.s, time + tolerance) * 100) / 100 : must.s,
      nominal: known ? Math.round(time * 100) / 100 : must.s,
      unit: 's',
    },
    requirement: id,
  };
}
