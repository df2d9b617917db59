import { expose } from 'comlink';
import maker from 'pdfmake/build/pdfmake';
import { pdfDefinition, unpackedFont, type PdfInput } from '@tactron/core/printed';

/** The library's files in memory, which its types do not tell of. */
const pdfmake = maker as typeof maker & {
  readonly virtualfs: { writeFileSync(name: string, body: Uint8Array): void };
  setProgressCallback(told: (share: number) => void): void;
};

/** Font files by the name under which the document names them. */
const files = {
  'next-400': 'atkinson-hyperlegible-next-latin-400-normal.woff',
  'next-700': 'atkinson-hyperlegible-next-latin-700-normal.woff',
  'ext-400': 'atkinson-hyperlegible-next-latin-ext-400-normal.woff',
  'ext-700': 'atkinson-hyperlegible-next-latin-ext-700-normal.woff',
  maths: 'noto-sans-math-latin-400-normal.woff',
} as const;

const font = (normal: keyof typeof files, bold: keyof typeof files = normal) => ({
  normal,
  bold,
  italics: normal,
  bolditalics: bold,
});

const inflate = async (packed: Uint8Array): Promise<Uint8Array> => {
  const stream = new Blob([packed as BlobPart]).stream();
  const unpacked = stream.pipeThrough(new DecompressionStream('deflate'));
  return new Uint8Array(await new Response(unpacked).arrayBuffer());
};

/** Progress is told in steps of so much, %. */
const STEP_PCT = 4;

let ready: Promise<void> | undefined;

/** Fetches the fonts once. @throws Error naming the file that could not be had */
const fonts = (base: string): Promise<void> =>
  (ready ??= Promise.all(
    Object.entries(files).map(async ([name, file]) => {
      const answer = await fetch(new URL(`record-fonts/${file}`, base));
      if (!answer.ok) throw new Error(`the font ${file} is not there (${answer.status})`);
      const packed = new Uint8Array(await answer.arrayBuffer());
      pdfmake.virtualfs.writeFileSync(name, await unpackedFont(packed, inflate));
    }),
  ).then(
    () =>
      void pdfmake.addFonts({
        Next: font('next-400', 'next-700'),
        NextExt: font('ext-400', 'ext-700'),
        Maths: font('maths'),
      }),
    (error: unknown) => {
      ready = undefined;
      throw error;
    },
  ));

const worker = {
  /**
   * The record as PDF.
   *
   * @param base address of the application, where its fonts lie
   * @param told how much of it is written, %; nothing is told while its pages are laid out
   * @throws Error where a font cannot be had
   */
  async pdf(base: string, input: PdfInput, told?: (percent: number) => void): Promise<Uint8Array> {
    await fonts(base);
    let last = -STEP_PCT;
    pdfmake.setProgressCallback((share) => {
      const percent = Math.floor(100 * share);
      if (percent < last + STEP_PCT) return;
      last = percent;
      told?.(percent);
    });
    return new Uint8Array(await pdfmake.createPdf(pdfDefinition(input)).getBuffer());
  },
};
export type PdfWorker = typeof worker;

expose(worker);
