import type { Profile } from '../catalogue/index.js';
import { checkJob, requirementsHeld } from '../hazards/index.js';
import { install } from '../installation/index.js';
import type { Job } from '../job/index.js';
import { arrangeFor, linkLines, planJob } from '../plan/index.js';
import { liveSteps } from '../procedure/index.js';
import { rehearse } from '../rehearsal/index.js';
import { powerUp, startActs } from '../scheme/index.js';
import { say, sayFinding } from '../words/index.js';
import { recordFiles } from './record-files.js';

/**
 * Everything that is reckoned for a job, one after the other: whatever an import accepts must come through, with findings for
 * what is wrong with it.
 *
 * @returns how many findings and steps it has
 * @throws whatever the core throws: a defect
 */
export function reckonAll(job: Job, profile: Profile): { findings: number; steps: number } {
  planJob(job, profile);
  const findings = checkJob(job, profile);
  for (const f of findings) sayFinding(f);
  const steps = liveSteps(job, profile);
  for (const s of steps) say(s.do);
  requirementsHeld(job, profile);
  recordFiles(job, profile);
  linkLines(job, profile);
  if (job.adopted) {
    const arrangement = arrangeFor(job, profile);
    rehearse(
      install(job, profile),
      [...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', 3000)],
      6000,
    );
  }
  return { findings: findings.length, steps: steps.length };
}
