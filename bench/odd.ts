import { everyArrangement } from '../core/testing/matrix';
import { mutatedJob, seeded } from '../core/testing/mutate-job';
import { reckonAll } from '../core/testing/reckon-all';
import type { Row } from './measure';

const TRIED = 2000;
const SEED = 41;

/** Jobs whose structure was changed at random and that the import accepts: none may make the core throw. */
export function oddRows(): Row[] {
  const cases = everyArrangement();
  const random = seeded(SEED);
  let thrown = 0;
  let tried = 0;
  for (let i = 0; tried < TRIED; i++) {
    const { job, profile, name } = cases[i % cases.length];
    const odd = mutatedJob(job, random);
    if (!odd) continue;
    tried++;
    try {
      reckonAll(odd, profile);
    } catch (error) {
      thrown++;
      console.log(`${i} ${name}: ${(error as Error).stack ?? String(error)}`);
    }
  }
  return [
    {
      what: `${tried} odd jobs that the import accepts: plan, rehearsal, tests, findings, record`,
      measured: `${thrown} thrown`,
      budget: '0 thrown',
      ok: thrown === 0,
    },
  ];
}
