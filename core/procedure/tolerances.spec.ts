import { toleranceNames, toleranceUnit, usualTolerances, type Job } from '../job/index.js';
import { adopted, bareJob, heavyLoad, marrowick } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { simpleJobs } from '../testing/simple-jobs.js';
import { deadOf } from './dead/index.js';
import { liveOf } from './live/index.js';

const stepsOf = (job: Job, profile: Parameters<typeof liveOf>[1]) =>
  [...deadOf(job, profile).steps, ...liveOf(job, profile).steps].map(
    (s) => [s.key, s.expect, s.basis, s.unbalancePct] as const,
  );

describe('tolerances of a site', () => {
  const [{ job, profile }] = simpleJobs();

  it('move the limits of exactly the steps that they judge, and what was judged by others is taken again', () => {
    const usual = stepsOf(job, profile);
    const own = stepsOf({ ...job, tolerances: { rampS: 2 } }, profile);
    const moved = own.filter(([key, , basis], i) => usual[i][0] === key && usual[i][2] !== basis);
    expect(moved.map(([key]) => key)).toEqual(['ramp.up', 'ramp.down']);
    for (const [, expect_] of moved)
      if (expect_?.kind === 'range') expect(expect_.hi - expect_.lo).toBeCloseTo(4, 3);
  });

  it('settle nothing otherwise where they are the usual ones', () => {
    expect(stepsOf({ ...job, tolerances: { ...usualTolerances } }, profile)).toEqual(
      stepsOf(job, profile),
    );
  });

  it('each judge at least one reading of some arrangement, and none moves what is expected', () => {
    const cases = everyArrangement().filter((_, i) => i % 96 === 0);
    const coasts = adopted(heavyLoad(bareJob({ stopMode: 'coast' })));
    const judged = new Set<string>();
    for (const { job: each, profile: of } of [
      ...cases,
      { job, profile },
      { job: coasts, profile: marrowick() },
    ]) {
      const usual = stepsOf(each, of);
      for (const name of toleranceNames) {
        const wide = toleranceUnit(name) === 'share' ? 0.4 : 4;
        const own = stepsOf({ ...each, tolerances: { [name]: wide } }, of);
        expect(own.map(([key]) => key)).toEqual(usual.map(([key]) => key));
        own.forEach(([key, now, , unbalance], i) => {
          const before = usual[i][1];
          if (now?.kind === 'range' && before?.kind === 'range') {
            expect(now.nominal).withContext(`${name} ${key}`).toBe(before.nominal);
            if (now.hi !== before.hi || now.lo !== before.lo) judged.add(name);
          }
          if (unbalance !== usual[i][3]) judged.add(name);
        });
      }
    }
    expect([...judged].sort()).toEqual([...toleranceNames].sort());
  });
});
