import { expectedLines, nominalText, rangeText, readingText } from './reading-text.js';

describe('a reading in words', () => {
  const choices = [{ value: 'staysStopped', name: 'stays stopped' }];
  const text = (body: object, mark: '.' | ',' = '.'): string =>
    readingText(body as never, { choices, places: { atRest: 'at rest' } }, mark);
  const now = (...values: object[]): object => ({ version: 2, values, verdict: 'pass' });

  it('is the value with its unit, in the person’s decimal mark, whichever release kept it', () => {
    expect(text({ reading: 398.5, unit: 'V', verdict: 'pass' }, ',')).toBe('398,5 V');
    expect(text(now({ value: 398.5, unit: 'V' }), ',')).toBe('398,5 V');
  });

  it('is the answer by its name, every value of several, and says what the instrument could not show', () => {
    expect(text(now({ value: 'staysStopped' }))).toBe('stays stopped');
    expect(text(now({ value: 'unheard' }))).toBe('unheard');
    expect(text(now({ value: 400, unit: 'V' }, { value: 398, unit: 'V' }))).toBe('400 V, 398 V');
    expect(text(now({ where: 'L1–L2', value: 400, unit: 'V' }))).toBe('L1–L2 400 V');
    expect(text(now({ over: true, unit: 'MΩ' }))).toBe('over range, MΩ');
    expect(text(now({ where: 'atRest', over: true, unit: 'Ω' }))).toBe('at rest OL');
  });
});

describe('an expected value in words', () => {
  const of = (lo: number, nominal: number, hi: number, unit: string) =>
    ({ kind: 'range', lo, hi, nominal, unit }) as const;

  it('is called a limit where it lies at an end of what is accepted', () => {
    expect(nominalText(of(10.02, 66.8, 66.8, 'A'), '.')).toBe('at most 66.8 A');
    expect(nominalText(of(5, 5, 9, 'V'), '.')).toBe('at least 5 V');
    expect(nominalText(of(360, 400, 440, 'V'), '.')).toBe('400 V');
    expect(nominalText(of(0, 0, 60, 'V'), '.')).toBe('0 V');
  });

  it('comes with the band that passes, open above where nothing is too much', () => {
    expect(rangeText(of(10.02, 66.8, 66.8, 'A'), ',')).toBe('10 … 66,8 A');
    expect(rangeText(of(0.1, 0.2, 0.31, 'Ω'), '.')).toBe('0.1 … 0.31 Ω');
    expect(rangeText(of(1, 5, 100_000, 'MΩ'), '.')).toBe('1 MΩ or more');
  });

  it('is a line a place where the places differ, no way told as such', () => {
    const [open, closed] = [of(1000, 1000, 1e11, 'Ω'), of(0, 0.4, 0.76, 'Ω')];
    const step = { expect: open, each: [open, closed], fields: ['atRest', 'worked'] };
    expect(expectedLines({ step: step as never, places: { atRest: 'at rest' } }, ',')).toEqual([
      { place: 'at rest', nominal: 'no way', range: 'OL, or 1 kΩ and more' },
      { place: 'worked', nominal: '0,4 Ω', range: '0 … 0,76 Ω' },
    ]);
    expect(expectedLines({ step: { expect: closed } as never, places: {} }, '.').length).toBe(1);
    const seen = { expect: { kind: 'state', is: 'done' } } as never;
    expect(expectedLines({ step: seen, places: {} }, '.')).toEqual([]);
  });
});
