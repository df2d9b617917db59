import { attachmentsOf, signingOf, verifyEvidence, type EvidenceOf } from '../job/index.js';
import { moment } from '../units/index.js';
import { stamp, type RecordInput } from './cells.js';
import { recordSections, recordState } from './document.js';
import { recordHtml } from './html.js';
import { jobCode } from './job-code.js';
import { operatorRows } from './operator-rows.js';
import { nightRows } from './controller.js';
import type { PdfDrawing, PdfInput, PdfPicture } from './pdf-definition.js';

/** A picture or file of the record, with what it was taken for. */
export interface RecordPicture {
  readonly e: EvidenceOf<'attachment'>;
  readonly of: string;
}

/** What a picture was taken for, in words. */
function subjectName(subject: string, { job, derived }: RecordInput): string {
  const step = [...derived.dead, ...derived.steps].find((s) => s.step.key === subject);
  if (step) return step.do;
  const dot = subject.indexOf('.');
  const [kind, id] = [subject.slice(0, Math.max(0, dot)), subject.slice(dot + 1)];
  const { adopted } = job;
  switch (kind) {
    case 'wire':
      return `Wire ${adopted?.wires[id]?.number ?? adopted?.retired[id]?.number ?? id}`;
    case 'trace':
      return id === 'start.full' ? 'Recorded start' : `Recorded, ${id}`;
    case 'plate':
      return `Plate, ${id}`;
    case 'setting': {
      const [which = '', ...code] = id.split('.');
      const when = which === 'asFound' ? 'as found' : 'as left';
      return code.length > 0 ? `${code.join('.')}, ${when}` : `Settings, ${when}`;
    }
    default:
      return subject === 'arrival' ? 'On arrival' : subject;
  }
}

/** Pictures and files that stand, in the order in which they were taken. */
export const recordPictures = (input: RecordInput): RecordPicture[] =>
  attachmentsOf(input.evidence).map((e) => ({ e, of: subjectName(e.subject, input) }));

/** A picture as it goes into the PDF: small, and where the whole one is found. */
function pdfPicture({ e, of }: RecordPicture): PdfPicture {
  const { thumbnail, name, note, sha256 } = e.body;
  const told = [
    name,
    note,
    `${e.author.name} ${stamp(e.atClient)}`,
    `SHA-256 ${sha256.slice(0, 12)}`,
  ];
  const image = /^data:image\/(?:jpeg|png);/u.test(thumbnail ?? '') ? thumbnail : undefined;
  return { of, told: told.filter(Boolean).join(' · '), ...(image ? { image } : {}) };
}

/** A sheet with a drawing: its title is the drawing's own, without the tag of the job, which may have spaces in it. */
function sheetOf(svg: string): PdfDrawing {
  const title = /<title>[^<]*?((?:Circuit|Connections)[^<]*)<\/title>/u.exec(svg)?.[1] ?? 'Drawing';
  return { title: `${title}, as built`, svg };
}

/** Where and when a record is printed. */
export interface Printing {
  readonly revision: number;
  /** Now. */
  readonly at: string;
  /** Address of the application, to which its code leads. */
  readonly base: string;
  /** The drawings by file name, as SVG: those in `sheets` go on a page each. */
  readonly drawings: Readonly<Record<string, string>>;
}

/**
 * The record as it goes into a PDF, on the paper of the job's practice.
 *
 * @example printOf(input, printing).paper // 'A4'
 */
export function printOf(input: RecordInput, printing: Printing): PdfInput {
  const { job, evidence } = input;
  const { revision, at, base } = printing;
  const { frozen, signed, missing } = signingOf(evidence, input.roles);
  const chain = verifyEvidence(evidence);
  return {
    tag: job.tag,
    machine: job.machine,
    state: recordState(input),
    revision,
    date: moment(at, true),
    code: jobCode(job.id, revision, base),
    paper: job.practice === 'NFPA' ? 'LETTER' : 'A4',
    sections: recordSections(input),
    signatures: signed.map(({ body, author, atClient }) => ({
      role: body.role,
      name: `${author.name}, ${author.role}`,
      when: moment(atClient, true),
      statement: body.statement,
      mark: body.mark,
    })),
    missing,
    open: frozen?.body.open ?? [],
    hashes: [
      ...(frozen ? [`Signed state: SHA-256 ${frozen.body.contentHash}`] : []),
      `Evidence: ${chain.count} entries, the chain ends ${chain.ends || 'nowhere yet'}${chain.ok ? '' : '; it does not hold'}`,
    ],
    pictures: recordPictures(input).map(pdfPicture),
    drawings: Object.entries(printing.drawings)
      .filter(([name]) => name.startsWith('sheets/'))
      .sort(([x], [y]) => x.localeCompare(y, 'en'))
      .map(([, svg]) => sheetOf(svg)),
  };
}

/** A job file does not know its revision. */
const stateOf = (input: RecordInput, revision: number | undefined): string =>
  revision === undefined ? recordState(input) : `${recordState(input)}, revision ${revision}`;

/** The record as a page of its own. */
export function recordPage(input: RecordInput, revision?: number): string {
  const { job, evidence } = input;
  return recordHtml({
    title: `${job.tag} · commissioning record`,
    machine: job.machine,
    state: stateOf(input, revision),
    sections: recordSections(input),
    signatures: signingOf(evidence, input.roles).signed.map(({ body, author, atClient }) => ({
      role: body.role,
      text: `${author.name}, ${author.role}, ${stamp(atClient)}: ${body.statement}`,
    })),
  });
}

/** The sheet that stays at the machine, as a page of its own; nothing for a job without a plan. */
export function operatorPage(input: RecordInput, revision?: number): string {
  const { job, derived } = input;
  if (!job.adopted) return '';
  return recordHtml({
    title: `${job.tag} · for the operator`,
    machine: job.machine,
    state: stateOf(input, revision),
    signatures: [],
    sections: [
      {
        id: 'operator',
        title: 'How it is worked',
        widths: ['auto', '*'],
        rows: operatorRows(derived.requirements).map(([name, text]) => [{ text: name }, { text }]),
      },
      nightRows(input),
    ],
  });
}
