import type { Profile } from '@tactron/core/catalogue';
import { landingParts, sizeText, type Evidence, type Job } from '@tactron/core/job';
import {
  actuatorBlocks,
  cableCores,
  endFacts,
  freeTerminals,
  handList,
} from '@tactron/core/records';
import type { Derived } from '../compute.types';

/** Every wire with who landed it, and what hands need for it, in words. */
export function handOf(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
): Pick<Derived, 'hand' | 'toFit'> {
  const { adopted } = job;
  return {
    hand: handList(job, evidence).map(({ id, cable, landed, stale }) => ({
      id,
      cable,
      landed: landed ? `${landed.author.name}, ${landed.atClient}` : '',
      stale,
      fit: fitText(job, profile, id),
    })),
    toFit: adopted
      ? {
          blocks: actuatorBlocks(adopted).map(({ tag, blocks }) => ({
            tag,
            text: blocks.map(blockText).join('; '),
          })),
          cables: cableCores(adopted).map(({ cable, used, usual }) => ({
            cable,
            text: `${used} ${used === 1 ? 'core' : 'cores'} used; a cable of ${usual} leaves ${usual - used} spare`,
          })),
          free: freeTerminals(adopted, profile),
        }
      : { blocks: [], cables: [], free: [] },
  };
}

/** Ferrule, strip length and torque. */
function fitText({ adopted }: Job, profile: Profile, id: string): string {
  const wire = adopted?.wires[id];
  if (!adopted || !wire) return '';
  const ends = endFacts(adopted, profile, id).map(({ landing, stripMm, torqueNm }) => {
    const { device, terminal } = landingParts(landing);
    const facts = [
      stripMm === undefined ? '' : `strip ${stripMm} mm`,
      torqueNm === undefined ? '' : `${torqueNm} Nm`,
    ].filter(Boolean);
    return `${adopted.devices[device]?.tag ?? device}:${terminal} ${facts.join(', ')}`;
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
