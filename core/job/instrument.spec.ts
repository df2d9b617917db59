import * as v from 'valibot';
import { instrumentDoubt, instrumentFor, instrumentKinds, instrumentSchema } from './instrument.js';

describe('an instrument', () => {
  const today = '2026-12-01';
  const meter = { name: 'M1', measures: ['voltage', 'resistance'], calibratedUntil: '2026-12-01' };
  const parsed = v.parse(instrumentSchema, meter);

  it('does for what it measures, up to the last day of its calibration', () => {
    expect(instrumentDoubt(parsed, 'voltmeter', today)).toBeUndefined();
    expect(instrumentDoubt(parsed, 'voltmeter', '2026-12-02')).toBe('outOfCalibration');
    expect(instrumentDoubt(parsed, 'insulation tester', '2026-12-02')).toBe('cannotMeasure');
  });

  it('is not held against what nobody has said of it', () => {
    for (const step of ['voltmeter', 'insulation tester', 'clamp', 'stopwatch', undefined])
      expect(instrumentDoubt({ name: 'M2' }, step, today)).toBeUndefined();
  });

  it('has to read true RMS where it reads a current', () => {
    const clamp = { ...parsed, measures: ['current' as const], trueRms: false };
    expect(instrumentDoubt(clamp, 'clampPeak', today)).toBe('notTrueRms');
    expect(instrumentDoubt({ ...clamp, trueRms: true }, 'clamp', today)).toBeUndefined();
  });

  it('is asked for by every kind at least once, and by no watch', () => {
    const steps = ['voltage tester', 'voltmeter', 'ohmmeter', 'low-ohm meter', 'insulation tester'];
    const more = ['ammeter', 'clamp', 'clampPeak', 'tachometer', 'rotationTester'];
    const kinds = new Set([...steps, ...more].map(instrumentFor));
    expect([...kinds].sort()).toEqual([...instrumentKinds].sort());
    expect(instrumentFor('stopwatch')).toBeUndefined();
  });

  it('keeps what an earlier release wrote of it', () => {
    expect(
      v.is(instrumentSchema, { name: 'M', serial: '7', calibratedUntil: 'spring' }),
    ).toBeTrue();
    expect(v.is(instrumentSchema, { name: ' ' })).toBeFalse();
  });
});
