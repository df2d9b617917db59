import type { ArgumentSpec } from '@tactron/core/calculation';
import { calculations } from '@tactron/core/sums';
import { argumentsOf, asText, formLines, readNumber, rowsOf, show, typedOf } from './sum-state';
import { runCalculation } from '@tactron/core/calculation';

describe('form of a sum', () => {
  it('carries every example through the form and back unchanged', () => {
    for (const c of Object.values(calculations)) {
      for (const mark of ['.', ','] as const) {
        const typed = typedOf(c.example ?? {}, mark);
        const back = argumentsOf(c.args, typed);
        expect(runCalculation(c, back).result)
          .withContext(c.name)
          .toEqual(runCalculation(c, c.example ?? {}).result);
      }
    }
  });

  it('has a line for each argument, and rows for lists of records', () => {
    const calibrate = calculations['calibrate'];
    const lines = formLines(calibrate.args, {});
    expect(lines.map((l) => l.path)).toEqual([
      'points',
      'points.0.x',
      'points.0.y',
      'points.1.x',
      'points.1.y',
      'points.2.x',
      'points.2.y',
      'idealGain',
      'idealOffset',
      'span',
    ]);
    expect(rowsOf({ 'points.6.y': '1' }, 'points', calibrate.args['points'] as ArgumentSpec)).toBe(
      7,
    );
    expect(
      formLines(calculations['runUp'].args, {}).some((l) => l.path === 'load.table.0.rpm'),
    ).toBeFalse();
  });

  it('reads both decimal marks, and asks where a number can mean two', () => {
    expect([readNumber('1,5'), readNumber('1.5'), readNumber(''), readNumber('-3')]).toEqual([
      1.5,
      1.5,
      undefined,
      -3,
    ]);
    expect(readNumber('1,500')).toBe('1,500 can mean 1.5 or 1500');
    expect(argumentsOf({ a: { unit: '', title: 'a', kind: 'list' } }, { a: '1,5; 2 3' })).toEqual({
      a: [1.5, 2, 3],
    });
  });

  it('shows values and writes the working as text', () => {
    expect([
      show(0.24137, 'Ω', ','),
      show(null, '', '.'),
      show(true, '', '.'),
      show(1234567, '', '.'),
    ]).toEqual(['0,2414 Ω', '–', 'yes', '1234567']);
    const { working } = runCalculation(calculations['insulationAt40'], {
      readingMOhm: 100,
      windingC: 20,
    });
    expect(asText(working, '.')).toBe(
      'Insulation at 40 °C\nGiven\n  reading: 100 MΩ\n  winding: 20 °C\nResult\n  at 40 °C: 25 MΩ\nFormula: R40 = R·0.5^((40 − θ)/10)\nSource: IEEE Std 43-2013, halving rule',
    );
  });
});
