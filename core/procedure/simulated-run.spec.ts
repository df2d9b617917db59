import { recordedRamps } from '../formats/index.js';
import { simpleJobs } from '../testing/simple-jobs.js';
import { liveOf } from './live/index.js';
import { simulatedRun } from './simulated-run.js';

describe('a run beside a recorder', () => {
  for (const { name, job, profile } of simpleJobs())
    it(`comes to the ramps that its live test expects: ${name}`, () => {
      const points = simulatedRun(job, profile, 'ramps');
      const ramps = recordedRamps({
        gaps: 0,
        points: (points ?? []).map((p) => ({ ...p, amps: null, linkV: null })),
      });
      const expected = (key: string): number | undefined => {
        const expect_ = liveOf(job, profile).steps.find((s) => s.key === key)?.expect;
        return expect_?.kind === 'range' ? expect_.nominal : undefined;
      };
      const up = expected('ramp.up');
      const down = expected('ramp.down');
      expect(up).toBeDefined();
      for (const [seen, wanted] of [
        [ramps?.upS, up],
        [ramps?.downS, down],
      ])
        if (typeof wanted === 'number')
          expect(Math.abs((seen ?? 0) - wanted)).toBeLessThan(Math.max(0.1, 0.02 * wanted));
    });

  it('is none where the job has no such act', () => {
    const [{ job, profile }] = simpleJobs();
    expect(simulatedRun(job, profile, 'ramps.2')).toBeUndefined();
  });
});
