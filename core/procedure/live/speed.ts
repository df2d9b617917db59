import type { ProcedureStep } from '../../job/index.js';
import { plateNumbers } from '../../line/index.js';
import { shaftSpeed } from '../../motor/index.js';
import {
  directionKey,
  inputKey,
  operationOf,
  phrase,
  range,
  simulated,
  speedArgs,
  starterOf,
  step,
  tagOf,
  type StepContext,
} from '../context.js';
import { hzTolerance, tolerances } from '../tolerances.js';

const DIAL_PCT = [0, 25, 50, 75, 100];

/** The dial or signal at five places: its volts, and the frequency they give. */
export function dialSteps(c: StepContext): ProcedureStep[] {
  const { arrangement, device, maxHz } = c;
  const forward = starterOf(c);
  const input = device.analogue.find((a) => a.terminal === device.facts.referenceInput);
  const { dial } = arrangement;
  if (!dial || !input || !forward) return [];
  return DIAL_PCT.flatMap((pct) => {
    const run = c.trials.run(`dial.${pct}`);
    const ms = run.lookMs('start');
    const volts = run.volts(input.plus, input.minus, ms)?.dc ?? 0;
    const hz = Math.abs(run.hz('start'));
    const args = { pct, device: tagOf(c, dial), terminal: input.terminal };
    const from = simulated(run, ms);
    return [
      step(
        c,
        {
          key: `dial.${pct}.volts`,
          do: phrase('dial.volts', args),
          must: phrase('volts', { volts }),
          instrument: 'voltmeter',
          expect: range(volts, 10 * tolerances.analogueSpan, 'V'),
          from,
          needs: ['supply.on'],
          cautions: [],
        },
        ['dial'],
      ),
      step(
        c,
        {
          key: `dial.${pct}.hz`,
          do: phrase('dial.hz', args),
          must: phrase('hz', { hz }),
          expect: range(hz, hzTolerance(maxHz), 'Hz'),
          from,
          needs: [inputKey(c, forward)],
          cautions: ['turns'],
        },
        ['dial'],
      ),
    ];
  });
}

/** The shaft's speed at the highest frequency, measured. */
export function speedStep(c: StepContext): ProcedureStep[] {
  const { job, installation } = c;
  const { hz: ratedHz, rpm } = plateNumbers(job.plate);
  const forward = starterOf(c);
  const { polePairs } = installation.shaft;
  if (!ratedHz || !rpm || polePairs === undefined || !forward) return [];
  const run = c.trials.run('dial.100');
  const torque = job.plate.load.torquePct ?? 0;
  const { shaftRpm, slipRpm } = shaftSpeed.run({
    hz: Math.abs(run.hz('start')),
    poles: 2 * polePairs,
    ratedHz,
    ratedRpm: rpm,
    loadTorquePct: torque,
  });
  return [
    step(
      c,
      {
        key: 'speed.full',
        do: phrase('speed.measure', { device: tagOf(c, forward.device), ...speedArgs(c, 1) }),
        must: phrase('rpm', { rpm: shaftRpm, torque }),
        instrument: 'tachometer',
        expect: range(shaftRpm, Math.max(slipRpm, shaftRpm * 0.01), 'rpm'),
        from: simulated(run, run.lookMs('start')),
        needs: [directionKey(c, 'forward')],
        cautions: ['turns'],
      },
      [],
    ),
  ];
}

/** Every preset: the frequency that the device really comes to with the selector there. */
export function presetSteps(c: StepContext): ProcedureStep[] {
  const start = starterOf(c);
  if (!start) return [];
  return c.arrangement.presets.flatMap((id, i) => {
    const preset = operationOf(c, id);
    if (!preset) return [];
    const run = c.trials.run(`preset.${i + 1}`);
    const hz = Math.abs(run.hz('start'));
    const args = {
      device: tagOf(c, preset.device),
      position: preset.position ?? '',
      start: tagOf(c, start.device),
      hz,
    };
    return [
      step(
        c,
        {
          key: `preset.${i + 1}`,
          do: phrase('preset.run', args),
          must: phrase('hz', args),
          expect: range(hz, hzTolerance(c.maxHz), 'Hz'),
          from: simulated(run, run.lookMs('start')),
          needs: [inputKey(c, start)],
          cautions: ['turns'],
        },
        [preset, start],
      ),
    ];
  });
}
