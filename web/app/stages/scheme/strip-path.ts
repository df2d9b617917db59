import type { Strip } from '@tactron/core/compare';

type Marks = readonly { readonly atMs: number }[];

/**
 * Place of a moment on a strip on which every part between two marks is equally wide: what happens is seen, however long
 * the motor or the dark takes.
 *
 * @returns 0 … 1
 */
export function placeOf(ms: number, marks: Marks, endMs: number): number {
  const edges = [0, ...marks.map((m) => m.atMs), endMs];
  for (let i = 0; i + 1 < edges.length; i++) {
    const [from, to] = [edges[i], edges[i + 1]];
    if (ms <= to || i + 2 === edges.length)
      return (
        (i + (to > from ? Math.min(1, Math.max(0, (ms - from) / (to - from))) : 0)) /
        (edges.length - 1)
      );
  }
  return 1;
}

/** Path of a line of a strip in a box; a line that crosses a mark bends there, because the parts have their own scales. */
export function stripPath(
  line: Strip['lines'][number],
  marks: Marks,
  endMs: number,
  width: number,
  height: number,
  low: number,
): string {
  const y = (value: number): number =>
    height - 3 - ((value - low) / (line.top - low || 1)) * (height - 6);
  const x = (ms: number): number => placeOf(ms, marks, endMs) * width;
  const points: (readonly [number, number])[] = [];
  line.points.forEach(([ms, value], i) => {
    const next = line.points[i + 1];
    points.push([x(ms), y(value)]);
    if (!next || next[1] === value) return;
    for (const { atMs } of marks) {
      if (atMs <= ms || atMs >= next[0]) continue;
      points.push([x(atMs), y(value + ((next[1] - value) * (atMs - ms)) / (next[0] - ms))]);
    }
  });
  return points.map(([px, py], i) => `${i ? 'L' : 'M'}${px.toFixed(1)} ${py.toFixed(1)}`).join('');
}
