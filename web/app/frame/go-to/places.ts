import { landingName, landingParts, type Job } from '@tactron/core/job';
import type { Derived } from '@tactron/core/said';
import { stageNames } from '../stage-names';
import { stageTitles } from '../trail';

/** Something that can be gone to: what it is, its words, and where it is. */
export interface Place {
  readonly kind: 'place' | 'stage' | 'part' | 'wire' | 'terminal' | 'setting' | 'finding' | 'job';
  readonly title: string;
  /** What else it is found by, and what is said beside it. */
  readonly detail: string;
  readonly path: readonly string[];
  readonly query?: Readonly<Record<string, string>>;
}

/** The pages that belong to no job. */
export const everywhere: readonly Place[] = [
  { kind: 'place', title: 'Jobs', detail: 'all sites and jobs', path: ['/jobs'] },
  { kind: 'place', title: 'Library', detail: 'devices and their profiles', path: ['/library'] },
  { kind: 'place', title: 'Sums', detail: 'calculations without a job', path: ['/sums'] },
  { kind: 'place', title: 'Settings', detail: 'name, theme, units, keys', path: ['/settings'] },
];

/** Everything of a job that can be gone to: stages, parts, wires, terminals, settings, findings. */
export function placesOf(id: string, job: Job | null, derived: Derived | null): Place[] {
  if (!job) return [...everywhere];
  const at = (stage: string): string[] => ['/jobs', id, stage];
  const stages = stageNames.map((name, i): Place => ({
    kind: 'stage',
    title: stageTitles[name],
    detail: `stage ${i + 1}`,
    path: at(name),
  }));
  const pages: Place[] = [
    { kind: 'place', title: 'History', detail: 'who, what, when', path: at('history') },
    { kind: 'place', title: 'Panel card', detail: 'terminals, to print', path: at('card') },
    { kind: 'place', title: 'Isolation card', detail: 'sources and locks', path: at('isolation') },
  ];
  return [
    ...stages,
    ...pages,
    ...everywhere,
    ...wired(job, derived, at('land')),
    ...(derived?.rows ?? []).map((row): Place => ({
      kind: 'setting',
      title: row.code,
      detail: row.name,
      path: at('key'),
    })),
    ...(derived?.findings ?? []).map((f): Place => ({
      kind: 'finding',
      title: f.what,
      detail: f.mark,
      path: at(f.finding.stage),
    })),
  ];
}

/** Parts, wires and terminals of the plan; all are found on Land, where the wire is chosen. */
function wired({ adopted }: Job, derived: Derived | null, path: string[]): Place[] {
  if (!adopted) return [];
  const name = (landing: string): string => landingName(adopted.devices, landing);
  const wires = Object.entries(adopted.wires);
  const landings = new Map<string, string>();
  for (const [id, w] of wires)
    for (const end of [w.from, w.to]) if (!landings.has(end)) landings.set(end, id);
  return [
    ...Object.entries(adopted.devices).map(([id, { tag }]): Place => {
      const wire = wires.find(([, w]) => [w.from, w.to].some((e) => landingParts(e).device === id));
      return {
        kind: 'part',
        title: tag,
        detail: derived?.names[`device.${id}`] ?? '',
        path,
        ...(wire ? { query: { wire: wire[0] } } : {}),
      };
    }),
    ...wires.map(([id, w]): Place => ({
      kind: 'wire',
      title: `wire ${w.number}`,
      detail: `${name(w.from)} → ${name(w.to)}, ${derived?.names[`wire.${id}`] ?? w.function}`,
      path,
      query: { wire: id },
    })),
    ...[...landings].map(([landing, wire]): Place => ({
      kind: 'terminal',
      title: name(landing),
      detail: `wire ${adopted.wires[wire].number}`,
      path,
      query: { wire },
    })),
  ];
}

const MOST = 12;
const plain = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .toLowerCase()
    .trim();

/**
 * Places that hold every word typed, those first whose title is it or begins with it.
 *
 * @example found(places, 't1 d1')[0].title // 'T1:D1'
 */
export function found(places: readonly Place[], typed: string): Place[] {
  const wanted = plain(typed);
  if (wanted === '') return places.filter((p) => p.kind === 'stage' || p.kind === 'place');
  const words = wanted.split(' ');
  return places
    .flatMap((place) => {
      const [title, all] = [plain(place.title), plain(`${place.title} ${place.detail}`)];
      if (!words.every((w) => all.includes(w))) return [];
      const rank =
        title === wanted ? 0 : title.startsWith(wanted) ? 1 : title.includes(wanted) ? 2 : 3;
      return [{ place, rank }];
    })
    .sort((x, y) => x.rank - y.rank)
    .slice(0, MOST)
    .map(({ place }) => place);
}
