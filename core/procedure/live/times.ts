import type { Expectation, Phrase, ProcedureStep } from '../../job/index.js';
import { stateAt } from '../../trace/index.js';
import { phaseOf, type Run } from '../../trials/index.js';
import {
  directionKey,
  expectedOf,
  operationOf,
  phrase,
  positionOf,
  range,
  required,
  simulated,
  speedArgs,
  starterOf,
  stateTimes,
  step,
  tagOf,
  type StepContext,
} from '../context.js';
import { tolerances } from '../tolerances.js';

const seconds = (s: number): Expectation =>
  range(s, Math.max(tolerances.rampS, s * tolerances.rampShare), 's');

/** Ramps up and down, or the time in which the free shaft runs down. */
export function rampSteps(c: StepContext): ProcedureStep[] {
  const forward = starterOf(c);
  const run = c.trials.tried('ramps');
  if (!forward || !run) return [];
  const times = stateTimes(run.trace);
  const reached = times.find((s) => s.state === 'atSpeed');
  const began = times.find((s) => s.state === 'accelerating');
  const slowing = times.find((s) => s.state === 'decelerating' || s.state === 'coasting');
  const stopped = times.find((s) => slowing && s.t > slowing.t && s.state === 'ready');
  const hz = reached ? Math.abs(run.hz('start')) : 0;
  const stop = operationOf(c, c.arrangement.stops[0]) ?? forward;
  const made = (key: string, code: string, endUs: number, must: Phrase, expect: Expectation) =>
    step(
      c,
      {
        key,
        do: phrase(code, {
          device: tagOf(c, (key === 'ramp.up' ? forward : stop).device),
          hz,
          ...speedArgs(c, 1),
        }),
        must,
        ...(expect.kind === 'range' ? { instrument: 'stopwatch' } : {}),
        expect,
        from: simulated(run, endUs / 1000),
        needs: [directionKey(c, 'forward')],
        cautions: ['turns'],
      },
      [],
    );
  const timed = (key: string, code: string, from: number, to: number): ProcedureStep => {
    const s = (to - from) / 1e6;
    return made(key, code, to, phrase('seconds', { s, hz }), seconds(s));
  };
  const steps: ProcedureStep[] = [];
  if (began && reached) steps.push(timed('ramp.up', 'ramp.up', began.t, reached.t));
  if (!slowing || !stopped) return steps;
  if (slowing.state === 'decelerating')
    return [...steps, timed('ramp.down', 'ramp.down', slowing.t, stopped.t)];
  if (!timeKnown(run))
    return [
      ...steps,
      made('ramp.down', 'coast.down', stopped.t, phrase('coast.unknown'), {
        kind: 'state',
        is: 'comesToRest',
      }),
    ];
  return [...steps, timed('ramp.down', 'coast.down', slowing.t, stopped.t)];
}

/** Whether inertia and load are entered, so that the run-down has a time of its own. */
function timeKnown(run: Run): boolean {
  const ms = phaseOf(run.trial, 'stop').fromMs + 50;
  return stateAt(run.trace, 'shaft.state', ms * 1000) !== 'runsDownUnknown';
}

/** The start warning: how long it sounds before the motor moves. */
export function warningStep(c: StepContext): ProcedureStep[] {
  const start = starterOf(c);
  const run = c.trials.tried('dial.50');
  if (!start || !run || c.arrangement.warningMs === 0) return [];
  const moves = stateTimes(run.trace).find((s) => s.state === 'accelerating');
  if (!moves) return [];
  const s = moves.t / 1e6 - phaseOf(run.trial, 'start').fromMs / 1000;
  return [
    step(
      c,
      {
        key: 'warning',
        do: phrase('warning.time', { device: tagOf(c, start.device), s, ...speedArgs(c, 0.5) }),
        must: phrase('seconds', { s }),
        instrument: 'stopwatch',
        expect: seconds(s),
        from: simulated(run, moves.t / 1000),
        needs: [],
        cautions: ['turns'],
      },
      [start],
    ),
  ];
}

/** Power removed and returned with the run still given. */
export function powerReturnSteps(c: StepContext): ProcedureStep[] {
  const forward = starterOf(c);
  const run = c.trials.tried('power.return');
  if (!forward || !run) return [];
  const restarts = expectedOf(
    c,
    'power.return',
    c.job.scheme.powerReturn === 'restart',
    run.runs('powerReturns'),
  );
  const is = restarts ? 'startsByItself' : 'staysStopped';
  const pulse = c.arrangement.givenBy === 'pulse' ? 'Pulse' : '';
  const args = {
    device: tagOf(c, forward.device),
    breaker: tagOf(c, c.arrangement.mainBreaker),
    position: positionOf(c, forward),
    ...speedArgs(c, 0.5),
  };
  return [
    step(
      c,
      {
        key: 'power.return',
        do: phrase(`power.return${pulse}`, args),
        must: phrase(`power.${is}${pulse}`, args),
        expect: { kind: 'state', is },
        from: simulated(run, run.lookMs('powerReturns')),
        ...required(c, 'power.return'),
        needs: [directionKey(c, 'forward')],
        cautions: restarts ? ['turns', 'automaticRestart'] : ['turns'],
      },
      [forward],
    ),
  ];
}
