import { markPath } from './drawn-mark';

describe('a drawn mark', () => {
  it('is kept as it was drawn, in its own box, and not endlessly', () => {
    expect(
      markPath(
        [
          [
            { x: 0, y: 0 },
            { x: 10, y: 5 },
          ],
        ],
        300,
        90,
      ),
    ).toBe('M0 0L10 5');
    expect(markPath([[{ x: 20, y: 10 }]], 600, 180)).toBe('M10 5');
    expect(markPath([], 300, 90)).toBe('');
    const long = Array.from({ length: 9000 }, (_, i) => ({ x: i % 300, y: i % 90 }));
    const path = markPath([long], 300, 90);
    expect(path.length).toBeLessThan(20_000);
    expect(path).toMatch(/^[MLC0-9 .,-]*$/u);
  });
});
