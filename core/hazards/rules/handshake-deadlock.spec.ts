import {
  changesSpeed,
  shippedProfile,
  shippedProfiles,
  type Profile,
} from '../../catalogue/index.js';
import type { Job, Scheme } from '../../job/index.js';
import { planJob } from '../../plan/index.js';
import { adopted, bareJob } from '../../testing/jobs.js';
import { checkJob } from '../index.js';

const wishes: Partial<Scheme> = {
  startStop: 'controller',
  controllerOutput: 'relay',
  startBy: undefined,
  directionBy: undefined,
  direction: 'forwardOnly',
  speed: 'voltage',
  handshake: true,
  exposed: 'behindGuard',
};
/** A family whose manual says nothing of its output for running at a speed of zero. */
const silent = (profile: Profile): Profile => {
  const { runningAtZero: _said, ...policies } = profile.policies;
  return { ...profile, policies };
};
const deadlocks = (job: Job, profile: Profile): boolean =>
  checkJob(job, profile).some((f) => f.rule === 'handshake.deadlock' && f.severity === 'stop');

describe('a handshake with the controller', () => {
  const drives = Object.keys(shippedProfiles)
    .map(shippedProfile)
    .filter((p) => changesSpeed(p) && p.supply.phases === 3);

  it('is not planned on a family that tells no run at a speed of zero, unless it turns as soon as a run is given', () => {
    let [planned, refused] = [0, 0];
    for (const profile of drives) {
      const tells = profile.policies['runningAtZero'];
      const knows = typeof tells === 'object' && 'fixed' in tells ? tells.fixed : undefined;
      const job = bareJob(wishes, profile, profile.models[0].name);
      const plan = planJob(job, profile);
      if (plan.ok) planned++;
      else if (plan.why === 'conflict' && plan.code === 'handshakeDeadlock') refused++;
      expect(plan.ok)
        .withContext(profile.family)
        .toBe(knows === true);
      const turning = { ...job, scheme: { ...job.scheme, minHz: 5 } };
      expect(planJob(turning, profile).ok).withContext(profile.family).toBeTrue();
      expect(deadlocks(adopted(turning, profile), profile)).toBeFalse();
    }
    expect([planned, refused].every((n) => n > 0)).toBeTrue();
  });

  it('of which nobody knows is simulated, and told where each waits for the other', () => {
    for (const profile of drives.map(silent)) {
      const job = bareJob(wishes, profile, profile.models[0].name);
      expect(deadlocks(adopted(job, profile), profile))
        .withContext(profile.family)
        .toBeTrue();
      const turning = { ...job, scheme: { ...job.scheme, minHz: 5 } };
      expect(deadlocks(adopted(turning, profile), profile)).toBeFalse();
      // Without a wait for the contact the speed comes all the same.
      const plain = { ...job, scheme: { ...job.scheme, handshake: false } };
      expect(deadlocks(adopted(plain, profile), profile)).toBeFalse();
    }
  });
});
