import { hashOf, type Job } from '../../job/index.js';
import { shippedProfile } from '../../catalogue/index.js';
import { bareJob, marrowick } from '../../testing/jobs.js';
import { plateCauses as cases } from '../../testing/plate-causes.js';
import { liveSteps } from '../../procedure/index.js';
import { adopted } from '../../testing/jobs.js';
import { sayFinding } from '../../words/index.js';
import { plateContext } from './context.js';
import { plateFacts } from './facts.js';
import { motorCurves } from './motor-curves.js';
import { plateFindings } from './plate-findings.js';

type Plate = Job['plate'];
const family = (name: string) => shippedProfile(name);
const value = (job: Job, id: string, profile = marrowick()): number =>
  plateFacts(job, profile).find((f) => f.id === id)?.value as number;
const q = <U extends string>(v: number, u: U) => ({ v, u });

/** A job with changed plates. */
function job(
  change: (plate: Plate, job: Job) => void = () => undefined,
  profile = marrowick(),
  model = 'F02',
): Job {
  const made = bareJob({}, profile, model);
  change(made.plate, made);
  return made;
}
const rules = (made: Job, profile = marrowick()): string[] =>
  plateFindings(made, profile).map((f) => f.rule);

describe('the one-line picture', () => {
  it('raises each finding from the plate that causes it, and from nothing else', () => {
    for (const [rule, change, profile = marrowick(), model = 'F02'] of cases) {
      const found = plateFindings(job(change, profile, model), profile);
      const one = found.find((f) => f.rule === rule);
      expect(one)
        .withContext(`${rule}: ${found.map((f) => f.rule).join()}`)
        .toBeDefined();
      const words = one && sayFinding(one);
      expect(
        words &&
          [words.what, words.why, words.remedy].every(
            (text) => text.length > 10 && !/undefined|NaN|null|Infinity/u.test(text),
          ),
      )
        .withContext(`${rule}: ${JSON.stringify(words)}`)
        .toBeTrue();
      const before = rules(
        job(() => undefined, profile, model),
        profile,
      );
      if (rule !== 'plate.supplyOutsideDevice')
        expect(before).withContext(`${rule} without its cause`).not.toContain(rule);
    }
  });

  it('says nothing of a soft starter that is only so of a drive', () => {
    for (const name of ['pendrift-s', 'pendrift-c']) {
      const profile = family(name);
      for (const [rule, change] of cases)
        for (const f of plateFindings(job(change, profile, profile.models[0].name), profile)) {
          const { what, why, remedy } = sayFinding(f);
          expect(`${what} ${why} ${remedy}`)
            .withContext(`${name} after ${rule}: ${f.rule}`)
            .not.toMatch(/drive(?! the motor)|bridge|switching edge|DC link/u);
        }
    }
  });

  it('tells lengths of a job that is typed in feet in feet', () => {
    const said = (unit: 'ft' | 'm'): string[] =>
      [30, 600, 3000].flatMap((length) =>
        plateFindings(
          job((p) => {
            p.motor.insulation = undefined;
            p.cable.length = q(length, unit);
          }),
          marrowick(),
        )
          .filter((f) => f.rule.startsWith('cable.'))
          .map((f) => Object.values(sayFinding(f)).join(' ')),
      );
    const [feet, metres] = [said('ft'), said('m')];
    expect(feet.length).toBeGreaterThan(2);
    expect(feet.some((text) => text.includes(' ft'))).toBeTrue();
    expect(feet.filter((text) => /\d m\b/u.test(text))).toEqual([]);
    expect(metres.filter((text) => /\d ft\b/u.test(text))).toEqual([]);
  });

  it('takes a finding back when it is put right at the field it names', () => {
    const put = (change: (p: Plate) => void, also: (p: Plate) => void) => [
      rules(job(change)),
      rules(job((p) => (change(p), also(p)))),
    ];
    const [hot, cooled] = put(
      (p) => (p.place = { ambient: q(52, '°C') }),
      (p) => (p.place = { ambient: q(35, '°C') }),
    );
    expect([hot.includes('device.currentShort'), cooled.length]).toEqual([true, 0]);
    const [bare, filtered] = put(
      (p) => (p.motor.insulation = undefined),
      (p) => (p.line = { outputFilter: { kind: 'dvdt' } }),
    );
    expect([
      bare.includes('cable.reflectedWave'),
      filtered.includes('cable.reflectedWave'),
    ]).toEqual([true, false]);
    // A choke by itself limits neither slope nor peak.
    const [, choked] = put(
      (p) => (p.motor.insulation = undefined),
      (p) => (p.line = { outputFilter: { kind: 'choke' } }),
    );
    expect(choked).toContain('cable.reflectedWave');
  });

  it('doubling the load’s inertia doubles the run-up and the shortest stop', () => {
    const heavy = (k: number) =>
      job((p) => {
        p.motor.inertia = q(0.01 * k, 'kg·m²');
        p.load.inertia = q(40 * k, 'kg·m²');
        p.load.overhauls = true;
        p.line = { brake: {} };
      });
    for (const id of ['shortestStart', 'shortestStop'])
      expect(value(heavy(2), id) / value(heavy(1), id)).toBeCloseTo(2, 9);
    const curves = (k: number) => motorCurves(plateContext(heavy(k), marrowick()));
    expect((curves(2)?.runUp?.startS as number) / (curves(1)?.runUp?.startS as number)).toBeCloseTo(
      2,
      2,
    );
  });

  it('changing the motor link changes current, advice, settings and the live expectations', () => {
    const linked = (link: 'star' | 'delta') => job((p) => void (p.motor.link = link));
    expect([
      value(linked('star'), 'overloadSetting'),
      value(linked('delta'), 'overloadSetting'),
    ]).toEqual([4.5, 7.8]);
    expect(rules(linked('delta'))).toContain('plate.linkWrong');
    expect(rules(linked('delta'))).toContain('device.currentShort');
    expect(rules(linked('star'))).toEqual([]);
    const settings = (link: 'star' | 'delta') =>
      Object.values(adopted(linked(link)).adopted?.settings ?? {}).map((s) => s.value);
    expect([
      settings('star').includes(4.5),
      settings('delta').includes(7.8),
      settings('delta').includes(4.5),
    ]).toEqual([true, true, false]);
    const expected = (j: Job) =>
      JSON.stringify(liveSteps(adopted(j), marrowick()).map((s) => [s.key, s.expect]));
    expect(expected(job((p) => void (p.supply.volts = q(415, 'V'))))).not.toBe(expected(job()));
  });

  it('judges nothing in silence: out of its range a figure says so, and why', () => {
    const told = (change: (p: Plate) => void) =>
      plateFindings(job(change), marrowick())
        .filter((f) => f.rule === 'plate.notJudged')
        .map((f) => f.args['what']);
    expect(told(() => undefined)).toEqual([]);
    expect(told((p) => void (p.place = { ambient: q(65, '°C') }))).toEqual(['usableCurrent']);
    expect(told((p) => void (p.place = { altitude: q(4500, 'm') }))).toEqual(['usableCurrent']);
    expect(told((p) => void (p.cable.size = { mm2: 0.75 }))).toEqual(['cableAmpacity']);
    expect(told((p) => void (p.cable.ambient = q(70, '°C')))).toEqual(['cableAmpacity']);
  });

  it('raises no false alarm on a faster or a slower base: 230 V in delta up to 87 Hz, 460 V 60 Hz on 400 V', () => {
    const faster = job((p) => void (p.motor.link = 'delta'));
    const at = (maxHz: number) => ({ ...faster, scheme: { ...faster.scheme, maxHz } });
    expect(rules(at(87))).not.toContain('plate.linkWrong');
    expect(rules(at(50))).toContain('plate.linkWrong');
    // Volts, hertz and amps of the plan follow: 400 V and 87 Hz at the current of the delta.
    const settings = Object.values(adopted(at(87)).adopted?.settings ?? {}).map((s) => s.value);
    expect([400, 87, 7.8].filter((x) => !settings.includes(x))).toEqual([]);
    const american = job((p) => {
      p.motor.connection = 'single';
      p.motor.lowV = q(460, 'V');
      p.motor.lowA = q(4.2, 'A');
      p.motor.hz = q(60, 'Hz');
      p.motor.rpm = q(1740, 'rpm');
      p.motor.link = 'none';
    });
    // 60 · 400 / 460 = 52.2 Hz
    const flux = plateFindings(american, marrowick()).find((f) => f.rule === 'plate.fluxEnds');
    expect([flux?.severity, flux?.args['untilHz']]).toEqual(['advise', 52]);
    expect(rules(american)).not.toContain('plate.noLinkSuits');
  });

  it('derates a device for altitude, heat, carrier frequency and one phase, each by its factor', () => {
    const usable = (place: Plate['place']) =>
      value(
        job((p) => void (p.place = place)),
        'usableCurrent',
      );
    expect(usable({})).toBeCloseTo(5.6, 9);
    expect(usable({ altitude: q(1500, 'm') })).toBeCloseTo(5.6 * 0.95, 9);
    expect(usable({ ambient: q(50, '°C') })).toBeCloseTo(5.6 * 0.8, 9);
    expect(usable({ carrierKHz: 8 })).toBeCloseTo(5.6 * 0.84, 9);
    expect(usable({ altitude: q(1500, 'm'), ambient: q(50, '°C'), carrierKHz: 8 })).toBeCloseTo(
      5.6 * 0.95 * 0.8 * 0.84,
      9,
    );
    const one = job((p) => void (p.supply.phases = 1));
    expect(value(one, 'usableCurrent')).toBeCloseTo(2.8, 9);
  });

  it('gives every number a working with inputs, formula and source', () => {
    const full = job((p) => {
      p.line = { reactor: { pct: 3 }, protection: { feedSize: { mm2: 2.5 } } };
      p.supply.measured = { l12: q(400, 'V'), l23: q(399, 'V'), l31: q(401, 'V') };
      Object.assign(p.supply, { transformer: q(250, 'kVA'), impedancePct: 4 });
      p.place = { surface: q(2, 'm²'), ambient: q(30, '°C') };
      p.motor.lockedCurrentRatio = 6.4;
    });
    const all = plateFacts(full, marrowick());
    expect(all.length).toBeGreaterThan(30);
    for (const f of all) {
      expect(
        f.working.inputs.length > 0 && f.working.formula.length > 3 && f.working.source.length > 3,
      )
        .withContext(f.id)
        .toBeTrue();
      expect(typeof f.value === 'string' || Number.isFinite(f.value))
        .withContext(f.id)
        .toBeTrue();
    }
    expect(new Set(all.map((f) => f.id)).size).toBe(all.length);
  });

  it('asks of the sawyard in its own practice: 125 %, grounding by the device, AWG', () => {
    const t = family('quernstone-t');
    const sawyard = bareJob({ maxHz: 60, accelS: 4, decelS: 4 }, t, 'T15');
    sawyard.practice = 'NFPA';
    sawyard.profile = { ...sawyard.profile, sha256: hashOf(t) };
    Object.assign(sawyard.plate, {
      motor: {
        ...sawyard.plate.motor,
        power: q(15, 'hp'),
        connection: 'seriesParallel',
        lowV: q(230, 'V'),
        highV: q(460, 'V'),
        lowA: q(37.6, 'A'),
        highA: q(18.8, 'A'),
        hz: q(60, 'Hz'),
        rpm: q(1770, 'rpm'),
        powerFactor: 0.81,
        efficiency: 0.924,
        link: 'series',
      },
      supply: { phases: 3, volts: q(480, 'V'), hz: q(60, 'Hz') },
      cable: { length: q(180, 'ft'), size: { awg: '12' } },
      line: { protection: { ratedA: q(40, 'A'), reinforcedPe: true } },
    });
    expect(rules(sawyard, t)).toEqual([]);
    expect(value(sawyard, 'cableGround', t) as unknown).toBe('10');
    sawyard.plate.cable.size = { awg: '14' };
    expect(rules(sawyard, t)).toContain('cable.ampacity');
    expect(rules({ ...sawyard, practice: 'IEC' }, t)).not.toContain('cable.ampacity');
  });

  it('reads the cable from the person’s own table, and only for the sizes it holds', () => {
    const own = (size: { mm2: number }, amps: Record<string, number>) =>
      job(
        (p) =>
          void (p.cable = {
            length: q(10, 'm'),
            size,
            table: 'own',
            ownTable: { title: 'Site rules', amps },
          }),
      );
    expect(value(own({ mm2: 1.5 }, { '1.5 mm²': 9 }), 'cableAmpacity')).toBe(9);
    expect(rules(own({ mm2: 1.5 }, { '1.5 mm²': 4 }))).toContain('cable.ampacity');
    expect(value(own({ mm2: 2.5 }, { '1.5 mm²': 4 }), 'cableAmpacity')).toBeUndefined();
  });

  it('fits the motor, says what it assumed, and gives no run-up where data are missing', () => {
    const curves = motorCurves(plateContext(job(), marrowick()));
    expect(curves?.assumed).toEqual(['lockedCurrentRatio', 'lockedTorqueRatio', 'breakdownRatio']);
    expect(curves?.points[0].rpm).toBe(0);
    expect(curves?.runUp?.stalls).toBeFalse();
    expect(curves?.classes.map((c) => c.tripClass)).toEqual(['10A', '10', '20', '30']);
    expect(curves?.classes.every((c) => c.verdict === 'clear')).toBeTrue();
    expect(
      motorCurves(
        plateContext(
          job((p) => void (p.load.inertia = undefined)),
          marrowick(),
        ),
      )?.noRunUp,
    ).toBe('inertia');
    expect(
      motorCurves(
        plateContext(
          job((p) => void (p.load.torquePct = undefined)),
          marrowick(),
        ),
      )?.noRunUp,
    ).toBe('load');
    expect(
      motorCurves(
        plateContext(
          job((p) => void (p.load.torquePct = 400)),
          marrowick(),
        ),
      )?.noRunUp,
    ).toBe('overload');
    expect(
      motorCurves(
        plateContext(
          job((p) => void (p.motor.powerFactor = undefined)),
          marrowick(),
        ),
      ),
    ).toBeUndefined();
    expect(
      motorCurves(
        plateContext(
          job((p) => void (p.motor.rpm = q(1500, 'rpm'))),
          marrowick(),
        ),
      ),
    ).toBeUndefined();
  });
});
