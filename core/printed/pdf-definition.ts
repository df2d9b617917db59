import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { runsOf } from './pdf-text.js';
import type { Cell, RecordSection } from './cells.js';

/** A signature as it stands in the record. */
export interface PdfSignature {
  readonly role: string;
  readonly name: string;
  readonly when: string;
  readonly statement: string;
  /** Path of the mark as it was drawn, in a box of 300 × 90. */
  readonly mark: string | undefined;
}

/** A drawing with its title, as SVG. */
export interface PdfDrawing {
  readonly title: string;
  readonly svg: string;
}

/** A picture that was taken, small, with what it was taken for. */
export interface PdfPicture {
  readonly of: string;
  readonly told: string;
  /** JPEG or PNG as a data URL; none for a file that is no picture. */
  readonly image?: string;
}

/** Everything that the PDF of a record is made from. */
export interface PdfInput {
  readonly tag: string;
  readonly machine: string;
  /** Where the record stands: draft with open points, or signed and closed. */
  readonly state: string;
  readonly revision: number;
  readonly date: string;
  /** What the code on it leads to. */
  readonly code: string;
  readonly paper: 'A4' | 'LETTER';
  readonly sections: readonly RecordSection[];
  readonly signatures: readonly PdfSignature[];
  /** Roles that have not signed. */
  readonly missing: readonly string[];
  /** Open points that were named when it was signed. */
  readonly open: readonly { readonly what: string; readonly reason: string }[];
  /** SHA-256 of what was signed, and of the end of the chain of evidence. */
  readonly hashes: readonly string[];
  readonly drawings: readonly PdfDrawing[];
  readonly pictures: readonly PdfPicture[];
}

const INK = '#10222c';
const SOFT = '#44545c';
const LINE = '#b9b2a4';
const ACCENT = '#9c4f1d';

/** Margins: left, top, right, bottom, in points. */
const MARGINS: [number, number, number, number] = [42, 56, 42, 52];

/** A heading below this share of a page begins the next one. */
const LOWEST_HEADING = 0.86;

const words = (text: string, more: object = {}): Content => ({ text: runsOf(text), ...more });

const heading = (text: string, breaks = false): Content => ({
  text: runsOf(text),
  fontSize: 13,
  bold: true,
  margin: [0, 14, 0, 4],
  outline: true,
  outlineText: text,
  headlineLevel: 1,
  ...(breaks ? { pageBreak: 'before' as const } : {}),
});

/** Marks of a verdict are told by word and weight; the colour only helps. */
const colours = { pass: '#1d6b3f', fail: '#a01818', stale: '#7a4a00', open: SOFT, past: SOFT };

function tableCell(cell: Cell, head: boolean, mono: boolean): TableCell {
  const first = {
    text: runsOf(cell.text),
    bold: head || cell.mark === 'fail' || cell.mark === 'stale',
    ...(cell.mark ? { color: colours[cell.mark] } : {}),
    // Codes, landings and verdicts are never broken.
    ...(mono || cell.mark ? { noWrap: true } : {}),
  };
  return cell.sub
    ? { stack: [first, { text: runsOf(cell.sub), color: SOFT, fontSize: 7 }] }
    : first;
}

const layout = {
  hLineWidth: (i: number, node: { table: { headerRows?: number } }) =>
    i > 0 && i === node.table.headerRows ? 1 : 0.4,
  vLineWidth: () => 0,
  hLineColor: () => LINE,
  paddingLeft: () => 0,
  paddingRight: () => 6,
  paddingTop: () => 2,
  paddingBottom: () => 2,
};

function sectionContent(s: RecordSection): Content[] {
  const mono = new Set(s.mono ?? []);
  const head = s.heads?.map((text) => ({
    text: runsOf(text),
    color: SOFT,
    bold: true,
  }));
  const body = s.rows.map((row) =>
    row.map((cell, i) => tableCell(cell, !s.heads && i === 0 && row.length > 1, mono.has(i))),
  );
  return [
    heading(s.title),
    ...(s.intro ? [words(s.intro, { color: SOFT, margin: [0, 0, 0, 3] })] : []),
    s.rows.length === 0
      ? words(s.empty ?? '')
      : {
          table: {
            headerRows: head ? 1 : 0,
            dontBreakRows: true,
            keepWithHeaderRows: 1,
            widths: [...s.widths],
            body: head ? [head, ...body] : body,
          },
          layout,
        },
  ];
}

function signatures({ signatures: signed, missing, open, hashes }: PdfInput): Content[] {
  const alone = signed.length > 1 && new Set(signed.map((s) => s.name)).size === 1;
  return [
    heading('Signatures'),
    {
      table: {
        widths: ['auto', '*', 'auto', 110],
        dontBreakRows: true,
        body: [
          ...signed.map((s): TableCell[] => [
            { text: runsOf(s.role), bold: true },
            { stack: [{ text: runsOf(s.name) }, { text: runsOf(s.statement), color: SOFT }] },
            { text: runsOf(s.when) },
            s.mark
              ? {
                  svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 90"><path d="${s.mark}" fill="none" stroke="${INK}" stroke-width="2"/></svg>`,
                  width: 100,
                }
              : '',
          ]),
          ...missing.map((role): TableCell[] => [
            { text: runsOf(role), bold: true, margin: [0, 22, 0, 0] },
            { text: 'not signed', color: SOFT, margin: [0, 22, 0, 0] },
            '',
            '',
          ]),
        ],
      },
      layout,
    },
    ...(alone ? [words('One person signed in every role.', { margin: [0, 4, 0, 0] })] : []),
    ...open.map((p) => words(`Open: ${p.what} “${p.reason}”`, { margin: [0, 3, 0, 0] })),
    ...hashes.map((text) => words(text, { color: SOFT, fontSize: 7, margin: [0, 3, 0, 0] })),
    words(
      'This record states what was planned, read and accepted. Local codes, the maker’s manual, the risk assessment and licensed practice apply.',
      { color: SOFT, margin: [0, 8, 0, 0] },
    ),
  ];
}

/** Pictures, three beside each other. */
function pictures({ pictures: all }: PdfInput): Content[] {
  if (all.length === 0) return [];
  const rows = Array.from({ length: Math.ceil(all.length / 3) }, (_, i) =>
    all.slice(3 * i, 3 * i + 3),
  );
  return [
    heading('Pictures and files'),
    ...rows.map((row): Content => ({
      columnGap: 12,
      margin: [0, 0, 0, 10],
      columns: row.map(({ of, told, image }) => ({
        width: 160,
        stack: [
          ...(image ? [{ image, fit: [160, 120] as [number, number] }] : []),
          { text: runsOf(of), bold: true },
          { text: runsOf(told), color: SOFT, fontSize: 7 },
        ],
        unbreakable: true,
      })),
    })),
  ];
}

/** What a dotted line of a drawing says. */
const OPEN = 'Dotted: a wire that was found open or was never landed.';

/** Room for a drawing below its heading, points: A4 lying across and upright, Letter the same. */
const room = {
  A4: { across: [750, 420], upright: [505, 680] },
  LETTER: { across: [700, 430], upright: [520, 620] },
} as const;

/** How a drawing lies: as it becomes largest. */
function lies(svg: string, paper: PdfInput['paper']): keyof (typeof room)['A4'] {
  const [, width, height] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/u.exec(svg) ?? ['', '1', '1'];
  const scale = ([w, h]: readonly [number, number]): number =>
    Math.min(w / Number(width), h / Number(height));
  return scale(room[paper].upright) > scale(room[paper].across) ? 'upright' : 'across';
}

/** Drawings stand on pages of their own, as each is largest; none is drawn larger than its letters need. */
const drawings = ({ drawings: all, paper }: PdfInput): Content[] =>
  all.flatMap(({ title, svg }): Content[] => {
    const way = lies(svg, paper);
    const width = Number(/viewBox="0 0 ([\d.]+)/u.exec(svg)?.[1] ?? 0);
    const [most, height] = room[paper][way];
    return [
      {
        text: runsOf(title),
        fontSize: 13,
        bold: true,
        outline: true,
        outlineText: title,
        pageBreak: 'before',
        pageOrientation: way === 'across' ? 'landscape' : 'portrait',
        margin: [0, 0, 0, 8],
      } as Content,
      { svg, fit: [Math.min(most, width), height] },
      ...(svg.includes('data-open=')
        ? [{ text: runsOf(OPEN), margin: [0, 6, 0, 0] } as Content]
        : []),
    ];
  });

/**
 * The record as a document definition: cover, parts, signatures, drawings; title, language and outline as PDF/A-2b wants them.
 *
 * @example pdfDefinition(input).subset // 'PDF/A-2b'
 */
export function pdfDefinition(input: PdfInput): TDocumentDefinitions {
  const { tag, machine, state, revision, date, code, paper } = input;
  const title = `${tag} · commissioning record`;
  return {
    version: '1.7',
    subset: 'PDF/A-2b',
    lang: 'en',
    info: { title, subject: machine, creator: 'Tactron', producer: 'Tactron' },
    displayTitle: true,
    pageSize: paper,
    pageMargins: MARGINS,
    defaultStyle: { font: 'Next', fontSize: 8.5, color: INK, lineHeight: 1.15 },
    header: (page: number) =>
      page === 1
        ? ''
        : {
            text: runsOf(`${title} · ${state}`),
            color: SOFT,
            fontSize: 8,
            margin: [42, 26, 42, 0],
          },
    footer: (page: number, pages: number) => ({
      columns: [
        { text: runsOf(`${machine} · revision ${revision} · ${date}`), color: SOFT },
        { text: `page ${page} of ${pages}`, alignment: 'right', color: SOFT },
      ],
      fontSize: 8,
      margin: [42, 18, 42, 0],
    }),
    // A heading is never the last thing on a page.
    pageBreakBefore: (node) =>
      node.headlineLevel === 1 && (node.startPosition?.verticalRatio ?? 0) > LOWEST_HEADING,
    content: [
      {
        columns: [
          {
            width: '*',
            stack: [
              { text: runsOf(tag), fontSize: 24, bold: true },
              { text: 'Commissioning record', fontSize: 14 },
              { text: runsOf(machine), fontSize: 11, margin: [0, 4, 0, 0] },
              { text: runsOf(`${state} · revision ${revision} · ${date}`), bold: true },
            ],
          },
          { width: 'auto', qr: code, fit: 74 },
        ],
      },
      {
        canvas: [{ type: 'line', x1: 0, y1: 6, x2: 511, y2: 6, lineWidth: 2, lineColor: ACCENT }],
      },
      ...input.sections.flatMap(sectionContent),
      ...pictures(input),
      ...signatures(input),
      ...drawings(input),
    ],
  } as TDocumentDefinitions;
}
