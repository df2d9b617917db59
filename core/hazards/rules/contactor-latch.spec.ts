import { shippedProfile, shippedProfiles } from '../../catalogue/index.js';
import type { Scheme } from '../../job/index.js';
import { planJob } from '../../plan/index.js';
import { requirementsHeld } from '../check.js';
import { bareJob, adopted } from '../../testing/jobs.js';
import { trialsOf } from '../../trials/index.js';
import { checkJob } from '../index.js';

const wishes = (latch: Scheme['contactorLatch'], estop: Scheme['estop']): Partial<Scheme> => ({
  startStop: 'threeWire',
  stationFeed: 'separate',
  startBy: undefined,
  directionBy: undefined,
  direction: 'forwardOnly',
  estop,
  ...(latch ? { contactorLatch: latch } : {}),
});
const families = Object.keys(shippedProfiles).map(shippedProfile);

describe('what works a line contactor', () => {
  for (const estop of ['contactor', 'contactorInhibit'] as const)
    it(`is told where the emergency stop alone opens it, or lets it close again: ${estop}, every family`, () => {
      let seen = 0;
      for (const profile of families) {
        for (const latch of ['onOff', 'onOnly', 'none'] as const) {
          const job = bareJob(wishes(latch, estop), profile, profile.models[0].name);
          if (!planJob(job, profile).ok) continue;
          seen++;
          const built = adopted(job, profile);
          const told = checkJob(built, profile).map((f) => f.rule);
          const context = `${profile.family} ${latch}`;
          expect(told.includes('contactor.noOff'))
            .withContext(context)
            .toBe(latch === 'onOnly');
          expect(told.includes('contactor.closesOnRelease'))
            .withContext(context)
            .toBe(latch === 'none');
          const off = requirementsHeld(built, profile).some(
            (r) => r.requirement.id === 'power.off',
          );
          expect(off)
            .withContext(context)
            .toBe(latch === 'onOff');
        }
      }
      expect(seen).toBeGreaterThan(families.length);
    });

  it('closes with the mushroom let go and starts nothing, where it has no latch; with one it waits for its button', () => {
    const profile = shippedProfile('ondulet-n');
    for (const latch of ['none', 'onOnly'] as const) {
      const built = adopted(bareJob(wishes(latch, 'contactor'), profile, 'N0220'), profile);
      const run = trialsOf(built, profile).run('estop');
      expect(run.at('opens', 'contactor.line.on')).withContext(latch).toBe(0);
      expect(run.runs('closes')).withContext(latch).toBeFalse();
      const put = run.trial.acts.find((a) => a.do === 'release' && a.device === 'estop');
      const { t, y } =
        run.trace.segments[run.trace.signals.findIndex((s) => s.id === 'contactor.line.on')];
      const closed = t[y.lastIndexOf(1)] / 1000 - (put?.atMs ?? NaN);
      if (latch === 'none') expect(closed).toBeLessThan(100);
      else expect(closed).toBeGreaterThan(400);
    }
  });

  it('is no plan where nothing would open it', () => {
    const profile = shippedProfile('ondulet-n');
    const scheme: Partial<Scheme> = { startStop: 'lineContactor', contactorLatch: 'onOnly' };
    const plan = planJob(bareJob(scheme, profile, 'N0220'), profile);
    expect(plan.ok ? '' : plan.code).toBe('nothingOpensContactor');
  });
});
