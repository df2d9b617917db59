import { expose } from 'comlink';
import type { Profile } from '@tactron/core/catalogue';
import { stripOf } from '@tactron/core/compare';
import type { Job } from '@tactron/core/job';
import {
  saidNights,
  saidStrip,
  saidTerminals,
  type SaidNight,
  type SaidStrip,
  type SaidTerminal,
} from '@tactron/core/said';

/** The panel card: terminals of the device, and what the job does. */
export interface SaidPanel {
  readonly terminals: readonly SaidTerminal[];
  readonly strip: SaidStrip;
}

const worker = {
  /** What the card tells beside plan and settings; null without a plan. */
  panel(job: Job, profile: Profile): SaidPanel | null {
    if (!job.adopted) return null;
    return { terminals: saidTerminals(job, profile), strip: saidStrip(stripOf(job, profile)) };
  },

  /** The likeliest faults of the machine in use; none without a plan. */
  night: (job: Job, profile: Profile): SaidNight[] => saidNights(job, profile),
};

export type CardWorker = typeof worker;
expose(worker);
