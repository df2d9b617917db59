import { changesSpeed } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import type { Job } from '../job/index.js';
import { adoption, planJob } from '../plan/index.js';
import { liveOf } from '../procedure/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { judged } from './index.js';

describe('a part of the machine that has to answer first', () => {
  const cases = everyArrangement().filter(({ job }) => job.scheme.permission);

  it('is waited for on every family, whichever way the motor is to turn, and Live times it', () => {
    expect(cases.length).toBeGreaterThan(8);
    for (const { name, job, profile } of cases) {
      const own = judged(trialsOf(job, profile)).filter((j) =>
        j.requirement.id.startsWith('permission.'),
      );
      expect(own.length)
        .withContext(name)
        .toBe(job.scheme.direction === 'forwardReverse' ? 2 : 1);
      expect(own.every((j) => j.state === 'met'))
        .withContext(name)
        .toBeTrue();
      const step = liveOf(job, profile).steps.find((s) => s.key === 'warning');
      expect(step?.requirement?.id).withContext(name).toBe('permission.forward.answers');
      if (step?.expect?.kind !== 'range') throw new Error(`${name} expects a time`);
      const seconds = job.scheme.permissionS ?? 10;
      expect(step.expect.nominal).withContext(name).toBeGreaterThanOrEqual(seconds);
      expect(step.expect.nominal)
        .withContext(name)
        .toBeLessThan(seconds + 1);
    }
  });

  it('bridged, the motor starts before it has answered; stuck open, it never runs', () => {
    let told = 0;
    for (const { name, job, profile } of cases) {
      const contact = (is: 'open' | 'closed'): Job => ({
        ...job,
        deviations: {
          d: {
            ord: 1,
            where: { kind: 'device', id: 'actuator.permission' },
            actual: { kind: 'stuck', device: 'actuator.permission', contact: '13', is },
            why: 'found so',
          },
        },
      });
      const forward = (j: Job) =>
        judged(trialsOf(j, profile)).find((x) => x.requirement.id === 'permission.forward.answers');
      expect([forward(contact('closed'))?.state, forward(contact('closed'))?.does])
        .withContext(name)
        .toEqual(['notMet', 'startsUnanswered']);
      expect(trialsOf(contact('open'), profile).run('direction.forward').runs('start'))
        .withContext(name)
        .toBeFalse();
      told++;
    }
    expect(told).toBe(cases.length);
  });

  it('makes of a contact that stayed closed a new start when power returns: told, unless a relay has dropped the run', () => {
    let [told, dropped] = [0, 0];
    const asks = { permission: 'damper' as const, permissionS: 6 };
    for (const { name, job, profile } of everyArrangement()) {
      const plain = /(?:^| )(?:twoWire|sealInDrive24)$/u.test(name) && changesSpeed(profile);
      if (!plain) continue;
      const wished: Job = { ...job, scheme: { ...job.scheme, ...asks } };
      const plan = planJob(wished, profile);
      if (!plan.ok) throw new Error(`${name}: ${plan.what}`);
      const built = { ...wished, adopted: adoption(plan) };
      const restarts = checkJob(built, profile).some(
        (f) => f.rule === 'restart.powerReturn' && f.severity === 'stop',
      );
      const relay = job.scheme.startStop === 'sealInRelay';
      expect(restarts).withContext(name).toBe(!relay);
      if (relay) dropped++;
      else told++;
    }
    expect([told, dropped].every((n) => n > 3))
      .withContext(`${told} ${dropped}`)
      .toBeTrue();
  });
});

describe('a switch that chooses the jog speed', () => {
  it('moves nothing alone, and gives its speed to a run', () => {
    const cases = everyArrangement().filter(({ job }) => job.scheme.jog === 'select');
    expect(cases.length).toBeGreaterThan(0);
    for (const { name, job, profile } of cases) {
      const of = (id: string) =>
        judged(trialsOf(job, profile)).find((j) => j.requirement.id === id)?.state;
      expect([of('jogSelect.startsNothing'), of('jogSelect.speed')])
        .withContext(name)
        .toEqual(['met', 'met']);
      const keys = liveOf(job, profile).steps.map((s) => s.key);
      expect(keys).withContext(name).toContain('jogSelect.alone');
      expect(keys).withContext(name).toContain('jogSelect.run');
    }
  });
});

describe('a lamp that says stopped', () => {
  it('is lit at rest and dark while the motor runs, on every family with a break contact', () => {
    const cases = everyArrangement().filter(({ job }) => job.scheme.lamps?.includes('stopped'));
    expect(cases.length).toBeGreaterThan(1);
    for (const { name, job, profile } of cases) {
      const states = judged(trialsOf(job, profile))
        .filter((j) => j.requirement.id.startsWith('lamp.stopped.'))
        .map((j) => `${j.requirement.id} ${j.state}`);
      expect(states)
        .withContext(name)
        .toEqual(['lamp.stopped.rest met', 'lamp.stopped.running met']);
    }
  });
});
