import { checkJob } from '../hazards/index.js';
import { simpleJobs } from '../testing/simple-jobs.js';
import { say } from '../words/index.js';
import { deadOf } from './dead/index.js';
import { liveSteps } from './live/index.js';

/** What a simple job may cost at the panel. */
const MOST_DEAD = 12;
const MOST_ACTS = 14;
const MOST_DECLARATIONS = 3;

describe('a simple job', () => {
  for (const { name, job, profile } of simpleJobs())
    it(`stays simple: ${name}`, () => {
      const steps = liveSteps(job, profile);
      const acts = new Set(steps.map((s) => s.act));
      expect(acts.size)
        .withContext([...acts].join())
        .toBeLessThanOrEqual(MOST_ACTS);
      expect(acts.size).toBeGreaterThan(5);
      // The motor is seen to turn, and to stop, whoever starts it.
      expect(steps.map((s) => s.key)).toContain('stop.works');
      const declared = new Set(steps.flatMap((s) => s.cautions).filter((c) => c === 'freeToTurn'));
      expect(declared.size).toBeLessThanOrEqual(MOST_DECLARATIONS);
      expect(checkJob(job, profile).filter((f) => f.severity === 'stop')).toEqual([]);
      const dead = deadOf(job, profile).steps;
      expect(dead.length).toBeLessThanOrEqual(MOST_DEAD);
      expect(dead.map((s) => s.act)).toContain('dead.isolate');
      for (const s of [...dead, ...steps])
        expect(say(s.do)).not.toMatch(/undefined|NaN|press {2}|: \./u);
    });
});
