import type { Profile } from '../catalogue/index.js';
import { nightCard, type NightFault } from '../hazards/index.js';
import { landingName, type Job } from '../job/index.js';
import { sayFaults, sayMark, sayName } from '../words/index.js';
import { saidTerminals, type SaidTerminal } from './terminals.js';
import type { SaidNight } from './types.js';

/** What is behind one row of the night card, in words. */
function saidNight(fault: NightFault, job: Job, terminals: readonly SaidTerminal[]): SaidNight {
  const tag = job.adopted?.devices[fault.part ?? '']?.tag;
  const said = fault.faults.map((f) => sayFaults([f], job));
  // What is of one sort is looked at in one go: every end that may be loose, not those of the first wire alone.
  const alike = fault.faults.filter((f) => f.kind === fault.faults[0].kind);
  const after = fault.shows ? `, at “${sayMark(fault.shows)}”` : '';
  // A terminal of the device that one of the wires ends on has volts that can be compared.
  const ends = fault.faults.flatMap((f) => {
    const wire = f.kind === 'open' ? job.adopted?.wires[f.wire] : undefined;
    return wire ? [wire.from, wire.to].map((at) => landingName(job.adopted?.devices, at)) : [];
  });
  const at = terminals.find((t) => ends.includes(t.terminal) && t.expects.length > 1);
  const volts = at
    ? ` ${at.terminal} against ${at.against}: ${at.expects.map((e) => `${e.when} ${e.volts} V`).join(', ')}.`
    : '';
  return {
    noticed: `${upper(sayName(fault.is))}${after}`,
    likely: `${tag ? `${tag}: ` : ''}${[...new Set(said.map((s) => s.what))].join(' ')}`,
    look: `${sayFaults(alike, job).act}${volts}`,
  };
}

const upper = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

/**
 * The likeliest faults of the machine in use, as they look and where to look; none without a plan.
 *
 * @example saidNights(job, profile)[0]?.noticed // 'Does not start, at “S3 pressed”'
 */
export function saidNights(job: Job, profile: Profile): SaidNight[] {
  if (!job.adopted) return [];
  const terminals = saidTerminals(job, profile);
  return nightCard(job, profile).map((fault) => saidNight(fault, job, terminals));
}
