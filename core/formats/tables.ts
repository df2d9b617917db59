import type { Profile } from '../catalogue/index.js';
import Papa from 'papaparse';
import {
  faultKey,
  landingName,
  sizeText,
  type AdoptedWire,
  type Evidence,
  type Job,
  type Phrase,
} from '../job/index.js';
import { linkLines, type KeyLine } from '../plan/index.js';
import { handTasks, type HandTask } from '../records/index.js';

/** A table: heads and rows, ready for any writer. */
export interface Table {
  readonly heads: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Number before words: 2, 10, 10a. */
const byNumber = (x: string, y: string): number => x.localeCompare(y, 'en', { numeric: true });

/** The wire schedule in the order of the markers. */
export function wireTable(job: Job): Table {
  const { adopted } = job;
  const end = (at: string): string => landingName(job.adopted?.devices, at);
  const wires = Object.values(adopted?.wires ?? {}).sort((x, y) => byNumber(x.number, y.number));
  return {
    heads: [
      'number',
      'from',
      'to',
      'function',
      'class',
      'size',
      'colour',
      'cable',
      'core',
      'length m',
    ],
    rows: wires.map((w) => [
      w.number,
      end(w.from),
      end(w.to),
      w.function,
      w.class,
      sizeText(w.size),
      w.colour,
      w.cable ?? '',
      w.core ?? '',
      String(w.lengthM),
    ]),
  };
}

/** Words for the hand list, from outside: what is done, and what a wire is for. */
export interface HandWords {
  readonly does: (phrase: Phrase) => string;
  readonly wire: (wire: AdoptedWire) => string;
}

const codes: HandWords = { does: ({ code }) => code, wire: (w) => w.function };

const whoAndWhen = (tick: HandTask['landed']): string =>
  tick ? `${tick.author.name} ${tick.atClient}` : '';

/**
 * Everything that hands do, in order: parts, wires, screens, links, dials and labels, with who has done it.
 *
 * @param words for what is no wire, and for what wires are for; codes without
 */
export function handTable(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[],
  words: HandWords = codes,
): Table {
  const wires = job.adopted?.wires ?? {};
  const end = (at: string): string => landingName(job.adopted?.devices, at);
  const used = (id: string): string => {
    const { colour = '', core = '', number = '' } = job.asUsed?.[id] ?? {};
    return [colour, core && `core ${core}`, number && `marked ${number}`]
      .filter(Boolean)
      .join(', ');
  };
  const rows = handTasks(job, profile, evidence).map((t, i) => {
    const wire = t.does ? undefined : wires[t.id];
    const done = [t.torqueNm.join(', '), whoAndWhen(t.landed), whoAndWhen(t.torqued)];
    const begin = [String(i + 1), t.group];
    if (!wire)
      return [...begin, '', '', '', t.does ? words.does(t.does) : '', '', t.cable, '', ...done, ''];
    return [
      ...begin,
      wire.number,
      end(wire.from),
      end(wire.to),
      words.wire(wire),
      `${sizeText(wire.size)} ${wire.colour}`,
      t.cable,
      wire.core ?? '',
      ...done,
      used(t.id),
    ];
  });
  return {
    heads: [
      'order',
      'part of the work',
      'number',
      'from',
      'to',
      'do or function',
      'conductor',
      'cable',
      'core',
      'torque Nm',
      'done',
      'torque checked',
      'as used',
    ],
    rows,
  };
}

/** Each terminal of the device with the wires that land on it. */
export function terminalTable(job: Job, profile: Profile): Table {
  const wires = Object.values(job.adopted?.wires ?? {});
  const rows = profile.rows.flatMap((row) =>
    row.terminals.map((terminal) => {
      const landing = `${job.adopted?.device}:${terminal}`;
      const here = wires
        .filter((w) => w.from === landing || w.to === landing)
        .map((w) => w.number)
        .sort(byNumber);
      const task =
        Object.values(job.adopted?.assignments ?? {}).find((a) => a.at === landing)?.task ?? '';
      const spec = profile.terminals[terminal];
      return [
        row.name,
        terminal,
        spec.kind,
        task,
        here.join(' '),
        spec.torqueNm === undefined ? '' : String(spec.torqueNm),
      ];
    }),
  );
  return { heads: ['row', 'terminal', 'kind', 'task', 'wires', 'torque Nm'], rows };
}

/** Links and slide switches of the device, with the position in which each must stand. */
export function linkTable(job: Job, profile: Profile): Table {
  return {
    heads: ['link', 'name', 'stands at', 'as delivered'],
    rows: linkLines(job, profile).map((l) => [l.id, l.name, l.stands, l.factory ? 'yes' : 'no']),
  };
}

/** What was found built otherwise than planned, in the order in which it was noted. */
export function asBuiltTable(job: Job): Table {
  const noted = Object.values(job.deviations).sort((x, y) => x.ord - y.ord);
  return {
    heads: ['place', 'id', 'found', 'reason'],
    rows: noted.map(({ where, actual, why }) => [where.kind, where.id, faultKey(actual), why]),
  };
}

/** The keying sheet. */
export function keyingTable(profile: Profile, lines: readonly KeyLine[]): Table {
  return {
    heads: ['order', 'part', 'code', 'name', 'from', 'to', 'keys'],
    rows: lines.map((line, i) => [
      String(i + 1),
      line.part,
      line.code ?? '',
      line.code ? profile.settings[line.code].name : (line.hold ?? ''),
      String(line.from ?? ''),
      String(line.to ?? ''),
      line.presses.map((p) => `${p.key}×${p.times}`).join(' '),
    ]),
  };
}

/**
 * Writes a table as CSV (RFC 4180). A cell that a spreadsheet would take for a formula is given a leading apostrophe.
 *
 * @param decimal the separator is a semicolon where the decimal mark is a comma
 */
export function csv(table: Table, decimal: '.' | ',' = '.'): string {
  return Papa.unparse(
    [table.heads, ...table.rows].map((row) => row.map(harmless)),
    { delimiter: decimal === ',' ? ';' : ',', newline: '\r\n' },
  ).concat('\r\n');
}

/**
 * A cell that a spreadsheet would take for a formula is given a leading apostrophe; a number is none. Blanks and line breaks
 * before the sign do not hide it, and its full-width form counts as it.
 */
const harmless = (text: string): string =>
  /^[\s\p{Cf}]*[=+\-@\uff1d\uff0b\uff0d\uff20]|^[\t\r\n]/u.test(text) &&
  !/^[+-]?\d+([.,]\d+)?$/u.test(text)
    ? `'${text}`
    : text;
