import { adoption, planJob } from './plan.js';
import { checkJob } from '../hazards/index.js';
import { exchangeLeads, type Job } from '../job/index.js';
import { liveSteps } from '../procedure/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';

const cases = everyArrangement().filter((c) =>
  / (?:twoWireSelector|estopTorqueOff)$/u.test(c.name),
);

/** The job with its leads exchanged and planned anew, as a person does it after a bump the wrong way. */
function putRight(job: Job, profile: (typeof cases)[number]['profile'], stated = true): Job {
  const exchange = exchangeLeads(job, 'motor');
  if (!exchange) throw new Error('no leads');
  const changed: Job = {
    ...job,
    plate: {
      ...job.plate,
      motor: { ...job.plate.motor, ...(stated ? { leadsExchanged: exchange.leadsExchanged } : {}) },
    },
    decisions: {
      ...job.decisions,
      wires: Object.fromEntries(
        Object.entries(exchange.wires).map(([id, end]) => [
          id,
          { ...end, why: 'turned the wrong way' },
        ]),
      ),
    },
  };
  const plan = planJob(changed, profile);
  if (!plan.ok) throw new Error('no plan');
  return { ...changed, adopted: adoption(plan) };
}

describe('leads of a motor that turned the wrong way', () => {
  it('are exchanged in the wiring and in what is said of the machine: it turns forward again, and nothing is found', () => {
    expect(cases.length).toBeGreaterThan(3);
    for (const { name, job, profile } of cases) {
      const right = putRight(job, profile);
      const at = (j: Job) => trialsOf(j, profile).run('direction.forward').at('start', 'shaft.hz');
      expect([Math.sign(at(job)), Math.sign(at(right))])
        .withContext(name)
        .toEqual([1, 1]);
      const rules = checkJob(right, profile).map((f) => f.rule);
      expect(rules).withContext(name).not.toContain('motor.leadsExchanged');
      // Exchanged without a word about the machine, it turns the wrong way, and says so.
      const silent = putRight(job, profile, false);
      expect(Math.sign(at(silent)))
        .withContext(name)
        .toBe(-1);
      expect(checkJob(silent, profile).map((f) => f.rule))
        .withContext(name)
        .toContain('motor.leadsExchanged');
    }
  });

  it('make every reading of a direction stale, and no other', () => {
    for (const { name, job, profile } of cases) {
      const basis = (j: Job) => new Map(liveSteps(j, profile).map((s) => [s.key, s.basis]));
      const [before, after] = [basis(job), basis(putRight(job, profile))];
      const moved = [...before].filter(([key, x]) => after.get(key) !== x).map(([key]) => key);
      expect(moved.length).withContext(name).toBeGreaterThan(0);
      expect(moved.filter((key) => !/^(?:direction|stop\.reverse|jog)/u.test(key)))
        .withContext(name)
        .toEqual([]);
      for (const s of liveSteps(job, profile))
        if (s.requirement?.id.startsWith('direction.'))
          expect(moved).withContext(name).toContain(s.key);
    }
  });
});
