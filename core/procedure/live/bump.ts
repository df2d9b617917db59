import type { Direction } from '../../scheme/index.js';
import {
  directionKey,
  operationOf,
  phrase,
  positionOf,
  range,
  starterOf,
  state,
  stateTimes,
  tagOf,
  type StepContext,
  type Worked,
} from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { rampTolerance } from '../tolerances.js';

/** States in which the speed still grows. */
export const gathering: readonly string[] = ['accelerating', 'kick', 'ramping'];

/** Share of the highest frequency at which the machine is first turned, and every stop tried. */
export const BUMP_SHARE = 0.2;

/** How long a motor that cannot turn slowly is let turn, ms. */
const BUMP_MS = 1000;

/** Which way the shaft turns now, as an answer. */
export const turning = ({ s }: LiveTests): string =>
  s.shaft.turns === 'rest' ? 'stopped' : s.shaft.turns;

/** How a sentence says that a run is started. */
export function startArgs(c: StepContext, direction: Direction = 'forward') {
  const f = starterOf(c, direction);
  const { arrangement: a } = c;
  const turned = a.direction ? operationOf(c, a.direction) : undefined;
  return {
    start: f ? tagOf(c, f.device) : '',
    position: f ? positionOf(c, f) : '',
    by: f ? a.givenBy : 'key',
    selector: turned ? tagOf(c, turned.device) : '',
    direction,
    stop: a.stops[0] ? tagOf(c, operationOf(c, a.stops[0])?.device ?? '') : '',
  };
}

/** The parts behind a start. */
export const behindStart = (c: StepContext, direction: Direction = 'forward'): Worked[] =>
  [starterOf(c, direction), operationOf(c, c.arrangement.direction)].filter((f) => f !== undefined);

/** One direction for a moment, slowly: which way the machine turns; then its stop. */
export function bump(t: LiveTests, direction: Direction): void {
  const { c } = t;
  const s = t.begin(`bump.${direction}`, direction === 'forward' ? 'bump' : 'motions', BUMP_SHARE);
  const startedMs = s.nowMs;
  if (s.has('amps')) {
    // At the voltage of the supply it is not slow: it is let turn for a moment only.
    s.start(direction, BUMP_MS);
    if (s.shaft.turns === 'rest') s.wait(s.travelMs);
  } else s.start(direction);
  const args = {
    ...startArgs(c, direction),
    machine: c.job.plate.load.forwardMeans ?? '',
    ...s.speed.args,
  };
  const functions = behindStart(c, direction);
  const timed =
    (direction === 'forward' || c.arrangement.permission !== undefined) &&
    warning(t, startedMs, args, direction);
  t.ask(
    {
      key: directionKey(c, direction),
      do: phrase(timed ? 'direction.watch' : 'direction.bump', args),
      must: phrase(`turns.${direction}`, args),
      expect: state(direction),
      requirement: `direction.${direction}`,
      seen: s.shaft.turns,
      sees: { kind: 'turns' },
    },
    [...functions, 'motor'],
  );
  s.stop(direction).settle();
  t.ask(
    {
      key: direction === 'forward' ? 'stop.works' : 'stop.reverse',
      do: phrase('stop.works', args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('stopped'),
      ...(direction === 'forward' && c.arrangement.starts.forward
        ? { requirement: 'stop.1.stops' }
        : {}),
      seen: turning(t),
      sees: { kind: 'turns' },
    },
    [
      ...functions,
      ...(c.arrangement.stops[0] ? [operationOf(c, c.arrangement.stops[0]) as Worked] : []),
    ],
  );
  t.end();
}

/** What is waited for between the start and the motor: how long a warning sounds, or a part of the machine takes to answer. */
function warning(
  t: LiveTests,
  startedMs: number,
  args: Readonly<Record<string, string | number>>,
  direction: Direction,
): boolean {
  const { c, s } = t;
  if (c.arrangement.warningMs === 0) return false;
  const moves = stateTimes(s.trace, startedMs).find((x) => gathering.includes(x.state));
  if (!moves) return false;
  const { permission: asked } = c.arrangement;
  const requirement = asked ? `permission.${direction}.answers` : 'warning.sounds';
  const after = moves.t / 1e6 - (startedMs + 100) / 1000;
  t.ask(
    {
      key: direction === 'forward' ? 'warning' : 'warning.reverse',
      do: phrase(asked ? 'permission.time' : 'warning.time', {
        ...args,
        s: after,
        ...(asked ? { device: tagOf(c, asked.device) } : {}),
      }),
      must: phrase('seconds', { s: after }),
      instrument: 'stopwatch',
      expect: range(after, rampTolerance(c, after), 's'),
      ...(c.required.has(requirement) ? { requirement } : {}),
    },
    [...behindStart(c, direction), ...(asked ? [{ id: asked.device, device: asked.device }] : [])],
  );
  return true;
}

/** Forward for a moment: what comes after waits for it. */
export function bumpTests(t: LiveTests): void {
  if (!t.s.directions.includes('forward')) return;
  bump(t, 'forward');
  const last = t.steps.at(-1);
  if (last) last.hold = true;
}

/** An output frequency within its tolerance. @param more what is added to it, Hz */
export const hzRange = (c: StepContext, hz: number, more = 0) =>
  range(hz, Math.max(c.within.hz, c.maxHz * c.within.hzShare) + more, 'Hz');
