/** A drawing's size, in its units. */
interface Sized {
  readonly width: number;
  readonly height: number;
}

/** Room on a sheet below a heading, points: what A4 and Letter both have, lying across and upright. */
export const SHEETS = {
  across: { width: 700, height: 410 },
  upright: { width: 505, height: 640 },
} as const;

/** Height of the letters of a drawing in its units, and the smallest that is read on paper, points. */
export const LETTERS = 11;
const LEAST_LETTERS = 5.5;

const scaleOn = (sheet: Sized, { width, height }: Sized): number =>
  Math.min(1, sheet.width / width, sheet.height / height);

/** How a drawing lies on its sheet: as it becomes largest. */
export const liesOn = (drawing: Sized): keyof typeof SHEETS =>
  scaleOn(SHEETS.upright, drawing) > scaleOn(SHEETS.across, drawing) ? 'upright' : 'across';

/** How large a drawing stands on a sheet, points a unit; never larger than it was drawn. */
export const scaleOnSheet = (drawing: Sized): number => scaleOn(SHEETS[liesOn(drawing)], drawing);

/**
 * Whether a drawing can be read on one sheet.
 *
 * @example isReadable({ width: 2100, height: 900 }) // false
 */
export const isReadable = (drawing: Sized): boolean =>
  LETTERS * scaleOnSheet(drawing) >= LEAST_LETTERS;
