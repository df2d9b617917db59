import type { ProcedureStep } from '../../job/index.js';
import type { OperationId } from '../../scheme/index.js';
import {
  directionAt,
  directionKey,
  expectedOf,
  inputKey,
  operationOf,
  phrase,
  required,
  simulated,
  speedArgs,
  starterOf,
  step,
  tagOf,
  type StepContext,
} from '../context.js';

const afterwards = (runs: boolean): 'startsByItself' | 'staysStopped' =>
  runs ? 'startsByItself' : 'staysStopped';

/** A stop must win over a start that is held, and letting go of it must not start the motor: as this station and device do it. */
export function stopSteps(c: StepContext): ProcedureStep[] {
  const [start, stop] = [starterOf(c), operationOf(c, c.arrangement.stops[0])];
  const run = c.trials.tried('stop.held');
  if (!run || !start || !stop) return [];
  const args = {
    start: tagOf(c, start.device),
    stop: tagOf(c, stop.device),
    ...speedArgs(c, 0.5),
  };
  const wins = expectedOf(c, 'stop.1.dominates', 'stopped', directionAt(run, 'stopPressed'));
  const after = expectedOf(
    c,
    'stop.1.released',
    'staysStopped',
    afterwards(run.runs('stopReleased')),
  );
  const common = { needs: [directionKey(c, 'forward')], cautions: ['turns'] };
  return [
    step(
      c,
      {
        key: 'stop.wins',
        do: phrase('stop.wins', args),
        must: phrase(`turns.${wins}`, { machine: '' }),
        expect: { kind: 'state', is: wins },
        from: simulated(run, run.lookMs('stopPressed')),
        ...required(c, 'stop.1.dominates'),
        ...common,
      },
      [start, stop],
    ),
    step(
      c,
      {
        key: 'stop.released',
        do: phrase('stop.released', args),
        must: phrase(`stop.${after}`, args),
        expect: { kind: 'state', is: after },
        from: simulated(run, run.lookMs('stopReleased')),
        ...required(c, 'stop.1.released'),
        ...common,
      },
      [start, stop],
    ),
  ];
}

/** A part that takes the run away, and what happens when it comes back with the start still given. */
function takesRunAway(
  c: StepContext,
  operation: OperationId,
  words: 'estop' | 'condition',
): ProcedureStep[] {
  const { arrangement } = c;
  const [worked, start] = [operationOf(c, operation), starterOf(c)];
  const run = c.trials.tried(operation);
  if (!worked || !start || !run) return [];
  const { power, operations } = arrangement;
  const button =
    words === 'estop' && arrangement.contactor ? power && operations[power.on] : undefined;
  const named = power && operations[power.on];
  const args = {
    device: tagOf(c, worked.device),
    start: tagOf(c, start.device),
    power: button !== undefined,
    button: named ? tagOf(c, named.device) : '',
    ...speedArgs(c, 0.5),
  };
  const key = words === 'estop' ? 'estop' : operation;
  const during = expectedOf(c, `${key}.stops`, 'stopped', directionAt(run, 'opens'));
  const after = expectedOf(c, `${key}.released`, 'staysStopped', afterwards(run.runs('closes')));
  const common = { needs: [inputKey(c, start)], cautions: ['turns'] };
  return [
    step(
      c,
      {
        key: `${key}.stops`,
        do: phrase(`${words}.stops`, args),
        must: phrase(`turns.${during}`, { machine: '' }),
        expect: { kind: 'state', is: during },
        from: simulated(run, run.lookMs('opens')),
        ...required(c, `${key}.stops`),
        ...common,
      },
      [worked, start],
    ),
    step(
      c,
      {
        key: `${key}.returns`,
        do: phrase(`${words}.returns`, args),
        must: phrase(`condition.${after}`, args),
        expect: { kind: 'state', is: after },
        from: simulated(run, run.lookMs('closes')),
        ...required(c, `${key}.released`),
        ...common,
      },
      [worked, start],
    ),
  ];
}

/** The emergency stop: it takes the motion away, and twisting it out does not give it back. */
export const estopSteps = (c: StepContext): ProcedureStep[] =>
  c.arrangement.estop ? takesRunAway(c, c.arrangement.estop, 'estop') : [];

/** Each interlock and the foot stop: opened under way, then closed again. */
export const conditionSteps = (c: StepContext): ProcedureStep[] =>
  c.arrangement.interlocks.flatMap((id) => takesRunAway(c, id, 'condition'));

/** The stops and starts of every further station. */
export function stationSteps(c: StepContext): ProcedureStep[] {
  return c.arrangement.stops.slice(1).flatMap((id, i) => {
    const [stop, start] = [operationOf(c, id), operationOf(c, `start.${i + 2}` as OperationId)];
    const run = c.trials.tried(`station.${i + 2}`);
    if (!stop || !start || !run) return [];
    const works = expectedOf(
      c,
      `stop.${i + 2}.stops`,
      'worked',
      run.runs('start') && !run.runs('stop') ? 'worked' : 'didNotWork',
    );
    const args = {
      start: tagOf(c, start.device),
      stop: tagOf(c, stop.device),
      ...speedArgs(c, 0.5),
    };
    return [
      step(
        c,
        {
          key: `station.${i + 2}`,
          do: phrase('station.works', args),
          must: phrase(`station.${works}`, args),
          expect: { kind: 'state', is: works },
          from: simulated(run, run.lookMs('stop')),
          ...required(c, `stop.${i + 2}.stops`),
          needs: [],
          cautions: ['turns'],
        },
        [stop, start],
      ),
    ];
  });
}
