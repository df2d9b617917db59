import { starterRun as run, starterSamples, type StarterEvents } from '../testing/starter-case.js';

const threeWire = { startMethod: 'threeWire' };
const twoEnables = { startMethod: 'twoEnables' };

describe('two-wire', () => {
  it('ramps while run is closed, runs at full voltage, and coasts when it opens', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'run', 0],
    ];
    expect(run({}, events, [300, 10_000, 20_050, 25_000])).toEqual([
      'ramping',
      'running',
      'coasting',
      'ready',
    ]);
    const [early, late] = starterSamples({}, events, [300, 10_000]);
    expect([early.fed, early.voltsShare < 0.6, late.voltsShare]).toEqual([true, true, 1]);
    expect(late.rpm).toBeGreaterThan(1440);
  });

  it('after the control supply has returned follows the level or wants a fresh one', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'controlSupply', 0],
      [22_000, 'controlSupply', 1],
      [30_000, 'run', 0],
      [31_000, 'run', 1],
    ];
    const at = [20_100, 22_200, 22_600, 40_000];
    expect(run({}, events, at)).toEqual(['off', 'startingUp', 'blocked needFreshEdge', 'running']);
    expect(run({ onControlReturn: 'followLevel' }, events, at.slice(0, 3))).toEqual([
      'off',
      'startingUp',
      'ramping',
    ]);
  });

  it('a level that was closed from the beginning is a return of the control supply too', () => {
    const held = { inputs: { run: 1 } } as const;
    expect(run({}, [], [5000], held)).toEqual(['blocked needFreshEdge']);
    expect(run({ onControlReturn: 'followLevel' }, [], [9000], held)).toEqual(['running']);
  });

  it('closing the stop again with the level held needs a fresh edge', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [10_000, 'stop', 0],
      [15_000, 'stop', 1],
    ];
    expect(run({}, events, [12_000, 20_000])).toEqual([
      'blocked stopOpen',
      'blocked needFreshEdge',
    ]);
    expect(run({ onStartHeld: 'followLevel' }, events, [25_000])).toEqual(['running']);
  });
});

describe('three-wire', () => {
  it('latches a pulse while the stop is healthy and loses it with the stop', () => {
    const events: StarterEvents = [
      [0, 'start', 1],
      [200, 'start', 0],
      [15_000, 'stop', 0],
      [15_200, 'stop', 1],
    ];
    expect(run(threeWire, events, [300, 12_000, 20_000])).toEqual(['ramping', 'running', 'ready']);
  });

  it('a start held while the stop closes does nothing, unless the device follows it', () => {
    const events: StarterEvents = [
      [1000, 'start', 1],
      [3000, 'stop', 1],
    ];
    const open = { inputs: { stop: 0 } } as const;
    expect(run(threeWire, events, [2000, 9000], open)).toEqual(['blocked stopOpen', 'ready']);
    expect(run({ ...threeWire, onStartHeld: 'followLevel' }, events, [20_000], open)).toEqual([
      'running',
    ]);
  });

  it('a start that comes with the stop is lost or accepted', () => {
    const events: StarterEvents = [
      [1000, 'stop', 1],
      [1000, 'start', 1],
      [1200, 'start', 0],
    ];
    const open = { inputs: { stop: 0 } } as const;
    expect(run(threeWire, events, [9000], open)).toEqual(['ready']);
    expect(
      run({ ...threeWire, startEdgeWithStopReturn: 'accepted' }, events, [15_000], open),
    ).toEqual(['running']);
  });

  for (const [what, input] of [
    ['a thermistor', 'thermistor'],
    ['the control supply', 'controlSupply'],
    ['the mains', 'mains'],
    ['the enable', 'enable'],
  ] as const)
    it(`an interruption by ${what} loses the latch`, () => {
      const events: StarterEvents = [
        [0, 'start', 1],
        [200, 'start', 0],
        [15_000, input, 0],
        [20_000, input, 1],
        [25_000, 'reset', 1],
        [25_100, 'reset', 0],
      ];
      expect(run(threeWire, events, [12_000, 40_000])).toEqual(['running', 'ready']);
    });
});

describe('two enables', () => {
  it('runs either way, and not with both', () => {
    const events: StarterEvents = [
      [0, 'forward', 1],
      [15_000, 'reverse', 1],
      [30_000, 'reverse', 0],
      [30_000, 'forward', 0],
      [31_000, 'reverse', 1],
    ];
    expect(run(twoEnables, events, [12_000, 20_000, 45_000])).toEqual([
      'running',
      'blocked bothDirections',
      'running reverse',
    ]);
    const [forward, , reverse] = starterSamples(twoEnables, events, [12_000, 20_000, 45_000]);
    expect([Math.sign(forward.rpm), Math.sign(reverse.rpm)]).toEqual([1, -1]);
  });

  it('trips with both where it is so, until both have gone and it is reset', () => {
    const control = { ...twoEnables, onBothDirections: 'fault' };
    const events: StarterEvents = [
      [0, 'forward', 1],
      [15_000, 'reverse', 1],
      [20_000, 'reset', 1],
      [20_100, 'reset', 0],
      [25_000, 'reverse', 0],
      [30_000, 'reset', 1],
      [30_100, 'reset', 0],
    ];
    expect(run(control, events, [16_000, 22_000, 35_000])).toEqual([
      'faulted bothDirections',
      'faulted bothDirections',
      'blocked needFreshEdge',
    ]);
  });

  it('waits for the pause when the direction is changed under way, counted from the end of feeding', () => {
    const control = { ...twoEnables, reversePauseS: 6 };
    const events: StarterEvents = [
      [0, 'forward', 1],
      [30_000, 'forward', 0],
      [30_000, 'reverse', 1],
    ];
    expect(run(control, events, [25_000, 30_100, 35_900, 36_100, 50_000])).toEqual([
      'running',
      'coasting inhibit',
      'inhibit inhibit',
      'ramping reverse',
      'running reverse',
    ]);
  });

  it('without pause and inhibit a reversal under way is a plug: it feeds while the shaft turns back', () => {
    const heavy = { shaft: { inertiaKgm2: 0.5 } };
    const events: StarterEvents = [
      [0, 'forward', 1],
      [40_000, 'forward', 0],
      [40_000, 'reverse', 1],
    ];
    const [at] = starterSamples(
      { ...twoEnables, startLimitS: 300, tripClass: '30' },
      events,
      [40_100],
      heavy,
    );
    expect([at.state, at.direction, Math.sign(at.rpm)]).toEqual(['ramping', 'reverse', 1]);
  });
});

describe('inhibit', () => {
  const control = { inhibitS: 10 };
  const events: StarterEvents = [
    [0, 'run', 1],
    [30_000, 'run', 0],
    [33_000, 'run', 1],
  ];

  it('a run closed inside it starts when it ends, or is lost', () => {
    expect(run(control, events, [32_000, 38_000, 40_100, 70_000])).toEqual([
      'inhibit',
      'inhibit inhibit',
      'ramping',
      'running',
    ]);
    expect(run({ ...control, onRunInInhibit: 'lost' }, events, [45_000])).toEqual([
      'blocked needFreshEdge',
    ]);
  });

  it('a run withdrawn inside it is forgotten', () => {
    expect(run(control, [...events, [35_000, 'run', 0]], [50_000])).toEqual(['ready']);
  });

  it('counts from the end of a soft stop', () => {
    const soft = { ...control, stopKind: 'softStop', softStopS: 5 };
    expect(run(soft, events.slice(0, 2), [32_000, 36_000, 44_900, 45_100])).toEqual([
      'softStopping',
      'inhibit',
      'inhibit',
      'ready',
    ]);
  });
});

describe('stops', () => {
  const soft = { stopKind: 'softStop', softStopS: 6 };

  it('a stop during the ramp coasts or stops softly from the voltage reached', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [500, 'run', 0],
    ];
    const slow = { ...soft, start: { kind: 'voltageRamp', fraction: 0.45, rampS: 30 } };
    expect(run(slow, events, [510])).toEqual(['coasting']);
    const [s] = starterSamples({ ...slow, onStopWhileRamping: 'softStop' }, events, [510]);
    expect([s.state, s.voltsShare < 0.5]).toEqual(['softStopping', true]);
  });

  it('the contactor cut during a soft stop coasts, or trips where the device does', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'run', 0],
      [21_000, 'lineContactor', 0],
    ];
    expect(run(soft, events, [20_500, 30_000])).toEqual(['softStopping', 'noMains']);
    expect(run({ ...soft, onCutWhileSoftStopping: 'fault' }, events, [30_000])).toEqual([
      'faulted mainsLost',
    ]);
  });

  it('a soft stop by torque ends at its share of the torque it began with, and takes that much less time', () => {
    const control = { ...soft, softStopBy: 'torque', endTorquePct: 40 };
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'run', 0],
    ];
    const at = (ms: number): string => run(control, events, [ms])[0];
    expect([at(23_550), at(23_650)]).toEqual(['softStopping', 'ready']);
  });

  it('a start during a soft stop ramps from the present voltage, waits for rest, or is lost', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'run', 0],
      [21_000, 'run', 1],
    ];
    const at = [21_100, 50_000];
    expect(run(soft, events, at)).toEqual(['ramping', 'running']);
    expect(starterSamples(soft, events, [21_001])[0].voltsShare).toBeGreaterThan(0.8);
    expect(run({ ...soft, onStartWhileSoftStopping: 'afterRest' }, events, at)).toEqual([
      'softStopping',
      'running',
    ]);
    expect(run({ ...soft, onStartWhileSoftStopping: 'lost' }, events, at)).toEqual([
      'softStopping',
      'blocked needFreshEdge',
    ]);
  });
});

describe('mains and contactor', () => {
  it('without them says so, and refuses a run until it is given again after they are back', () => {
    const events: StarterEvents = [
      [1000, 'run', 1],
      [3000, 'lineContactor', 1],
      [6000, 'run', 0],
      [7000, 'run', 1],
    ];
    const open = { inputs: { lineContactor: 0 } } as const;
    expect(run({}, events, [500, 2000, 5000, 20_000], open)).toEqual([
      'noMains',
      'blocked noMains',
      'blocked needFreshEdge',
      'running',
    ]);
    expect(run({ onMainsReturn: 'followLevel' }, events, [3300], open)).toEqual(['ramping']);
  });

  it('a run without mains trips after its time where the device does so, unless it was withdrawn', () => {
    const control = { onRunWithoutMains: 'faultAfter', mainsMissingS: 5 };
    const none = { inputs: { mains: 0 } } as const;
    expect(run(control, [[1000, 'run', 1]], [6000, 6200], none)).toEqual([
      'blocked noMains',
      'faulted mainsMissing',
    ]);
    const withdrawn: StarterEvents = [
      [1000, 'run', 1],
      [4000, 'run', 0],
    ];
    expect(run(control, withdrawn, [9000], none)).toEqual(['noMains']);
    const pulse: StarterEvents = [
      [1000, 'start', 1],
      [1200, 'start', 0],
    ];
    expect(run({ ...control, ...threeWire }, pulse, [9000], none)).toEqual([
      'faulted mainsMissing',
    ]);
  });

  it('its own contactor has its time to close before anything is missing', () => {
    const events: StarterEvents = [
      [1000, 'start', 1],
      [1050, 'lineContactor', 1],
      [1300, 'start', 0],
    ];
    const open = { inputs: { lineContactor: 0 } } as const;
    expect(run(threeWire, events, [1060, 15_000], open)).toEqual(['ramping', 'running']);
  });

  it('mains lost under load trip or coast', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'mains', 0],
    ];
    expect(run({}, events, [20_050])).toEqual(['faulted mainsLost']);
    const coasts = { onMainsLostRunning: 'coast' };
    expect(run(coasts, events, [25_000])).toEqual(['blocked noMains']);
  });

  it('one or two phases missing trip as a lost phase after its time, asked or under load', () => {
    const under: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'phase2', 0],
    ];
    expect(run({}, under, [20_900, 21_050])).toEqual(['running', 'faulted phaseLoss']);
    const asked = { inputs: { phase1: 0 } } as const;
    const [hums] = starterSamples({}, [[0, 'run', 1]], [900], asked);
    expect([hums.state, hums.fed, hums.rpm]).toEqual(['ramping', true, 0]);
    expect(run({}, [[0, 'run', 1]], [1100], asked)).toEqual(['faulted phaseLoss']);
  });
});

describe('trips', () => {
  it('the thermistor, until it is cold and reset', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'thermistor', 0],
      [22_000, 'reset', 1],
      [22_100, 'reset', 0],
      [30_000, 'thermistor', 1],
      [32_000, 'run', 0],
      [33_000, 'reset', 1],
      [33_100, 'reset', 0],
    ];
    expect(run({}, events, [20_050, 25_000, 31_000, 34_000])).toEqual([
      'faulted thermistor',
      'faulted thermistor',
      'faulted thermistor',
      'ready',
    ]);
    expect(run({ onThermistorCooled: 'followLevel' }, events, [30_300])).toEqual(['ramping']);
  });

  it('a start that takes too long, or goes to full voltage instead', () => {
    const start = { kind: 'fixedVoltage', fraction: 0.3 };
    const control = { start, startLimitS: 8, tripClass: '30' };
    expect(run(control, [[0, 'run', 1]], [7900, 8100])).toEqual([
      'ramping',
      'faulted startTooLong',
    ]);
    expect(run({ ...control, onStartLimit: 'fullVoltage' }, [[0, 'run', 1]], [12_000])).toEqual([
      'running',
    ]);
  });

  it('the image of the motor, when a start stalls at the limit; it is reset only below its rated heat', () => {
    const control = { start: { kind: 'currentLimit', limitA: 12.3 }, startLimitS: 600 };
    const heavy = { shaft: { load: { kind: 'constant', torqueNm: 14 } } } as const;
    const tau = 10 / Math.log(7.2 ** 2 / (7.2 ** 2 - 1.15 ** 2));
    const trips = 1000 * tau * Math.log(9 / (9 - 1.15 ** 2));
    const events: StarterEvents = [
      [0, 'run', 1],
      [trips + 2000, 'run', 0],
      [trips + 5000, 'reset', 1],
      [trips + 5100, 'reset', 0],
      [trips + 900_000, 'reset', 1],
      [trips + 900_100, 'reset', 0],
    ];
    const at = [trips - 50, trips + 50, trips + 10_000, trips + 901_000];
    expect(run(control, events, at, heavy)).toEqual([
      'ramping',
      'faulted overload',
      'faulted overload',
      'ready',
    ]);
  });

  it('resets itself as often as it may, and follows the level or not', () => {
    const events: StarterEvents = [
      [0, 'run', 1],
      [20_000, 'externalFault', 1],
      [21_000, 'externalFault', 0],
    ];
    const auto = { autoResetAttempts: 1, autoResetDelayS: 5 };
    expect(run(auto, events, [24_900, 25_100])).toEqual([
      'faulted externalFault',
      'blocked needFreshEdge',
    ]);
    expect(run({ ...auto, onAutoReset: 'followLevel' }, events, [25_100])).toEqual(['ramping']);
    expect(run({}, events, [60_000])).toEqual(['faulted externalFault']);
  });

  it('a fault outlives the control supply or not', () => {
    const events: StarterEvents = [
      [1000, 'externalFault', 1],
      [2000, 'externalFault', 0],
      [3000, 'controlSupply', 0],
      [4000, 'controlSupply', 1],
    ];
    expect(run({}, events, [6000])).toEqual(['faulted externalFault']);
    expect(run({ faultMemoryOff: 'cleared' }, events, [6000])).toEqual(['ready']);
  });
});
