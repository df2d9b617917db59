import fc from 'fast-check';
import * as v from 'valibot';
import { run, samples, type Events } from '../testing/drive-case.js';
import { driveCaseSchema } from './vocabulary.js';

describe('levelForwardReverse', () => {
  it('runs forward while forward and reverse while reverse is closed', () => {
    expect(
      run(
        {},
        {},
        [
          [0, 'forward', 1],
          [5000, 'forward', 0],
          [12000, 'reverse', 1],
        ],
        [1000, 4000, 6000, 11900, 13000, 16000],
      ),
    ).toEqual([
      'accelerating 10',
      'atSpeed 30',
      'decelerating 25',
      'ready 0',
      'accelerating -10',
      'atSpeed -30',
    ]);
  });

  it('stops with both directions under "stop" and follows the one that remains', () => {
    expect(
      run(
        { onBothDirections: 'stop' },
        {},
        [
          [0, 'forward', 1],
          [5000, 'reverse', 1],
          [12000, 'forward', 0],
        ],
        [4000, 6000, 11500, 13000],
      ),
    ).toEqual(['atSpeed 30', 'decelerating 25', 'ready 0', 'accelerating -10']);
  });

  it('keeps the first under "firstWins"; a tie stops', () => {
    expect(
      run(
        { onBothDirections: 'firstWins' },
        {},
        [
          [0, 'reverse', 1],
          [5000, 'forward', 1],
          [9000, 'reverse', 0],
        ],
        [6000, 20000],
      ),
    ).toEqual(['atSpeed -30', 'atSpeed 30']);
    expect(
      run(
        { onBothDirections: 'firstWins' },
        {},
        [
          [100, 'reverse', 1],
          [100, 'forward', 1],
        ],
        [3000],
      ),
    ).toEqual(['ready 0']);
  });

  it('faults with both under "fault": both must be removed, then reset, unless it clears by itself', () => {
    const events: Events = [
      [0, 'forward', 1],
      [5000, 'reverse', 1],
      [6000, 'forward', 0],
      [6500, 'reset', 1],
      [6600, 'reset', 0],
      [7000, 'reverse', 0],
      [7500, 'reset', 1],
      [8000, 'forward', 1],
    ];
    expect(run({ onBothDirections: 'fault' }, {}, events, [5500, 6700, 7200, 7700, 9000])).toEqual([
      'faulted 0',
      'faulted 0',
      'faulted 0',
      'ready 0',
      'accelerating 10',
    ]);
    expect(
      run(
        { onBothDirections: 'fault', bothDirectionsFaultSelfClears: true },
        {},
        events,
        [6700, 7200],
      ),
    ).toEqual(['faulted 0', 'ready 0']);
  });

  it('says why nothing runs', () => {
    const why = (control: object, inputs: object, events: Events = []): (string | null)[] =>
      samples(control, inputs, events, [2000]).map((s) => s.blockedBy);
    expect(why({}, { forward: 1, reverse: 1 }, [[100, 'enableA', 1]])).toEqual(['bothDirections']);
    expect(why({ noReverse: true }, {}, [[100, 'reverse', 1]])).toEqual(['noReverse']);
    expect(why({}, { forward: 1 })).toEqual(['needFreshEdge']);
    expect(why({ referenceHz: 0 }, {}, [[100, 'forward', 1]])).toEqual(['zeroReference']);
    expect(why({}, { outputInhibit: 1 }, [[100, 'forward', 1]])).toEqual(['inhibited']);
    expect(why({}, { local: 1 }, [[100, 'forward', 1]])).toEqual(['wrongPlace']);
  });
});

describe('after an interruption', () => {
  const cut: Events = [
    [0, 'forward', 1],
    [5000, 'mains', 0],
    [9000, 'mains', 1],
  ];
  it('waits for a fresh edge or follows the level, by policy, when power returns', () => {
    expect(
      run({ onPowerReturn: 'needFreshEdge', powerUpDelayMs: 500 }, {}, cut, [5100, 9200, 10500]),
    ).toEqual(['off 0', 'poweringUp 0', 'blocked 0']);
    expect(
      run({ onPowerReturn: 'followLevel', powerUpDelayMs: 500 }, {}, cut, [9400, 10500, 13000]),
    ).toEqual(['poweringUp 0', 'accelerating 10', 'atSpeed 30']);
  });

  it('does not notice a dip shorter than the ride-through', () => {
    expect(
      run(
        {},
        {},
        [
          [0, 'forward', 1],
          [5000, 'mains', 0],
          [5080, 'mains', 1],
        ],
        [6000],
      ),
    ).toEqual(['atSpeed 30']);
  });

  it('starts at the first moment with a level closed only where the policy follows levels', () => {
    expect(run({ onPowerReturn: 'followLevel' }, { forward: 1 }, [], [1000])).toEqual([
      'accelerating 10',
    ]);
    expect(run({ onPowerReturn: 'needFreshEdge' }, { forward: 1 }, [], [1000])).toEqual([
      'blocked 0',
    ]);
  });

  it('loses the latch of a three-wire station in every interruption', () => {
    const control = {
      startMethod: 'pulseStartStopDirection',
      onPowerReturn: 'followLevel',
      onEnableReturn: 'followLevel',
      onFaultReset: 'followLevel',
    };
    const start: Events = [
      [100, 'start', 1],
      [300, 'start', 0],
    ];
    for (const [input, away, back] of [
      ['mains', 0, 1],
      ['enableA', 0, 1],
      ['outputInhibit', 1, 0],
    ] as const) {
      expect(run(control, {}, [...start, [5000, input, away], [5300, input, back]], [4000, 9000]))
        .withContext(input)
        .toEqual(['atSpeed 30', 'ready 0']);
    }
  });

  it('leaves an undervoltage fault only when the output is on at the threshold', () => {
    const separate = { controlSupplySeparate: true, rideThroughMs: 120 };
    expect(
      samples(
        separate,
        {},
        [
          [0, 'forward', 1],
          [5000, 'mains', 0],
        ],
        [5300],
      )[0].fault,
    ).toBe('undervoltage');
    expect(
      samples(
        { ...separate, stopMode: 'coast' },
        {},
        [
          [0, 'forward', 1],
          [5000, 'mains', 0],
          [5000, 'forward', 0],
        ],
        [5300],
      )[0].fault,
    ).toBeNull();
    const stopping: Events = [
      [0, 'forward', 1],
      [5000, 'forward', 0],
      [5050, 'mains', 0],
    ];
    expect(samples(separate, {}, stopping, [5300])[0].fault).toBe('undervoltage');
    expect(
      samples({ ...separate, onUndervoltageWhileStopping: 'coast' }, {}, stopping, [5300])[0].fault,
    ).toBeNull();
  });
});

describe('inputs', () => {
  it('ignore a change shorter than the filter and follow at exactly t + filter', () => {
    expect(
      run(
        { filterMs: 5 },
        {},
        [
          [1000, 'forward', 1],
          [1003, 'forward', 0],
        ],
        [2000],
      ),
    ).toEqual(['ready 0']);
    const [before, at] = samples({ filterMs: 5 }, {}, [[1000, 'forward', 1]], [1004, 1105]);
    expect(before.state).toBe('ready');
    expect(at.hz).toBeCloseTo(1, 6);
  });
});

describe('three-wire', () => {
  const pulse = { startMethod: 'pulseStartStopDirection' };
  it('gives no start edge back when stop and start return together, unless the device accepts it', () => {
    const chained: Events = [
      [100, 'start', 1],
      [2000, 'stop', 0],
      [2000, 'start', 0],
      [14000, 'stop', 1],
      [14000, 'start', 1],
    ];
    expect(run({ ...pulse, startEdgeWithStopReturn: 'lost' }, {}, chained, [15000])).toEqual([
      'blocked 0',
    ]);
    expect(run({ ...pulse, startEdgeWithStopReturn: 'accepted' }, {}, chained, [15000])).toEqual([
      'accelerating 10',
    ]);
  });

  it('never starts from two starts in one filter time', () => {
    const two = { startMethod: 'pulseForwardReverseStop', filterMs: 10 };
    const [s] = samples(
      two,
      {},
      [
        [100, 'startForward', 1],
        [106, 'startReverse', 1],
      ],
      [1000],
    );
    expect([s.state, s.hz, s.blockedBy]).toEqual(['ready', 0, 'startsTogether']);
    expect(
      run(
        two,
        {},
        [
          [100, 'startForward', 1],
          [200, 'startForward', 0],
          [4000, 'startReverse', 1],
        ],
        [3500, 14000],
      ),
    ).toEqual(['atSpeed 30', 'atSpeed -30']);
    expect(
      run(
        { ...two, onOppositeStart: 'ignoreUntilStopped' },
        {},
        [
          [100, 'startForward', 1],
          [4000, 'startReverse', 1],
        ],
        [9000],
      ),
    ).toEqual(['atSpeed 30']);
  });

  it('never runs with stop open, whatever is pressed', () => {
    const act = fc.record({
      atMs: fc.integer({ min: 0, max: 20_000 }),
      input: fc.constantFrom(
        'start',
        'stop',
        'direction',
        'enableA',
        'local',
        'keypadStop',
        'reset',
        'jogForward',
      ),
      level: fc.constantFrom(0, 1),
    });
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
        const events = acts
          .sort((x, y) => x.atMs - y.atMs)
          .map((a): [number, string, number] => [a.atMs, a.input, a.level]);
        const times = [...new Set(events.map(([ms]) => ms + 11_500))];
        let stopOpenSince = -1;
        const openAt = (ms: number): number => {
          stopOpenSince = -1;
          for (const [at, input, level] of events)
            if (at <= ms && input === 'stop')
              stopOpenSince = level === 0 ? (stopOpenSince < 0 ? at : stopOpenSince) : -1;
          return stopOpenSince;
        };
        samples({ ...pulse, terminalStopUnderKeypad: 'acts' }, {}, events, times).forEach((s) => {
          const since = openAt(s.atMs);
          if (since >= 0 && s.atMs - since > 10_050) expect(Math.abs(s.hz)).toBe(0);
        });
      }),
      { numRuns: 150, seed: 41 },
    );
  });
});

describe('the case schema', () => {
  it('refuses unknown keys with their path', () => {
    const bad = v.safeParse(driveCaseSchema, {
      control: { startMethod: 'levelForwardReverse', acelS: 3 },
      sampleMs: [0],
    });
    expect(bad.issues?.map((i) => v.getDotPath(i))).toEqual(['control.acelS']);
  });
});
