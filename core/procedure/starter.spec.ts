import type { Expectation, Job, ProcedureStep, Scheme } from '../job/index.js';
import { checkJob } from '../hazards/index.js';
import { judged } from '../requirements/index.js';
import { planJob } from '../plan/index.js';
import { menuStarter, starterJob, withPlan } from '../testing/starter-jobs.js';
import { trialsOf } from '../trials/index.js';
import { windingOhm } from '../line/index.js';
import { deadOf, liveOf } from './index.js';

const family = menuStarter;
const built = (...of: Parameters<typeof starterJob>): Job => withPlan(starterJob(...of));

const stepOf = (steps: readonly ProcedureStep[], key: string): ProcedureStep => {
  const found = steps.find((s) => s.key === key);
  if (!found) throw new Error(`no step ${key} among ${steps.map((s) => s.key).join(' ')}`);
  return found;
};
const live = (job: Job, key: string): ProcedureStep => stepOf(liveOf(job, family).steps, key);
const limits = (e: Expectation | undefined): readonly number[] =>
  e?.kind === 'range' ? [e.lo, e.nominal, e.hi] : [];

describe('dead readings of a power section', () => {
  // 37 kW with 94 % and 66.8 A: 0.8 · 2362 W / (3 · 66.8² · 1.29); 1.5 kW with 85.6 % and 3.2 A: 252 W / (3 · 3.2² · 1.29).
  it('know the resistance of windings from the losses on the plate', () => {
    expect(windingOhm(37_000 / 0.94 - 37_000, 37, 66.8)).toBeCloseTo(0.1094, 3);
    expect(windingOhm(1500 / 0.856 - 1500, 1.5, 3.2)).toBeCloseTo(6.368, 2);
  });

  it('have contactor, poles, windings and the loop of the sensors, each with where the leads go', () => {
    const { steps } = deadOf(built({}), family);
    expect(steps.filter((s) => s.act === 'dead.power').map((s) => s.key)).toEqual([
      'dead.contactor.rest',
      'dead.contactor.pressed',
      'dead.poles',
      'dead.windings',
      'dead.sensors',
    ]);
    expect(stepOf(steps, 'dead.windings').fields?.length).toBe(3);
    expect(limits(stepOf(steps, 'dead.sensors').expect)).toEqual([0, 0.5, 0.5]);
    const sensed = deadOf(built({ thermistor: 'sensor' }), family).steps;
    expect(limits(stepOf(sensed, 'dead.sensors').expect)).toEqual([60, 200, 750]);
    const bare = deadOf(built({ lineContactor: 'none', exposed: 'nobody' }), family).steps;
    expect(bare.some((s) => s.key.startsWith('dead.contactor'))).toBeFalse();
  });
});

describe('live tests of a soft starter', () => {
  it('let a start take what a lighter and a heavier load of its plate would need, never beyond its limit', () => {
    const [lo, nominal, hi] = limits(
      live(
        built({ limitPct: 350 }, { kind: 'square', torquePct: 40, inertia: { v: 4, u: 'kg·m²' } }),
        'start.time',
      ).expect,
    );
    expect(lo).toBeLessThan(nominal);
    expect(hi).toBeGreaterThan(nominal);
    expect(hi).toBeLessThanOrEqual(60);
  });

  it('hold a peak that is limited within a tenth, one that is not from a fifth below to a quarter above', () => {
    const [lo, nominal, hi] = limits(live(built({ limitPct: 300 }), 'start.peak').expect);
    expect([lo / nominal, hi / nominal].map((x) => Math.round(100 * x))).toEqual([90, 110]);
    const free = limits(live(built({ limitPct: 800, accelS: 1 }), 'start.peak').expect);
    expect([free[0] / free[1], free[2] / free[1]].map((x) => Math.round(100 * x))).toEqual([
      80, 125,
    ]);
  });

  it('switch the power section off under way, refuse a start without it, and start nothing when it comes back', () => {
    const job = built({ lineContactor: 'byButtons' });
    const { steps } = liveOf(job, family);
    const own = steps.filter((s) => s.act === 'power.cut');
    expect(own.map((s) => (s.expect?.kind === 'state' ? s.expect.is : ''))).toEqual([
      'stopped',
      'staysStopped',
      'staysStopped',
    ]);
    expect(own[0].requirement?.id).toBe('power.off');
    expect(liveOf(built({}), family).steps.some((s) => s.act === 'power.cut')).toBeFalse();
  });

  it('look at the motor side only where a contactor stands ahead, and expect nothing there', () => {
    expect(live(built({}), 'motor.dead').expect).toEqual({ kind: 'state', is: 'dead' });
    const bare = liveOf(built({ lineContactor: 'none', exposed: 'nobody' }), family).steps;
    expect(bare.some((s) => s.key === 'motor.dead')).toBeFalse();
  });

  it('open the loop of the sensors: it trips, bars every start, and asks for a reset', () => {
    const job = built({ thermistor: 'sensor' });
    expect(live(job, 'thermistor.trips').expect).toEqual({ kind: 'state', is: 'faulted' });
    expect(live(job, 'thermistor.blocks').requirement).toEqual({ id: 'thermistor.blocks' });
    const own = judged(trialsOf(job, family)).filter(({ requirement: r }) =>
      r.id.startsWith('thermistor.'),
    );
    expect(own.map(({ requirement: r, state }) => `${r.id} ${state}`)).toEqual([
      'thermistor.stops met',
      'thermistor.blocks met',
      'thermistor.released met',
    ]);
  });

  it('with the sensors not watched, hot windings that stop nothing must be fixed', () => {
    const job = built({ thermistor: 'sensor' });
    const settings = { ...job.adopted?.settings };
    settings['Thermistor'] = { ...settings['Thermistor'], value: 'off' };
    const blind = { ...job, adopted: { ...job.adopted!, settings } };
    const found = checkJob(blind, family).filter((f) => f.args['requirement'] !== undefined);
    expect(found.map((f) => f.args['requirement'])).toContain('thermistor.stops');
  });
});

describe('a guard that is locked until the machine stands', () => {
  const turning = { kind: 'square', torquePct: 10, inertia: { v: 8, u: 'kg·m²' } } as const;
  const guarded = (s: number): Job =>
    built({ interlocks: ['guard'], guardLockS: s, limitPct: 400 }, turning);
  const stateOf = (job: Job, id: string): string | undefined =>
    judged(trialsOf(job, family)).find(({ requirement: r }) => r.id === id)?.state;

  it('opens only at rest where its time is long enough, power gone and back too, and is found where it is not', () => {
    const long = guarded(400);
    expect([stateOf(long, 'guard.locked'), stateOf(long, 'guard.frees')]).toEqual(['met', 'met']);
    const short = guarded(5);
    expect(stateOf(short, 'guard.locked')).toBe('notMet');
    const found = checkJob(short, family).filter((f) => f.args['requirement'] === 'guard.locked');
    expect(found.map((f) => f.severity)).toEqual(['stop']);
    expect(checkJob(long, family).map((f) => f.rule)).not.toContain('guard.turnsOn');
  });

  it('is timed at the machine, from the stop until it lets go', () => {
    const [lo, nominal, hi] = limits(live(guarded(400), 'guard.frees').expect);
    expect(nominal).toBeCloseTo(400, 0);
    expect(lo).toBeLessThan(nominal);
    expect(hi).toBeGreaterThan(1.04 * nominal);
  });

  it('cannot be wished without a guard, nor without a contactor that opens with every stop', () => {
    const code = (scheme: Partial<Scheme>): string | undefined => {
      const plan = planJob(starterJob({ guardLockS: 60, ...scheme }), family);
      return plan.ok ? undefined : plan.code;
    };
    expect(code({})).toBe('noGuard');
    expect(code({ interlocks: ['guard'], lineContactor: 'byButtons' })).toBe('lockNeedsContactor');
    expect(code({ interlocks: ['guard'] })).toBeUndefined();
  });
});
