import { shippedProfile, type Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import { inputLogics } from '../catalogue/index.js';
import { arrangeFor, planJob } from '../plan/index.js';
import {
  directionsOf,
  powerUp,
  READY_MS,
  shippedArrangements,
  startActs,
  stopActs,
  type Arrangement,
} from '../scheme/index.js';
import { adopted } from '../testing/jobs.js';
import { sayConflict } from '../words/index.js';
import { families, jobFor, Run, SETTLED_MS, topHz } from '../testing/station.js';

describe('arrangement on family', () => {
  for (const [family, { model, cannot }] of Object.entries(families)) {
    const profile = shippedProfile(family);
    for (const { id, scheme } of shippedArrangements) {
      const logics = inputLogics(profile).map((l) => l.contactsSwitch);
      const refused = cannot[id];
      if (refused) {
        it(`${family} cannot carry ${id}, and names the wish`, () => {
          const plan = planJob(jobFor(scheme, profile, model), profile);
          expect(plan).toEqual(
            jasmine.objectContaining({ ok: false, code: refused[0], wishes: [refused[1]] }),
          );
          if (!plan.ok)
            expect(sayConflict(plan.code ?? '', plan.wishes ?? [], plan.what)).toMatch(
              /^[A-Z].+: .+\.$/u,
            );
        });
        continue;
      }
      for (const contactsSwitch of logics) {
        it(`${family} carries ${id}, contacts to ${contactsSwitch}: starts, runs, stops, and stays stopped`, () => {
          const job = adopted(jobFor(scheme, profile, model, contactsSwitch), profile);
          const a = arrangeFor(job, profile);
          const hz = topHz(job);
          for (const direction of directionsOf(a)) {
            const runAt = READY_MS + a.warningMs + SETTLED_MS;
            const last = Math.max(0, a.stops.length - 1);
            const run = new Run(
              job,
              profile,
              [
                ...powerUp(a, 1),
                ...startActs(a, direction, READY_MS),
                ...stopActs(a, direction, runAt, last),
              ],
              runAt + 10_000,
            );
            expect([run.hz(READY_MS - 200), run.hz(runAt + 9900)])
              .withContext(direction)
              .toEqual([0, 0]);
            // A dial loads the reference: 1 to 2 % less than the full span, 5 % behind the 220 Ω of the small device.
            const share = run.hz(runAt - 100) / (direction === 'reverse' ? -hz : hz || 1);
            expect([share > (hz ? 0.94 : -1), share <= 1])
              .withContext(`${direction} ${share}`)
              .toEqual([true, true]);
          }
          powerReturn(job, profile, a);
        });
      }
    }
  }
});

/** Cut and return of the supply with nothing let go: as the scheme says. */
function powerReturn(job: Job, profile: Profile, a: Arrangement): void {
  const at = READY_MS + a.warningMs + SETTLED_MS;
  const on = at + 60_000;
  const end = on + 5000 + a.warningMs + SETTLED_MS;
  const run = new Run(
    job,
    profile,
    [
      ...powerUp(a, 1),
      ...startActs(a, 'forward', READY_MS),
      { do: 'supplyOff', atMs: at },
      { do: 'supplyOn', atMs: on },
    ],
    end,
  );
  const restarts = job.scheme.powerReturn === 'restart';
  expect([run.state(on - 100), Math.abs(run.hz(end - 100)) > 0]).toEqual([
    'off',
    restarts && topHz(job) > 0,
  ]);
}
