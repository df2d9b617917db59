import type { Profile } from '../catalogue/index.js';
import { partFaults } from '../faults/index.js';
import { asPlanned } from '../installation/index.js';
import { landingName, sizeText, type Job } from '../job/index.js';
import {
  actuatorBlocks,
  cableCores,
  endFacts,
  freeTerminals,
  handTasks,
} from '../records/index.js';
import { handGroupNames, handWords, sayFaults } from '../words/index.js';
import type { Derived } from './types.js';

/** Everything that hands do, and what they need for it, in words. */
export function handOf(job: Job, profile: Profile): Pick<Derived, 'hand' | 'toFit'> {
  const { adopted } = job;
  const words = handWords(job, profile);
  const tag = (id: string): string => adopted?.devices[id]?.tag ?? id;
  return {
    hand: handTasks(job, profile, []).map((t) => ({
      id: t.id,
      line: t.line,
      group: t.group,
      title: handGroupNames[t.group],
      isWire: t.does === undefined,
      at: tag(t.at),
      cable: t.cable,
      text: t.does ? words.does(t.does) : adopted ? words.wire(adopted.wires[t.id]) : '',
      torque: t.torqueNm.length > 0 ? `${[...new Set(t.torqueNm)].join(' / ')} Nm` : '',
      fit: t.does ? '' : fitText(job, profile, t.id),
    })),
    toFit: adopted
      ? {
          blocks: actuatorBlocks(adopted).map(({ tag, blocks }) => ({
            tag,
            text: blocks.map(blockText).join('; '),
            contacts: blocks.map(({ a, b, makes }) => ({ a, b, makes })),
          })),
          cables: cableCores(adopted).map(({ cable, used, usual }) => ({
            cable,
            text: `${used} ${used === 1 ? 'core' : 'cores'} used; a cable of ${usual} leaves ${usual - used} spare`,
          })),
          free: freeTerminals(adopted, profile),
          fails: partFaults(profile, asPlanned(job, profile)).map((fault) => ({
            fault,
            text: sayFaults([fault], job).what,
          })),
        }
      : { blocks: [], cables: [], free: [], fails: [] },
  };
}

/** Ferrule, strip length and torque. */
function fitText({ adopted }: Job, profile: Profile, id: string): string {
  const wire = adopted?.wires[id];
  if (!adopted || !wire) return '';
  const ends = endFacts(adopted, profile, id).map(({ landing, stripMm, torqueNm }) => {
    const facts = [
      stripMm === undefined ? '' : `strip ${stripMm} mm`,
      torqueNm === undefined ? '' : `${torqueNm} Nm`,
    ].filter(Boolean);
    return `${landingName(adopted.devices, landing)} ${facts.join(', ')}`;
  });
  return [`ferrule ${sizeText(wire.size)}`, ...ends].join(' · ');
}

/** One contact block: its terminals, make or break, where it is closed. */
function blockText({
  a,
  b,
  makes,
  closedIn,
  wired,
}: ReturnType<typeof actuatorBlocks>[number]['blocks'][number]): string {
  const kind = makes ? 'make' : 'break';
  return `${a}–${b} ${kind}, closed ${closedIn.join(' and ')}${wired ? '' : ' (spare)'}`;
}
