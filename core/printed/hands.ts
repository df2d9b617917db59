import { standing, type EvidenceOf } from '../job/index.js';
import type { HandLine } from '../said/index.js';
import { cell, stamp, type RecordInput, type RecordSection } from './cells.js';

type Tick = EvidenceOf<'handTick'>;

/** Who ticked, each with the last time, in the order in which they came. */
function byWhom(ticks: readonly Tick[]): string {
  const last = new Map<string, string>();
  for (const { author, atClient } of ticks)
    if ((last.get(author.name) ?? '') < atClient) last.set(author.name, atClient);
  return [...last].map(([name, at]) => `${name}, ${stamp(at)}`).join('; ');
}

/** Lines that are still to do: wires by their numbers, anything else by what it says. */
function openText(lines: readonly HandLine[], { job }: RecordInput): string {
  const wires = lines
    .flatMap((l) => (l.isWire ? (job.adopted?.wires[l.id]?.number ?? l.id) : []))
    .sort((x, y) => x.localeCompare(y, 'en', { numeric: true }));
  const others = lines.flatMap((l) => (l.isWire ? [] : [l.text]));
  return [wires.length > 0 ? `wires ${wires.join(' ')}` : '', ...others].filter(Boolean).join('; ');
}

/**
 * What was ticked as done by hand, part by part of the work, with who and when; what was not is named.
 *
 * @returns no rows where nobody ticked anything: then nothing is said of it
 */
export function handWork(input: RecordInput): RecordSection {
  const { derived, evidence } = input;
  const [landed, torqued] = [standing(evidence, 'landed'), standing(evidence, 'torque')];
  const groups = new Map<string, HandLine[]>();
  for (const line of derived.hand)
    groups.set(line.title, [...(groups.get(line.title) ?? []), line]);
  const ticksOf = (lines: readonly HandLine[], of: typeof landed): Tick[] =>
    lines.flatMap((l) => of.of(l.line) ?? []);
  const any = derived.hand.some((l) => landed.of(l.line) ?? torqued.of(l.line));
  return {
    id: 'hands',
    title: 'Done by hand',
    heads: ['part of the work', 'done', 'not ticked', 'tightened to torque'],
    widths: ['auto', '*', '*', 'auto'],
    rows: any
      ? [...groups].map(([title, lines]) => {
          const done = ticksOf(lines, landed);
          const tight = ticksOf(lines, torqued);
          const open = lines.filter((l) => !landed.of(l.line));
          return [
            cell(title),
            cell(`${done.length} of ${lines.length}`, byWhom(done)),
            cell(openText(open, input)),
            cell(tight.length > 0 ? `${tight.length} of ${lines.length}` : '', byWhom(tight)),
          ];
        })
      : [],
  };
}
