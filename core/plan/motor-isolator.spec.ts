import { shippedProfile } from '../catalogue/index.js';
import { checkJob, requirementsHeld } from '../hazards/index.js';
import { asBuilt, install, motorLeads } from '../installation/index.js';
import type { Job } from '../job/index.js';
import { deadOf, liveSteps } from '../procedure/index.js';
import { rehearse } from '../rehearsal/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { signalAt } from '../trace/index.js';
import { adoption, partsList, planJob } from './index.js';

const profile = shippedProfile('marrowick-f');

function built(earlyBreak: boolean, scheme: Partial<Job['scheme']> = {}): Job {
  const bare = bareJob(scheme);
  return adopted({ ...bare, plate: { ...bare.plate, line: { motorIsolator: { earlyBreak } } } });
}

const wiresAt = (job: Job, part: string): string[] =>
  Object.values(job.adopted?.wires ?? {})
    .filter((w) => w.from.startsWith(`${part}:`) || w.to.startsWith(`${part}:`))
    .map((w) => `${w.from} ${w.to} ${w.cable ?? ''}`)
    .sort();

describe('an isolator at the motor', () => {
  it('lies in every lead and in the protective conductor, behind the cable of the motor', () => {
    expect(wiresAt(built(false), 'isolator.motor')).toEqual([
      'device:PEM isolator.motor:PE W1',
      'device:U isolator.motor:1 W1',
      'device:V isolator.motor:3 W1',
      'device:W isolator.motor:5 W1',
      'isolator.motor:2 motor:U W8',
      'isolator.motor:4 motor:V W8',
      'isolator.motor:6 motor:W W8',
      'isolator.motor:PE motor:PE W8',
    ]);
    expect(motorLeads(asBuilt(built(false), profile), profile, 'motor').order).toBe(1);
  });

  it('is ordered once, under its tag', () => {
    const codes = partsList(built(true), profile).filter(
      ({ what }) => what.code === 'part.motorIsolator' || what.args['kind'] === 'motorIsolator',
    );
    expect(codes.map((p) => [p.what.code, p.tag])).toEqual([['part.motorIsolator', 'Q2']]);
  });

  it('opened under way lets the shaft run down; without its contact the output goes on and drives it again at once', () => {
    const opened = (job: Job) => {
      const acts = [
        { do: 'supplyOn', atMs: 0 },
        { do: 'dial', atMs: 0, device: 'dial.speed', to: 1 },
        { do: 'turn', atMs: 2000, device: 'select.direction', position: 'forward' },
        { do: 'turn', atMs: 12_000, device: 'isolator.motor', position: 'off' },
        { do: 'turn', atMs: 30_000, device: 'isolator.motor', position: 'on' },
      ] as const;
      const trace = rehearse(install(job, profile), [...acts], 40_000);
      return (signal: string, ms: number): number => signalAt(trace, signal, ms * 1000);
    };
    const start = Object.entries(built(true).adopted?.devices ?? {}).find(
      ([, d]) => d.kind === 'selectorReverseOffForward',
    )?.[0];
    expect(start).toBe('select.direction');
    const [bare, told] = [opened(built(false)), opened(built(true))];
    for (const at of [bare, told]) {
      expect(at('shaft.hz', 11_900)).toBeGreaterThan(45);
      expect(at('shaft.hz', 29_900)).toBe(0);
    }
    expect([bare('device.hz', 12_500), told('device.hz', 12_500)].map((x) => x > 40)).toEqual([
      true,
      false,
    ]);
    expect(bare('shaft.hz', 30_100)).toBeGreaterThan(40);
    expect(told('shaft.hz', 39_000)).toBe(0);
  });

  it('is tried dead in both positions and live under way, each pole and its contact', () => {
    const job = built(true, { startStop: 'threeWire', direction: 'forwardOnly' });
    const dead = deadOf(job, profile).steps.map((s) => s.key);
    expect(dead).toContain('dead.isolator.off');
    expect(dead).toContain('dead.isolator.on');
    expect(dead).toContain('dead.isolator.early');
    const live = liveSteps(job, profile).map((s) => s.key);
    for (const name of ['stops', 'blocks', 'returns'])
      expect(live).toContain(`interlock.isolator.${name}`);
  });

  it('with its contact takes the run away on every family and arrangement, and adds no finding that was not there', () => {
    let tried = 0;
    for (const c of everyArrangement()) {
      const plate = {
        ...c.job.plate,
        line: { ...c.job.plate.line, motorIsolator: { earlyBreak: true } },
      };
      const bare: Job = { ...c.job, plate, adopted: undefined };
      const plan = planJob(bare, c.profile);
      if (!plan.ok) {
        // Only for want of inputs, or where nothing of the station is wired to the device.
        expect(plan.code)
          .withContext(c.name)
          .toMatch(/^(?:inputs|keypadHasNoCircuit|isolatorSixLeads)$/u);
        continue;
      }
      tried++;
      const job: Job = { ...bare, adopted: adoption(plan) };
      const held = requirementsHeld(job, c.profile).filter((r) =>
        /^interlock\.isolator\.(?:stops|blocks)$/u.test(r.requirement.id),
      );
      expect(held.map((r) => r.state))
        .withContext(c.name)
        .not.toContain('notMet');
      const before = new Set(checkJob(c.job, c.profile).map((f) => f.key));
      const more = checkJob(job, c.profile).filter(
        (f) => f.severity === 'stop' && !before.has(f.key) && !f.key.includes('interlock.isolator'),
      );
      expect(more.map((f) => f.key).filter((k) => !k.startsWith('condition.returnStarts')))
        .withContext(c.name)
        .toEqual([]);
    }
    expect(tried).toBeGreaterThan(60);
  });
});
