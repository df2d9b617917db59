import { changesSpeed, shippedProfile, shippedProfiles } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import type { Job } from '../job/index.js';
import { bareJob } from '../testing/jobs.js';
import { trialsOf } from '../trials/index.js';
import { adoption, planJob } from './index.js';

const bases = ['screw', 'plug8', 'plug11'] as const;

function built(family: string, relayBase: (typeof bases)[number]): Job | undefined {
  const profile = shippedProfile(family);
  const model = profile.models.find((m) => m.ratedA >= 5) ?? profile.models[0];
  const scheme = {
    startStop: 'sealInRelay',
    latchSupply: 'drive24',
    direction: 'forwardOnly',
    relayBase,
  } as const;
  const bare = bareJob(
    { ...scheme, startBy: undefined, directionBy: undefined },
    profile,
    model.name,
  );
  const single = { phases: 1, volts: { v: 230, u: 'V' }, hz: { v: 50, u: 'Hz' } } as const;
  const supply = profile.supply.phases === 1 ? single : bare.plate.supply;
  const job: Job = { ...bare, plate: { ...bare.plate, supply } };
  const plan = planJob(job, profile);
  return plan.ok ? { ...job, adopted: adoption(plan) } : undefined;
}

const landings = (job: Job): string[] => {
  const wires = Object.values(job.adopted?.wires ?? {}).flatMap((w) => [w.from, w.to]);
  return [...new Set(wires.filter((at) => at.startsWith('relay.sealIn:')))].sort();
};

describe('a relay that keeps itself in', () => {
  it('is landed by the numbers of its base: coil, holding contact, run contact', () => {
    const ends = Object.fromEntries(
      bases.map((base) => [
        base,
        landings(built('marrowick-f', base) as Job).map((x) => x.slice(13)),
      ]),
    );
    expect(ends).toEqual({
      screw: ['13', '14', '23', '24', 'A1', 'A2'],
      plug8: ['1', '2', '3', '6', '7', '8'],
      plug11: ['1', '10', '2', '3', '6', '7'],
    });
  });

  it('does the same on every family, whatever it sits on', () => {
    let tried = 0;
    for (const family of Object.keys(shippedProfiles)) {
      const profile = shippedProfile(family);
      if (!changesSpeed(profile)) continue;
      const jobs = bases.map((base) => built(family, base));
      if (!jobs[0]) {
        expect(jobs).toEqual([undefined, undefined, undefined]);
        continue;
      }
      tried++;
      const told = jobs.map((job) => {
        const trials = trialsOf(job as Job, profile);
        const runs = trials.list.map(({ id, phases }) =>
          phases.map(({ mark }) => `${id} ${mark} ${trials.run(id).hz(mark).toFixed(3)}`),
        );
        const rules = checkJob(job as Job, profile).map((f) => `${f.severity} ${f.rule}`);
        return { runs, rules };
      });
      expect(told[1]).withContext(`${family} plug8`).toEqual(told[0]);
      expect(told[2]).withContext(`${family} plug11`).toEqual(told[0]);
    }
    expect(tried).toBeGreaterThan(3);
  });
});
