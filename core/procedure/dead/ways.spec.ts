import { seeded } from '../../numeric/index.js';
import { seriesOf } from './ways.js';

describe('what lies one after the other between two places', () => {
  it('is what disconnects them, over random nets, by trying', () => {
    const random = seeded(5);
    for (let round = 0; round < 300; round++) {
      const places = 3 + Math.floor(random() * 6);
      const joins = Array.from({ length: 2 + Math.floor(random() * 10) }, (_, e) => ({
        e,
        from: Math.floor(random() * places),
        to: Math.floor(random() * places),
      }));
      // Joined or not, by spreading over all joins until nothing changes any more.
      const joined = (but: number): boolean => {
        const seen = new Set([0]);
        for (let size = 0; size !== seen.size;) {
          size = seen.size;
          for (const { e, from, to } of joins)
            if (e !== but && (seen.has(from) || seen.has(to))) seen.add(from).add(to);
        }
        return seen.has(1);
      };
      const expected = joined(-1) ? joins.filter(({ e }) => !joined(e)).map(({ e }) => e) : [];
      expect(seriesOf(joins, 0, 1).sort((x, y) => x - y))
        .withContext(`${round}`)
        .toEqual(expected);
    }
  });
});
