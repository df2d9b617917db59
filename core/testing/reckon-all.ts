import type { Profile } from '../catalogue/index.js';
import { checkJob, requirementsHeld } from '../hazards/index.js';
import { install } from '../installation/index.js';
import type { Finding, Job, ProcedureStep } from '../job/index.js';
import { arrangeFor, linkLines, planJob } from '../plan/index.js';
import { liveSteps } from '../procedure/index.js';
import { rehearse } from '../rehearsal/index.js';
import { powerUp, startActs } from '../scheme/index.js';
import { recordFiles } from '../formats/index.js';

/**
 * Everything that is reckoned for a job, one after the other: whatever an import accepts must come through, with findings for
 * what is wrong with it.
 *
 * @returns its findings and steps, to be said
 * @throws whatever the core throws: a defect
 */
export function reckonAll(
  job: Job,
  profile: Profile,
): { readonly findings: readonly Finding[]; readonly steps: readonly ProcedureStep[] } {
  planJob(job, profile);
  const findings = checkJob(job, profile);
  const steps = liveSteps(job, profile);
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
  return { findings, steps };
}
