import type { Profile } from '../catalogue/index.js';
import { csv } from '../formats/index.js';
import type { Job } from '../job/index.js';
import { partsList, toolsList } from '../plan/index.js';
import { say } from '../words/index.js';
import type { PartsAndTools } from './types.js';

/** Parts and tools of a job in words, and both as CSV. */
export function saidParts(job: Job, profile: Profile): PartsAndTools {
  const parts = partsList(job, profile).map((p) => ({
    what: say(p.what),
    tag: p.tag,
    quantity: `${p.quantity}${p.unit ? ` ${p.unit}` : ''}`,
  }));
  const tools = toolsList(job, profile).map((t) => ({ what: say(t.what), why: say(t.why) }));
  const rows = [
    ...parts.map((p) => ['part', p.what, p.tag, p.quantity]),
    ...tools.map((t) => ['tool', t.what, '', t.why]),
  ];
  return { parts, tools, csv: csv({ heads: ['kind', 'what', 'tag', 'quantity or use'], rows }) };
}
