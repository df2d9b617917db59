import { resistorTerminals, shippedProfile } from '../catalogue/index.js';
import { checkJob, requirementsHeld } from '../hazards/index.js';
import type { Job, Scheme } from '../job/index.js';
import { deadOf, liveSteps } from '../procedure/index.js';
import { bareJob } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { say } from '../words/index.js';
import { trialsOf } from '../trials/index.js';
import { adoption, planJob } from './index.js';

const profile = shippedProfile('ondulet-n');

function built(scheme: Partial<Scheme>, thermalContact = true): Job {
  const bare = bareJob(scheme, profile, 'N0220');
  const resistor = { ohm: { v: 360, u: 'Ω' }, power: { v: 400, u: 'W' }, thermalContact };
  const job = { ...bare, plate: { ...bare.plate, line: { resistor } } } as Job;
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(plan.what);
  return { ...job, adopted: adoption(plan) };
}

const rules = (job: Job): string[] => checkJob(job, profile).map((f) => f.rule);
const ends = (job: Job, part: string): string[] =>
  Object.values(job.adopted?.wires ?? {})
    .filter((w) => w.from.startsWith(`${part}:`) || w.to.startsWith(`${part}:`))
    .map((w) => `${w.from} ${w.to}`)
    .sort();

describe('a braking resistor', () => {
  it('lies between the terminals that the family has for it, bonded, its contact an external fault', () => {
    expect(ends(built({}), 'resistor.brake')).toEqual([
      'device:24E resistor.brake:11',
      'device:BR+ resistor.brake:1',
      'device:BR- resistor.brake:2',
      'resistor.brake:11 select.direction:13',
      'resistor.brake:12 device:D3',
      'supply:PE resistor.brake:PE',
    ]);
    expect(deadOf(built({}), profile).steps.map((s) => s.key)).toContain('dead.resistor');
  });

  it('is opened as if it were hot wherever it is tried, and no wire is lifted live', () => {
    for (const scheme of [{}, { estop: 'contactor' }] as const) {
      const job = built(scheme);
      const told = [...deadOf(job, profile).steps, ...liveSteps(job, profile)]
        .filter(({ act }) => /resistor|fault\.external/u.test(act ?? ''))
        .map((step) => say(step.do));
      expect(told.filter((text) => text.includes('as if it were hot')).length).toBeGreaterThan(1);
      expect(told.filter((text) => /to hot|: lift|Open RB/u.test(text))).toEqual([]);
    }
  });

  it('too hot stops the device; without a contactor its supply stays on, which is told with the trial that shows it', () => {
    const job = built({});
    const run = trialsOf(job, profile).run('interlock.resistor');
    expect(run.runs('start')).toBeTrue();
    expect(run.runs('opens')).toBeFalse();
    expect(run.state(run.lookMs('opens'))).toBe('faulted');
    const finding = checkJob(job, profile).find((f) => f.rule === 'resistor.staysFed');
    expect(finding?.proof?.script).toBe('interlock.resistor');
  });

  it('drops a line contactor where there is one, by buttons or by the emergency stop, and nothing more is told', () => {
    for (const scheme of [
      { startStop: 'lineContactor', startBy: 'selector' },
      { estop: 'contactorInhibit' },
      { estop: 'contactor' },
    ] as const) {
      const job = built(scheme);
      const run = trialsOf(job, profile).run('interlock.resistor');
      expect([run.at('start', 'contactor.line.on'), run.at('opens', 'contactor.line.on')])
        .withContext(JSON.stringify(scheme))
        .toEqual([1, 0]);
      expect(rules(job)).not.toContain('resistor.staysFed');
    }
  });

  it('is told where its contact is missing, or the family has no chopper', () => {
    expect(rules(built({}, false))).toContain('resistor.thermalContact');
    expect(rules(built({}))).not.toContain('resistor.thermalContact');
  });

  it('stops and blocks on every family that takes one, in every arrangement, and adds nothing that must be put right', () => {
    const tried = new Set<string>();
    for (const c of everyArrangement()) {
      if (!resistorTerminals(c.profile)) continue;
      const resistor = { ohm: { v: 360, u: 'Ω' }, power: { v: 400, u: 'W' }, thermalContact: true };
      const plate = { ...c.job.plate, line: { ...c.job.plate.line, resistor } } as Job['plate'];
      const bare: Job = { ...c.job, plate, adopted: undefined };
      const plan = planJob(bare, c.profile);
      if (!plan.ok) {
        expect(plan.code).withContext(c.name).toBe('inputs');
        continue;
      }
      tried.add(c.profile.family);
      const job: Job = { ...bare, adopted: adoption(plan) };
      const held = requirementsHeld(job, c.profile).filter((r) =>
        r.requirement.id.startsWith('interlock.resistor'),
      );
      expect(held.map((r) => r.state))
        .withContext(c.name)
        .not.toContain('notMet');
      const before = new Set(checkJob(c.job, c.profile).map((f) => f.key));
      const more = checkJob(job, c.profile).filter(
        (f) => f.severity === 'stop' && !before.has(f.key) && !f.rule.startsWith('resistor.'),
      );
      expect(more.map((f) => f.key))
        .withContext(c.name)
        .toEqual([]);
    }
    expect([...tried].sort()).toEqual(['halewick-r', 'ondulet-n', 'quernstone-t']);
  });
});
