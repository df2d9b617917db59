import { changesSpeed, shippedProfile, shippedProfiles } from '../catalogue/index.js';
import { requirementsHeld } from '../hazards/index.js';
import type { Scheme } from '../job/index.js';
import { planJob } from '../plan/index.js';
import { liveSteps } from '../procedure/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { trialsOf } from '../trials/index.js';

const wishes = (presetsHz: number[], more: Partial<Scheme> = {}): Partial<Scheme> => ({
  startStop: 'threeWire',
  stationFeed: 'separate',
  startBy: undefined,
  directionBy: undefined,
  direction: 'forwardOnly',
  speed: 'dial',
  maxHz: 50,
  presetsHz,
  presetsBy: 'switches',
  ...more,
});
const drives = Object.keys(shippedProfiles).map(shippedProfile).filter(changesSpeed);

describe('a switch for each preset', () => {
  it('gives its own speed alone, and together none above the fastest; opened again the dial has it: every family', () => {
    let planned = 0;
    for (const profile of drives) {
      const job = bareJob(wishes([35, 20]), profile, profile.models[0].name);
      if (!planJob(job, profile).ok) continue;
      planned++;
      const built = adopted(job, profile);
      const trials = trialsOf(built, profile);
      expect(trials.run('preset.1').hz('start')).withContext(profile.family).toBeCloseTo(35, 1);
      expect(trials.run('preset.2').hz('start')).withContext(profile.family).toBeCloseTo(20, 1);
      const both = trials.run('preset.together').hz('start');
      expect([20, 35].some((hz) => Math.abs(both - hz) < 0.1))
        .withContext(`${profile.family} ${both}`)
        .toBeTrue();
      const held = requirementsHeld(built, profile).filter((r) =>
        r.requirement.id.startsWith('preset.'),
      );
      expect(held.map((r) => [r.requirement.id, r.state]))
        .withContext(profile.family)
        .toEqual([
          ['preset.1.speed', 'met'],
          ['preset.2.speed', 'met'],
          ['preset.together', 'met'],
        ]);
    }
    expect(planned).toBeGreaterThan(3);
  });

  it('is tested one after the other, the one before let go, then together', () => {
    const profile = shippedProfile('ondulet-n');
    const built = adopted(bareJob(wishes([20, 35]), profile, 'N0220'), profile);
    const asked = liveSteps(built, profile).filter((s) => s.key.startsWith('preset.'));
    expect(asked.map((s) => s.key)).toEqual(['preset.1', 'preset.2', 'preset.together']);
    const middle = asked.map(({ expect: e }) =>
      e?.kind === 'range' ? Math.round(e.nominal) : NaN,
    );
    expect(middle).toEqual([20, 35, 20]);
  });

  it('of a device that counts in powers of two is no plan for three, nor where presets are the only speed', () => {
    const profile = shippedProfile('ondulet-n');
    const codeOf = (scheme: Partial<Scheme>): string | undefined => {
      const plan = planJob(bareJob(scheme, profile, 'N0220'), profile);
      return plan.ok ? undefined : plan.code;
    };
    expect(codeOf(wishes([10, 20, 30]))).toBe('switchesNeedOneInput');
    expect(codeOf(wishes([10, 20], { speed: 'presets' }))).toBe('switchesBesideSpeed');
    expect(codeOf(wishes([10, 20]))).toBeUndefined();
  });
});
