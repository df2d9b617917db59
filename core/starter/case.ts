import * as v from 'valibot';
import { fullVoltageOf, TRIP_HEAT, type LoadCurve, type MotorCircuit } from '../motor/index.js';
import { asHz, planCoast, runPoint, type FedMachine } from './plan-run.js';
import type { PlannedRun, StarterState } from './state.js';
import type { StarterCore } from './core.js';
import { heatAt } from './heat.js';
import { initialStarter, stepStarter, wakeStarter } from './step.js';
import { feedAt, viewStarter, type StarterView } from './view.js';
import {
  restingStarter,
  starterControlSchema,
  starterInputs,
  type StarterInput,
  type StarterLevels,
} from './vocabulary.js';

const positive = v.pipe(v.number(), v.finite(), v.gtValue(0), v.maxValue(1e7));
const notNegative = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1e7));
const ohm = v.optional(positive);

const circuitSchema = v.strictObject({
  lineV: positive,
  hz: positive,
  poles: v.pipe(v.number(), v.integer(), v.minValue(2), v.maxValue(24), v.multipleOf(2)),
  statorOhm: notNegative,
  statorLeakageOhm: positive,
  magnetisingOhm: positive,
  rotorLeakageOhm: positive,
  rotorOhm: positive,
  lockedRotorOhm: ohm,
  lockedRotorLeakageOhm: ohm,
  barExponent: ohm,
  saturationExponent: ohm,
  innerOhm: ohm,
  innerLeakageOhm: ohm,
  coreOhm: ohm,
});

const loadSchema = v.strictObject({
  kind: v.picklist(['constant', 'linear', 'square', 'table', 'overhauling']),
  torqueNm: v.optional(notNegative),
  ratedRpm: v.optional(positive),
  constantNm: v.optional(notNegative),
  breakawayNm: v.optional(notNegative),
  table: v.optional(
    v.pipe(v.array(v.strictObject({ rpm: notNegative, torqueNm: notNegative })), v.minLength(2)),
  ),
});

const level = v.picklist([0, 1]);
const atMs = v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(86_400_000));

/** A case as `tactron starter` reads it: what turns, the control, and what happens at its inputs. */
export const starterCaseSchema = v.strictObject({
  shaft: v.strictObject({
    circuit: circuitSchema,
    inertiaKgm2: positive,
    load: loadSchema,
    ratedA: positive,
    ratedTorqueNm: positive,
  }),
  control: starterControlSchema,
  inputs: v.optional(
    v.strictObject(
      Object.fromEntries(starterInputs.map((n) => [n, v.optional(level)])) as Record<
        StarterInput,
        v.OptionalSchema<typeof level, undefined>
      >,
    ),
    {},
  ),
  events: v.optional(
    v.array(v.strictObject({ atMs, input: v.picklist(starterInputs), level })),
    [],
  ),
  sampleMs: v.pipe(v.array(atMs), v.maxLength(100_000)),
});
export type StarterCase = v.InferOutput<typeof starterCaseSchema>;

/** One sample of a case. */
export interface StarterSample extends Omit<StarterView, 'direction'> {
  readonly atMs: number;
  readonly direction: 'forward' | 'reverse' | null;
  readonly voltsShare: number;
  readonly amps: number;
  /** Speed of the shaft, negative in reverse. */
  readonly rpm: number;
  readonly torqueNm: number;
  /** Heat of the thermal image as a share of what trips it. */
  readonly thermalShare: number;
}

/** The command logic with a shaft that follows its motor while fed, and its load while not. */
class CaseRun {
  private state: StarterState;
  private now = 0;
  private free: { readonly run: PlannedRun; readonly sign: number } | undefined;

  constructor(
    private readonly core: StarterCore,
    private levels: StarterLevels,
  ) {
    this.state = initialStarter(core.control, levels);
  }

  /** Steps through its own wakes up to and including t. */
  runTo(t: number): void {
    for (let guard = 0; guard < 1_000_000; guard++) {
      const rests =
        this.free && this.free.run.settledUs > this.now ? this.free.run.settledUs : Infinity;
      const next = Math.min(wakeStarter(this.core, this.state, this.now), rests);
      if (next > t) {
        this.now = t;
        return;
      }
      this.now = next;
      this.step();
    }
    throw new Error('the command logic changes without end');
  }

  give(levels: StarterLevels): void {
    this.levels = levels;
    this.step();
    this.runTo(this.now);
  }

  sample(atMs: number): StarterSample {
    const { core, state, now } = this;
    const { direction, ...seen } = viewStarter(core, state, now);
    const { share, amps, torqueNm } = feedAt(state, now);
    const rpm = (60 * this.shaftHz()) / core.machine.polePairs;
    return {
      atMs,
      ...seen,
      direction: direction > 0 ? 'forward' : direction < 0 ? 'reverse' : null,
      voltsShare: share,
      amps,
      rpm,
      torqueNm,
      thermalShare: heatAt(core, state, now) / TRIP_HEAT,
    };
  }

  private shaftHz(): number {
    const m = this.state.motion;
    const { machine } = this.core;
    if (m.kind !== 'off' && m.kind !== 'coast')
      return m.direction * asHz(machine, runPoint(m.run, this.now).rad);
    return this.free ? this.free.sign * asHz(machine, runPoint(this.free.run, this.now).rad) : 0;
  }

  private step(): void {
    const { core, now } = this;
    for (let guard = 0; guard < 50; guard++) {
      const hz = this.shaftHz();
      const before = this.state;
      const inputs = {
        levels: this.levels,
        shaftHz: hz,
        shaftTurns: hz !== 0,
        rotation: 1,
      } as const;
      this.state = stepStarter(core, before, inputs, now);
      const { motion } = this.state;
      if (motion.kind !== 'coast') this.free = undefined;
      else if (!this.free) {
        const rad = (Math.abs(hz) * 2 * Math.PI) / core.machine.polePairs;
        const { run } = planCoast(core.control, core.machine, { rad, heat: 0, t: now });
        this.free = { run, sign: Math.sign(hz) };
      }
      if (this.state === before) return;
    }
  }
}

/**
 * Runs the command logic of a soft starter alone: no circuit, inputs by name, the shaft by its motor and load.
 *
 * @param input a case checked by `starterCaseSchema`
 * @param inside what inside it does not work, and whether it sees that
 * @returns state, voltage, current, speed, fault and block at every sample time, in the order asked
 * @example runStarterCase({ shaft, control: { startMethod: 'twoWire', … }, inputs: {}, events: [{ atMs: 0, input: 'run', level: 1 }], sampleMs: [1000] })
 */
export function runStarterCase(
  input: StarterCase,
  inside: Pick<StarterCore, 'broken' | 'seesShort'> = {},
): StarterSample[] {
  const { shaft, control, events, sampleMs } = input;
  const core: StarterCore = { control, machine: machineOf(shaft), ...inside };
  let levels: StarterLevels = { ...restingStarter, ...(input.inputs as Partial<StarterLevels>) };
  const steps = [
    ...events.map((event, order) => ({ us: Math.round(event.atMs * 1000), order, event, at: -1 })),
    ...sampleMs.map((ms, at) => ({
      us: Math.round(ms * 1000),
      order: 1e9 + at,
      event: undefined,
      at,
    })),
  ].sort((x, y) => x.us - y.us || x.order - y.order);
  const run = new CaseRun(core, levels);
  run.give(levels);
  const samples: StarterSample[] = [];
  for (let i = 0; i < steps.length; i++) {
    const { us, event, at } = steps[i];
    run.runTo(us);
    if (event) {
      levels = { ...levels, [event.input]: event.level };
      const more = steps[i + 1]?.us === us && steps[i + 1].event;
      if (!more) run.give(levels);
    } else samples[at] = run.sample(sampleMs[at]);
  }
  return samples;
}

/** The machine of a case: its motor's table, load and inertia. */
export function machineOf(shaft: StarterCase['shaft']): FedMachine {
  const circuit = shaft.circuit as MotorCircuit;
  const field = (4 * Math.PI * circuit.hz) / circuit.poles;
  const rated = { rad: field, torqueNm: shaft.ratedTorqueNm, amps: shaft.ratedA };
  return {
    motor: fullVoltageOf(circuit, rated),
    inertiaKgm2: shaft.inertiaKgm2,
    load: shaft.load as LoadCurve,
    polePairs: circuit.poles / 2,
    motorA: shaft.ratedA,
    deviceA: shaft.ratedA,
  };
}
