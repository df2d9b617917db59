import { seeded } from '../numeric/index.js';
import { sayFindOutDoubt } from '../words/index.js';
import { contactSort, dialLeads, motorCores, type PairRead } from './find-out.js';

const all = <T>(list: readonly T[]): [T, T][] =>
  list.flatMap((x, i) => list.slice(i + 1).map((y): [T, T] => [x, y]));

/** What a dial shows between every two leads with its wiper at a share of the track. */
function dial(low: string, wiper: string, high: string, ohm: number, share: number): PairRead[] {
  const r: Record<string, number> = {
    [`${low}${high}`]: ohm,
    [`${low}${wiper}`]: 20 + share * ohm,
    [`${wiper}${high}`]: 20 + (1 - share) * ohm,
  };
  return all([low, wiper, high]).map(([a, b]) => ({
    a,
    b,
    ohm: r[`${a}${b}`] ?? r[`${b}${a}`],
  }));
}

describe('finding out which', () => {
  const random = seeded(21);

  it('tells wiper and ends of a dial, whichever way its leads lie and however roughly its stops are', () => {
    const orders = ['abc', 'acb', 'bac', 'bca', 'cab', 'cba'].map((s) => s.split(''));
    for (const [low, wiper, high] of orders)
      for (const ohm of [1000, 4700, 10_000]) {
        const back = dial(low, wiper, high, ohm, 0.03 * random());
        const full = dial(low, wiper, high, ohm * (0.98 + 0.04 * random()), 1 - 0.03 * random());
        const found = dialLeads(['a', 'b', 'c'], back, full);
        expect(found)
          .withContext(`${low}${wiper}${high} ${ohm}`)
          .toEqual(jasmine.objectContaining({ ok: true, low, wiper, high }));
      }
  });

  it('says of a dial what no dial can show: a broken track, a wiper that does not move or lies nowhere', () => {
    const leads = ['a', 'b', 'c'] as const;
    const open = all(leads).map(([a, b]): PairRead => ({ a, b, ohm: 'over' }));
    expect(dialLeads(leads, open, open)).toEqual(jasmine.objectContaining({ why: 'noTrack' }));
    const back = dial('a', 'b', 'c', 5000, 0.01);
    expect(dialLeads(leads, back, back)).toEqual(jasmine.objectContaining({ why: 'sameEnd' }));
    const half = dial('a', 'b', 'c', 5000, 0.5);
    expect(dialLeads(leads, half, half)).toEqual(jasmine.objectContaining({ why: 'wiperNowhere' }));
    const other = dial('a', 'b', 'c', 900, 0.99);
    expect(dialLeads(leads, back, other)).toEqual(jasmine.objectContaining({ ok: false }));
  });

  it('tells make from break, and a contact that does neither', () => {
    expect(contactSort('over', 0.3)).toEqual({ ok: true, makes: true });
    expect(contactSort(0.2, 'over')).toEqual({ ok: true, makes: false });
    expect(contactSort(0.2, 0.3)).toEqual(jasmine.objectContaining({ why: 'stuckClosed' }));
    expect(contactSort('over', 4700)).toEqual(jasmine.objectContaining({ why: 'stuckOpen' }));
  });

  it('tells windings, the protective core and a pair of sensors of an unmarked plug, in any order', () => {
    for (let round = 0; round < 40; round++) {
      const leads = ['1', '2', '3', '4', '5', '6'].sort(() => random() - 0.5);
      const [u, v, w, pe, s, t] = leads;
      const own = new Map<string, number>([
        ...all([u, v, w]).map(([a, b]): [string, number] => [a + b, 5 * (0.99 + 0.02 * random())]),
        [s + t, 210],
      ]);
      const pairs = all(leads).map(([a, b]): PairRead => {
        const ohm = own.get(a + b) ?? own.get(b + a);
        return { a, b, ohm: ohm ?? 'over' };
      });
      const frame = { [pe]: 0.4 };
      const found = motorCores([...leads].sort(), { pairs, frame });
      expect(found.ok).withContext(String(round)).toBeTrue();
      if (!found.ok) continue;
      expect([...found.windings].sort()).toEqual([u, v, w].sort());
      expect(found.protective).toBe(pe);
      expect(found.others.map((g) => [...g].sort())).toEqual([[s, t].sort()]);
      expect(found.ohm).toBeCloseTo(5, 0);
    }
  });

  it('says of a plug what contradicts itself: no core on the frame, two of them, windings that differ, too few', () => {
    const leads = ['1', '2', '3', '4'];
    const pairs = all(leads).map(([a, b]): PairRead => ({
      a,
      b,
      ohm: [a, b].includes('4') ? 'over' : a + b === '12' ? 7 : 5,
    }));
    const why = (frame: Record<string, number>, reads = pairs): string => {
      const found = motorCores(leads, { pairs: reads, frame });
      if (found.ok) return '';
      expect(sayFindOutDoubt(found.why, found.leads)).not.toContain(found.why);
      return found.why;
    };
    expect(why({})).toBe('noFrame');
    expect(why({ 3: 0.1, 4: 0.1 })).toBe('twoFrames');
    expect(why({ 4: 0.1 })).toBe('unequal');
    expect(why({ 4: 0.1 }, [])).toBe('notThree');
  });
});
