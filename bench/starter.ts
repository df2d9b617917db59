import { shippedProfile } from '@tactron/core/catalogue';
import { compareSchools, questionsFor } from '@tactron/core/compare';
import { install } from '@tactron/core/installation';
import { recommendedStart } from '@tactron/core/plan';
import { rehearse } from '@tactron/core/rehearsal';
import { demoJob } from './jobs';
import { median, type Row } from './measure';

/**
 * The crusher behind its soft starter: a trial of a minute with a whole start in it, the smallest limit with all that is
 * recommended beside it, and the cards of the questions.
 *
 * @param times runs of an act that is warm, ms each
 */
export function starterRows(times: (runs: number, act: () => void) => number[]): Row[] {
  const job = demoJob('fm-crush');
  const profile = shippedProfile('pendrift-s');
  const row = (what: string, x: number, budget?: number): Row => ({
    what,
    measured: `${x.toFixed(2)} ms`,
    budget: budget === undefined ? '–' : `≤ ${budget} ms`,
    ok: budget === undefined ? null : x <= budget,
  });
  const acts = Object.values(job.scripts ?? {}).find(({ name }) => name === 'Start, run, stop');
  if (!acts) throw new Error('The crusher has no script of a start.');
  const installation = install(job, profile);
  // Another load each time: what was reckoned once is kept.
  let torquePct = job.plate.load.torquePct ?? 10;
  const another = (): void => {
    torquePct += 0.01;
    const plate = { ...job.plate, load: { ...job.plate.load, torquePct } };
    recommendedStart({ ...job, plate }, profile);
  };
  return [
    row(
      'a soft starter’s trial of 60 s with a start of 11 s',
      median(times(40, () => rehearse(installation, acts.acts, 60_000))),
      10,
    ),
    row('smallest limit and what else is recommended', median(times(12, another)), 300),
    ...questionsFor(job.scheme, false, true).map((q) =>
      row(
        `  cards of a soft starter: ${q.id}`,
        median(times(3, () => compareSchools(structuredClone(job), profile, q))),
        300,
      ),
    ),
  ];
}
