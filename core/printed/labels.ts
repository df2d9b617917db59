import { landingName, readingTold, sortedEntries, type Job } from '../job/index.js';
import { formatNumber, type DecimalMark } from '../units/index.js';
import type { SaidStep } from '../said/index.js';

/** A label: what stands large on it, and what small below. */
export interface Label {
  readonly large: string;
  readonly small: string;
  /** What its code leads to; none where it has no code. */
  readonly code?: string;
}

/** One mark of a dial: where it stands, and what it gives. */
export interface DialMark {
  readonly pct: number;
  readonly text: string;
}

/** Kinds of labels that a job needs. */
export const labelKinds = ['wires', 'terminals', 'devices', 'panel', 'dial'] as const;
export type LabelKind = (typeof labelKinds)[number];

/** Usual sizes of labels, mm. */
export const labelSizes: readonly (readonly [number, number])[] = [
  [15, 6],
  [30, 9],
  [40, 12],
  [60, 17],
  [90, 60],
];

const inNumbers = (x: string, y: string): number => x.localeCompare(y, 'en', { numeric: true });

/** Both ends of every wire: its number as marked, and where the other end is. */
function wireLabels(job: Job): Label[] {
  const { adopted, asUsed: used = {} } = job;
  const name = (at: string): string => landingName(adopted?.devices, at);
  return sortedEntries(adopted?.wires ?? {})
    .sort(([, x], [, y]) => inNumbers(x.number, y.number))
    .flatMap(([id, w]) => {
      const large = used[id]?.number ?? w.number;
      return [
        { large, small: `to ${name(w.to)}` },
        { large, small: `to ${name(w.from)}` },
      ];
    });
}

/** Every landing of the device that something lies on. */
function terminalLabels(job: Job): Label[] {
  const { adopted } = job;
  const numbers = new Map<string, string[]>();
  for (const w of Object.values(adopted?.wires ?? {}))
    for (const end of [w.from, w.to]) {
      const at = landingName(adopted?.devices, end);
      numbers.set(at, [...(numbers.get(at) ?? []), w.number]);
    }
  return [...numbers]
    .sort(([x], [y]) => inNumbers(x, y))
    .map(([at, list]) => ({ large: at, small: [...new Set(list)].sort(inNumbers).join(' ') }));
}

/** Tag and name of every part, the job's code on each. */
const deviceLabels = (job: Job, names: (id: string) => string, code: string): Label[] =>
  sortedEntries(job.adopted?.devices ?? {})
    .map(([id, d]) => ({ large: d.tag, small: names(id), code }))
    .sort((x, y) => inNumbers(x.large, y.large));

/**
 * The labels of a kind.
 *
 * @param names what a part is, by its id
 * @param code what the codes lead to: job and revision
 * @example labelsOf('wires', job, names, code).length // two a wire
 */
export function labelsOf(
  kind: LabelKind,
  job: Job,
  names: (id: string) => string,
  code: string,
): Label[] {
  switch (kind) {
    case 'wires':
      return wireLabels(job);
    case 'terminals':
      return terminalLabels(job);
    case 'devices':
      return deviceLabels(job, names, code);
    case 'panel':
      return [{ large: job.tag, small: job.machine, code }];
    case 'dial':
      return [];
  }
}

/** Every label of every kind as a table, for a printer of labels: in the order of the sheets. */
export function labelTable(
  job: Job,
  names: (id: string) => string,
): { readonly heads: readonly string[]; readonly rows: readonly (readonly string[])[] } {
  const rows = labelKinds.flatMap((kind) =>
    labelsOf(kind, job, names, '').map(({ large, small }) => [kind, large, small]),
  );
  return { heads: ['kind', 'large', 'small'], rows };
}

/** What a dial gives at its places: as read where that was read, else as it is expected. */
export function dialMarks(steps: readonly SaidStep[], decimal: DecimalMark): DialMark[] {
  return steps.flatMap(({ step, reading, state }): DialMark[] => {
    const pct = /^dial\.(\d+)\.hz$/u.exec(step.key)?.[1];
    if (pct === undefined || step.expect?.kind !== 'range') return [];
    const read =
      reading && state === 'pass' ? readingTold(reading.body).values[0]?.value : undefined;
    const hz = typeof read === 'number' ? read : step.expect.nominal;
    return [{ pct: Number(pct), text: formatNumber(hz, 1, decimal) }];
  });
}
