import { shippedProfile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { applyFault, asBuilt, install, motorLeads } from '../installation/index.js';
import { exchangeLeads, type Fault, type Job, type Scheme } from '../job/index.js';
import { deadOf, liveOf } from '../procedure/index.js';
import { bareJob } from '../testing/jobs.js';
import { menuStarter, starterJob, starterWishes, withPlan } from '../testing/starter-jobs.js';
import { trialsOf } from '../trials/index.js';
import { planJob } from './index.js';

const family = menuStarter;

/** The auger's motor with windings for the voltage of the supply. */
function built(scheme: Partial<Scheme> = {}): Job {
  const bare = starterJob({ starterConnection: 'insideDelta', ...scheme });
  const motor = {
    ...bare.plate.motor,
    connection: 'deltaStar',
    lowV: { v: 400, u: 'V' },
    highV: { v: 690, u: 'V' },
    link: 'delta',
  } as Job['plate']['motor'];
  return withPlan({ ...bare, plate: { ...bare.plate, motor } });
}

const rules = (job: Job): string[] => checkJob(job, family).map((f) => f.rule);
const leadsWith = (job: Job, ...faults: Fault[]) =>
  motorLeads(faults.reduce(applyFault, asBuilt(job, family)), family, 'motor');
const wireTo = (job: Job, end: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.to === end)?.[0] ?? '';

describe('a soft starter inside the delta', () => {
  it('has six leads: each first end behind its pole, each second end at the next phase', () => {
    const { adopted } = built();
    const ends = Object.values(adopted?.wires ?? {})
      .filter((w) => w.class === 'motor')
      .map((w) => `${w.from} ${w.to}`)
      .sort();
    expect(ends).toEqual([
      'device:1L1 motor:W2',
      'device:2T1 motor:U1',
      'device:3L2 motor:U2',
      'device:4T2 motor:V1',
      'device:5L3 motor:V2',
      'device:6T3 motor:W1',
    ]);
    // Two cables of three cores: no core of either is used twice.
    const cores = Object.values(adopted?.wires ?? {}).filter((w) => w.class === 'motor');
    expect(new Set(cores.map((w) => `${w.cable} ${w.core}`)).size).toBe(6);
    expect(new Set(cores.map((w) => w.core))).toEqual(new Set(['1', '2', '3']));
    expect(adopted?.settings['Connection']?.value).toBe('delta');
    expect(rules(built()).filter((r) => r.startsWith('delta') || r.startsWith('motor'))).toEqual(
      [],
    );
  });

  it('turns forward; with any one second end elsewhere its delta is not closed', () => {
    const job = built();
    expect(leadsWith(job)).toEqual({ order: 1, missing: [] });
    const [u2, v2, w2] = ['U2', 'V2', 'W2'].map((end) => wireTo(job, `motor:${end}`));
    for (const [a, b] of [
      [u2, v2],
      [v2, w2],
      [u2, w2],
    ]) {
      const swapped = leadsWith(job, { kind: 'swapped', wires: [a, b], ends: ['to', 'to'] });
      expect(swapped.order).toBe(0);
      expect(swapped.missing.length).toBe(2);
    }
    expect(leadsWith(job, { kind: 'open', wire: v2 }).missing).toEqual(['V2']);
    const pair: Fault = {
      kind: 'swapped',
      wires: [wireTo(job, 'motor:V1'), wireTo(job, 'motor:W1')],
      ends: ['to', 'to'],
    };
    expect(leadsWith(job, pair).order).toBe(0);
  });

  it('is turned round ahead of all poles, never at one side of its windings', () => {
    const job = built();
    const exchange = exchangeLeads(job, 'motor');
    const feeds = Object.keys(exchange?.wires ?? {}).map((id) => job.adopted?.wires[id].function);
    expect(feeds.sort()).toEqual(['feed.L2', 'feed.L3']);
    const wires = { ...job.adopted?.wires };
    for (const [id, end] of Object.entries(exchange?.wires ?? {}))
      wires[id] = { ...wires[id], ...end };
    const turned = { ...job, adopted: { ...job.adopted!, wires } };
    const run = (of: Job) => trialsOf(of, family).run('direction.forward').at('start', 'shaft.hz');
    expect(run(job)).toBeGreaterThan(45);
    expect(run(turned)).toBeLessThan(-45);
    expect(leadsWith(turned).missing).toEqual([]);
  });

  it('must be fixed without a contactor, and with windings for another voltage', () => {
    expect(rules(built({ lineContactor: 'none' }))).toContain('delta.staysLive');
    const job = built();
    const motor = { ...job.plate.motor, lowV: { v: 230, u: 'V' as const }, link: 'star' as const };
    expect(rules({ ...job, plate: { ...job.plate, motor } })).toContain('delta.volts');
  });

  it('carries the current of the line over the root of three, and its leads with it', () => {
    const [line, delta] = [built({ starterConnection: 'line' }), built()];
    const rated = (job: Job): number => {
      const { spec } = install(job, family).device;
      return spec.kind === 'starter' ? spec.machine.deviceA : NaN;
    };
    expect(rated(delta) / rated(line)).toBeCloseTo(Math.sqrt(3), 6);
    const ohm = (job: Job): number => {
      const s = deadOf(job, family).steps.find(({ key }) => key === 'dead.windings');
      const cable = Number(s?.must.args['cable']);
      return s?.expect?.kind === 'range' ? s.expect.nominal - cable : NaN;
    };
    // Between two corners of a delta lie two thirds of a winding.
    expect(ohm(delta) / ohm(line)).toBeCloseTo(1.5, 2);
    const currents = liveOf(delta, family).steps.find((s) => s.key === 'current.full');
    expect(currents?.fields).toEqual(['L1', 'L2', 'L3']);
  });

  it('cannot be had on a device that has no setting for it', () => {
    const dials = shippedProfile('pendrift-c');
    const bare = bareJob({}, dials, 'C6');
    const scheme: Scheme = {
      ...starterWishes,
      starterConnection: 'insideDelta',
      startStop: 'twoWire',
      startBy: 'selector',
      stationFeed: undefined,
      lineContactor: 'byButtons',
    };
    const plan = planJob({ ...bare, scheme }, dials);
    expect(plan.ok ? 'planned' : plan.code).toBe('noSetting');
  });
});
