import * as v from 'valibot';
import { applyPatch, emptyJob, jobSchema, type Job } from '@tactron/core/job';
import { calculations } from '@tactron/core/sums';
import { carried, carries, carryPatch } from './carry';

const job = (): Job =>
  emptyJob({
    id: '11111111-1111-4111-8111-111111111111',
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: '',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'a'.repeat(64) },
  });

describe('carrying a number into a job', () => {
  it('names only arguments and results that exist, and every place fits the schema of a job', () => {
    for (const [name, list] of Object.entries(carries)) {
      for (const carry of list) {
        const c = calculations[name];
        expect(carry.from in c.args || carry.from in c.results)
          .withContext(`${name}.${carry.from}`)
          .toBeTrue();
        const after = applyPatch(job(), carryPatch(job(), carry, 12.3456));
        expect(v.safeParse(jobSchema, after).success)
          .withContext(`${name} → ${carry.path}`)
          .toBeTrue();
      }
    }
  });

  it('keeps what is there beside it, and rounds where a part is bought', () => {
    const [resistor] = carries['braking'];
    const before = {
      ...job(),
      plate: { ...job().plate, line: { resistor: { thermalContact: true } } },
    } as Job;
    const after = applyPatch(before, carryPatch(before, resistor, 118.4)) as Job;
    expect(after.plate.line?.resistor).toEqual({ thermalContact: true, ohm: { v: 118, u: 'Ω' } });
    expect(carried({ from: '', path: '', label: '' }, 1 / 3)).toBe(0.333333);
  });
});
