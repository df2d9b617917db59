import type { Job } from '../job/index.js';
import { install } from '../installation/index.js';
import { rehearse } from '../rehearsal/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { stateAt } from '../trace/index.js';
import { adoption, planJob } from './plan.js';

describe('fuses behind a line contactor', () => {
  const cases = everyArrangement().filter(
    ({ job }) => job.adopted?.devices['contactor.line'] !== undefined,
  );

  it('stand in the way of every phase, between the contactor and what comes after it; without a contactor there are none', () => {
    let seen = 0;
    for (const { name, job, profile } of everyArrangement()) {
      const line = { contactor: { fuse: { v: 25, u: 'A' as const } } };
      const wished: Job = { ...job, plate: { ...job.plate, line } };
      const plan = planJob(wished, profile);
      if (!plan.ok) throw new Error(`${name} cannot be planned`);
      const { devices, wires } = plan.wiring;
      const fuses = Object.keys(devices).filter((id) => id.startsWith('fuse.line.'));
      const contactor = devices['contactor.line'] !== undefined;
      const phases = profile.supply.phases === 1 ? 2 : 3;
      expect(fuses.length)
        .withContext(name)
        .toBe(contactor ? phases : 0);
      for (const fuse of fuses) {
        const into = Object.values(wires).filter((w) => w.to === `${fuse}:1`);
        const out = Object.values(wires).filter((w) => w.from === `${fuse}:2`);
        expect([into.length, out.length]).withContext(`${name} ${fuse}`).toEqual([1, 1]);
        expect(into[0].from.startsWith('contactor.line:'))
          .withContext(`${name} ${fuse}`)
          .toBeTrue();
        seen++;
      }
    }
    expect(seen).toBeGreaterThan(20);
  });

  it('blown, take the supply of the device away behind a contactor that is in', () => {
    let seen = 0;
    for (const { name, job, profile } of cases) {
      if (profile.supply.phases !== 1) continue;
      const line = { contactor: { fuse: { v: 25, u: 'A' as const } } };
      const wished: Job = { ...job, plate: { ...job.plate, line } };
      const plan = planJob(wished, profile);
      if (!plan.ok) throw new Error(`${name} cannot be planned`);
      const built: Job = { ...wished, adopted: adoption(plan) };
      const actual = { kind: 'part', device: 'fuse.line.1', what: 'fuse' } as const;
      const where = { kind: 'device', id: 'fuse.line.1' } as const;
      const blown: Job = {
        ...built,
        deviations: { d: { ord: 1, where, actual, why: 'blown' } },
      };
      const { trial } = trialsOf(built, profile).run('direction.forward');
      const state = (j: Job): string =>
        stateAt(
          rehearse(install(j, profile), trial.acts, trial.endMs),
          'device.state',
          (trial.endMs - 100) * 1000,
        ) ?? '';
      expect(['off', 'noMains']).withContext(name).not.toContain(state(built));
      expect(['off', 'noMains']).withContext(name).toContain(state(blown));
      seen++;
    }
    expect(seen).toBeGreaterThan(1);
  });
});
