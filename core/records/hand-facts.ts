import { presentTerminals, type Profile } from '../catalogue/index.js';
import { landingParts, sortedEntries, type Adopted } from '../job/index.js';
import { contactsOf } from '../parts/index.js';

/** What an end of a wire needs at a terminal of the device. */
export interface EndFacts {
  readonly landing: string;
  readonly stripMm: number | undefined;
  readonly torqueNm: number | undefined;
}

/** Strip length and torque at both ends of a wire, as far as the profile knows them: at the device's own terminals. */
export function endFacts(adopted: Adopted, profile: Profile, id: string): EndFacts[] {
  const { from, to } = adopted.wires[id];
  return [from, to].flatMap((landing): EndFacts[] => {
    const { device, terminal } = landingParts(landing);
    const spec = device === adopted.device ? profile.terminals[terminal] : undefined;
    if (spec?.stripMm === undefined && spec?.torqueNm === undefined) return [];
    return [{ landing, stripMm: spec.stripMm, torqueNm: spec.torqueNm }];
  });
}

/** Contact blocks to fit behind one actuator. */
export interface ActuatorBlocks {
  readonly id: string;
  readonly tag: string;
  readonly blocks: readonly {
    readonly a: string;
    readonly b: string;
    readonly makes: boolean;
    /** Positions in which it is closed. */
    readonly closedIn: readonly string[];
    readonly wired: boolean;
  }[];
}

/**
 * Per actuator that a hand works the contact blocks it needs: make or break, and in which position each is closed. Contacts
 * that its kind has and nothing is wired to are told as spare.
 *
 * @example actuatorBlocks(job.adopted).find((a) => a.tag === 'S1')?.blocks.length
 */
export function actuatorBlocks({ devices, wires }: Adopted): ActuatorBlocks[] {
  const landed = new Set(Object.values(wires).flatMap((w) => [w.from, w.to]));
  return sortedEntries(devices)
    .flatMap(([id, part]): ActuatorBlocks[] => {
      const set = contactsOf(part);
      if (set?.workedBy !== 'hand') return [];
      const blocks = set.contacts.map(({ a, b, closedIn }) => ({
        a,
        b,
        closedIn,
        makes: !closedIn.includes(set.rest),
        wired: landed.has(`${id}:${a}`) || landed.has(`${id}:${b}`),
      }));
      return [{ id, tag: part.tag, blocks }];
    })
    .sort((x, y) => x.tag.localeCompare(y.tag, 'en', { numeric: true }));
}

/** Cores of control cables as they are usually sold. */
const usual = [2, 3, 4, 5, 7, 10, 12, 14, 18, 25, 34, 50] as const;

/** Cores of one cable: how many are used, and how many a usual cable leaves. */
export interface CableCores {
  readonly cable: string;
  readonly used: number;
  readonly usual: number;
}

/** Per cable the cores in use, and the next usual number of cores. */
export function cableCores({ wires }: Adopted): CableCores[] {
  const used = new Map<string, number>();
  for (const { cable } of Object.values(wires))
    if (cable !== undefined) used.set(cable, (used.get(cable) ?? 0) + 1);
  return [...used]
    .map(([cable, n]) => ({ cable, used: n, usual: usual.find((u) => u >= n) ?? n }))
    .sort((x, y) => x.cable.localeCompare(y.cable, 'en', { numeric: true }));
}

/** Inputs and relays of the device that nothing is wired to. */
export function freeTerminals(adopted: Adopted, profile: Profile): string[] {
  const landed = new Set(Object.values(adopted.wires).flatMap((w) => [w.from, w.to]));
  const kinds: readonly string[] = ['digitalInput', 'acInput', 'analogueInput', 'analogueOutput'];
  return presentTerminals(profile).filter(
    (t) => kinds.includes(profile.terminals[t].kind) && !landed.has(`${adopted.device}:${t}`),
  );
}
