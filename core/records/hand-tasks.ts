import { protectiveTerminals, type Profile } from '../catalogue/index.js';
import {
  handLine,
  landingName,
  landingParts,
  lineOf,
  sortedEntries,
  standing,
  type Adopted,
  type AdoptedWire,
  type Evidence,
  type EvidenceOf,
  type Job,
  type Phrase,
} from '../job/index.js';
import { linkLines } from '../plan/index.js';
import { actuatorBlocks, endFacts } from './hand-facts.js';

/** Parts of the work of hands, in the order in which it is done. */
export const handGroups = [
  'mount',
  'protective',
  'power',
  'control',
  'screens',
  'jumpers',
  'links',
  'dials',
  'labels',
] as const;
export type HandGroup = (typeof handGroups)[number];

/** One thing that hands do: a wire to land, or what is fitted, set, clamped or labelled. */
export interface HandTask {
  /** A wire's own id; with its sort before a colon otherwise. */
  readonly id: string;
  /** The line as a tick names it. */
  readonly line: string;
  readonly group: HandGroup;
  /** Part at which a person stands to do it; empty where it is all over the panel. */
  readonly at: string;
  readonly cable: string;
  /** What is done, where it is no wire. */
  readonly does: Phrase | undefined;
  readonly landed: EvidenceOf<'handTick'> | undefined;
  /** It was done, and is planned otherwise since. */
  readonly stale: boolean;
  /** Torques that the maker asks for at its ends, Nm; none where none is known. */
  readonly torqueNm: readonly number[];
  readonly torqued: EvidenceOf<'handTick'> | undefined;
}

type Planned = Omit<HandTask, 'landed' | 'stale' | 'torqued'>;

const inNumbers = (x: string, y: string): number => x.localeCompare(y, 'en', { numeric: true });

const bare = { cable: '', torqueNm: [] as readonly number[] };

/**
 * Everything that hands do on a job, in order: fit, protective conductors, power, control, screens, jumpers, links and
 * slide switches, dials, labels; each with the tick that stands for it.
 *
 * @returns nothing without an adopted plan
 * @example handTasks(job, profile, []).filter((t) => t.group === 'links').map((t) => t.id) // ['link:CL']
 */
export function handTasks(job: Job, profile: Profile, evidence: readonly Evidence[]): HandTask[] {
  const { adopted } = job;
  if (!adopted) return [];
  const landed = standing(evidence, 'landed');
  const torqued = standing(evidence, 'torque');
  const all = [
    ...mounts(job, adopted),
    ...wireTasks(job, adopted, profile),
    ...screens(job, adopted, profile),
    ...links(job, adopted, profile),
    ...dials(adopted, profile),
    ...labels(adopted),
  ];
  return handGroups.flatMap((group) =>
    all
      .filter((t) => t.group === group)
      .map((t) => ({
        ...t,
        landed: landed.of(t.line),
        stale: landed.stale(t.line),
        torqued: torqued.of(t.line),
      })),
  );
}

/** A thing to do that is no wire: its line rests on all that is said of it. */
function task(
  id: string,
  group: HandGroup,
  does: Phrase,
  more: { readonly at?: string; readonly cable?: string } = {},
): Planned {
  return { ...bare, at: '', ...more, id, group, does, line: lineOf(id, [does]) };
}

/** Parts to fit, each with its contact blocks; the links of the motor. Supplies are there already. */
function mounts({ plate }: Job, adopted: Adopted): Planned[] {
  const blocks = new Map(actuatorBlocks(adopted).map((b) => [b.id, b.blocks]));
  return sortedEntries(adopted.devices)
    .filter(([, { kind }]) => !kind.startsWith('supply') || kind === 'supply24')
    .sort(([, x], [, y]) => inNumbers(x.tag, y.tag))
    .map(([at, { tag, kind }]) => {
      if (kind === 'motor')
        return task(
          `mount:${at}`,
          'mount',
          {
            code: plate.motor.link ? 'hand.motorLinks' : 'hand.motor',
            args: { tag, ...(plate.motor.link ? { link: plate.motor.link } : {}) },
          },
          { at },
        );
      const fitted = (blocks.get(at) ?? [])
        .map(({ a, b, makes }) => `${a}–${b} ${makes ? 'make' : 'break'}`)
        .join(', ');
      return task(
        `mount:${at}`,
        'mount',
        { code: 'hand.mount', args: { tag, kind, blocks: fitted } },
        { at },
      );
    });
}

/** Group of a wire: both ends at one part make a jumper. */
function groupOf({ class: of, from, to }: AdoptedWire): HandGroup {
  if (of === 'pe') return 'protective';
  if (of === 'screen') return 'screens';
  if (of === 'mains' || of === 'neutral' || of === 'motor') return 'power';
  return landingParts(from).device === landingParts(to).device ? 'jumpers' : 'control';
}

/** The part at which a person stands to land a wire: not the device, where it has another end. */
function standsAt({ device }: Adopted, { from, to }: AdoptedWire): string {
  const ends = [to, from].map((end) => landingParts(end).device);
  return ends.find((id) => id !== device) ?? ends[0];
}

function wireTasks(job: Job, adopted: Adopted, profile: Profile): Planned[] {
  return sortedEntries(adopted.wires)
    .sort(([, x], [, y]) => inNumbers(x.number, y.number))
    .map(([id, wire]) => ({
      id,
      line: handLine(id, job),
      group: groupOf(wire),
      at: standsAt(adopted, wire),
      cable: wire.cable ?? '',
      does: undefined,
      torqueNm: endFacts(adopted, profile, id).flatMap(({ torqueNm }) => torqueNm ?? []),
    }));
}

/** Screens: that of the motor cable round at both ends where it has one, that of a signal at the device only. */
function screens({ plate }: Job, adopted: Adopted, profile: Profile): Planned[] {
  const tag = (id: string): string => adopted.devices[id]?.tag ?? id;
  const ends = new Map<string, { cls: AdoptedWire['class']; at: Set<string> }>();
  for (const { cable, class: cls, from, to } of Object.values(adopted.wires)) {
    if (cable === undefined || (cls !== 'motor' && cls !== 'analogue')) continue;
    const known = ends.get(cable) ?? { cls, at: new Set<string>() };
    for (const end of [from, to]) known.at.add(landingParts(end).device);
    ends.set(cable, known);
  }
  // Beside its return, at the common of the signals; where the cable has none, at the protective terminal.
  const common = (cable: string): string => {
    const own = Object.values(adopted.wires)
      .filter((w) => w.cable === cable)
      .flatMap((w) => [w.from, w.to])
      .filter((end) => landingParts(end).device === adopted.device);
    const at =
      own.find((end) => profile.terminals[landingParts(end).terminal]?.kind === 'analogueCommon') ??
      own.find((end) => profile.terminals[landingParts(end).terminal]?.kind === 'zeroVolt');
    return at ?? `${adopted.device}:${protectiveTerminals(profile)[0]}`;
  };
  return [...ends]
    .filter(([, { cls }]) => cls === 'analogue' || plate.cable.screened === true)
    .sort(([x], [y]) => inNumbers(x, y))
    .map(([cable, { cls, at }]) =>
      task(
        `screen:${cable}`,
        'screens',
        cls === 'motor'
          ? { code: 'hand.screenBoth', args: { cable, ends: [...at].map(tag).join(' and ') } }
          : {
              code: 'hand.screenOne',
              args: { cable, end: landingName(adopted.devices, common(cable)) },
            },
        { at: cls === 'motor' ? '' : adopted.device, cable },
      ),
    );
}

function links(job: Job, { device }: Adopted, profile: Profile): Planned[] {
  return linkLines(job, profile).map(({ id, name, stands, factory }) =>
    task(
      `link:${id}`,
      'links',
      { code: 'hand.link', args: { id, name, stands, factory } },
      { at: device },
    ),
  );
}

/** Dials and switches that are turned by hand: they are settings, and are found and left in Key. */
function dials({ device, settings }: Adopted, profile: Profile): Planned[] {
  return Object.keys(profile.settings)
    .filter((code) => ['dial', 'switch'].includes(profile.settings[code].type))
    .flatMap((code) => {
      const planned = settings[code];
      if (!planned) return [];
      const { name, unit, choices } = profile.settings[code];
      const value = choices?.[String(planned.value)] ?? String(planned.value);
      return [
        task(
          `dial:${code}`,
          'dials',
          { code: 'hand.dial', args: { code, name, value, unit: unit ?? '' } },
          { at: device },
        ),
      ];
    });
}

/** Tags of parts, markers of wires, both ends of every cable. */
function labels(adopted: Adopted): Planned[] {
  const tags = Object.values(adopted.devices)
    .map((d) => d.tag)
    .sort(inNumbers);
  const numbers = [...new Set(Object.values(adopted.wires).map((w) => w.number))].sort(inNumbers);
  const cables = [...new Set(Object.values(adopted.wires).flatMap((w) => w.cable ?? []))];
  return [
    task('label:parts', 'labels', { code: 'hand.labelParts', args: { tags: tags.join(' ') } }),
    task('label:wires', 'labels', {
      code: 'hand.labelWires',
      args: { count: numbers.length, first: numbers[0] ?? '', last: numbers.at(-1) ?? '' },
    }),
    ...cables
      .sort(inNumbers)
      .map((cable) =>
        task(`label:${cable}`, 'labels', { code: 'hand.labelCable', args: { cable } }, { cable }),
      ),
  ];
}
