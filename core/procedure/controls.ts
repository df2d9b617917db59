import type { ProcedureStep } from '../job/index.js';
import { rehearse, signalAt } from '../rehearsal/index.js';
import {
  actsOf,
  give,
  powerOnActs,
  powerUp,
  READY_MS,
  startActs,
  stopActs,
  take,
} from '../scheme/index.js';
import {
  atSpeed,
  directionAt,
  inputKey,
  operationOf,
  phrase,
  rampMs,
  range,
  simulated,
  speedArgs,
  starterOf,
  stateTimes,
  step,
  tagOf,
  TRAVEL_MARGIN_MS,
  type Bench,
  type Worked,
} from './bench.js';
import { tolerances } from './tolerances.js';

const SHARE = 0.5;

/** When the motor has come to speed after a start, ms. */
const settled = (bench: Bench): number => READY_MS + rampMs(bench) + TRAVEL_MARGIN_MS;

const startedWith = (bench: Bench) => [
  ...powerUp(bench.arrangement, SHARE),
  ...startActs(bench.arrangement, 'forward', READY_MS),
];

/** A device that takes the run away, and what happens when it comes back with the start still given. */
function takesRunAway(
  bench: Bench,
  worked: Worked,
  key: string,
  words: string,
  again: boolean,
): ProcedureStep[] {
  const { arrangement } = bench;
  const start = starterOf(bench);
  if (!start) return [];
  const pressed = settled(bench);
  const back = pressed + rampMs(bench) + TRAVEL_MARGIN_MS + 3000;
  const end = back + 4000 + rampMs(bench) + TRAVEL_MARGIN_MS;
  const power = again ? powerOnActs(arrangement, back + 500) : [];
  const acts = actsOf(
    ...startedWith(bench),
    give(arrangement, worked.id, pressed),
    take(arrangement, worked.id, back),
    ...power,
  );
  const trace = rehearse(atSpeed(bench, SHARE), acts, end);
  const args = {
    device: tagOf(bench, worked.device),
    start: tagOf(bench, start.device),
    power: power.length > 0,
    button: arrangement.power
      ? tagOf(bench, arrangement.operations[arrangement.power.on].device)
      : '',
    ...speedArgs(bench, SHARE),
  };
  const [during, after] = [
    directionAt(trace, back - 100),
    directionAt(trace, end - 100) === 'stopped' ? 'staysStopped' : 'startsByItself',
  ];
  const common = { needs: [inputKey(bench, start)], cautions: ['turns'] };
  return [
    step(
      bench,
      {
        key: `${key}.stops`,
        do: phrase(`${words}.stops`, args),
        must: phrase(`turns.${during}`, { machine: '' }),
        expect: { kind: 'state', is: during },
        from: simulated(key, back - 100),
        ...common,
      },
      [worked, start],
    ),
    step(
      bench,
      {
        key: `${key}.returns`,
        do: phrase(`${words}.returns`, args),
        must: phrase(`condition.${after}`, args),
        expect: { kind: 'state', is: after },
        from: simulated(key, end - 100),
        ...common,
      },
      [worked, start],
    ),
  ];
}

/** The emergency stop: it takes the motion away, and twisting it out does not give it back. */
export function estopSteps(bench: Bench): ProcedureStep[] {
  const estop = operationOf(bench, bench.arrangement.estop);
  return estop
    ? takesRunAway(bench, estop, 'estop', 'estop', bench.arrangement.contactor !== undefined)
    : [];
}

/** Each interlock and the foot stop: opened under way, then closed again. */
export function conditionSteps(bench: Bench): ProcedureStep[] {
  return bench.arrangement.interlocks.flatMap((id) => {
    const worked = operationOf(bench, id);
    return worked ? takesRunAway(bench, worked, id, 'condition', false) : [];
  });
}

/** The stops and starts of every further station. */
export function stationSteps(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  return arrangement.stops.slice(1).flatMap((id, i) => {
    const [stop, start] = [operationOf(bench, id), operationOf(bench, `start.${i + 2}`)];
    if (!stop || !start) return [];
    const [at, end] = [settled(bench), settled(bench) + rampMs(bench) + TRAVEL_MARGIN_MS];
    const acts = actsOf(
      ...powerUp(arrangement, SHARE),
      give(arrangement, start.id, READY_MS),
      take(arrangement, start.id, READY_MS + 400),
      ...stopActs(arrangement, 'forward', at, i + 1),
    );
    const trace = rehearse(atSpeed(bench, SHARE), acts, end);
    const works =
      directionAt(trace, at - 100) !== 'stopped' && directionAt(trace, end - 100) === 'stopped'
        ? 'worked'
        : 'didNotWork';
    const args = {
      start: tagOf(bench, start.device),
      stop: tagOf(bench, stop.device),
      ...speedArgs(bench, SHARE),
    };
    return [
      step(
        bench,
        {
          key: `station.${i + 2}`,
          do: phrase('station.works', args),
          must: phrase(`station.${works}`, args),
          expect: { kind: 'state', is: works },
          from: simulated('stations', end),
          needs: [],
          cautions: ['turns'],
        },
        [stop, start],
      ),
    ];
  });
}

/** Jog by itself: which way, and at which frequency. */
export function jogSteps(bench: Bench): ProcedureStep[] {
  const { arrangement, maxHz } = bench;
  return (['forward', 'reverse'] as const).flatMap((way) => {
    const jog = operationOf(bench, arrangement.jogs[way]);
    if (!jog) return [];
    const at = settled(bench);
    const trace = rehearse(
      atSpeed(bench, SHARE),
      actsOf(...powerUp(arrangement, SHARE), give(arrangement, jog.id, READY_MS)),
      at,
    );
    const hz = Math.abs(signalAt(trace, 'drive.hz', at * 1000));
    const args = { device: tagOf(bench, jog.device), way: directionAt(trace, at), hz };
    const expect = range(hz, Math.max(tolerances.hz, maxHz * tolerances.hzShare), 'Hz');
    return [
      step(
        bench,
        {
          key: `jog.${way}`,
          do: phrase('jog.run', args),
          must: phrase('jog.hz', args),
          expect,
          from: simulated(`jog.${way}`, at),
          needs: [inputKey(bench, jog)],
          cautions: ['turns', 'freeToTurn'],
        },
        [jog],
      ),
    ];
  });
}

/** Every preset: the frequency that the device really comes to with the selector there. */
export function presetSteps(bench: Bench): ProcedureStep[] {
  const { arrangement, maxHz } = bench;
  const start = starterOf(bench);
  if (!start) return [];
  return arrangement.presets.flatMap((id, i) => {
    const preset = operationOf(bench, id);
    if (!preset) return [];
    const at = settled(bench);
    const trace = rehearse(
      atSpeed(bench, SHARE),
      actsOf(
        ...powerUp(arrangement, SHARE),
        give(arrangement, id, READY_MS - 500),
        ...startActs(arrangement, 'forward', READY_MS),
      ),
      at,
    );
    const hz = Math.abs(signalAt(trace, 'drive.hz', at * 1000));
    const args = {
      device: tagOf(bench, preset.device),
      position: preset.position ?? '',
      start: tagOf(bench, start.device),
      hz,
    };
    const expect = range(hz, Math.max(tolerances.hz, maxHz * tolerances.hzShare), 'Hz');
    return [
      step(
        bench,
        {
          key: `preset.${i + 1}`,
          do: phrase('preset.run', args),
          must: phrase('hz', args),
          expect,
          from: simulated(`preset.${i + 1}`, at),
          needs: [inputKey(bench, start)],
          cautions: ['turns'],
        },
        [preset, start],
      ),
    ];
  });
}

/** The start warning: how long it sounds before the motor moves. */
export function warningStep(bench: Bench): ProcedureStep[] {
  const { arrangement } = bench;
  const start = starterOf(bench);
  if (!start || arrangement.warningMs === 0) return [];
  const trace = rehearse(atSpeed(bench, SHARE), startedWith(bench), settled(bench));
  const moves = stateTimes(trace).find((s) => s.state === 'accelerating');
  if (!moves) return [];
  const s = (moves.t - READY_MS * 1000) / 1e6;
  const args = { device: tagOf(bench, start.device), s, ...speedArgs(bench, SHARE) };
  return [
    step(
      bench,
      {
        key: 'warning',
        do: phrase('warning.time', args),
        must: phrase('seconds', args),
        instrument: 'stopwatch',
        expect: range(s, Math.max(tolerances.rampS, s * tolerances.rampShare), 's'),
        from: simulated('warning', settled(bench)),
        needs: [],
        cautions: ['turns'],
      },
      [start],
    ),
  ];
}
