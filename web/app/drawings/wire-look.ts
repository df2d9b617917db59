import type { DrawnLine } from '@tactron/core/drawings';

/** Look of a line beside its class: how it is drawn, what is said of it, and a letter on it. */
export interface WireLook {
  readonly style: string;
  readonly title: string;
  /** Empty for none. */
  readonly mark: string;
}

/** Middle of the longest piece of a line. */
export function middleOf(points: DrawnLine['points']): { x: number; y: number } {
  let best = { x: 0, y: 0, length: -1 };
  points.slice(1).forEach(([x, y], i) => {
    const [px, py] = points[i];
    const length = Math.abs(px - x) + Math.abs(py - y);
    if (length > best.length) best = { x: (px + x) / 2, y: (py + y) / 2 + 4, length };
  });
  return best;
}
