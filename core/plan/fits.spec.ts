import { shippedProfile, shippedProfiles } from '../catalogue/index.js';
import { plateNumbers } from '../line/index.js';
import type { Job, Scheme } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { bareJob, marrowick } from '../testing/jobs.js';
import { familyFits, planJob, verdictOfFit } from './index.js';

describe('which device fits', () => {
  const cases = everyArrangement();

  it('says that the family of every planned arrangement fits it', () => {
    for (const { name, job } of cases.filter((_, i) => i % 3 === 0)) {
      const own = familyFits(job).find((f) => f.family === job.profile.family);
      expect(own?.wishes).withContext(name).toBe('fits');
    }
  });

  it('names only wishes without which the family plans the rest, and models that carry the motor', () => {
    let fewer = 0;
    for (const { name, job } of cases.filter((_, i) => i % 7 === 0))
      for (const fit of familyFits(job)) {
        const at = `${name} on ${fit.family}`;
        const profile = shippedProfile(fit.family);
        const amps = plateNumbers(job.plate, profile).rated?.amps ?? 0;
        for (const { model, carries } of fit.models) {
          const ratedA = profile.models.find((m) => m.name === model)?.ratedA ?? 0;
          expect(carries)
            .withContext(`${at} ${model}`)
            .toBe(ratedA >= amps);
        }
        if (fit.wishes !== 'without') continue;
        fewer++;
        expect(fit.without.length).withContext(at).toBeGreaterThan(0);
        // What only a soft starter has counts for no drive, and is not named.
        if (profile.kind !== shippedProfile(job.profile.family).kind) continue;
        const { adopted: _adopted, ...rest } = job;
        const plans = (without: readonly (keyof Scheme)[]): boolean => {
          const scheme = Object.fromEntries(
            Object.entries(job.scheme).filter(([w]) => !without.includes(w as keyof Scheme)),
          ) as Scheme;
          const model = fit.smallest ?? fit.models[0].model;
          const tried: Job = {
            ...rest,
            scheme,
            profile: { ...job.profile, family: fit.family, model },
            decisions: { pins: {}, wires: {}, settings: {}, devices: {} },
          };
          return planJob(tried, profile).ok;
        };
        expect(plans(fit.without)).withContext(at).toBeTrue();
        // None of them could have stayed, and nobody relies on any.
        for (const w of fit.without) {
          expect(plans(fit.without.filter((x) => x !== w)))
            .withContext(`${at}, ${w}`)
            .toBeFalse();
          expect(['estop', 'interlocks', 'footStop']).withContext(at).not.toContain(w);
        }
      }
    expect(fewer).toBeGreaterThan(10);
  });

  it('says of no family that it fits on another supply, or where every model is too small', () => {
    const seen = new Set<string>();
    const [{ job }] = cases;
    for (const phases of [1, 3] as const)
      for (const volts of [115, 230, 400, 480])
        for (const factor of [0.2, 1, 20]) {
          const { motor } = job.plate;
          const more = (q: typeof motor.lowA): typeof motor.lowA => q && { ...q, v: factor * q.v };
          const supply = { ...job.plate.supply, phases, volts: { v: volts, u: 'V' } };
          const plate = {
            ...job.plate,
            supply,
            motor: { ...motor, lowA: more(motor.lowA), highA: more(motor.highA) },
          } as Job['plate'];
          for (const fit of familyFits({ ...job, plate })) {
            const verdict = verdictOfFit(fit);
            seen.add(verdict);
            if (verdict !== 'fits' && verdict !== 'without') continue;
            const profile = shippedProfile(fit.family);
            const at = `${fit.family} on ${phases} × ${volts} V, ${factor}`;
            const [least, most] = profile.supply.volts;
            expect(volts >= least && volts <= most)
              .withContext(at)
              .toBeTrue();
            expect(profile.supply.phases <= phases)
              .withContext(at)
              .toBeTrue();
            const amps = plateNumbers(plate, profile).rated?.amps ?? 0;
            expect(profile.models.some((m) => m.ratedA >= amps))
              .withContext(at)
              .toBeTrue();
          }
        }
    expect([...seen]).toEqual(jasmine.arrayContaining(['supply', 'current', 'fits']));
  });

  it('judges nothing that is not said yet: no wishes, no supply, no motor', () => {
    const empty = bareJob({ startStop: undefined }, marrowick());
    const bare: Job = {
      ...empty,
      scheme: {},
      plate: { motor: {}, supply: {}, load: {}, cable: {} },
    };
    const fits = familyFits(bare);
    expect(fits.map((f) => f.family)).toEqual(Object.keys(shippedProfiles));
    for (const f of fits)
      expect([f.wishes, f.supply, f.smallest]).toEqual(['unknown', undefined, undefined]);
  });
});
