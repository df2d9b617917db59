import type { StartView } from '@tactron/core/compare';
import type { RecordedRamps } from '@tactron/core/formats';
import {
  readFor,
  recordedAct,
  recordedSeries,
  recordedText,
  type Measured,
} from './recorder-curves';

const show = (x: number, unit: string, digits: number): string =>
  `${Number(x.toPrecision(digits))} ${unit}`;
const point = { t: 0, amps: null, rpm: null, hz: 50, linkV: null };
const ramps: RecordedRamps = {
  of: 'hz',
  upS: 4.93,
  downS: null,
  steady: 50,
  overshootPct: 1.2,
  peakA: 6.1,
  peakLinkV: null,
};
const measured: Measured = { recording: { points: [point], gaps: 0 }, start: null, ramps };
const run = {
  points: [{ t: 0, hz: 50, rpm: 1500 }],
  hz: { ...ramps, upS: 5, downS: 4 },
  rpm: null,
};

describe('a recording beside its simulation', () => {
  it('gives each step the number it asks for, of second ramps too', () => {
    expect(
      ['ramp.up', 'ramp.up.2', 'ramp.down', 'start.peak'].map((s) => readFor(s, measured)),
    ).toEqual([4.93, 4.93, null, null]);
    expect(['start.full', 'ramps', 'ramps.2', 'speed', undefined].map(recordedAct)).toEqual([
      'start.full',
      'ramps',
      'ramps.2',
      null,
      null,
    ]);
  });

  it('tells ramps beside the simulated ones, and what the recording does not hold', () => {
    expect(recordedText(measured, { kind: 'run', run }, show)).toBe(
      'Recorded: up 4.93 s, down not recorded, held 50 Hz, 1.2 % above it, peak 6.1 A. Simulated: up 5 s, down 4 s, held 50 Hz.',
    );
    expect(recordedText({ ...measured, ramps: null }, { kind: 'run', run }, show)).toBe(
      'Nothing moves in this recording.',
    );
  });

  it('draws only what was recorded, over what was simulated', () => {
    expect(
      recordedSeries(measured.recording, { kind: 'run', run }).map((c) => [c.name, c.points[0].y]),
    ).toEqual([
      ['frequency, recorded', 50],
      ['frequency, simulated', 50],
      ['speed, simulated', 1500],
    ]);
    const set = { points: [{ t: 0, amps: 200, rpm: 0 }], peakA: 200, startS: 9 };
    const view = { set } as unknown as StartView;
    const start = { peakA: 210, startS: null, runA: null };
    expect(recordedText({ ...measured, start }, { kind: 'start', view }, show)).toBe(
      'Recorded: peak 210 A, start over after not recorded. Simulated: 200 A, 9 s.',
    );
  });
});
