import { modelOf, shippedProfile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { landingParts, type Job } from '../job/index.js';
import { isExposed } from '../parts/index.js';
import { areaOf, feedCurrent, leakageOf, panelAmpacity, plateContext } from '../line/index.js';
import { bareJob } from '../testing/jobs.js';
import { everyArrangement, type BuiltCase } from '../testing/matrix.js';
import { adoption, planJob } from './plan.js';
import { feedAsked } from './power-wires.js';

/** Every arrangement of every family, in both practices. */
function cases(practice: Job['practice']): BuiltCase[] {
  return everyArrangement().flatMap((c): BuiltCase[] => {
    if (practice === c.job.practice) return [c];
    const { adopted: _adopted, ...bare } = c.job;
    const job: Job = { ...bare, practice };
    const plan = planJob(job, c.profile);
    return plan.ok ? [{ ...c, job: { ...job, adopted: adoption(plan) } }] : [];
  });
}

describe('what an inspector looks at', () => {
  for (const practice of ['IEC', 'NFPA'] as const) {
    const all = cases(practice);

    it(`${practice}: every feed wire carries what its device takes and its protection lets through`, () => {
      expect(all.length).toBeGreaterThan(80);
      for (const { name, job, profile } of all) {
        const model = modelOf(profile, job.profile.model);
        if (!model) throw new Error(name);
        const asked = feedAsked(job, profile, model);
        const feeds = Object.values(job.adopted?.wires ?? {}).filter((w) =>
          ['mains', 'neutral'].includes(w.class),
        );
        expect(feeds.length).withContext(name).toBeGreaterThan(3);
        for (const w of feeds)
          expect(panelAmpacity(w.size, asked.loaded) ?? 0)
            .withContext(`${name} ${w.number} ${JSON.stringify(w.size)}`)
            .toBeGreaterThanOrEqual(feedCurrent(asked));
      }
    });

    it(`${practice}: no neutral in the colour of a phase, no protective colour elsewhere, leakage reinforced`, () => {
      for (const { name, job, profile } of all) {
        const wires = Object.values(job.adopted?.wires ?? {});
        const phases = new Set(wires.filter((w) => w.class === 'mains').map((w) => w.colour));
        for (const w of wires) {
          const context = `${name} ${w.number} ${w.from} ${w.to}`;
          const onNeutral = [w.from, w.to].some((at) => at === 'supply:N');
          if (w.class === 'neutral') expect(phases).withContext(context).not.toContain(w.colour);
          if (onNeutral && w.function.startsWith('supply.'))
            expect(w.class).withContext(context).toBe('neutral');
          expect(w.class === 'pe')
            .withContext(context)
            .toBe(/green/u.test(w.colour) && w.class !== 'analogue');
        }
        const feedPe = wires.find((w) => w.function === 'feed.PE');
        if (practice === 'IEC' && leakageOf(plateContext(job, profile)) > 3.5)
          expect(feedPe && areaOf(feedPe.size))
            .withContext(name)
            .toBeGreaterThanOrEqual(10);
      }
    });

    it(`${practice}: every exposed part has its own protective conductor from the bar, and the control common one bond`, () => {
      let exposed = 0;
      for (const { name, job } of all) {
        const { devices = {}, wires = {} } = job.adopted ?? {};
        const pe = Object.values(wires).filter((w) => w.class === 'pe');
        for (const w of Object.values(wires))
          for (const at of [w.from, w.to])
            if (/:PE[A-Z]?$/u.test(at))
              expect(w.class).withContext(`${name} ${w.number} lands at ${at}`).toBe('pe');
        for (const [id, part] of Object.entries(devices)) {
          if (!isExposed(part)) continue;
          exposed++;
          const own = pe.filter((w) => w.to === `${id}:PE`);
          expect(own.map((w) => w.from))
            .withContext(`${name} ${part.tag}`)
            .toEqual(['supply:PE']);
          expect(areaOf(own[0].size)).withContext(name).toBeGreaterThanOrEqual(2);
        }
        const commons = Object.keys(devices).filter(
          (id) => devices[id].kind === 'controlTransformer',
        );
        expect(pe.filter((w) => w.function === 'control.earth').map((w) => w.from))
          .withContext(name)
          .toEqual(commons.map((id) => `${id}:S2`));
      }
      expect(exposed).toBeGreaterThan(20);
    });

    it(`${practice}: no tag equals a terminal, and no analogue return runs over a digital terminal`, () => {
      for (const { name, job, profile } of all) {
        const { devices = {}, wires = {}, device = '' } = job.adopted ?? {};
        for (const { tag } of Object.values(devices))
          expect(Object.keys(profile.terminals)).withContext(name).not.toContain(tag);
        for (const w of Object.values(wires)) {
          if (w.class !== 'analogue') continue;
          for (const at of [w.from, w.to].map(landingParts)) {
            const kind =
              at.device === device ? profile.terminals[at.terminal].kind : 'analogueInput';
            expect([
              'analogueInput',
              'analogueOutput',
              'analogueCommon',
              'reference10',
              'zeroVolt',
              'supply24',
              'thermistor',
            ])
              .withContext(`${name} ${w.number} ${at.terminal}`)
              .toContain(kind);
          }
        }
      }
    });

    it(`${practice}: every exposed part is bonded, and no protective conductor is too small`, () => {
      for (const { name, job, profile } of all)
        expect(
          checkJob(job, profile)
            .filter((f) => /^pe\.|^damage\.|^coil\.|^supplies\.|^motor\./u.test(f.rule))
            .map((f) => f.key),
        )
          .withContext(name)
          .toEqual([]);
    });
  }
});

describe('the earth link', () => {
  it('is planned out on a supply without an earthed star point, and as delivered elsewhere', () => {
    const n = shippedProfile('ondulet-n');
    const linkOn = (earthing: NonNullable<Job['plate']['supply']['earthing']>): string => {
      const job = bareJob({}, n, 'N0220');
      job.plate.supply.earthing = earthing;
      const plan = planJob(job, n);
      return plan.ok ? plan.wiring.links['EF'].position : '';
    };
    expect([linkOn('TN-S'), linkOn('TT'), linkOn('IT'), linkOn('cornerEarthed')]).toEqual([
      'in',
      'in',
      'out',
      'out',
    ]);
  });

  it('feeds nothing through the terminal of an enable that can be fed beside it', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const enables = Object.entries(profile.terminals).flatMap(([id, t]) =>
        t.kind === 'enableInput' && t.conductors > 1 ? [`device:${id}`] : [],
      );
      const beside = (at: string): string => {
        const { device, terminal } = landingParts(at);
        return device === job.adopted?.device
          ? (profile.terminals[terminal]?.kind ?? '')
          : (job.adopted?.devices[device]?.kind ?? '');
      };
      for (const { from, to, number } of Object.values(job.adopted?.wires ?? {}))
        if (enables.includes(from) !== enables.includes(to))
          expect(['supply24', 'emergencyStop', 'terminalStrip'])
            .withContext(`${name} ${number} ${from} ${to}`)
            .toContain(beside(enables.includes(from) ? to : from));
    }
  });
});
