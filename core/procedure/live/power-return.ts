import { phrase, positionOf, starterOf, state, tagOf } from '../context.js';
import { DARK_MS } from '../sequence/sequence.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, BUMP_SHARE, startArgs } from './bump.js';

/** Power removed and returned with the run still given. */
export function powerReturnTests(t: LiveTests): void {
  const { c } = t;
  const { arrangement: a } = c;
  const forward = starterOf(c);
  if (!forward) return;
  const wished = c.job.scheme.powerReturn === 'restart';
  const s = t.begin('power.return', 'return', BUMP_SHARE);
  s.start();
  s.supply(false, DARK_MS).supply(true, 5000 + s.travelMs);
  const is = wished ? 'startsByItself' : 'staysStopped';
  const pulse = a.givenBy === 'pulse' ? 'Pulse' : '';
  const args = {
    ...startArgs(c),
    device: tagOf(c, forward.device),
    breaker: tagOf(c, a.mainBreaker),
    position: positionOf(c, forward),
    ...s.speed.args,
  };
  t.ask(
    {
      key: 'power.return',
      do: phrase(`power.return${pulse}`, args),
      must: phrase(`power.${is}${pulse}`, args),
      expect: state(is),
      sees: { kind: 'starts' },
      requirement: 'power.return',
      seen: Math.abs(s.hz) > 0 ? 'startsByItself' : 'staysStopped',
      cautions: wished ? ['automaticRestart'] : [],
    },
    behindStart(c),
  );
  t.end();
}
