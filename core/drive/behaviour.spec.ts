import * as v from 'valibot';
import { runDriveCase } from './case.js';
import { driveCaseSchema } from './vocabulary.js';

type Events = readonly (readonly [number, string, number])[];
type Method =
  | 'levelForwardReverse'
  | 'levelRunDirection'
  | 'pulseStartStopDirection'
  | 'pulseForwardReverseStop';

/** 10 Hz/s up, 5 Hz/s down, 30 Hz: at speed 3 s after a start, still 6 s after a stop. */
const base = {
  maxHz: 50,
  accelS: 5,
  decelS: 10,
  referenceHz: 30,
  powerUpDelayMs: 0,
  filterMs: 0,
  rideThroughMs: 100,
  quickStopS: 1,
};

function run(
  startMethod: Method,
  control: object,
  events: Events,
  sampleMs: readonly number[],
): string[] {
  const ordered = [...events]
    .sort(([x], [y]) => x - y)
    .map(([atMs, input, level]) => ({ atMs, input, level }));
  const samples = runDriveCase(
    v.parse(driveCaseSchema, {
      control: { startMethod, ...base, ...control },
      inputs: {},
      events: ordered,
      sampleMs,
    }),
  );
  return samples.map((s) => `${s.state} ${Math.round(s.hz * 10) / 10 || 0}`);
}

/** How each method is started forward at a time, its control let go, and sent the other way. */
const ways: Readonly<
  Record<
    Method,
    {
      start: (t: number) => Events;
      letGo: (t: number) => Events;
      flip: (t: number) => Events;
      back: (t: number) => Events;
    }
  >
> = {
  levelForwardReverse: {
    start: (t) => [[t, 'forward', 1]],
    letGo: (t) => [[t, 'forward', 0]],
    flip: (t) => [
      [t, 'forward', 0],
      [t, 'reverse', 1],
    ],
    back: (t) => [
      [t, 'reverse', 0],
      [t, 'forward', 1],
    ],
  },
  levelRunDirection: {
    start: (t) => [[t, 'run', 1]],
    letGo: (t) => [[t, 'run', 0]],
    flip: (t) => [[t, 'direction', 1]],
    back: (t) => [[t, 'direction', 0]],
  },
  pulseStartStopDirection: {
    start: (t) => [
      [t, 'start', 1],
      [t + 200, 'start', 0],
    ],
    letGo: () => [],
    flip: (t) => [[t, 'direction', 1]],
    back: (t) => [[t, 'direction', 0]],
  },
  pulseForwardReverseStop: {
    start: (t) => [
      [t, 'startForward', 1],
      [t + 200, 'startForward', 0],
    ],
    letGo: () => [],
    flip: (t) => [
      [t, 'startReverse', 1],
      [t + 200, 'startReverse', 0],
    ],
    back: (t) => [
      [t, 'startForward', 1],
      [t + 200, 'startForward', 0],
    ],
  },
};
const methods = Object.keys(ways) as Method[];
const isLevel = (m: Method): boolean => m.startsWith('level');

/** One row: what happens, and what must be seen at each time, for methods of levels and of pulses. */
interface Row {
  readonly name: string;
  readonly control?: object;
  readonly events: (w: (typeof ways)[Method]) => Events;
  readonly at: readonly number[];
  readonly level: readonly string[];
  readonly pulse: readonly string[];
}

const both = (seen: readonly string[]): Pick<Row, 'level' | 'pulse'> => ({
  level: seen,
  pulse: seen,
});
const away = (input: string, from: number, to: number, asserted: 0 | 1): Events => [
  [from, input, asserted],
  [to, input, 1 - asserted],
];

const table: readonly Row[] = [
  {
    name: 'a start runs up along the ramp',
    events: (w) => w.start(1000),
    at: [900, 3000, 4000, 9000],
    ...both(['ready 0', 'accelerating 20', 'atSpeed 30', 'atSpeed 30']),
  },
  {
    name: 'a control let go stops a level, and leaves a latch',
    events: (w) => [...w.start(1000), ...w.letGo(5000)],
    at: [6000, 10_900, 11_100],
    level: ['decelerating 25', 'decelerating 0.5', 'ready 0'],
    pulse: ['atSpeed 30', 'atSpeed 30', 'atSpeed 30'],
  },
  {
    name: 'both enable channels open and close: a level waits for a fresh edge, a latch is gone',
    events: (w) => [
      ...w.start(1000),
      ...away('enableA', 5000, 6000, 0),
      ...away('enableB', 5000, 6000, 0),
    ],
    at: [5500, 9500],
    level: ['enableOpen 0', 'blocked 0'],
    pulse: ['enableOpen 0', 'ready 0'],
  },
  {
    name: 'the enable returns on a device that follows levels',
    control: { onEnableReturn: 'followLevel' },
    events: (w) => [
      ...w.start(1000),
      ...away('enableA', 5000, 6000, 0),
      ...away('enableB', 5000, 6000, 0),
    ],
    at: [5500, 7000, 9500],
    level: ['enableOpen 0', 'accelerating 10', 'atSpeed 30'],
    pulse: ['enableOpen 0', 'ready 0', 'ready 0'],
  },
  {
    name: 'one enable channel open for longer than the discrepancy time is a fault',
    events: (w) => [...w.start(1000), [5000, 'enableA', 0]],
    at: [5400, 5600, 9000],
    ...both(['enableOpen 0', 'faulted 0', 'faulted 0']),
  },
  {
    name: 'power returns to a closed contact, fresh edge needed',
    events: (w) => [...w.start(1000), ...away('mains', 5000, 7000, 0)],
    at: [6000, 9000],
    level: ['off 0', 'blocked 0'],
    pulse: ['off 0', 'ready 0'],
  },
  {
    name: 'power returns to a closed contact on a device that follows levels',
    control: { onPowerReturn: 'followLevel' },
    events: (w) => [...w.start(1000), ...away('mains', 5000, 7000, 0)],
    at: [6000, 8000, 11_000],
    level: ['off 0', 'accelerating 10', 'atSpeed 30'],
    pulse: ['off 0', 'ready 0', 'ready 0'],
  },
  {
    name: 'a dip shorter than the ride-through changes nothing',
    events: (w) => [...w.start(1000), ...away('mains', 5000, 5090, 0)],
    at: [5050, 5200],
    ...both(['off 0', 'atSpeed 30']),
  },
  {
    name: 'an external fault, its cause gone, then reset',
    events: (w) => [
      ...w.start(1000),
      ...away('externalFault', 5000, 5500, 1),
      ...away('reset', 6000, 6100, 1),
    ],
    at: [5200, 5800, 6500],
    level: ['faulted 0', 'faulted 0', 'blocked 0'],
    pulse: ['faulted 0', 'faulted 0', 'ready 0'],
  },
  {
    name: 'a fault reset with the contact closed on a device that follows levels',
    control: { onFaultReset: 'followLevel' },
    events: (w) => [
      ...w.start(1000),
      ...away('externalFault', 5000, 5500, 1),
      ...away('reset', 6000, 6100, 1),
    ],
    at: [5800, 7000],
    level: ['faulted 0', 'accelerating 10'],
    pulse: ['faulted 0', 'ready 0'],
  },
  {
    name: 'a reset while the cause is still there does nothing',
    events: (w) => [...w.start(1000), [5000, 'externalFault', 1], ...away('reset', 6000, 6100, 1)],
    at: [6500],
    ...both(['faulted 0']),
  },
  {
    name: 'the direction turned under way: down to zero, then up the other way',
    events: (w) => [...w.start(1000), ...w.flip(5000)],
    at: [7000, 10_900, 12_000, 14_500],
    ...both(['decelerating 20', 'decelerating 0.5', 'accelerating -10', 'atSpeed -30']),
  },
  {
    name: 'the direction turned with a pause at zero',
    control: { reverseDeadMs: 800 },
    events: (w) => [...w.start(1000), ...w.flip(5000)],
    at: [10_900, 11_500, 12_800],
    ...both(['decelerating 0.5', 'reversePause 0', 'accelerating -10']),
  },
  {
    name: 'the direction turned and turned back on the way down',
    events: (w) => [...w.start(1000), ...w.flip(5000), ...w.back(7000)],
    at: [6900, 7500, 8500],
    ...both(['decelerating 20.5', 'accelerating 25', 'atSpeed 30']),
  },
  {
    name: 'reverse locked: the motor never turns the other way',
    control: { noReverse: true },
    events: (w) => [...w.start(1000), ...w.flip(5000)],
    at: [20_000],
    level: ['blocked 0'],
    pulse: [],
  },
  {
    name: 'a quick stop uses its own ramp and drops the latch',
    events: (w) => [...w.start(1000), ...away('quickStop', 5000, 7000, 1)],
    at: [5200, 5700, 9000],
    level: ['decelerating 20', 'blocked 0', 'blocked 0'],
    pulse: ['decelerating 20', 'ready 0', 'ready 0'],
  },
  {
    name: 'an output inhibit coasts and drops the latch',
    events: (w) => [...w.start(1000), ...away('outputInhibit', 5000, 7000, 1)],
    at: [5200, 9000],
    level: ['blocked 0', 'blocked 0'],
    pulse: ['ready 0', 'ready 0'],
  },
  {
    name: 'the reference falls below the least frequency: held there, or asleep',
    control: { minHz: 8 },
    events: (w) => [...w.start(1000), [5000, 'referenceHz', 3]],
    at: [12_000],
    ...both(['atSpeed 8']),
  },
];

describe('behaviour of every start method', () => {
  for (const row of table) {
    for (const method of methods) {
      const wanted = isLevel(method) ? row.level : row.pulse;
      if (wanted.length === 0) continue;
      it(`${row.name}: ${method}`, () => {
        expect(run(method, row.control ?? {}, row.events(ways[method]), row.at)).toEqual([
          ...wanted,
        ]);
      });
    }
  }
});

/** Stop and start circuits of the two pulse methods. */
describe('stop of a pulse start', () => {
  const pulses = [
    ['pulseStartStopDirection', 'start'],
    ['pulseForwardReverseStop', 'startForward'],
  ] as const;
  for (const [method, start] of pulses) {
    const begin: Events = [
      [1000, start, 1],
      [1200, start, 0],
    ];

    it(`opens the latch at once and keeps it open: ${method}`, () => {
      const events: Events = [...begin, ...away('stop', 5000, 7000, 0)];
      expect(run(method, {}, events, [6000, 8000, 12_000])).toEqual([
        'decelerating 25',
        'decelerating 15',
        'ready 0',
      ]);
    });

    it(`loses a start pressed while it is open: ${method}`, () => {
      const events: Events = [[0, 'stop', 0], ...begin, [3000, 'stop', 1]];
      expect(run(method, {}, events, [2000, 6000])).toEqual(['ready 0', 'ready 0']);
    });

    it(`a start on the way down takes the motor up again from where it is: ${method}`, () => {
      const events: Events = [
        ...begin,
        ...away('stop', 5000, 5200, 0),
        [7000, start, 1],
        [7200, start, 0],
      ];
      expect(run(method, {}, events, [6900, 7500, 8500])).toEqual([
        'decelerating 20.5',
        'accelerating 25',
        'atSpeed 30',
      ]);
    });

    it(`closes again with the start still held, fed separately: ${method}`, () => {
      const events: Events = [[1000, start, 1], ...away('stop', 5000, 6000, 0)];
      expect(run(method, { onStartHeld: 'needFreshEdge' }, events, [8000, 15_000])).toEqual([
        'decelerating 15',
        'blocked 0',
      ]);
      expect(run(method, { onStartHeld: 'followLevel' }, events, [8000, 15_000])).toEqual([
        'atSpeed 30',
        'atSpeed 30',
      ]);
      const fresh: Events = [...events, [9000, start, 0], [9500, start, 1]];
      expect(run(method, { onStartHeld: 'needFreshEdge' }, fresh, [14_000])).toEqual([
        'atSpeed 30',
      ]);
    });

    it(`returns together with a start that is fed through it: ${method}`, () => {
      const events: Events = [
        [1000, start, 1],
        [5000, 'stop', 0],
        [5000, start, 0],
        [6000, 'stop', 1],
        [6000, start, 1],
      ];
      expect(run(method, { startEdgeWithStopReturn: 'lost' }, events, [15_000])).toEqual([
        'blocked 0',
      ]);
      expect(run(method, { startEdgeWithStopReturn: 'accepted' }, events, [9000])).toEqual([
        'atSpeed 30',
      ]);
    });
  }

  it('ignores the other start until stopped, where the device does so', () => {
    const events: Events = [
      [1000, 'startForward', 1],
      [1200, 'startForward', 0],
      [5000, 'startReverse', 1],
      [5200, 'startReverse', 0],
    ];
    expect(
      run('pulseForwardReverseStop', { onOppositeStart: 'ignoreUntilStopped' }, events, [9000]),
    ).toEqual(['atSpeed 30']);
    expect(
      run('pulseForwardReverseStop', { onOppositeStart: 'reverseThroughZero' }, events, [12_000]),
    ).toEqual(['accelerating -10']);
  });

  it('a direction input dropped together with stop does not reverse the run-down', () => {
    const events: Events = [
      [500, 'direction', 1],
      [1000, 'start', 1],
      [1200, 'start', 0],
      [5000, 'stop', 0],
      [5000, 'direction', 0],
    ];
    expect(run('pulseStartStopDirection', {}, events, [4500, 6000, 10_900, 12_000])).toEqual([
      'atSpeed -30',
      'decelerating -25',
      'decelerating -0.5',
      'ready 0',
    ]);
  });
});
