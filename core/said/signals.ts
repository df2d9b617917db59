import type { Profile } from '../catalogue/index.js';
import { landingName, type Job } from '../job/index.js';
import { signalList } from '../records/index.js';
import { say } from '../words/index.js';
import type { SaidSignal } from './types.js';

const ways = {
  toDevice: 'to the panel',
  fromDevice: 'to the controller',
  supply: 'supply',
} as const;

/** Signals of an outside controller in words. */
export function saidSignals(job: Job, profile: Profile): SaidSignal[] {
  const name = (at: string): string => landingName(job.adopted?.devices, at);
  return signalList(job, profile).map((s) => ({
    part: job.adopted?.devices[s.part]?.tag ?? s.part,
    order: s.order,
    way: ways[s.way],
    does: say(s.does),
    kind: say(s.kind),
    closed: say(s.closed),
    open: say(s.open),
    unpowered: say(s.unpowered),
    ends: s.ends.map((e) => `${name(e.own)} – ${name(e.far)} (wire ${e.wire})`),
  }));
}
