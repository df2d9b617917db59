import { landingName, sizeText } from '../job/index.js';
import { derivedOf } from '../said/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { recordHtml } from './html.js';
import { missingSigns, recordSections, type RecordInput, type RecordSection } from './index.js';

const cases = everyArrangement();
const PATIENCE_MS = 180_000;

/** Leftovers of the computing that are no words for a reader. */
const CODE = /\b(?:undefined|NaN|null)\b|\[object|\b[a-z]+(?:[A-Z][a-z]+)+\b/u;

/** The parts of every record. */
function printAll() {
  return cases.map(({ name, job, profile }) => {
    const derived = derivedOf(job, profile, []);
    const input: RecordInput = {
      job,
      device: profile.title,
      site: 'Hall',
      derived,
      evidence: [],
      decimal: '.',
    };
    const sections = recordSections(input);
    const part = (id: string): readonly (readonly string[])[] =>
      sections.find((s) => s.id === id)?.rows.map((r) => r.map((c) => c.text)) ?? [];
    return { name, job, derived, sections, part };
  });
}

describe('the record of every arrangement, nothing done yet', () => {
  let records: ReturnType<typeof printAll> = [];
  beforeAll(() => {
    records = printAll();
  }, PATIENCE_MS);

  it('tells every wire of its plan, end for end, with its size and colour', () => {
    for (const { name, job, part } of records) {
      const wires = Object.values(job.adopted?.wires ?? {});
      const told = part('wires').map(([number, from, to, , size, colour]) =>
        [number, from, to, size, colour].join('|'),
      );
      const end = (at: string): string => landingName(job.adopted?.devices, at);
      expect(told.sort())
        .withContext(name)
        .toEqual(
          wires
            .map((w) => [w.number, end(w.from), end(w.to), sizeText(w.size), w.colour].join('|'))
            .sort(),
        );
    }
  });

  it('tells every link, every setting that is to be changed, every wish, function, check and test', () => {
    for (const { name, job, derived, part } of records) {
      const first = (id: string): string[] => part(id).map(([text]) => text);
      for (const { id } of derived.links)
        expect(first('links').some((t) => t.startsWith(`${id},`)))
          .withContext(`${name} link ${id}`)
          .toBeTrue();
      const settings = new Map(part('settings').map((r) => [r[0], r[3]]));
      for (const row of derived.rows)
        if (row.planned !== row.factory)
          expect(settings.get(row.code)).withContext(`${name} ${row.code}`).toBe(row.plannedText);
      const wished = Object.values(job.scheme).filter((x) => x !== undefined).length;
      expect(part('wishes').length).withContext(name).toBe(wished);
      expect(first('requirements'))
        .withContext(name)
        .toEqual(derived.requirements.map((r) => r.text));
      expect(first('dead'))
        .withContext(name)
        .toEqual(derived.dead.map((s) => s.do));
      expect(first('live'))
        .withContext(name)
        .toEqual(derived.steps.map((s) => s.do));
      expect(part('notShown').length).withContext(name).toBeGreaterThan(2);
      expect([...part('dead'), ...part('live')].every((r) => r[3] === 'not done'))
        .withContext(name)
        .toBeTrue();
    }
  });

  it('is words and no codes, in signs that the fonts of the PDF have', () => {
    for (const { name, sections } of records) {
      const texts = sections.flatMap((s) => [
        s.title,
        s.intro ?? '',
        ...(s.heads ?? []),
        ...s.rows.flat().flatMap((c) => [c.text, c.sub ?? '']),
      ]);
      for (const text of texts) expect(text).withContext(name).not.toMatch(CODE);
      expect(missingSigns(texts.join(' ')))
        .withContext(name)
        .toEqual([]);
    }
  });

  it('says the same as a page: as many rows as the parts have, and their text', () => {
    const rowsOf = (sections: readonly RecordSection[]): number =>
      sections.reduce((n, s) => n + s.rows.length + (s.heads && s.rows.length > 0 ? 1 : 0), 0);
    for (const { name, sections } of records) {
      const page = recordHtml({ title: name, machine: '', state: '', sections, signatures: [] });
      expect(page.split('<tr>').length - 1)
        .withContext(name)
        .toBe(rowsOf(sections));
    }
  });

  it('says what is not there where there is no plan', () => {
    const [{ job, profile }] = cases;
    const { adopted: _none, ...planless } = job;
    const derived = derivedOf(planless, profile, []);
    const sections = recordSections({
      job: planless,
      device: profile.title,
      site: '',
      derived,
      evidence: [],
      decimal: '.',
    });
    const told = sections.find((s) => s.id === 'notShown')?.rows.map(([c]) => c.text) ?? [];
    expect(told[0]).toMatch(/^No plan is adopted/u);
    expect(sections.map((s) => s.id)).not.toContain('operator');
  });
});
