import {
  isolationStates,
  punchList,
  readingTold,
  signingOf,
  temporaryRegister,
} from '@tactron/core/job';
import type { SaidStep } from '../compute/compute.types';
import { temporaryNames } from '../frame/temporary-names';
import { punchNames } from './punch-names';
import { cell, row, stamp, type RecordInput, type RecordSection } from './record-cells';

/** Findings that are open, and those accepted by name. */
export function findings({ derived }: RecordInput): RecordSection[] {
  const open = derived.findings.filter((f) => !f.accepted);
  const accepted = derived.findings.filter((f) => f.accepted);
  return [
    {
      id: 'findingsOpen',
      title: 'Findings still open',
      widths: ['auto', '*'],
      rows: open.map((f) => row(f.mark, `${f.what} ${f.remedy}`)),
    },
    {
      id: 'findingsAccepted',
      title: 'Findings accepted',
      heads: ['finding', 'accepted by', 'because'],
      widths: ['*', 'auto', '*'],
      rows: accepted.map((f) => [
        cell(f.what),
        cell(f.accepted?.author.name, stamp(f.accepted?.atClient)),
        cell(f.accepted?.body.reason),
      ]),
    },
  ];
}

/** What was declared, what was in for tests, and with what was measured. */
export function registers({ evidence }: RecordInput): RecordSection[] {
  const declared = evidence.flatMap((e) => (e.kind === 'isolation' ? [e] : []));
  const used = new Map<string, number>();
  for (const e of evidence)
    if (e.kind === 'reading' && e.body.step.instrument) {
      const { instrument } = readingTold(e.body);
      const name = instrument || `${e.body.step.instrument}, not named`;
      used.set(name, (used.get(name) ?? 0) + 1);
    }
  return [
    {
      id: 'isolation',
      title: 'States of isolation, as declared',
      heads: ['state', 'by, when', 'until', 'sources and locks'],
      widths: ['auto', 'auto', 'auto', '*'],
      rows: declared.map(({ body, author, atClient }) => [
        cell(isolationStates.find((s) => s === body.state)),
        cell(
          author.name,
          `${stamp(atClient)}${body.holder ? `, keys held by ${body.holder}` : ''}`,
        ),
        cell(stamp(body.until)),
        cell(
          (body.sources ?? [])
            .map(({ name, lock }) => `${name}${lock ? ` (lock ${lock})` : ''}`)
            .join(', '),
          body.permit ? `permit ${body.permit}` : '',
        ),
      ]),
    },
    {
      id: 'temporary',
      title: 'In for tests, and taken out again',
      heads: ['what', 'what for', 'in', 'out'],
      widths: ['auto', '*', 'auto', 'auto'],
      rows: temporaryRegister(evidence).map((t) => [
        cell(`${temporaryNames[t.kind]}${t.where ? ` at ${t.where}` : ''}`),
        cell(t.what),
        cell(t.put.author.name, stamp(t.put.atClient)),
        t.removed
          ? cell(t.removed.author.name, stamp(t.removed.atClient))
          : { text: 'still in', mark: 'fail' },
      ]),
    },
    {
      id: 'punch',
      title: 'Open points',
      heads: ['by when', 'what', 'whose, until', 'noted', 'closed'],
      widths: ['auto', '*', 'auto', 'auto', 'auto'],
      rows: punchList(evidence).map((p) => [
        cell(punchNames[p.category]),
        cell(p.text),
        cell(p.owner, p.due),
        cell(p.opened.author.name, stamp(p.opened.atClient)),
        p.closed
          ? cell(p.closed.author.name, stamp(p.closed.atClient))
          : { text: 'open', mark: p.category === 'later' ? 'open' : 'stale' },
      ]),
    },
    {
      id: 'instruments',
      title: 'Instruments',
      heads: ['instrument', 'readings'],
      widths: ['*', 'auto'],
      rows: [...used].map(([name, count]) => row(name, count)),
    },
  ];
}

/** What this record cannot say, as plainly as what it says. */
export function notShown({ derived, evidence }: RecordInput): RecordSection {
  const count = (n: number, one: string, many: string): string => (n === 1 ? one : `${n} ${many}`);
  const open = (steps: readonly SaidStep[]): number =>
    steps.filter((s) => s.state === 'open').length;
  const dead = open(derived.dead);
  const live = open(derived.steps);
  const unread = derived.rows.filter((r) => r.left === undefined).length;
  const undecided = derived.requirements.filter((r) => r.state === 'undecided').length;
  const simulated = derived.requirements.filter((r) => r.simulatedOnly).length;
  const texts = [
    dead ? count(dead, '1 dead check was not done.', 'dead checks were not done.') : '',
    live ? count(live, '1 live test was not done.', 'live tests were not done.') : '',
    unread ? `${count(unread, '1 setting was', 'settings were')} not read singly as left.` : '',
    undecided
      ? `${count(undecided, '1 required function is', 'required functions are')} undecided, because the profile does not know the device.`
      : '',
    simulated
      ? `${count(simulated, '1 required function was', 'required functions were')} shown by simulation only.`
      : '',
    derived.notDead.length
      ? `Not to be seen dead, because a relay closes the way: ${derived.notDead.join(', ')}.`
      : '',
    signingOf(evidence).frozen ? '' : 'Nobody has signed.',
  ];
  return {
    id: 'notShown',
    title: 'What was not tested, not read or not judged',
    widths: ['*'],
    empty: 'Nothing that is known of.',
    rows: texts.filter(Boolean).map((text) => row(text)),
  };
}
