import { signalAt } from '@tactron/core/trace';
import type { Trace } from '@tactron/core/trace';
import { lanePath, valueAt } from './lane-reader';

const trace = {
  signals: [{ id: 'hz', of: { kind: 'device', id: 'd' }, unit: 'Hz', kind: 'value' }],
  segments: [{ t: [0, 1_000_000, 3_000_000], y: [0, 0, 20], dy: [0, 5, 0], ddy: [0, 5, 0] }],
  instants: { t: [0, 2_000_000], solution: [0, 1] },
  solutions: [
    {
      volts: Float64Array.of(24, 0, 7),
      slope: Float64Array.of(0, 0, 0),
      acRe: new Float64Array(3),
      acIm: new Float64Array(3),
      island: Int32Array.of(1, 1, 2),
    },
    {
      volts: Float64Array.of(10, 0, 7),
      slope: Float64Array.of(2, 0, 0),
      acRe: Float64Array.of(3, 0, 0),
      acIm: Float64Array.of(4, 0, 0),
      island: Int32Array.of(1, 1, 2),
    },
  ],
} as unknown as Trace;

describe('reading a frame', () => {
  it('agrees with the core at every moment', () => {
    for (let t = 0; t <= 4_000_000; t += 37_000) {
      expect(valueAt(trace, 'hz', t)).toBe(signalAt(trace, 'hz', t));
    }
    expect(valueAt(trace, 'nothing', 0)).toBe(0);
  });

  it('draws a lane within its window and from edge to edge', () => {
    const points = [
      ...lanePath(trace, 'hz', 500_000, 3_500_000, 300, 40, 0, 20).matchAll(
        /[ML]([\d.-]+) ([\d.-]+)/gu,
      ),
    ].map((m) => [Number(m[1]), Number(m[2])]);
    expect(points[0]).toEqual([0, 37]);
    expect(points.at(-1)).toEqual([300, 3]);
    points.forEach(([x], i) => i && expect(x).toBeGreaterThanOrEqual(points[i - 1][0]));
  });
});
