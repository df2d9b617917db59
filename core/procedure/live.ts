import type { Profile } from '../catalogue/index.js';
import { isMomentary } from '../parts/index.js';
import type { Job, ProcedureStep } from '../job/index.js';
import { install, keypadSetting, type InstalledDrive } from '../installation/index.js';
import { shaftSpeed } from '../motor/index.js';
import { arrangeFor } from '../plan/index.js';
import { dcLinkVoltage, plateNumbers } from '../line/index.js';
import { rehearse, signalAt, stateAt, voltsAt } from '../rehearsal/index.js';
import {
  actsOf,
  directionsOf,
  give,
  powerUp,
  READY_MS,
  startActs,
  stopActs,
  take,
  type Arrangement,
  type Direction,
} from '../scheme/index.js';
import {
  atSpeed,
  directionAt,
  inputKey,
  inputMs,
  kindOf,
  operationOf,
  phrase,
  positionOf,
  rampMs,
  range,
  simulated,
  speedArgs,
  starterOf,
  stateTimes,
  step,
  tagOf,
  terminalOf,
  TRAVEL_MARGIN_MS,
  workerOf,
  type Bench,
  type Worked,
} from './bench.js';
import {
  conditionSteps,
  estopSteps,
  jogSteps,
  presetSteps,
  stationSteps,
  warningStep,
} from './controls.js';
import { tolerances } from './tolerances.js';

/**
 * Live tests of this very job, every expected value taken from simulating its own wires and settings.
 *
 * @returns steps in the order in which they are done; empty until a plan is adopted
 */
export function liveSteps(job: Job, profile: Profile): ProcedureStep[] {
  if (!job.adopted) return [];
  const installation = install(job, profile);
  const drive = installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
  if (!drive) return [];
  const bench: Bench = {
    job,
    profile,
    arrangement: arrangeFor(job, profile),
    installation,
    drive,
    maxHz: drive.control.maxHz,
    keypadCode: keypadSetting(job, profile),
  };
  return [
    ...supplySteps(bench),
    ...inputSteps(bench),
    ...dialSteps(bench),
    ...directionSteps(bench),
    ...warningStep(bench),
    ...stopSteps(bench),
    ...stationSteps(bench),
    ...conditionSteps(bench),
    ...estopSteps(bench),
    ...jogSteps(bench),
    ...presetSteps(bench),
    ...rampSteps(bench),
    ...powerReturnSteps(bench),
  ];
}

function supplySteps(bench: Bench): ProcedureStep[] {
  const { supplyV, phases = 3 } = plateNumbers(bench.job.plate, bench.profile);
  if (supplyV === undefined) return [];
  const { unloadedV } = dcLinkVoltage.run({ supplyV, phases });
  const trace = rehearse(atSpeed(bench, 0), powerUp(bench.arrangement, 0), READY_MS);
  const state = stateAt(trace, 'drive.state', READY_MS * 1000);
  const common = { needs: [], cautions: ['liveWork', 'category'] };
  return [
    step(
      bench,
      {
        key: 'supply.volts',
        do: phrase('supply.volts'),
        must: phrase('volts', { volts: supplyV }),
        instrument: 'voltmeter',
        expect: range(supplyV, supplyV * tolerances.supplyShare, 'V'),
        from: { kind: 'standard', name: 'IEC 60038, ±10 %' },
        ...common,
      },
      ['supply'],
    ),
    step(
      bench,
      {
        key: 'supply.on',
        do: phrase('supply.on', {
          device: tagOf(bench, 'breaker'),
          power: powerButton(bench),
          ...speedArgs(bench, 0),
        }),
        must: phrase('state', { state }),
        expect: { kind: 'state', is: state },
        from: simulated('supply.on', READY_MS),
        needs: ['supply.volts'],
        cautions: ['contactsOpen'],
      },
      ['supply'],
    ),
    step(
      bench,
      {
        key: 'link.volts',
        do: phrase('link.volts'),
        must: phrase('volts', { volts: unloadedV }),
        instrument: 'voltmeter',
        expect: range(unloadedV, unloadedV * tolerances.linkShare, 'V'),
        from: { kind: 'formula', name: 'dcLinkVoltage' },
        needs: ['supply.on'],
        cautions: ['liveWork', 'category'],
      },
      ['supply'],
    ),
  ];
}

/** Button that closes a line contactor; empty where there is none. */
function powerButton(bench: Bench): string {
  const { power, operations } = bench.arrangement;
  return power ? tagOf(bench, operations[power.on].device) : '';
}

/** Below this nothing turns that a person could see, Hz. */
const STANDSTILL_HZ = 0.05;

function inputSteps(bench: Bench): ProcedureStep[] {
  return bench.arrangement.inputs.flatMap((f) => {
    const terminal = terminalOf(bench, f);
    const input = bench.drive.inputs.find((i) => i.terminal === terminal);
    if (!input) return [];
    const worker = workerOf(bench, f, terminal);
    if (!worker) return [];
    const at = inputMs(bench);
    const trace = rehearse(
      atSpeed(bench, 0),
      actsOf(...powerUp(bench.arrangement, 0), give(bench.arrangement, worker.id, READY_MS)),
      at,
    );
    const volts = Math.abs(voltsAt(trace, input.plus, input.minus, at * 1000)?.dc ?? 0);
    const on = signalAt(trace, `drive.${terminal}`, at * 1000) === 1;
    const before = signalAt(trace, `drive.${terminal}`, (READY_MS - 100) * 1000) === 1;
    // A lowest frequency, a preset or a jog turns the motor although the speed is set to nothing.
    const cautions =
      Math.abs(signalAt(trace, 'drive.hz', at * 1000)) > STANDSTILL_HZ
        ? ['turns', 'freeToTurn']
        : ['cannotRun'];
    const button = isMomentary(kindOf(bench, worker) ?? '');
    const must = phrase(on ? 'input.on' : before ? 'input.goesOff' : 'input.off', { terminal });
    const args = {
      function: f.task,
      device: tagOf(bench, worker.device),
      terminal,
      position: positionOf(bench, worker),
      ...speedArgs(bench, 0),
    };
    const needs = ['supply.on'];
    return [
      step(
        bench,
        {
          key: `input.${f.id}`,
          do: phrase(button ? 'input.press' : 'input.work', args),
          must,
          expect: { kind: 'state', is: on ? 'on' : 'off' },
          from: simulated(`input.${f.id}`, at),
          needs,
          cautions,
        },
        [f],
      ),
      step(
        bench,
        {
          key: `input.${f.id}.volts`,
          do: phrase(button ? 'input.pressVolts' : 'input.volts', args),
          must: phrase('volts', { volts }),
          instrument: 'voltmeter',
          expect: range(volts, Math.max(0.5, volts * tolerances.controlShare), 'V'),
          from: simulated(`input.${f.id}`, at),
          needs: [`input.${f.id}`],
          cautions,
        },
        [f],
      ),
    ];
  });
}

function dialSteps(bench: Bench): ProcedureStep[] {
  const { arrangement, drive, installation, maxHz } = bench;
  const forward = starterOf(bench);
  if (!arrangement.dial || !drive.analogue?.used || !forward) return [];
  const { plus, minus, terminal } = drive.analogue;
  return [0, 0.25, 0.5, 0.75, 1].flatMap((dial) => {
    const pct = dial * 100;
    const settled = READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;
    const trace = rehearse(
      installation,
      actsOf(...powerUp(arrangement, dial), ...startActs(arrangement, 'forward', READY_MS)),
      settled,
    );
    const volts = voltsAt(trace, plus, minus, settled * 1000)?.dc ?? 0;
    const hz = Math.abs(signalAt(trace, 'drive.hz', settled * 1000));
    const args = { pct, device: tagOf(bench, arrangement.dial as string), terminal };
    return [
      step(
        bench,
        {
          key: `dial.${pct}.volts`,
          do: phrase('dial.volts', args),
          must: phrase('volts', { volts }),
          instrument: 'voltmeter',
          expect: range(volts, 10 * tolerances.analogueSpan, 'V'),
          from: simulated(`dial.${pct}`, settled),
          needs: ['supply.on'],
          cautions: [],
        },
        ['dial'],
      ),
      step(
        bench,
        {
          key: `dial.${pct}.hz`,
          do: phrase('dial.hz', args),
          must: phrase('hz', { hz }),
          expect: range(hz, Math.max(tolerances.hz, maxHz * tolerances.hzShare), 'Hz'),
          from: simulated(`dial.${pct}`, settled),
          needs: [inputKey(bench, forward)],
          cautions: ['turns'],
        },
        ['dial'],
      ),
    ];
  });
}

/** Key of the direction test: by the function that gives it, or by the direction where one function gives both. */
const directionKey = (arrangement: Arrangement, direction: Direction): string =>
  `direction.${arrangement.direction ? direction : arrangement.starts[direction]}`;

function directionSteps(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  const settled = READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;
  const steps = directionsOf(arrangement).flatMap((direction) => {
    const f = starterOf(bench, direction) as Worked;
    const trace = rehearse(
      atSpeed(bench, 0.2),
      actsOf(...powerUp(arrangement, 0.2), ...startActs(arrangement, direction, READY_MS)),
      settled,
    );
    const is = directionAt(trace, settled);
    const turned = operationOf(bench, arrangement.direction);
    const selector = turned ? tagOf(bench, turned.device) : '';
    const args = {
      device: tagOf(bench, f.device),
      position: positionOf(bench, f),
      machine: bench.job.plate.load.forwardMeans ?? '',
      selector,
      direction,
      ...speedArgs(bench, 0.2),
    };
    const code = turned
      ? 'direction.bumpTurned'
      : arrangement.givenBy === 'pulse'
        ? 'direction.bumpPulse'
        : 'direction.bump';
    const functions = turned ? [f, turned] : [f];
    return [
      step(
        bench,
        {
          key: directionKey(arrangement, direction),
          do: phrase(code, args),
          must: phrase(`turns.${is}`, args),
          expect: { kind: 'state', is },
          from: simulated(`direction.${f.id}`, settled),
          needs: functions.map((worked) => inputKey(bench, worked)),
          cautions: ['turns', 'freeToTurn'],
        },
        functions,
      ),
    ];
  });
  return [...steps, ...speedStep(bench, settled), ...bothTogether(bench, settled)];
}

function speedStep(bench: Bench, settled: number): ProcedureStep[] {
  const { arrangement, job } = bench;
  const { hz: ratedHz, rpm } = plateNumbers(job.plate);
  const forward = starterOf(bench);
  const poles = bench.drive.polePairs && bench.drive.polePairs * 2;
  if (!ratedHz || !rpm || !poles || !forward) return [];
  const trace = rehearse(
    atSpeed(bench, 1),
    actsOf(...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', READY_MS)),
    settled,
  );
  const hz = Math.abs(signalAt(trace, 'drive.hz', settled * 1000));
  const torque = job.plate.load.torquePct ?? 0;
  const { shaftRpm, slipRpm } = shaftSpeed.run({
    hz,
    poles,
    ratedHz,
    ratedRpm: rpm,
    loadTorquePct: torque,
  });
  const expect = range(shaftRpm, Math.max(slipRpm, shaftRpm * 0.01), 'rpm');
  return [
    step(
      bench,
      {
        key: 'speed.full',
        do: phrase('speed.measure', {
          device: tagOf(bench, forward.device),
          ...speedArgs(bench, 1),
        }),
        must: phrase('rpm', { rpm: shaftRpm, torque }),
        instrument: 'tachometer',
        expect,
        from: simulated('dial.100', settled),
        needs: [directionKey(arrangement, 'forward')],
        cautions: ['turns'],
      },
      [],
    ),
  ];
}

function bothTogether(bench: Bench, settled: number): ProcedureStep[] {
  const { arrangement } = bench;
  const [forward, reverse] = [starterOf(bench), starterOf(bench, 'reverse')];
  if (arrangement.givenBy === 'pulse' || !forward || !reverse || forward.device === reverse.device)
    return [];
  const end = settled + rampMs(bench) * 2 + TRAVEL_MARGIN_MS;
  const trace = rehearse(
    atSpeed(bench, 0.5),
    actsOf(
      ...powerUp(arrangement, 0.5),
      give(arrangement, forward.id, READY_MS),
      give(arrangement, reverse.id, settled),
    ),
    end,
  );
  const is = directionAt(trace, end);
  const args = {
    forward: tagOf(bench, forward.device),
    reverse: tagOf(bench, reverse.device),
    ...speedArgs(bench, 0.5),
  };
  return [
    step(
      bench,
      {
        key: 'direction.both',
        do: phrase('direction.both', args),
        must: phrase(`turns.${is}`, { machine: '' }),
        expect: { kind: 'state', is },
        from: simulated('directions.together', end),
        needs: [directionKey(arrangement, 'reverse')],
        cautions: ['turns', 'releasedToOne'],
      },
      [forward, reverse],
    ),
  ];
}

function rampSteps(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  const forward = starterOf(bench);
  if (!forward) return [];
  const stopAt = READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;
  const end = stopAt + rampMs(bench) + TRAVEL_MARGIN_MS;
  const trace = rehearse(
    atSpeed(bench, 1),
    actsOf(
      ...powerUp(arrangement, 1),
      ...startActs(arrangement, 'forward', READY_MS),
      ...stopActs(arrangement, 'forward', stopAt),
    ),
    end,
  );
  const times = stateTimes(trace);
  const reached = times.find((s) => s.state === 'atSpeed');
  const began = times.find((s) => s.state === 'accelerating');
  const slowing = times.find((s) => s.state === 'decelerating' || s.state === 'coasting');
  const stopped = times.find((s) => slowing && s.t > slowing.t && s.state === 'ready');
  const hz = reached ? Math.abs(signalAt(trace, 'drive.hz', reached.t)) : 0;
  const stop = operationOf(bench, arrangement.stops[0]) ?? forward;
  const steps: ProcedureStep[] = [];
  const timed = (key: string, code: string, from: number, to: number): void => {
    const s = (to - from) / 1e6;
    const device = tagOf(bench, (key === 'ramp.up' ? forward : stop).device);
    steps.push(
      step(
        bench,
        {
          key,
          do: phrase(code, { device, hz, ...speedArgs(bench, 1) }),
          must: phrase('seconds', { s, hz }),
          instrument: 'stopwatch',
          expect: range(s, Math.max(tolerances.rampS, s * tolerances.rampShare), 's'),
          from: simulated('ramps', to / 1000),
          needs: [directionKey(arrangement, 'forward')],
          cautions: ['turns'],
        },
        [],
      ),
    );
  };
  if (began && reached) timed('ramp.up', 'ramp.up', began.t, reached.t);
  if (slowing && stopped)
    timed(
      'ramp.down',
      slowing.state === 'coasting' ? 'coast.down' : 'ramp.down',
      slowing.t,
      stopped.t,
    );
  return steps;
}

function powerReturnSteps(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  const forward = starterOf(bench);
  if (!forward) return [];
  const off = READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;
  const on = off + 120_000;
  const trace = rehearse(
    atSpeed(bench, 0.5),
    actsOf(
      ...powerUp(arrangement, 0.5),
      ...startActs(arrangement, 'forward', READY_MS),
      { do: 'supplyOff', atMs: off },
      { do: 'supplyOn', atMs: on },
    ),
    on + 8000,
  );
  const restarts = Math.abs(signalAt(trace, 'drive.hz', (on + 7900) * 1000)) > 0;
  const is = restarts ? 'startsByItself' : 'staysStopped';
  const pulse = arrangement.givenBy === 'pulse' ? 'Pulse' : '';
  const args = {
    device: tagOf(bench, forward.device),
    breaker: tagOf(bench, 'breaker'),
    position: positionOf(bench, forward),
    ...speedArgs(bench, 0.5),
  };
  return [
    step(
      bench,
      {
        key: 'power.return',
        do: phrase(`power.return${pulse}`, args),
        must: phrase(`power.${is}${pulse}`, args),
        expect: { kind: 'state', is },
        from: simulated('power.return', on + 7900),
        needs: [directionKey(arrangement, 'forward')],
        cautions: restarts ? ['turns', 'automaticRestart'] : ['turns'],
      },
      [forward],
    ),
  ];
}

/** A stop must win over a start that is held, and letting go of it must not start the motor: as this station and device do it. */
function stopSteps(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  const [start, stop] = [starterOf(bench), operationOf(bench, arrangement.stops[0])];
  if (!start || !stop) return [];
  const pressed = READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;
  const released = pressed + rampMs(bench) + TRAVEL_MARGIN_MS;
  const end = released + rampMs(bench) + TRAVEL_MARGIN_MS;
  const acts = actsOf(
    ...powerUp(arrangement, 0.5),
    give(arrangement, start.id, READY_MS),
    give(arrangement, stop.id, pressed),
    take(arrangement, stop.id, released),
  );
  const trace = rehearse(atSpeed(bench, 0.5), acts, end);
  const args = {
    start: tagOf(bench, start.device),
    stop: tagOf(bench, stop.device),
    ...speedArgs(bench, 0.5),
  };
  const wins = directionAt(trace, released - 100);
  const after = directionAt(trace, end) === 'stopped' ? 'staysStopped' : 'startsByItself';
  const common = { needs: [directionKey(arrangement, 'forward')], cautions: ['turns'] };
  return [
    step(
      bench,
      {
        key: 'stop.wins',
        do: phrase('stop.wins', args),
        must: phrase(`turns.${wins}`, { machine: '' }),
        expect: { kind: 'state', is: wins },
        from: simulated('stop.release', released - 100),
        ...common,
      },
      [start, stop],
    ),
    step(
      bench,
      {
        key: 'stop.released',
        do: phrase('stop.released', args),
        must: phrase(`stop.${after}`, args),
        expect: { kind: 'state', is: after },
        from: simulated('stop.release', end),
        ...common,
      },
      [start, stop],
    ),
  ];
}
