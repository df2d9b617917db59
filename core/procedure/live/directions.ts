import type { ProcedureStep } from '../../job/index.js';
import { directionsOf } from '../../scheme/index.js';
import {
  directionAt,
  directionKey,
  expectedOf,
  inputKey,
  operationOf,
  phrase,
  positionOf,
  range,
  required,
  simulated,
  speedArgs,
  starterOf,
  step,
  tagOf,
  type StepContext,
  type Worked,
} from '../context.js';
import { hzTolerance } from '../tolerances.js';

/** Each direction for a moment, slowly: which way the machine turns. */
export function directionSteps(c: StepContext): ProcedureStep[] {
  const { arrangement } = c;
  const turned = operationOf(c, arrangement.direction);
  return directionsOf(arrangement).map((direction) => {
    const f = starterOf(c, direction) as Worked;
    const run = c.trials.run(`direction.${direction}`);
    const id = `direction.${direction}`;
    const is = expectedOf(c, id, direction, directionAt(run, 'start'));
    const args = {
      device: tagOf(c, f.device),
      position: positionOf(c, f),
      machine: c.job.plate.load.forwardMeans ?? '',
      selector: turned ? tagOf(c, turned.device) : '',
      direction,
      ...speedArgs(c, 0.2),
    };
    const code = turned
      ? 'direction.bumpTurned'
      : arrangement.givenBy === 'pulse'
        ? 'direction.bumpPulse'
        : 'direction.bump';
    const functions = turned ? [f, turned] : [f];
    return step(
      c,
      {
        key: directionKey(c, direction),
        do: phrase(code, args),
        must: phrase(`turns.${is}`, args),
        expect: { kind: 'state', is },
        from: simulated(run, run.lookMs('start')),
        ...required(c, id),
        needs: functions.map((worked) => inputKey(c, worked)),
        cautions: ['turns', 'freeToTurn'],
      },
      functions,
    );
  });
}

/** Both directions given together. */
export function bothTogether(c: StepContext): ProcedureStep[] {
  const [forward, reverse] = [starterOf(c), starterOf(c, 'reverse')];
  const run = c.trials.tried('direction.both');
  if (!run || !forward || !reverse) return [];
  const is = directionAt(run, 'both');
  const args = {
    forward: tagOf(c, forward.device),
    reverse: tagOf(c, reverse.device),
    ...speedArgs(c, 0.5),
  };
  return [
    step(
      c,
      {
        key: 'direction.both',
        do: phrase('direction.both', args),
        must: phrase(`turns.${is}`, { machine: '' }),
        expect: { kind: 'state', is },
        from: simulated(run, run.lookMs('both')),
        needs: [directionKey(c, 'reverse')],
        cautions: ['turns', 'releasedToOne'],
      },
      [forward, reverse],
    ),
  ];
}

/** Jog by itself: which way, and at which frequency. */
export function jogSteps(c: StepContext): ProcedureStep[] {
  return (['forward', 'reverse'] as const).flatMap((way) => {
    const jog = operationOf(c, c.arrangement.jogs[way]);
    const run = c.trials.tried(`jog.${way}`);
    if (!jog || !run) return [];
    const hz = Math.abs(run.hz('jog'));
    const args = { device: tagOf(c, jog.device), way: directionAt(run, 'jog'), hz };
    return [
      step(
        c,
        {
          key: `jog.${way}`,
          do: phrase('jog.run', args),
          must: phrase('jog.hz', args),
          expect: range(hz, hzTolerance(c.maxHz), 'Hz'),
          from: simulated(run, run.lookMs('jog')),
          ...required(c, `jog.${way}.turns`),
          needs: [inputKey(c, jog)],
          cautions: ['turns', 'freeToTurn'],
        },
        [jog],
      ),
    ];
  });
}
