import { recordedRamps } from './recorded-ramps.js';
import { guessMapping, readRecorder, recordingOf } from './recorder.js';

/** 0 → 50 Hz in 5 s from 2 s on, held until 12 s, down in 4 s; every 50 ms, with an overshoot and noise where wished. */
const hzAt = (t: number): number =>
  t < 2 ? 0 : t < 7 ? 10 * (t - 2) : t < 12 ? 50 : Math.max(0, 50 - 12.5 * (t - 12));
const rows = Array.from({ length: 400 }, (_, i) => i / 20);
const file = (hz: (t: number, i: number) => number, head = 't [s],f [Hz],I [A],Udc [V]'): string =>
  [
    head,
    ...rows.map((t, i) => [t, hz(t, i), hz(t, i) / 10, 560 + t].map((x) => x.toFixed(3))),
  ].join('\n');
const of = (text: string) => {
  const read = readRecorder(text);
  return recordingOf(read, guessMapping(read)!);
};

describe('ramps of a recording', () => {
  it('are timed on a straight ramp to within a row, counted from where it leaves nothing', () => {
    const recording = of(file(hzAt));
    const ramps = recordedRamps(recording)!;
    expect(ramps.of).toBe('hz');
    expect(ramps.upS).toBeCloseTo(5, 6);
    expect(ramps.downS).toBeCloseTo(4, 6);
    expect([ramps.steady, ramps.overshootPct]).toEqual([50, 0]);
    expect(ramps.peakA).toBeCloseTo(5, 6);
    expect(ramps.peakLinkV).toBeCloseTo(560 + 19.95, 6);
    expect(recording.points.find((p) => (p.hz ?? 0) > 0)!.t).toBeLessThan(0.11);
  });

  it('bear the noise of a display and tell an overshoot', () => {
    const noisy = (t: number, i: number): number =>
      hzAt(t) + (hzAt(t) > 0 ? 0.15 * Math.sin(7 * i) : 0);
    const ramps = recordedRamps(of(file((t, i) => noisy(t, i) + (t > 7 && t < 7.3 ? 2 : 0))))!;
    expect(ramps.upS).toBeCloseTo(5, 0);
    expect(Math.abs(ramps.upS! - 5)).toBeLessThan(0.1);
    expect(Math.abs(ramps.downS! - 4)).toBeLessThan(0.1);
    expect(ramps.overshootPct).toBeGreaterThan(3.5);
    expect(ramps.overshootPct).toBeLessThan(4.5);
  });

  it('are taken from the shaft where no frequency was recorded, in reverse too', () => {
    const text = ['t [s],n [rpm]', ...rows.map((t) => `${t},${(-30 * hzAt(t)).toFixed(1)}`)].join(
      '\n',
    );
    const ramps = recordedRamps(of(text))!;
    expect([ramps.of, ramps.steady]).toEqual(['rpm', 1500]);
    expect(ramps.upS).toBeCloseTo(5, 1);
    expect([ramps.peakA, ramps.peakLinkV]).toEqual([null, null]);
  });

  it('are not timed where the recording begins or ends within them', () => {
    const late = rows.filter((t) => t > 4 && t < 14);
    const cut = ['t [s],f [Hz]', ...late.map((t) => `${t},${hzAt(t)}`)].join('\n');
    expect([recordedRamps(of(cut))?.upS, recordedRamps(of(cut))?.downS]).toEqual([null, null]);
    const still = ['t [s],f [Hz]', ...late.map((t) => `${t},0`)].join('\n');
    expect(recordedRamps(of(still))).toBeUndefined();
  });
});
