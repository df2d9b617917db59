import { shippedProfile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { startOf } from '../installation/index.js';
import type { Job, Scheme } from '../job/index.js';
import { plateNumbers } from '../line/index.js';
import { offersFor, planJob, recommendedStart } from '../plan/index.js';
import { bareJob } from '../testing/jobs.js';
import { menuStarter, starterJob, starterWishes, withPlan } from '../testing/starter-jobs.js';
import { trialsOf } from '../trials/index.js';

const family = menuStarter;
const wishes = starterWishes;
const job = starterJob;
const built = withPlan;

const rules = (of: Job, profile = family): string[] =>
  checkJob(built(of, profile), profile).map((f) => f.rule);
const startIn = (of: Job) => startOf(trialsOf(built(of), family).installation.device);

describe('a recommended start', () => {
  it('comes to speed, with this load and with one a fifth heavier, whatever the load', () => {
    const loads: Partial<Job['plate']['load']>[] = [
      {},
      { kind: 'square', torquePct: 60 },
      { torquePct: 40, breakawayPct: 120 },
      { torquePct: 90 },
      { kind: 'linear', torquePct: 80, inertia: { v: 8, u: 'kg·m²' } },
      { torquePct: 10, inertia: { v: 30, u: 'kg·m²' } },
    ];
    for (const load of loads) {
      const start = startIn(job({}, load));
      const context = JSON.stringify(load);
      expect(start?.stalls).withContext(context).toBeFalse();
      expect(start?.heavier.stalls).withContext(context).toBeFalse();
      expect(start?.coldTripS).withContext(context).toBeNull();
      expect(start && start.beginNm >= start.breakNm)
        .withContext(context)
        .toBeTrue();
    }
  });

  it('is planned where nobody wished otherwise, and a wish wins over it', () => {
    const made = recommendedStart(job(), family);
    const settings = built(job()).adopted?.settings ?? {};
    expect([settings['Begin at'].value, settings['Current limit'].value]).toEqual([
      made?.beginPct as number,
      made?.limitPct as number,
    ]);
    expect(settings['Begin at'].why.code).toBe('recommended');
    const wished = built(job({ limitPct: 500 })).adopted?.settings['Current limit'];
    expect([wished?.value, wished?.why.code]).toEqual([500, 'wish']);
  });

  it('takes a slower class for a start that is longer', () => {
    const quick = recommendedStart(job({}, { torquePct: 10 }), family);
    const long = recommendedStart(
      job({}, { torquePct: 50, inertia: { v: 700, u: 'kg·m²' } }),
      family,
    );
    expect(Number(quick?.tripClass)).toBeLessThan(Number(long?.tripClass));
    expect(quick?.startS).toBeLessThan(long?.startS as number);
  });
});

describe('what is wrong with a start', () => {
  it('is nothing with what is recommended', () => {
    expect(rules(job()).filter((r) => r.startsWith('start'))).toEqual([]);
  });

  for (const [rule, scheme, load] of [
    ['start.hums', { beginPct: 10, limitPct: 200 }, { breakawayPct: 200 }],
    ['start.stalls', { beginPct: 20, limitPct: 150 }, { kind: 'square', torquePct: 110 }],
    [
      'start.tooLong',
      { limitPct: 300, tripClass: '30' },
      { torquePct: 15, inertia: { v: 900, u: 'kg·m²' } },
    ],
    [
      'start.trips',
      { limitPct: 320, tripClass: '10' },
      { torquePct: 15, inertia: { v: 900, u: 'kg·m²' } },
    ],
    ['start.tooOften', {}, { stopsPerHour: 400 }],
    ['starter.nothingAhead', { lineContactor: 'none' }, {}],
  ] as const satisfies readonly (readonly [
    string,
    Partial<Scheme>,
    Partial<Job['plate']['load']>,
  ])[])
    it(`is found: ${rule}`, () => {
      expect(rules(job(scheme, load))).toContain(rule);
      expect(rules(job())).not.toContain(rule);
    });

  it('is a second overload ahead, which must not trip first', () => {
    const of = (scheme: Partial<Scheme>, load: Partial<Job['plate']['load']>) => {
      const bare = job(scheme, load);
      const line = { ...bare.plate.line, protection: { kind: 'motorBreaker' as const } };
      return checkJob(built({ ...bare, plate: { ...bare.plate, line } }), family).find(
        (f) => f.rule === 'overload.twice',
      );
    };
    expect(of({ limitPct: 350 }, { torquePct: 30 })).toBeUndefined();
    const near = of(
      { limitPct: 350, tripClass: '20' },
      { torquePct: 30, inertia: { v: 150, u: 'kg·m²' } },
    );
    expect(near?.severity).toBe('advise');
    // At up to 3.5 times its setting a class 10 trips after 44 s and more from cold.
    expect(Number(near?.args['coldS'])).toBeGreaterThan(43);
    expect(Number(near?.args['startS'])).toBeLessThan(Number(near?.args['coldS']));
    const long = of(
      { limitPct: 320, tripClass: '30' },
      { torquePct: 15, inertia: { v: 900, u: 'kg·m²' } },
    );
    expect(long?.severity).toBe('stop');
    expect(rules(job())).not.toContain('overload.twice');
  });

  it('is found by dials too: a ramp at nothing is a direct start, and no wait at all plugs', () => {
    const dials = shippedProfile('pendrift-c');
    const bare = bareJob({}, dials, 'C6');
    const ways: Scheme = {
      ...wishes,
      startStop: 'twoWire',
      startBy: 'selector',
      stationFeed: undefined,
      direction: 'forwardReverse',
      directionBy: 'selector',
      lineContactor: 'byButtons',
    };
    const of = { ...bare, scheme: { ...ways, accelS: 0 } };
    expect(rules(of, dials)).toContain('start.direct');
    expect(rules({ ...bare, scheme: ways }, dials)).not.toContain('start.direct');
  });

  it('speeds that are wished name the conflict and what can do it', () => {
    const speeds: Partial<Scheme>[] = [{ speed: 'dial' }, { jog: 'forward' }, { presetsHz: [20] }];
    for (const scheme of speeds) {
      const plan = planJob(job(scheme), family);
      expect(plan.ok).toBeFalse();
      if (!plan.ok) expect(plan.code).toBe('noSpeed');
      // What is offered plans these very wishes and carries the motor.
      const offers = offersFor(job(scheme), family);
      expect(offers.length).withContext(JSON.stringify(scheme)).toBeGreaterThan(1);
      for (const { family: name, model } of offers) {
        const other = shippedProfile(name);
        expect(other.kind).toBe('drive');
        const amps = plateNumbers(job().plate, other).rated?.amps ?? Infinity;
        expect(other.models.find((m) => m.name === model)?.ratedA).toBeGreaterThanOrEqual(amps);
      }
    }
  });
});
