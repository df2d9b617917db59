import type { Evidence, Job } from '../job/index.js';
import type { DecimalMark } from '../units/index.js';
import type { Derived, SaidNight } from '../said/index.js';
import { moment } from '../units/index.js';

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
  /** Roles that must sign, as the site wants it; left out, the usual ones. */
  readonly roles?: readonly string[];
  /** Likely faults in use; absent while they are reckoned, and for a job without a plan. */
  readonly night?: readonly SaidNight[];
}

/** A cell of text, and what stands small below it. */
export const cell = (text: string | number | undefined, sub?: string): Cell => ({
  text: String(text ?? ''),
  ...(sub ? { sub } : {}),
});
/** A row of plain cells. */
export const row = (...texts: readonly (string | number | undefined)[]): Cell[] =>
  texts.map((text) => cell(text));

/** A moment as it stands in the record: to the minute, by the clock of the place, as everywhere on the page. */
export const stamp = (at: string | undefined): string => moment(at, true);
