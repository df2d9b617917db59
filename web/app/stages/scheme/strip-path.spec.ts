import { placeOf, stripPath } from './strip-path';

const marks = [{ atMs: 1000 }, { atMs: 2000 }, { atMs: 62_000 }];

describe('the strip of a behaviour card', () => {
  it('gives every part between two marks the same width, whatever it lasts', () => {
    expect(
      [0, 500, 1000, 2000, 32_000, 62_000, 70_000].map((ms) => placeOf(ms, marks, 70_000)),
    ).toEqual([0, 0.125, 0.25, 0.5, 0.625, 0.75, 1]);
  });

  it('never goes back in time', () => {
    const places = Array.from({ length: 200 }, (_, i) => placeOf(i * 350, marks, 70_000));
    places.forEach((p, i) => i && expect(p).toBeGreaterThanOrEqual(places[i - 1]));
  });

  it('bends a slope at the mark it crosses', () => {
    const line = {
      id: 'device.hz',
      kind: 'output',
      tag: '',
      top: 50,
      points: [
        [1500, 0],
        [32_000, 50],
      ],
    } as const;
    const points = [
      ...stripPath(line, marks, 70_000, 400, 46, 0).matchAll(/[ML]([\d.]+) ([\d.]+)/gu),
    ].map((m) => [Number(m[1]), Number(m[2])]);
    expect(points.length).toBe(3);
    // 500 ms of 30.5 s are gone at the mark: 1.6 % of the rise, but a quarter of the parts.
    expect(points[1][0]).toBe(200);
    expect(points[1][1]).toBeCloseTo(43 - 40 * (500 / 30_500), 0);
  });
});
