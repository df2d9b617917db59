import {
  holdOf,
  instrumentFor,
  isolationStates,
  passedOver,
  punchList,
  readingTold,
  signingOf,
  temporaryRegister,
  TURNED_WHY,
  type Instrument,
} from '../job/index.js';
import { formatNumber } from '../units/index.js';
import type { SaidStep } from '../said/index.js';
import { temporaryNames } from './temporary-names.js';
import { readingText } from './reading-text.js';
import { punchNames } from './punch-names.js';
import { cell, row, stamp, type RecordInput, type RecordSection } from './cells.js';

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

/** With what was measured, how often, and what is known of it. */
function instruments(evidence: RecordInput['evidence']): RecordSection {
  const used = new Map<
    string,
    { readonly of: Partial<Instrument>; count: number; late: boolean }
  >();
  for (const { body, atClient } of evidence.filter((e) => e.kind === 'reading')) {
    if (!instrumentFor(body.step.instrument)) continue;
    const of: Partial<Instrument> =
      ('version' in body ? body.instrument : undefined) ??
      (readingTold(body).instrument ? { name: readingTold(body).instrument } : {});
    const key = of.name ? JSON.stringify(of) : (body.step.instrument ?? '');
    const known = used.get(key) ?? { of, count: 0, late: false };
    const late = of.calibratedUntil !== undefined && of.calibratedUntil < atClient.slice(0, 10);
    used.set(key, { of, count: known.count + 1, late: known.late || late });
  }
  return {
    id: 'instruments',
    title: 'Instruments',
    heads: ['instrument', 'number', 'category', 'calibrated until', 'readings'],
    widths: ['*', 'auto', 'auto', 'auto', 'auto'],
    rows: [...used].map(([key, { of, count, late }]) => [
      cell(of.name ?? `${key}, not named`, of.trueRms ? 'true RMS' : ''),
      cell(of.serial),
      cell(of.category),
      late
        ? { text: `${of.calibratedUntil ?? ''}: ended before it was used`, mark: 'stale' }
        : cell(of.calibratedUntil),
      cell(count),
    ]),
  };
}

/** Sequence of phases and ways of turning: what was wanted, what was seen, how it was put right. */
function rotation({ derived, job, decimal }: RecordInput): RecordSection {
  const seen = derived.steps
    .filter(
      ({ step }) =>
        step.key === 'supply.rotation' || step.requirement?.id.startsWith('direction.') === true,
    )
    .flatMap((s) =>
      [...s.earlier, ...s.beside, ...(s.reading ? [s.reading] : [])].map((reading) => ({
        s,
        reading,
      })),
    )
    .sort((x, y) => x.reading.atClient.localeCompare(y.reading.atClient));
  const turned = Object.entries(job.decisions.wires)
    .filter(([, d]) => d.why === TURNED_WHY)
    .map(([id]) => job.adopted?.wires[id]?.number ?? id);
  return {
    id: 'rotation',
    title: 'Ways of turning, as seen',
    heads: ['where', 'wanted', 'seen', 'verdict', 'by, when'],
    widths: ['*', '*', 'auto', 'auto', 'auto'],
    rows: [
      ...seen.map(({ s, reading }) => [
        cell(s.title || s.do),
        cell(s.must),
        cell(readingText(reading.body, s, decimal)),
        { text: reading.body.verdict, mark: reading.body.verdict },
        cell(reading.author.name, stamp(reading.atClient)),
      ]),
      ...(turned.length > 0
        ? [row('Put right', `Wires ${turned.join(' and ')} exchanged, in the plan too`, '', '', '')]
        : []),
    ],
  };
}

/** Each loop sheet with what was wanted and read, and how it was judged. */
function loopSheets({ derived: { loop }, decimal }: RecordInput): RecordSection[] {
  const number = (x: number | undefined, digits: number): string =>
    x === undefined ? '' : formatNumber(x, digits, decimal);
  return (loop?.sheets ?? []).map((sheet, i, all) => ({
    id: `loop${i + 1}`,
    title: `Loop sheet of ${loop?.source ?? ''}${all.length > 1 ? `, ${i + 1} of ${all.length}` : ''}`,
    intro: [
      `${sheet.author}, ${stamp(sheet.at)}: ${sheet.verdict}.`,
      sheet.errorPct === undefined
        ? ''
        : `Worst error ${number(sheet.errorPct, 2)} %, up against down ${number(sheet.hysteresisPct, 2)} %${sheet.sourcePct === undefined ? '' : `, the source itself ${number(sheet.sourcePct, 2)} %`} of the span.`,
      ...sheet.remedies,
    ]
      .filter(Boolean)
      .join(' '),
    heads: ['asked, %', `${loop?.unit ?? ''} read`, 'Hz read', 'rpm'],
    mono: [0, 1, 2, 3],
    widths: ['auto', 'auto', 'auto', 'auto'],
    rows: sheet.points.map((p) =>
      row(number(p.askedPct, 0), number(p.signal, 2), number(p.reads, 2), number(p.rpm, 0)),
    ),
  }));
}

/** Hold points that somebody has passed over. */
const holdsPassedOver = ({ evidence, derived }: RecordInput): RecordSection => ({
  id: 'holds',
  title: 'Hold points passed over',
  heads: ['what came after', 'because', 'by, when'],
  widths: ['auto', '*', 'auto'],
  rows: [...passedOver(evidence).values()].map(({ body, author, atClient }) => [
    cell(
      [...derived.dead, ...derived.steps].find(({ step }) => holdOf(step) === body.hold)?.section ??
        body.hold,
    ),
    cell(body.reason),
    cell(author.name, stamp(atClient)),
  ]),
});

/** What was declared, what was in for tests, and with what was measured. */
export function registers(input: RecordInput): RecordSection[] {
  const { evidence } = input;
  const declared = evidence.flatMap((e) => (e.kind === 'isolation' ? [e] : []));
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
    holdsPassedOver(input),
    rotation(input),
    ...loopSheets(input),
    instruments(evidence),
  ];
}

/** What this record cannot say, as plainly as what it says. */
export function notShown({ job, derived, evidence }: RecordInput): RecordSection {
  const count = (n: number, one: string, many: string): string => (n === 1 ? one : `${n} ${many}`);
  const open = (steps: readonly SaidStep[]): number =>
    steps.filter((s) => s.state === 'open').length;
  const dead = open(derived.dead);
  const live = open(derived.steps);
  const unread = derived.rows.filter((r) => r.left === undefined).length;
  const undecided = derived.requirements.filter((r) => r.state === 'undecided').length;
  const simulated = derived.requirements.filter((r) => r.simulatedOnly).length;
  const texts = [
    job.adopted
      ? ''
      : 'No plan is adopted: there is no wiring, no required function, no dead check and no live test in this record.',
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
