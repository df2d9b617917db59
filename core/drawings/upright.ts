import type { Element, Elements } from './elements.js';

/** What stays as it is drawn. */
const blocks: readonly string[] = ['device', 'supply', 'motor', 'resistor'];

/**
 * Turns elements of two ends so that the end nearer to the plus of a source lies above: by how many elements lie between
 * it and the nearest plus, against how many lie between it and the nearest minus.
 */
export function upright({ elements, nets }: Elements): Element[] {
  const net = (landing: string): string => nets.of(landing);
  const joined = new Map<string, string[]>();
  const join = (a: string, b: string): void => {
    joined.set(a, [...(joined.get(a) ?? []), b]);
    joined.set(b, [...(joined.get(b) ?? []), a]);
  };
  const plus: string[] = [];
  const minus: string[] = [];
  for (const { shape, ends, ways } of elements) {
    if (shape === 'source') {
      const [a, b] = sourceEnds(ends.map((e) => e.landing));
      plus.push(net(a));
      minus.push(net(b));
    } else if (shape === 'supply') for (const e of ends) plus.push(net(e.landing));
    else if (shape === 'dial') {
      join(net(ends[0].landing), net(ends[1].landing));
      join(net(ends[1].landing), net(ends[2].landing));
    } else for (const [a, b] of ways) join(net(a), net(b));
  }
  const fromPlus = stepsFrom(plus, joined);
  const fromMinus = stepsFrom(minus, joined);
  const rank = (landing: string): number => {
    const [p, m] = [fromPlus.get(net(landing)), fromMinus.get(net(landing))];
    if (p === undefined) return m === undefined ? 0.5 : 1;
    return m === undefined ? 0 : p / Math.max(1, p + m);
  };
  return elements.map((e) => turned(e, rank));
}

/** Plus and minus of a source: by the names of its terminals, else as they are given. */
const sourceEnds = ([a, b]: string[]): [string, string] => (a.endsWith(':-') ? [b, a] : [a, b]);

function turned(element: Element, rank: (landing: string) => number): Element {
  const { ends, shape } = element;
  if (ends.length !== 2 || blocks.includes(shape)) return element;
  if (ends[0].side === ends[1].side) return element;
  const [a, b] = ends.map((e) => e.landing);
  const [above, below] =
    shape === 'source' ? sourceEnds([a, b]) : rank(a) <= rank(b) ? [a, b] : [b, a];
  return {
    ...element,
    ends: [
      { landing: above, side: 'start' },
      { landing: below, side: 'end' },
    ],
  };
}

/** How many elements lie between each net and the nearest of some. */
function stepsFrom(
  begin: readonly string[],
  joined: ReadonlyMap<string, readonly string[]>,
): ReadonlyMap<string, number> {
  const steps = new Map(begin.map((n) => [n, 0]));
  for (const [at, n] of steps)
    for (const next of joined.get(at) ?? []) if (!steps.has(next)) steps.set(next, n + 1);
  return steps;
}
