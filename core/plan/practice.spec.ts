import { modelOf } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { landingParts, type Job } from '../job/index.js';
import { areaOf, feedCurrent, leakageOf, panelAmpacity, plateContext } from '../line/index.js';
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
