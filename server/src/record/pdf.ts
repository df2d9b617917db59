import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import { pdfDefinition, type PdfInput } from '@tactron/core/printed';

const packages = createRequire(import.meta.url);

/** Where a font file of a package lies: the library reads it by its path, for drawings too. */
const file = (name: string, of: string): string =>
  join(dirname(packages.resolve(`${name}/package.json`)), 'files', of);

const text = (subset: 'latin' | 'latin-ext', weight: 400 | 700): string =>
  file(
    '@fontsource/atkinson-hyperlegible-next',
    `atkinson-hyperlegible-next-${subset}-${weight}-normal.woff`,
  );

const font = (normal: string, bold: string) => ({
  normal,
  bold,
  italics: normal,
  bolditalics: bold,
});

const maths = file('@fontsource/noto-sans-math', 'noto-sans-math-latin-400-normal.woff');
const fonts = {
  Next: font(text('latin', 400), text('latin', 700)),
  NextExt: font(text('latin-ext', 400), text('latin-ext', 700)),
  Maths: font(maths, maths),
};
const own = new Set(Object.values(fonts).flatMap((f) => Object.values(f)));

pdfmake.setFonts(fonts);
// A record reaches for nothing but its own fonts.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => own.has(path));

/**
 * The record as PDF/A-2b, the same as a browser makes it.
 *
 * @throws Error where a font is not there
 * @example (await recordPdf(printOf(input, printing))).subarray(0, 4) // %PDF
 */
export const recordPdf = async (input: PdfInput): Promise<Uint8Array> =>
  new Uint8Array(await pdfmake.createPdf(pdfDefinition(input)).getBuffer());
