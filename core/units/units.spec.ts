import fc from 'fast-check';
import { dimensions, toBase, unitsOf, type Dimension } from './dimensions.js';
import { formatNumber, formatQuantity } from './format.js';
import { parseQuantity } from './parse.js';

describe('quantities', () => {
  it('accept comma and point, blanks, and the units people type', () => {
    const read = (text: string, dimension: Dimension) => {
      const p = parseQuantity(text, dimension);
      return p.ok ? `${p.quantity.v} ${p.quantity.u}` : p.why;
    };
    expect(read('1,5 kW', 'power')).toBe('1.5 kW');
    expect(read('1.5kw', 'power')).toBe('1.5 kW');
    expect(read('15 hp', 'power')).toBe('15 hp');
    expect(read('5 kohm', 'resistance')).toBe('5 kΩ');
    expect(read('180 ft', 'length')).toBe('180 ft');
    expect(read('1 234,5', 'voltage')).toBe('1234.5 V');
    expect(read('1.234,5', 'voltage')).toBe('1234.5 V');
    expect(read('0,500', 'current')).toBe('0.5 A');
    expect(read('12 parsec', 'length')).toBe('unknownUnit');
    expect(read('abc', 'length')).toBe('notANumber');
    expect(read('', 'length')).toBe('empty');
  });

  it('ask when one separator stands before three digits', () => {
    for (const text of ['1,500', '1.500'])
      expect(parseQuantity(text, 'speed')).toEqual({
        ok: false,
        why: 'ambiguous',
        readings: [1.5, 1500],
      });
  });

  it('come back as they were typed', () => {
    const any = fc.constantFrom(...(Object.keys(dimensions) as Dimension[])).chain((dimension) =>
      fc.record({
        dimension: fc.constant(dimension),
        u: fc.constantFrom(...unitsOf(dimension)),
        v: fc.integer({ min: 1, max: 999_999 }).map((x) => x / 100),
        mark: fc.constantFrom('.' as const, ',' as const),
      }),
    );
    fc.assert(
      fc.property(any, ({ dimension, u, v, mark }) => {
        const parsed = parseQuantity(formatQuantity({ v, u }, mark), dimension);
        expect(parsed).toEqual({ ok: true, quantity: { v, u } });
      }),
      { seed: 4 },
    );
  });

  it('turn into base units by the factors of NIST SP 811', () => {
    expect(toBase({ v: 15, u: 'hp' }, 'power')).toBeCloseTo(11.1855, 4);
    expect(toBase({ v: 225, u: 'lb·ft²' }, 'inertia')).toBeCloseTo(9.4815, 4);
    expect(toBase({ v: 212, u: '°F' }, 'temperature')).toBeCloseTo(100, 9);
    expect(() => toBase({ v: 1, u: 'kW' }, 'voltage')).toThrowError(RangeError);
  });

  it('write numbers without trailing zeros and never as minus zero', () => {
    expect([
      formatNumber(2.25, 2, ','),
      formatNumber(1459.96, 1),
      formatNumber(-0.0001, 2),
      formatNumber(NaN),
    ]).toEqual(['2,25', '1460', '0', '–']);
  });
});
