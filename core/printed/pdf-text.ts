/** Fonts of the PDF by the code points that each holds; the files are in `record-fonts`. */
export type PdfFont = 'Next' | 'NextExt' | 'Maths';

/** What stands in place of a sign that no font here has. */
const MISSING = '□';

/** Signs that are drawn alike and stand in one font only. */
const alike: Readonly<Record<string, string>> = { µ: 'μ', '✕': '×', '\u00a0': ' ' };

/** Signs outside the Latin blocks that the text font has. */
const alsoNext = new Set('–—‘’“”„…€−›‹•™');

/** Blocks of which the font for mathematics has what is used: Greek, arrows, operators, shapes, ticks. */
const maths: readonly (readonly [number, number])[] = [
  [0x0391, 0x03c9],
  [0x2190, 0x21ff],
  [0x2200, 0x22ff],
  [0x2300, 0x230b],
  [0x25a0, 0x25ff],
  [0x2713, 0x2713],
];

/** Font that holds a sign; undefined where none does. */
export function fontOf(sign: string): PdfFont | undefined {
  const at = sign.codePointAt(0) ?? 0;
  if (alsoNext.has(sign) || (at >= 0x20 && at <= 0x7e) || (at >= 0xa1 && at <= 0xff && at !== 0xb5))
    return 'Next';
  if ((at >= 0x100 && at <= 0x17f) || (at >= 0x218 && at <= 0x21b)) return 'NextExt';
  return maths.some(([from, to]) => at >= from && at <= to) ? 'Maths' : undefined;
}

/** A piece of text in one font. */
export interface Run {
  readonly text: string;
  readonly font: PdfFont;
}

/**
 * Text in pieces of one font each; signs that none has stand as an empty box.
 *
 * @example runsOf('2.2 kΩ') // [{ text: '2.2 k', font: 'Next' }, { text: 'Ω', font: 'Maths' }]
 */
export function runsOf(text: string): Run[] {
  const runs: { text: string; font: PdfFont }[] = [];
  for (const raw of text.replace(/[\r\n\t]+/gu, ' ')) {
    const sign = alike[raw] ?? raw;
    const font = fontOf(sign);
    const told = font ? sign : MISSING;
    const last = runs.at(-1);
    const own = font ?? 'Maths';
    if (last?.font === own) last.text += told;
    else runs.push({ text: told, font: own });
  }
  return runs;
}

/** Signs of a text that no font here has. */
export const missingSigns = (text: string): string[] => [
  ...new Set([...text.replace(/[\r\n\t]+/gu, ' ')].filter((s) => !fontOf(alike[s] ?? s))),
];
