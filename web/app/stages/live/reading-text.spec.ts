import { readingText } from './reading-text';

describe('a reading in words', () => {
  const choices = [{ value: 'staysStopped', name: 'stays stopped' }];
  const text = (body: object, mark: '.' | ',' = '.'): string =>
    readingText(body as never, choices, mark);
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
  });
});
