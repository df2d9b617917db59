import { snapshotOf, type Evidence, type EvidenceOf } from '../job/index.js';
import type { DecimalMark } from '../units/index.js';
import { cell, row, stamp, type RecordInput, type RecordSection } from './cells.js';

/** The identification run that stands: the last mark of it that was not taken back. */
function identification(evidence: readonly Evidence[]): EvidenceOf<'keyed'> | undefined {
  const last = evidence.findLast(
    (e): e is EvidenceOf<'keyed'> => e.kind === 'keyed' && e.body.code === 'hold.identify',
  );
  return last?.body.undone ? undefined : last;
}

/** Numbers of a text with the decimal mark that the record is printed with. */
const marked = (text: string, decimal: DecimalMark): string =>
  decimal === ',' ? text.replace(/(\d)\.(?=\d)/gu, '$1,') : text;

const wayTexts: Readonly<Record<string, string>> = {
  standing: 'shaft at rest',
  turning: 'shaft turning',
};

/**
 * Settings in three sets, those that are not as the factory delivers them; what the device measured by itself with who had it
 * measured, and what was read from a picture of a page as such.
 */
export function settings({ derived, evidence, decimal }: RecordInput): RecordSection {
  const run = identification(evidence);
  const pictured = snapshotOf(evidence, 'asLeft')?.body.pictures ?? {};
  const rows = derived.rows.filter(
    (r) =>
      r.panel === undefined &&
      (r.measured ||
        r.planned !== r.factory ||
        (r.found !== undefined && r.found !== r.factory) ||
        r.state === 'differs'),
  );
  const measured = (): string =>
    run
      ? `identification run, ${wayTexts[String(run.body.value)] ?? String(run.body.value)}: ${run.author.name}, ${stamp(run.atClient)}`
      : 'identification run not done here';
  return {
    id: 'settings',
    title: 'Settings that differ from the factory’s',
    heads: ['code', 'name', 'found', 'planned', 'left'],
    mono: [0],
    widths: ['auto', '*', 'auto', 'auto', 'auto'],
    rows: rows.map((r) => [
      cell(r.code),
      cell(r.name, r.measured ? measured() : ''),
      cell(marked(r.foundText, decimal) || (r.byReset ? 'by reset, not read singly' : 'not read')),
      cell(marked(r.plannedText, decimal)),
      cell(
        `${marked(r.leftText, decimal) || 'not recorded'}${r.state === 'differs' ? ' ≠ plan' : ''}`,
        pictured[r.code] ? 'from a picture of its page' : '',
      ),
    ]),
  };
}

/** What is set elsewhere in the panel and at the controller, in three sets. */
export const panelSettings = ({ job, derived, decimal }: RecordInput): RecordSection => ({
  id: 'panelSettings',
  title: 'Set elsewhere in the panel',
  heads: ['where', 'what', 'found', 'planned', 'left'],
  mono: [0],
  widths: ['auto', '*', 'auto', 'auto', 'auto'],
  rows: derived.rows
    .flatMap((r) => (r.panel ? [{ ...r, at: r.panel.device }] : []))
    .map((r) =>
      row(
        [job.adopted?.devices[r.at]?.tag, derived.names[`device.${r.at}`]]
          .filter(Boolean)
          .join(' '),
        r.name,
        marked(r.foundText, decimal) || 'not read',
        marked(r.plannedText, decimal),
        `${marked(r.leftText, decimal) || 'not recorded'}${r.state === 'differs' ? ' ≠ plan' : ''}`,
      ),
    ),
});
