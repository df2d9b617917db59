import type { StartView } from '@tactron/core/compare';
import type { RecordedRamps, RecordedStart, Recording } from '@tactron/core/formats';
import type { Series } from '../../controls/line-chart';
import type { SimulatedRamps } from '../../compute/compare.worker';

/** Points of a recorded curve that are drawn at most. */
const DRAWN = 800;

/** What a recording is laid over: the start of a soft starter, or a run of a device that changes the speed. */
export type Simulated =
  | { readonly kind: 'start'; readonly view: StartView }
  | { readonly kind: 'run'; readonly run: SimulatedRamps };

/** An act that a recorder beside the device draws; null for all others. */
export const recordedAct = (act: string | undefined): string | null =>
  act === 'start.full' || act === 'ramps' || act === 'ramps.2' ? act : null;

/** A recording, and what was measured in it. */
export interface Measured {
  readonly recording: Recording;
  readonly start: RecordedStart | null;
  readonly ramps: RecordedRamps | null;
}

/**
 * What of a recording a step asks for; null where it does not hold it.
 *
 * @example readFor('ramp.up', measured) // 4.93
 */
export function readFor(step: string, { start, ramps }: Measured): number | null {
  const key = step.replace(/\.2$/u, '');
  if (key === 'start.peak') return start?.peakA ?? null;
  if (key === 'start.time') return start?.startS ?? null;
  if (key === 'ramp.up') return ramps?.upS ?? null;
  return key === 'ramp.down' ? (ramps?.downS ?? null) : null;
}

/** A value with its unit in the person's own way. */
type Show = (value: number, unit: string, digits: number) => string;

/** What was recorded beside what was simulated, in words. */
export function recordedText(
  { start, ramps }: Measured,
  simulated: Simulated,
  value: Show,
): string {
  const show = (x: number | null, unit: string, digits = 3): string =>
    x === null ? 'not recorded' : value(x, unit, digits);
  if (simulated.kind === 'start') {
    const { set } = simulated.view;
    return `Recorded: peak ${show(start?.peakA ?? null, 'A')}, start over after ${show(start?.startS ?? null, 's')}. Simulated: ${show(set.peakA, 'A')}, ${show(set.startS, 's')}.`;
  }
  if (!ramps) return 'Nothing moves in this recording.';
  const told = (r: RecordedRamps): string =>
    `up ${show(r.upS, 's')}, down ${show(r.downS, 's')}, held ${show(r.steady, r.of === 'hz' ? 'Hz' : 'rpm', 4)}`;
  const over = `${ramps.overshootPct < 0.05 ? 'nothing' : value(ramps.overshootPct, '%', 2)} above it`;
  const more = [
    over,
    ...(ramps.peakA === null ? [] : [`peak ${show(ramps.peakA, 'A')}`]),
    ...(ramps.peakLinkV === null ? [] : [`link up to ${show(ramps.peakLinkV, 'V')}`]),
  ];
  const like = ramps.of === 'hz' ? simulated.run.hz : simulated.run.rpm;
  return `Recorded: ${told(ramps)}, ${more.join(', ')}.${like ? ` Simulated: ${told(like)}.` : ''}`;
}

const xy = <P extends { readonly t: number }>(
  points: readonly P[],
  of: (p: P) => number | null,
): { x: number; y: number }[] =>
  points.flatMap((p) => {
    const y = of(p);
    return y === null ? [] : [{ x: p.t, y }];
  });

/** Curves of a recording over those that were simulated; what is compared has one colour. */
export function recordedSeries({ points }: Recording, simulated: Simulated | null): Series[] {
  const every = Math.max(1, Math.ceil(points.length / DRAWN));
  const own = points.filter((_, i) => i % every === 0);
  const dashed = { shown: 'dashes', like: 0 } as const;
  const speed: Series[] = [
    { name: 'speed, recorded', points: xy(own, (p) => p.rpm), right: true, like: 1 },
  ];
  const curves: Series[] =
    simulated?.kind === 'run'
      ? [
          { name: 'frequency, recorded', points: xy(own, (p) => p.hz), like: 0 },
          ...speed,
          {
            name: 'frequency, simulated',
            ...dashed,
            points: xy(simulated.run.points, (p) => p.hz),
          },
          {
            name: 'speed, simulated',
            ...dashed,
            like: 1,
            right: true,
            points: xy(simulated.run.points, (p) => p.rpm),
          },
        ]
      : [{ name: 'current, recorded', points: xy(own, (p) => p.amps), like: 0 }, ...speed];
  if (simulated?.kind === 'start') {
    const { points: set } = simulated.view.set;
    curves.push(
      { name: 'current, simulated', ...dashed, points: xy(set, (p) => p.amps) },
      { name: 'speed, simulated', ...dashed, like: 1, right: true, points: xy(set, (p) => p.rpm) },
    );
  }
  return curves.filter((c) => c.points.length > 0);
}
