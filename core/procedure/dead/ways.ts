/** One thing that joins two places: a wire, a closed contact, a link. */
interface Join {
  readonly e: number;
  readonly from: number;
  readonly to: number;
}

/** A shortest way from x to y, as joins in their order; undefined where there is none without `but`. */
function wayOf(joins: readonly Join[], x: number, y: number, but?: number): Join[] | undefined {
  const by = new Map<number, Join[]>();
  for (const join of joins) {
    if (join.e === but) continue;
    for (const at of [join.from, join.to]) by.set(at, [...(by.get(at) ?? []), join]);
  }
  const came = new Map<number, Join | null>([[x, null]]);
  const line = [x];
  for (let at = line.shift(); at !== undefined && !came.has(y); at = line.shift())
    for (const join of by.get(at) ?? []) {
      const next = join.from === at ? join.to : join.from;
      if (came.has(next)) continue;
      came.set(next, join);
      line.push(next);
    }
  if (!came.has(y)) return undefined;
  const way: Join[] = [];
  let at = y;
  for (let join = came.get(at); join; join = came.get(at)) {
    way.unshift(join);
    at = join.from === at ? join.to : join.from;
  }
  return way;
}

/**
 * Whether two places are joined, without one of the joins.
 *
 * @example joinedBut([{ e: 0, from: 1, to: 2 }], 1, 2, 0) // false
 */
export const joinedBut = (joins: readonly Join[], x: number, y: number, but: number): boolean =>
  wayOf(joins, x, y, but) !== undefined;

/**
 * Joins without any one of which two places are not joined any more: they lie one after the other on every way.
 *
 * @returns their numbers, in the order from x to y; none where the places are not joined
 * @example seriesOf([{ e: 0, from: 1, to: 2 }, { e: 1, from: 2, to: 3 }, { e: 2, from: 2, to: 3 }], 1, 3) // [0]
 */
export function seriesOf(joins: readonly Join[], x: number, y: number): number[] {
  const way = wayOf(joins, x, y) ?? [];
  return way.filter(({ e }) => !wayOf(joins, x, y, e)).map(({ e }) => e);
}
