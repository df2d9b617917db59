import * as v from 'valibot';
import { runDriveCase } from './case.js';
import { driveCaseSchema } from './vocabulary.js';

type Events = [number, string, number][];
const base = {
  startMethod: 'levelRunDirection',
  maxHz: 50,
  accelS: 5,
  decelS: 10,
  referenceHz: 30,
  powerUpDelayMs: 0,
  filterMs: 0,
  keypadHz: 20,
};

function run(control: object, events: Events, sampleMs: number[], inputs: object = {}): string[] {
  const data = {
    control: { ...base, ...control },
    inputs,
    events: events.map(([atMs, input, level]) => ({ atMs, input, level })),
    sampleMs,
  };
  return runDriveCase(v.parse(driveCaseSchema, data)).map(
    (s) => `${s.state} ${Math.round(s.hz * 10) / 10 || 0}${s.fault ? ` ${s.fault}` : ''}`,
  );
}

describe('who commands', () => {
  const toLocal: Events = [
    [0, 'run', 1],
    [5000, 'local', 1],
  ];

  it('change of place while running: stops, keeps running at the new reference, or follows the new place', () => {
    expect(run({ onPlaceChange: 'stop' }, toLocal, [7000, 12_000])).toEqual([
      'decelerating 20',
      'ready 0',
    ]);
    expect(run({ onPlaceChange: 'keepRunning' }, toLocal, [7500])).toEqual(['atSpeed 20']);
    expect(run({ onPlaceChange: 'follow' }, toLocal, [12_000])).toEqual(['ready 0']);
  });

  it('back at the terminals with a run level closed: only a device that follows levels starts', () => {
    const back: Events = [
      [0, 'local', 1],
      [1000, 'run', 1],
      [3000, 'local', 0],
    ];
    expect(run({ onTakeover: 'needFreshEdge' }, back, [4000])).toEqual(['blocked 0']);
    expect(run({ onTakeover: 'followLevel' }, back, [4000])).toEqual(['accelerating 10']);
  });

  it('keepRunning back to the terminals ends when a terminal command changes', () => {
    const events: Events = [
      [0, 'local', 1],
      [100, 'keypadStart', 1],
      [200, 'keypadStart', 0],
      [6000, 'local', 0],
      [9000, 'run', 1],
      [9500, 'run', 0],
    ];
    expect(run({ onPlaceChange: 'keepRunning' }, events, [8900, 18_000])).toEqual([
      'atSpeed 30',
      'ready 0',
    ]);
  });

  it('the keypad does not start while terminals command, and the terminals do not while the keypad does', () => {
    expect(run({}, [[100, 'keypadStart', 1]], [3000])).toEqual(['ready 0']);
    expect(run({ commandSource: 'keypad' }, [[100, 'run', 1]], [3000])).toEqual(['ready 0']);
  });

  it('the stop of the station acts under the keypad or is dead, as the device says', () => {
    const events: Events = [
      [100, 'keypadStart', 1],
      [200, 'keypadStart', 0],
      [5000, 'stop', 0],
    ];
    expect(
      run({ commandSource: 'keypad', terminalStopUnderKeypad: 'acts' }, events, [7000, 11_500]),
    ).toEqual(['decelerating 20', 'ready 0']);
    expect(
      run({ commandSource: 'keypad', terminalStopUnderKeypad: 'ignored' }, events, [9000]),
    ).toEqual(['atSpeed 30']);
  });

  it('the keypad stop acts under terminal command and holds until the demand was taken away and given again', () => {
    const events: Events = [
      [0, 'run', 1],
      [5000, 'keypadStop', 1],
      [5100, 'keypadStop', 0],
      [14_000, 'run', 0],
      [14_100, 'run', 1],
    ];
    expect(run({ keypadStopAlways: true }, events, [12_000, 15_100])).toEqual([
      'blocked 0',
      'accelerating 10',
    ]);
    expect(run({ keypadStopAlways: false }, events, [12_000])).toEqual(['atSpeed 30']);
  });
});

describe('jog, presets and stops', () => {
  it('a jog asked for while running is refused until it is let go, or wins where the device says so', () => {
    const events: Events = [
      [0, 'run', 1],
      [5000, 'jogForward', 1],
      [6500, 'run', 0],
      [13_000, 'jogForward', 0],
      [13_500, 'jogForward', 1],
    ];
    expect(run({}, events, [6000, 12_800, 14_500])).toEqual(['atSpeed 30', 'ready 0', 'jogging 5']);
    expect(run({ jogWhileRunning: 'wins' }, events, [6400])).toEqual(['jogging 23']);
  });

  it('the jog reference alone does nothing; with run it sets the speed', () => {
    expect(run({}, [[100, 'jogReferenceSelect', 1]], [2000])).toEqual(['ready 0']);
    expect(
      run(
        {},
        [
          [100, 'jogReferenceSelect', 1],
          [200, 'run', 1],
        ],
        [2000],
      ),
    ).toEqual(['atSpeed 5']);
  });

  it('presets by priority: the highest bit wins', () => {
    const events: Events = [
      [0, 'run', 1],
      [0, 'presetBit0', 1],
      [6000, 'presetBit2', 1],
    ];
    expect(
      run({ presetCoding: 'priority', presetsHz: [10, 20, 40] }, events, [5000, 12_000]),
    ).toEqual(['atSpeed 10', 'atSpeed 40']);
  });

  it('each stop mode takes the shaft to rest in its own way', () => {
    const events: Events = [
      [0, 'run', 1],
      [5000, 'run', 0],
    ];
    expect(run({ stopMode: 'coast', coastS: 20 }, events, [6000, 18_000])).toEqual([
      'coasting 0',
      'ready 0',
    ]);
    expect(run({ stopMode: 'dcBrake', dcBrakeS: 2 }, events, [5500, 7500])).toEqual([
      'decelerating 0',
      'ready 0',
    ]);
    expect(
      run(
        { stopMode: 'rampThenDcHold', dcBrakeFromHz: 5, dcBrakeS: 1 },
        events,
        [9900, 10_500, 11_500],
      ),
    ).toEqual(['decelerating 5.5', 'decelerating 0', 'ready 0']);
    expect(
      run(
        { quickStopS: 2 },
        [
          [0, 'run', 1],
          [5000, 'quickStop', 1],
        ],
        [5600, 7000],
      ),
    ).toEqual(['decelerating 15', 'blocked 0']);
  });

  it('a start while the shaft coasts: waits, catches, starts at zero or trips', () => {
    const events: Events = [
      [0, 'run', 1],
      [5000, 'run', 0],
      [6000, 'run', 1],
    ];
    const coasting = { stopMode: 'coast', coastS: 10 };
    expect(
      run({ ...coasting, startWhileCoasting: 'waitUntilStill' }, events, [8000, 12_000]),
    ).toEqual(['coasting 0', 'accelerating 10']);
    expect(run({ ...coasting, startWhileCoasting: 'catch' }, events, [6100])).toEqual([
      'accelerating 26',
    ]);
    expect(run({ ...coasting, startWhileCoasting: 'startAtZeroHz' }, events, [6500])).toEqual([
      'accelerating 5',
    ]);
    expect(run({ ...coasting, startWhileCoasting: 'fault' }, events, [6100])).toEqual([
      'faulted 0 overcurrent',
    ]);
  });

  it('an external fault trips at once, and reset clears it only when its cause is gone', () => {
    const events: Events = [
      [0, 'run', 1],
      [5000, 'externalFault', 1],
      [6000, 'reset', 1],
      [6100, 'reset', 0],
      [7000, 'externalFault', 0],
      [8000, 'reset', 1],
    ];
    expect(run({ onFaultReset: 'needFreshEdge' }, events, [5100, 6500, 9000])).toEqual([
      'faulted 0 externalFault',
      'faulted 0 externalFault',
      'blocked 0',
    ]);
    expect(run({ onFaultReset: 'followLevel' }, events, [9000])).toEqual(['accelerating 10']);
  });

  it('forgets a fault without supply, or keeps it until it is reset, by its memory; what the supply itself left goes with it', () => {
    const away: Events = [
      [0, 'run', 1],
      [5000, 'externalFault', 1],
      [6000, 'externalFault', 0],
      [6500, 'run', 0],
      [7000, 'mains', 0],
      [9000, 'mains', 1],
      [12_000, 'reset', 1],
      [12_100, 'reset', 0],
    ];
    const at = [6900, 11_000, 13_000];
    expect(run({ faultMemoryOff: 'kept' }, away, at)).toEqual([
      'faulted 0 externalFault',
      'faulted 0 externalFault',
      'ready 0',
    ]);
    expect(run({}, away, at)).toEqual(['faulted 0 externalFault', 'ready 0', 'ready 0']);
    const cut: Events = [
      [0, 'run', 1],
      [5000, 'mains', 0],
      [6000, 'run', 0],
      [9000, 'mains', 1],
    ];
    expect(run({ faultMemoryOff: 'kept' }, cut, [11_000])).toEqual(['ready 0']);
  });
});
