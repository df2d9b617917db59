import { signingOf, sizeText, type EvidenceBody } from '../job/index.js';
import { formatQuantity, type DecimalMark, type Quantity } from '../units/index.js';
import type { SaidRequirement, SaidStep } from '../said/index.js';
import { moment } from '../units/index.js';
import { expectedLines, readBy, readingText } from './reading-text.js';
import { operatorRows } from './operator-rows.js';
import { ownTolerances } from './tolerance-text.js';
import { cell, row, stamp, type RecordInput, type RecordSection } from './cells.js';
import { controllerSignals, decidedByHand, nightRows } from './controller.js';
import { handWork } from './hands.js';
import { findings, notShown, registers } from './registers.js';
import { panelSettings, settings } from './settings-left.js';
import { wishRows } from './wish-rows.js';

function plates({ job, device, site, decimal }: RecordInput): RecordSection {
  const { motor, supply, load, cable } = job.plate;
  const q = (value: Quantity | undefined): string => (value ? formatQuantity(value, decimal) : '');
  const both = (low: Quantity | undefined, high: Quantity | undefined): string =>
    [low, high].filter(Boolean).map(q).join(' / ');
  const told = (...parts: readonly (string | undefined)[]): string =>
    parts.filter(Boolean).join(', ') || 'not entered';
  const { deviceSerial: serial } = job.plate;
  const own = ownTolerances(job.tolerances, decimal);
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
      ...(own ? [row('Tolerances', own)] : []),
    ],
  };
}

function wires({ job, derived }: RecordInput): RecordSection {
  const { adopted, asUsed: used = {} } = job;
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
          used[id]?.number ? `${w.number}; marked ${used[id].number}` : w.number,
          name(w.from),
          name(w.to),
          derived.names[`wire.${id}`] ?? w.function,
          sizeText(w.size),
          used[id]?.colour ? `${w.colour}; used ${used[id].colour}` : w.colour,
          w.cable ? `${w.cable} · ${used[id]?.core ?? w.core}` : '',
        ),
      ),
  };
}

/** What an answer was expected to be. */
function expected(step: SaidStep, decimal: DecimalMark): string {
  const lines = expectedLines(step, decimal);
  if (lines.length === 0) return step.must;
  return lines
    .map(({ place, nominal, range }) => `${place ? `${place} ` : ''}${nominal} (${range})`)
    .join('; ');
}

function results(
  { decimal }: RecordInput,
  id: string,
  title: string,
  steps: readonly SaidStep[],
): RecordSection {
  const told = (step: SaidStep, body: EvidenceBody<'reading'>): string =>
    readingText(body, step, decimal);
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
        cell(reading ? readBy(reading) : undefined, stamp(reading?.atClient)),
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
    handWork(input),
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
    decidedByHand(input),
    controllerSignals(input),
    settings(input),
    panelSettings(input),
    results(input, 'dead', 'Dead checks', derived.dead),
    {
      ...results(
        input,
        'simulated',
        'Inputs simulated before the real ones',
        derived.offered.filter((s) => s.reading !== undefined),
      ),
    },
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
    nightRows(input),
  ];
  return all.filter((s) => s.rows.length > 0 || s.empty !== undefined);
}

/** What stands in the head of the record about its state. */
export function recordState(input: RecordInput): string {
  const { closed, number, signed } = signingOf(input.evidence, input.roles);
  if (closed) return `Issue ${number}, signed and closed ${moment(signed.at(-1)?.atClient, true)}`;
  const open = input.derived.obstacles.length;
  if (open === 0) return `Draft of issue ${number}: not signed`;
  return `Draft of issue ${number}: ${open === 1 ? '1 point' : `${open} points`} open`;
}
