import {
  isolationStates,
  punchList,
  readingTold,
  signingOf,
  sizeText,
  temporaryRegister,
  type Evidence,
  type EvidenceBody,
  type Job,
} from '@tactron/core/job';
import { formatQuantity, type DecimalMark, type Quantity } from '@tactron/core/units';
import type { Derived, SaidRequirement, SaidStep } from '../compute/compute.types';
import { moment } from '../frame/moment';
import { temporaryNames } from '../frame/temporary-names';
import { nominalText, rangeText, readingText } from '../stages/live/reading-text';
import { operatorRows } from './operator-card';
import { punchNames } from './punch-names';
import { wishRows } from './wish-rows';

/** A cell of the record; what stands below it small, and the mark of a verdict. */
export interface Cell {
  readonly text: string;
  readonly sub?: string;
  readonly mark?: 'pass' | 'fail' | 'stale' | 'open' | 'past';
}

/** A part of the record: a table, with what is said before it. */
export interface RecordSection {
  readonly id: string;
  readonly title: string;
  readonly intro?: string;
  /** Heads of the columns; without them the first column heads the rows. */
  readonly heads?: readonly string[];
  /** Columns of codes and numbers. */
  readonly mono?: readonly number[];
  /** How wide the columns are on paper: as their content, a share of what is left, or so many points. */
  readonly widths: readonly ('auto' | '*' | number)[];
  readonly rows: readonly (readonly Cell[])[];
  /** Said where there is no row. */
  readonly empty?: string;
}

/** What a record is made from. */
export interface RecordInput {
  readonly job: Job;
  /** Name of the device family. */
  readonly device: string;
  /** Name of the site; empty where it is not known here. */
  readonly site: string;
  readonly derived: Derived;
  readonly evidence: readonly Evidence[];
  readonly decimal: DecimalMark;
}

const cell = (text: string | number | undefined, sub?: string): Cell => ({
  text: String(text ?? ''),
  ...(sub ? { sub } : {}),
});
const row = (...texts: readonly (string | number | undefined)[]): Cell[] =>
  texts.map((text) => cell(text));

/** A moment as it stands in the record: to the minute, in universal time as it is kept. */
const stamp = (at: string | undefined): string => at?.slice(0, 16).replace('T', ' ') ?? '';

function plates({ job, device, site, decimal }: RecordInput): RecordSection {
  const { motor, supply, load, cable } = job.plate;
  const q = (value: Quantity | undefined): string => (value ? formatQuantity(value, decimal) : '');
  const both = (low: Quantity | undefined, high: Quantity | undefined): string =>
    [low, high].filter(Boolean).map(q).join(' / ');
  const told = (...parts: readonly (string | undefined)[]): string =>
    parts.filter(Boolean).join(', ') || 'not entered';
  const { deviceSerial: serial } = job.plate;
  return {
    id: 'plates',
    title: 'Plates',
    widths: ['auto', '*'],
    rows: [
      ...(site ? [row('Site', site)] : []),
      row(
        'Supply',
        told(supply.phases ? `${supply.phases}-phase` : '', q(supply.volts), q(supply.hz)),
      ),
      row('Device', told(`${device} ${job.profile.model}`, serial ? `serial ${serial}` : '')),
      row(
        'Motor',
        told(
          q(motor.power),
          both(motor.lowV, motor.highV),
          both(motor.lowA, motor.highA),
          q(motor.rpm),
          q(motor.hz),
        ),
      ),
      row('Links', told(motor.link)),
      row(
        'Cable',
        told(
          q(cable.length),
          cable.size ? sizeText(cable.size) : '',
          cable.screened ? 'screened' : '',
        ),
      ),
      row(
        'Load',
        told(
          load.name,
          load.torquePct === undefined ? '' : `${load.torquePct} % of rated torque`,
          load.kind,
        ),
      ),
    ],
  };
}

function wires({ job, derived }: RecordInput): RecordSection {
  const { adopted } = job;
  const name = (landing: string): string =>
    landing.replace(/^[^:]+/u, (id) => adopted?.devices[id]?.tag ?? id);
  return {
    id: 'wires',
    title: 'Wires',
    heads: ['wire', 'from', 'to', 'function', 'size', 'colour', 'cable · core'],
    mono: [0, 1, 2],
    widths: ['auto', 'auto', 'auto', '*', 'auto', 'auto', 'auto'],
    empty: 'No plan is adopted: nothing is wired to it yet.',
    rows: Object.entries(adopted?.wires ?? {})
      .sort(([, x], [, y]) => x.number.localeCompare(y.number, 'en', { numeric: true }))
      .map(([id, w]) =>
        row(
          w.number,
          name(w.from),
          name(w.to),
          derived.names[`wire.${id}`] ?? w.function,
          sizeText(w.size),
          w.colour,
          w.cable ? `${w.cable} · ${w.core}` : '',
        ),
      ),
  };
}

function settings({ derived }: RecordInput): RecordSection {
  const rows = derived.rows.filter(
    (r) =>
      r.planned !== r.factory ||
      (r.found !== undefined && r.found !== r.factory) ||
      r.state === 'differs',
  );
  return {
    id: 'settings',
    title: 'Settings that differ from the factory’s',
    heads: ['code', 'name', 'found', 'planned', 'left'],
    mono: [0],
    widths: ['auto', '*', 'auto', 'auto', 'auto'],
    rows: rows.map((r) =>
      row(
        r.code,
        r.name,
        r.foundText || (r.byReset ? 'by reset, not read singly' : 'not read'),
        r.plannedText,
        `${r.leftText || 'not recorded'}${r.state === 'differs' ? ' ≠ plan' : ''}`,
      ),
    ),
  };
}

/** What an answer was expected to be. */
function expected({ must, step: { expect } }: SaidStep, decimal: DecimalMark): string {
  return expect?.kind === 'range'
    ? `${nominalText(expect, decimal)} (${rangeText(expect, decimal)})`
    : must;
}

function results(
  { decimal }: RecordInput,
  id: string,
  title: string,
  steps: readonly SaidStep[],
): RecordSection {
  const told = (step: SaidStep, body: EvidenceBody<'reading'>): string =>
    readingText(body, step.choices, decimal);
  return {
    id,
    title,
    heads: ['test', 'expected', 'reading', 'verdict', 'by, when'],
    widths: ['*', 140, 62, 42, 66],
    rows: steps.map((s) => {
      const earlier = [...s.earlier, ...s.beside]
        .map(({ body }) => `${told(s, body)} (${body.verdict})`)
        .join(', ');
      const { reading } = s;
      const verdict =
        s.state === 'past'
          ? `${reading?.body.verdict ?? ''} then`
          : s.state === 'open'
            ? 'not done'
            : s.state;
      return [
        cell(s.do),
        cell(expected(s, decimal)),
        cell(
          reading ? told(s, reading.body) : '',
          [earlier ? `earlier: ${earlier}` : '', reading?.body.note ? `“${reading.body.note}”` : '']
            .filter(Boolean)
            .join('; '),
        ),
        { text: verdict, mark: s.state },
        cell(reading?.author.name, stamp(reading?.atClient)),
      ];
    }),
  };
}

/** What the live tests have shown of a required function: the worst answer of those that are asked for it. */
function atMachine(r: SaidRequirement, steps: readonly SaidStep[]): string {
  if (r.simulatedOnly) return 'shown by simulation only';
  const asked = steps.filter((s) => s.step.requirement?.id === r.id);
  if (asked.length === 0) return r.stated ? '' : 'not asked';
  const states = asked.map((s) => s.state);
  if (states.includes('fail')) return 'failed';
  if (states.every((x) => x === 'pass')) return 'pass';
  return states.includes('stale') ? 'stale' : 'not tested';
}

function requirements({ derived }: RecordInput): RecordSection {
  const simulated = (r: SaidRequirement): string => {
    const stated = r.stated
      ? `not required: ${r.stated.by}, ${r.stated.role}: “${r.stated.why}”; `
      : '';
    const state =
      r.state === 'met' ? 'met' : `${r.state === 'undecided' ? 'undecided' : 'not met'}: ${r.does}`;
    return `${stated}${state}`;
  };
  return {
    id: 'requirements',
    title: 'Required functions',
    heads: ['what the machine must do', 'as built, simulated', 'at the machine'],
    widths: ['*', 'auto', 'auto'],
    rows: derived.requirements.map((r) => row(r.text, simulated(r), atMachine(r, derived.steps))),
  };
}

function findings({ derived }: RecordInput): RecordSection[] {
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
function registers({ evidence }: RecordInput): RecordSection[] {
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
function notShown({ derived, evidence }: RecordInput): RecordSection {
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

/**
 * The parts of the record, from one source for the screen, for paper and for the PDF. A part without rows and without words
 * for that is left out.
 *
 * @example recordSections(input).find((s) => s.id === 'wires')?.rows.length
 */
export function recordSections(input: RecordInput): RecordSection[] {
  const { derived, job } = input;
  const all: RecordSection[] = [
    plates(input),
    {
      id: 'wishes',
      title: 'What was wished',
      widths: ['auto', '*'],
      rows: wishRows(job.scheme, derived.names).map(([name, value]) => row(name, value)),
    },
    requirements(input),
    wires(input),
    {
      id: 'links',
      title: 'Links and slide switches',
      widths: ['auto', '*'],
      rows: derived.links.map((l) =>
        row(`${l.id}, ${l.name}`, `${l.stands}${l.factory ? ', as delivered' : ''}`),
      ),
    },
    {
      id: 'asBuilt',
      title: 'Built otherwise than planned',
      heads: ['what', 'why'],
      widths: ['*', '*'],
      rows: derived.asBuilt.map((x) => row(x.text, x.why)),
    },
    settings(input),
    results(input, 'dead', 'Dead checks', derived.dead),
    results(input, 'live', 'Live tests', derived.steps),
    {
      ...results(input, 'past', 'Readings of an earlier procedure', derived.past),
      intro: 'Read before the job changed; they count for nothing as the job is now.',
    },
    ...findings(input),
    ...registers(input),
    notShown(input),
    {
      id: 'operator',
      title: 'For the operator',
      widths: ['auto', '*'],
      rows: operatorRows(derived.requirements).map(([name, text]) => row(name, text)),
    },
  ];
  return all.filter((s) => s.rows.length > 0 || s.empty !== undefined);
}

/** What stands in the head of the record about its state. */
export function recordState(input: RecordInput): string {
  const { closed, number, signed } = signingOf(input.evidence);
  if (closed) return `Issue ${number}, signed and closed ${moment(signed.at(-1)?.atClient, true)}`;
  const open = input.derived.obstacles.length;
  if (open === 0) return `Draft of issue ${number}: not signed`;
  return `Draft of issue ${number}: ${open === 1 ? '1 point' : `${open} points`} open`;
}
