import {
  guessMapping,
  readRecorder,
  recordedStart,
  RecorderError,
  recordingOf,
} from './recorder.js';

/** A start at a limit of 230 A for 10 s that falls to 60 A, from 2 s on, with a row every 100 ms. */
const rows = Array.from({ length: 160 }, (_, i) => {
  const t = i / 10;
  const amps = t < 2 ? 0.4 : t < 12 ? 230 : Math.max(60, 230 - (t - 12) * 170);
  return { t, amps, rpm: t < 2 ? 0 : Math.min(1490, (t - 2) * 149) };
});
const points = (x: number): string => x.toFixed(2);
const commas = (x: number): string => points(x).replace('.', ',');

const plain = [
  'Time [s],I1 [A],n [rpm]',
  ...rows.map((r) => [r.t, r.amps, r.rpm].map(points).join(',')),
].join('\n');
const german = [
  'Messung vom 12.3.',
  'Gerät;Nummer 3',
  'Zeit;Strom L1;Drehzahl',
  'ms;mA;1/min',
  ...rows.map((r) => [r.t * 1000, r.amps * 1000, r.rpm].map(commas).join(';')),
].join('\r\n');

describe('a recorder’s file', () => {
  for (const [name, text] of Object.entries({ plain, german }))
    it(`is read whatever its separator, decimal mark, units and head (${name})`, () => {
      const file = readRecorder(text);
      const mapping = guessMapping(file);
      expect(mapping).toEqual({ time: 0, amps: 1, speed: 2 });
      const recording = recordingOf(file, mapping!);
      const start = recordedStart(recording, 80);
      expect(start.peakA).toBeCloseTo(230, 6);
      // From 2 s; at 12 s it falls by 170 A a second, and passes 80 A after 150/170 s.
      expect(start.startS).toBeCloseTo(10 + 150 / 170, 6);
      expect(start.runA).toBeCloseTo(60, 0);
      expect(recording.points.at(-1)?.rpm).toBeCloseTo(1490, 0);
    });

  it('takes a semicolon for the separator although every number has a comma, under a head of one word', () => {
    const text = [
      'Messung',
      't [s];f [Hz]',
      '0,00;0,00',
      '0,05;0,49',
      '0,10;0,98',
      '0,15;1,47',
    ].join('\n');
    const file = readRecorder(text);
    expect(file.columns.map((c) => [c.name, c.unit, c.values.at(-1)])).toEqual([
      ['t', 's', 0.15],
      ['f', 'Hz', 1.47],
    ]);
  });

  it('tells its gaps and goes on past them', () => {
    const lines = plain.split('\n');
    lines[30] = '2.90,,134.10';
    lines[31] = '3.00,OL,149.00';
    const file = readRecorder(lines.join('\n'));
    const recording = recordingOf(file, { time: 0, amps: 1 });
    expect(recording.gaps).toBe(2);
    expect(recordedStart(recording, 80).peakA).toBe(230);
  });

  it('is refused with what is wrong, and where', () => {
    expect(() => readRecorder('nothing here\nat all')).toThrowError(RecorderError, /No table/u);
    expect(() => readRecorder('t,a\n1,2\n2,3')).toThrowError(RecorderError, /Only 2 lines/u);
    const file = readRecorder(plain);
    expect(() => recordingOf(file, { time: 0 })).toThrowError(RecorderError, /which column/u);
    expect(() => recordingOf(file, { time: 1, amps: 1 })).toThrowError(RecorderError, /no unit/u);
    expect(() => recordingOf(file, { time: 2, amps: 1 })).toThrowError(RecorderError);
    const back = readRecorder(plain.replace('1.50,0.40', '0.50,0.40'));
    expect(() => recordingOf(back, { time: 0, amps: 1 })).toThrowError(
      RecorderError,
      /falls in line 16/u,
    );
    expect(guessMapping(readRecorder('x,y\n1,2\n2,3\n3,4'))).toBeUndefined();
  });

  it('whose current never falls again has no end of its start', () => {
    const file = readRecorder(plain.split('\n').slice(0, 100).join('\n'));
    const start = recordedStart(recordingOf(file, { time: 0, amps: 1 }), 80);
    expect([start.peakA, start.startS]).toEqual([230, null]);
  });
});
