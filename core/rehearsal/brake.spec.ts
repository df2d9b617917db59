import { shippedProfile } from '../catalogue/index.js';
import { install } from '../installation/index.js';
import { adopted, bareJob } from '../testing/jobs.js';
import { pieceAt, signalAt } from '../trace/index.js';
import { trialsOf } from '../trials/index.js';

describe('a brake worked by the device', () => {
  const profile = shippedProfile('ondulet-n');
  const job = adopted(
    bareJob(
      {
        startStop: 'threeWire',
        stationFeed: 'separate',
        directionBy: undefined,
        startBy: undefined,
        accelS: 4,
        decelS: 4,
        brakeRelease: true,
      },
      profile,
      'N0220',
    ),
    profile,
  );

  it('is let go where the output has torque, and told to close there again on the way down, before torque is off', () => {
    expect(install(job, profile).shaft.brake).toBe('brake');
    const run = trialsOf(job, profile).run('ramps');
    const { trace } = run;
    const relay = trace.signals.find((s) => s.id === 'contactor.brake.on');
    const on = trace.segments[trace.signals.findIndex((s) => s.id === relay?.id)];
    const [, letGo, closed] = on.t;
    const hz = (us: number): number => signalAt(trace, 'device.hz', us);
    // A contactor takes some hundredths of a second: the output has moved on by then.
    expect(hz(letGo)).toBeGreaterThan(1.4);
    expect(hz(closed)).toBeGreaterThan(0.5);
    expect(hz(closed)).toBeLessThan(1.6);
    const output = trace.segments[trace.signals.findIndex((s) => s.id === 'device.hz')];
    const off = output.t[output.t.length - 1];
    expect(closed).toBeLessThan(off);
    expect(output.y[pieceAt(output.t, off)]).toBe(0);
  });
});
