import { verdictOf, type Evidence, type Job, type ProcedureStep } from '../job/index.js';
import { checkJob } from '../hazards/index.js';
import { handOverObstacles, settingRows, stepRecords } from '../records/index.js';
import { factorySettings } from '../catalogue/index.js';
import { planJob } from '../plan/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { say, sayFinding } from '../words/index.js';
import { liveSteps } from './live/index.js';

const profile = marrowick();
const steps = (job: Job): Map<string, ProcedureStep> =>
  new Map(liveSteps(job, profile).map((s) => [s.key, s]));
const changed = (x: Job, y: Job): string[] => {
  const [before, after] = [steps(x), steps(y)];
  return [...before.keys()].filter((key) => before.get(key)?.basis !== after.get(key)?.basis);
};
const withSetting = (job: Job, code: string, value: number): Job => ({
  ...job,
  decisions: {
    ...job.decisions,
    settings: { ...job.decisions.settings, [code]: { value, why: 'test' } },
  },
});
const nominal = (job: Job, key: string): number => {
  const expect = steps(job).get(key)?.expect;
  return expect?.kind === 'range' ? expect.nominal : NaN;
};
const base = bareJob();
const job = adopted(base);

describe('live steps', () => {
  it('move exactly where a deceleration time, the dial and the highest frequency reach, by what is worked by hand', () => {
    const slower = adopted(withSetting(base, '213', 8));
    expect(changed(job, slower)).toEqual(['ramp.down']);
    expect(nominal(slower, 'ramp.down')).toBeCloseTo(2 * nominal(job, 'ramp.down'), 2);
    const dial = adopted({ ...base, scheme: { ...base.scheme, dialOhm: { v: 10, u: 'kΩ' } } });
    const moved = changed(job, dial);
    expect(moved.filter((key) => !key.startsWith('dial.'))).toEqual([
      'speed.full',
      'ramp.up',
      'ramp.down',
    ]);
    expect(moved).toContain('dial.50.volts');
    const below = 1 / (1 / 5000 + 1 / 30_000);
    expect(nominal(dial, 'dial.50.volts')).toBeCloseTo((10 * below) / (47 + 5000 + below), 2);
    expect(changed(job, adopted(withSetting(base, '610', 1)))).toEqual(['power.return']);
    expect(changed(job, adopted(withSetting(base, '120', 4)))).toEqual([]);
  });

  it('go stale when the wire they rest on is moved, and only those', () => {
    const pinned = adopted({
      ...base,
      decisions: { ...base.decisions, pins: { 'run.reverse': { at: 'device:IN6', why: 'x' } } },
    });
    const keys = changed(job, pinned);
    expect(keys).toContain('input.run.reverse');
    expect(keys).toContain('direction.run.reverse');
    expect(
      keys.filter(
        (key) => key.startsWith('dial.') || key.startsWith('ramp.') || key.startsWith('supply.'),
      ),
    ).toEqual([]);
  });

  it('change when the motor link changes what the motor needs', () => {
    const two = {
      ...base,
      plate: { ...base.plate, motor: { ...base.plate.motor, rpm: { v: 1420, u: 'rpm' as const } } },
    };
    expect(changed(job, adopted(two))).toEqual(['speed.full']);
  });

  it('have a basis that misses nothing: whatever setting moves an expectation moves its basis', () => {
    const before = steps(job);
    for (const [code, setting] of Object.entries(profile.settings)) {
      if (
        setting.type !== 'number' ||
        setting.max === undefined ||
        typeof setting.factory !== 'number'
      )
        continue;
      const other = adopted(
        withSetting(base, code, Math.min(setting.max, setting.factory * 1.5 + 1)),
      );
      for (const [key, step] of steps(other)) {
        const was = before.get(key);
        if (was && JSON.stringify(was.expect) !== JSON.stringify(step.expect))
          expect(step.basis).withContext(`${code} ${key}`).not.toBe(was.basis);
      }
    }
  });

  it('and the plan do not depend on the order in which a store gives the keys back', () => {
    const turned = <T>(x: T): T =>
      (Array.isArray(x)
        ? x.map(turned)
        : x && typeof x === 'object'
          ? Object.fromEntries(
              Object.entries(x)
                .reverse()
                .map(([k, v]) => [k, turned(v)]),
            )
          : x) as T;
    const other = new Map(liveSteps(turned(job), turned(profile)).map((s) => [s.key, s.basis]));
    expect(other).toEqual(new Map(liveSteps(job, profile).map((s) => [s.key, s.basis])));
    const [one, two] = [planJob(job, profile), planJob(turned(job), turned(profile))];
    expect(one.ok && two.ok && [two.hash, two.keying.map((l) => l.key), two.cost]).toEqual(
      one.ok && [one.hash, one.keying.map((l) => l.key), one.cost],
    );
  });

  it('say what happens when power returns, as simulated', () => {
    const restart = adopted({ ...base, scheme: { ...base.scheme, powerReturn: 'restart' } });
    expect(steps(job).get('power.return')?.expect).toEqual({ kind: 'state', is: 'staysStopped' });
    expect(steps(restart).get('power.return')?.expect).toEqual({
      kind: 'state',
      is: 'startsByItself',
    });
  });

  it('have words for everything they say', () => {
    const both = adopted(bareJob({ directionBy: 'twoContacts' }));
    for (const s of [...liveSteps(both, profile), ...liveSteps(job, profile)]) {
      expect(say(s.do)).not.toBe(s.do.code);
      expect(say(s.must)).not.toBe(s.must.code);
      expect(say(s.do)).not.toMatch(/undefined|NaN/u);
    }
    expect([...steps(both).keys()]).toContain('direction.both');
  });
});

function reading(
  step: ProcedureStep,
  value: number | string,
  id: string,
  supersedes?: string,
): Evidence {
  const verdict = step.expect ? verdictOf(step.expect, value) : 'fail';
  return {
    id,
    jobId: job.id,
    jobRevision: 1,
    kind: 'reading',
    subject: step.key,
    body: { step, reading: value, verdict },
    ...(supersedes ? { supersedes } : {}),
    author: { name: 'A', role: '' },
    atClient: '2026-01-01T10:00:00Z',
    coreVersion: '0',
  };
}

describe('records', () => {
  it('keep the earlier reading and let the newest stand', () => {
    const step = steps(job).get('ramp.up') as ProcedureStep;
    const [first, second] = [
      reading(step, 9, 'a'),
      reading(step, nominal(job, 'ramp.up'), 'b', 'a'),
    ];
    const [record] = stepRecords([step], [first, second]);
    expect([record.state, record.earlier.length, record.reading?.id]).toEqual(['pass', 1, 'b']);
    expect(stepRecords([step], [first])[0].state).toBe('fail');
  });

  it('make a reading stale when its step changes, and fresh again when it changes back', () => {
    const step = steps(job).get('ramp.down') as ProcedureStep;
    const evidence = [reading(step, nominal(job, 'ramp.down'), 'a')];
    const slower = liveSteps(adopted(withSetting(base, '213', 8)), profile);
    expect(stepRecords(slower, evidence).find((r) => r.step.key === 'ramp.down')?.state).toBe(
      'stale',
    );
    expect(
      stepRecords(liveSteps(job, profile), evidence).find((r) => r.step.key === 'ramp.down')?.state,
    ).toBe('pass');
  });

  it('block hand-over by every open point and by one setting that differs', () => {
    const all = liveSteps(job, profile).map((s, i) =>
      reading(s, s.expect?.kind === 'range' ? s.expect.nominal : (s.expect?.is ?? ''), `r${i}`),
    );
    const factory = factorySettings(profile, profile.models[1]);
    const values = {
      ...factory,
      ...Object.fromEntries(
        Object.entries(job.adopted?.settings ?? {}).map(([code, s]) => [code, s.value]),
      ),
    };
    const left = (v: Record<string, number | string | boolean>): Evidence =>
      ({
        ...all[0],
        id: 'left',
        kind: 'snapshot',
        subject: 'asLeft',
        body: { which: 'asLeft', source: 'typed', values: v },
      }) as Evidence;
    const blocks = (evidence: Evidence[]): string[] =>
      handOverObstacles(
        job,
        [],
        stepRecords(liveSteps(job, profile), evidence),
        settingRows(job, profile, factory, evidence),
        evidence,
      ).map((b) => b.key);
    expect(blocks([...all, left(values)])).toEqual([]);
    expect(blocks([...all, left({ ...values, '212': 5.1 })])).toEqual(['settings.differ']);
    expect(blocks([...all.slice(1), left(values)])).toEqual(['steps.open']);
    expect(blocks(all)).toEqual(['settings.left']);
    // One value the plan rests on that nobody has read back blocks as well.
    const { '212': _unread, ...others } = values;
    expect(blocks([...all, left(others)])).toEqual(['settings.unread']);
  });
});

describe('hazards', () => {
  const keys = (j: Job): string[] => checkJob(j, profile).map((f) => `${f.severity} ${f.key}`);
  const wish = (scheme: Partial<Job['scheme']>): Job => adopted(bareJob(scheme));

  it('find none in the careful scheme', () => expect(keys(job)).toEqual([]));

  it('find restart when power returns, as grave as the exposure', () => {
    expect(keys(wish({ powerReturn: 'restart', exposed: 'atMachine' }))).toEqual([
      'stop restart.powerReturn',
      'warn restart.noWarning',
    ]);
    expect(keys(wish({ powerReturn: 'restart', exposed: 'behindGuard' }))).toEqual([
      'warn restart.powerReturn',
      'warn restart.noWarning',
    ]);
    expect(keys(wish({ powerReturn: 'restart', exposed: 'nobody' }))).toEqual([
      'advise restart.powerReturn',
    ]);
    expect(keys(adopted(withSetting(base, '610', 1)))).toEqual(['stop restart.powerReturn']);
  });

  it('find restart just as well where the keypad gives the speed', () => {
    for (const speed of ['dial', 'keypad'] as const) {
      const job = adopted(
        bareJob({ direction: 'forwardOnly', powerReturn: 'restart', exposed: 'atMachine', speed }),
      );
      expect(checkJob(job, marrowick()).map((f) => f.rule))
        .withContext(speed)
        .toContain('restart.powerReturn');
    }
  });

  it('find both directions released to one only where the station allows it', () => {
    expect(keys(wish({ directionBy: 'twoContacts' }))).toEqual(['warn directions.releasedToOne']);
  });

  it('find the input common missing by what the solver says', () => {
    const out: Job = {
      ...job,
      adopted: {
        ...(job.adopted as NonNullable<Job['adopted']>),
        links: { ...job.adopted?.links, IL: { position: 'out', origin: 'person' } },
      },
    };
    expect(keys(out)).toContain('stop input.commonMissing');
  });

  it('find a device too small and a direction not locked', () => {
    expect(keys(adopted(bareJob({}, profile, 'F01')))).toContain('stop device.currentShort:device');
    const open = adopted(
      withSetting(bareJob({ direction: 'forwardOnly', directionBy: undefined }), '318', 0),
    );
    expect(keys(open)).toEqual(['warn direction.notLocked']);
  });

  it('have words for everything they find', () => {
    for (const f of [
      ...checkJob(wish({ powerReturn: 'restart', directionBy: 'twoContacts' }), profile),
      ...checkJob(adopted(bareJob({}, profile, 'F01')), profile),
    ]) {
      const { what, why, remedy } = sayFinding(f);
      expect(
        [what, why, remedy].every(
          (text) => text.length > 10 && !/undefined|NaN|\bsafe\b/u.test(text),
        ),
      )
        .withContext(f.key)
        .toBeTrue();
    }
  });
});
