import { operationOf, phrase, state, tagOf, tagsOf } from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { restTolerance } from '../tolerances.js';
import { inTime, timed } from './rest-time.js';
import { behindStart, startArgs } from './bump.js';

/** Shorter than this nobody can time by hand, s. */
const LEAST_TIMED_S = 1;

/** The emergency stop from the highest speed, and the time in which the machine comes to rest. */
export function topTests(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const worked = operationOf(c, a.estop);
  if (!worked || !t.s.directions.includes('forward')) return;
  const s = t.begin('estop.full', 'top', 1);
  s.start();
  const pressedMs = s.nowMs;
  s.give(a.estop, s.travelMs + 3000).settle();
  const args = {
    ...startArgs(c),
    device: tagOf(c, worked.device),
    power: tagsOf(c, a.power ? [a.power.on] : []).join(''),
    ...s.speed.args,
  };
  const restsOn = [worked, ...behindStart(c)];
  const rest = s.shaft.turns === 'rest';
  t.ask(
    {
      key: 'estop.full.stops',
      do: phrase('estop.stops', args),
      must: phrase('turns.stopped', { machine: '' }),
      expect: state('stopped'),
      requirement: 'estop.stops',
      seen: rest ? 'stopped' : s.shaft.turns,
      sees: { kind: 'turns' },
    },
    restsOn,
  );
  const restMs = s.restSince(pressedMs);
  const known = !s.saw('shaft.state', 'runsDownUnknown', pressedMs);
  const time = restMs === undefined ? 0 : (restMs - pressedMs) / 1000;
  const tolerance = restTolerance(c, time);
  const asked =
    inTime(c, 'estop.inTime', rest && known ? time : undefined, tolerance) ??
    (rest && known && time >= LEAST_TIMED_S ? timed(time, tolerance) : undefined);
  if (asked) t.ask({ key: 'estop.full.time', do: phrase('estop.time', args), ...asked }, restsOn);
  t.end();
}
