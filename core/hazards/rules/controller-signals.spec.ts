import { changesSpeed, shippedProfile, shippedProfiles } from '../../catalogue/index.js';
import type { Fault, Job, Scheme } from '../../job/index.js';
import { planJob } from '../../plan/index.js';
import { builtWith, adopted, bareJob } from '../../testing/jobs.js';
import { trialsOf } from '../../trials/index.js';
import { sayFinding } from '../../words/index.js';
import { checkJob } from '../index.js';

const wishes = (more: Partial<Scheme> = {}): Partial<Scheme> => ({
  startStop: 'controller',
  controllerOutput: 'relay',
  startBy: undefined,
  directionBy: undefined,
  direction: 'forwardReverse',
  speed: 'voltage',
  stageSupply: true,
  exposed: 'behindGuard',
  ...more,
});
const drives = Object.keys(shippedProfiles).map(shippedProfile).filter(changesSpeed);
const rules = (job: Job, profile = drives[0]): string[] =>
  checkJob(job, profile).map((f) => f.rule);
const mine = /^controller\.map$|^signal\.(?:stageUnfed|noCommon|switchAgainst)$/u;
const wireOf = (job: Job, what: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === what)?.[0] ?? '';

describe('a controller', () => {
  it('set and fed as planned has no finding of its own; each thing otherwise has its own: families × field wires × signals', () => {
    let cases = 0;
    for (const profile of drives)
      for (const fieldWires of ['direct', 'strip', 'plug'] as const)
        for (const speed of ['voltage', 'current'] as const) {
          const bare = bareJob(wishes({ fieldWires, speed }), profile, profile.models[0].name);
          if (!planJob(bare, profile).ok) continue;
          cases++;
          const job = adopted(bare, profile);
          const name = `${profile.family} ${fieldWires} ${speed}`;
          const of = (...faults: Fault[]): string[] =>
            rules(builtWith(job, ...faults), profile).filter((r) => mine.test(r));
          expect(of()).withContext(name).toEqual([]);
          const unfed: Fault = { kind: 'open', wire: wireOf(job, 'stage.plus') };
          expect(of(unfed)).withContext(name).toContain('signal.stageUnfed');
          const common: Fault = { kind: 'open', wire: wireOf(job, 'signal.minus') };
          expect(of(common)).withContext(name).toContain('signal.noCommon');
          const map: Fault = { kind: 'part', device: 'controller.run', what: 'map' };
          expect(of(map)).withContext(name).toEqual(['controller.map']);
          const both: Fault = { ...map, which: 'controller.reverse' };
          expect(of(both)).withContext(name).toEqual(['controller.map']);
          const link = Object.values(profile.links).some((l) =>
            Object.values(l.positions).some((p) => p.analogue),
          );
          if (!link) continue;
          const kind: Fault = { kind: 'part', device: 'controller.speed', what: 'signalKind' };
          expect(of(kind)).withContext(name).toContain('signal.switchAgainst');
        }
    expect(cases).toBeGreaterThan(9);
  });

  it('does what its faults say: no speed, no command, each command at the other input', () => {
    const profile = shippedProfile('ondulet-n');
    const job = adopted(bareJob(wishes(), profile, 'N0220'), profile);
    const hz = (trial: string, mark: string, ...faults: Fault[]): number =>
      trialsOf(builtWith(job, ...faults), profile)
        .run(trial)
        .hz(mark);
    expect(hz('direction.forward', 'start')).toBeGreaterThan(1);
    expect(hz('dial.100', 'start', { kind: 'open', wire: wireOf(job, 'stage.minus') })).toBe(0);
    const map: Fault = { kind: 'part', device: 'controller.run', what: 'map' };
    expect(hz('direction.forward', 'start', map)).toBe(0);
    const both: Fault = { ...map, which: 'controller.reverse' };
    expect(hz('direction.forward', 'start', both)).toBeLessThan(-1);
    expect(hz('direction.reverse', 'start', both)).toBeGreaterThan(1);
  });

  it('with two outputs exchanged is said in words', () => {
    const profile = shippedProfile('ondulet-n');
    const job = adopted(bareJob(wishes(), profile, 'N0220'), profile);
    const fault: Fault = {
      kind: 'part',
      device: 'controller.run',
      what: 'map',
      which: 'controller.reverse',
    };
    for (const f of checkJob(builtWith(job, fault), profile)) {
      const { what, why, remedy } = sayFinding(f);
      for (const text of [what, why, remedy]) expect(text).not.toMatch(/undefined|NaN/u);
    }
  });
});
