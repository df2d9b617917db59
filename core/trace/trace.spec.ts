import fc from 'fast-check';
import { install } from '../installation/index.js';
import { Session } from '../rehearsal/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { joinWindow } from './index.js';

describe('a window of a trace', () => {
  const job = adopted(
    bareJob({ startBy: 'levelContact', direction: 'forwardOnly', powerReturn: 'restart' }),
  );
  const installation = install(job, marrowick(), { from: 'planned' });
  const plain = (x: unknown): unknown =>
    JSON.parse(
      JSON.stringify(x, (_k, v: unknown) => (ArrayBuffer.isView(v) ? [...(v as never)] : v)),
    );

  it('joined to what was there is the trace as it is, whatever is done, looked ahead or taken back', () => {
    const step = fc.record({
      t: fc.integer({ min: 0, max: 40_000 }),
      do: fc.constantFrom('supplyOn', 'supplyOff', 'press', 'release', 'reach'),
    });
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 8 }), (steps) => {
        const session = new Session(installation);
        let seen = structuredClone(session.trace);
        for (const { t, do: what } of steps) {
          const us = t * 1000;
          const act =
            what === 'press' || what === 'release'
              ? ({ do: what, atMs: t, device: 'contact.forward' } as const)
              : ({ do: what as 'supplyOn', atMs: t } as const);
          // The page never acts beyond what it has been shown.
          const at = Math.min(us, seen.endUs);
          const window = what === 'reach' ? session.reach(at) : session.act(at, [act]);
          seen = joinWindow(seen, structuredClone(window));
          expect(plain(seen)).toEqual(plain(session.trace));
        }
      }),
      { numRuns: 60 },
    );
  });
});
