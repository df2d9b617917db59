import type { ProcedureStep } from '../../job/index.js';
import { isMomentary } from '../../parts/index.js';
import { operationsOn, type InputFunction } from '../../scheme/index.js';
import type { Run } from '../../trials/index.js';
import {
  kindOf,
  operationOf,
  phrase,
  positionOf,
  range,
  simulated,
  speedArgs,
  step,
  tagOf,
  terminalOf,
  type StepContext,
  type Worked,
} from '../context.js';
import { tolerances } from '../tolerances.js';

/** Below this nothing turns that a person could see, Hz. */
const STANDSTILL_HZ = 0.05;
/** Least tolerance of a control voltage, V. */
const LEAST_V = 0.5;

/** The operation that really works an input: the first that the simulation shows to switch it. */
function workerOf(
  c: StepContext,
  f: InputFunction,
  terminal: string,
): { worker: Worked; run: Run } | undefined {
  const operations = operationsOn(c.arrangement, f);
  const runs = operations.map((_, i) => c.trials.run(`input.${f.id}.${i + 1}`));
  const signal = `device.${terminal}`;
  const works = runs.findIndex((run) => run.at('given', signal) !== run.at('ready', signal));
  const at = Math.max(0, works);
  const worker = operationOf(c, operations[at]);
  return worker && { worker, run: runs[at] };
}

/** Every input by its own control: its state on the display, and its volts. */
export function inputSteps(c: StepContext): ProcedureStep[] {
  return c.arrangement.inputs.flatMap((f) => {
    const terminal = terminalOf(c, f);
    const input = c.device.inputs.find((i) => i.terminal === terminal);
    const worked = input && workerOf(c, f, terminal);
    if (!worked) return [];
    const { worker, run } = worked;
    const ms = run.lookMs('given');
    const across = run.volts(input.plus, input.minus, ms);
    const volts = Math.abs((input.ac ? across?.ac : across?.dc) ?? 0);
    const signal = `device.${terminal}`;
    const on = run.at('given', signal) === 1;
    const before = run.at('ready', signal) === 1;
    // A lowest frequency, a preset or a jog turns the motor although the speed is set to nothing.
    const turns = Math.abs(run.hz('given')) > STANDSTILL_HZ;
    const cautions = turns ? ['turns', 'freeToTurn'] : ['cannotRun'];
    const button = isMomentary(kindOf(c, worker)?.kind ?? '');
    const must = phrase(on ? 'input.on' : before ? 'input.goesOff' : 'input.off', { terminal });
    const args = {
      function: f.task,
      device: tagOf(c, worker.device),
      terminal,
      position: positionOf(c, worker),
      ...speedArgs(c, 0),
    };
    const from = simulated(run, ms);
    return [
      step(
        c,
        {
          key: `input.${f.id}`,
          do: phrase(button ? 'input.press' : 'input.work', args),
          must,
          expect: { kind: 'state', is: on ? 'on' : 'off' },
          from,
          needs: ['supply.on'],
          cautions,
        },
        [f],
      ),
      step(
        c,
        {
          key: `input.${f.id}.volts`,
          do: phrase(button ? 'input.pressVolts' : 'input.volts', args),
          must: phrase('volts', { volts }),
          instrument: 'voltmeter',
          expect: range(volts, Math.max(LEAST_V, volts * tolerances.controlShare), 'V'),
          from,
          needs: [`input.${f.id}`],
          cautions,
        },
        [f],
      ),
    ];
  });
}
