import { pathStretch, stretchValue } from '../numeric/index.js';
import { outputHz } from './motion.js';
import { initialDrive, stepDrive, wakeDrive, type DriveInputs } from './step.js';
import type { DriveState } from './state.js';
import { viewDrive, type DriveView } from './view.js';
import { restingLevels, type Control, type DriveCase, type Levels } from './vocabulary.js';

/** One sample of a case. */
export interface DriveSample extends DriveView {
  readonly atMs: number;
  /** Speed of the shaft as Hz, also while it coasts. */
  readonly shaftHz: number;
}

/** The command logic with a shaft that runs down evenly in the time of the vocabulary. */
class CaseRun {
  private state: DriveState;
  private now = 0;
  /** Where the shaft began to run down, and when it stands. */
  private free:
    { readonly hz: number; readonly fromUs: number; readonly endUs: number } | undefined;

  constructor(
    private readonly control: Control,
    private inputs: DriveInputs,
  ) {
    this.state = initialDrive(control, inputs);
  }

  /** Steps through its own wakes up to and including t. */
  runTo(t: number): void {
    for (let guard = 0; guard < 1_000_000; guard++) {
      const stands = this.free && this.free.endUs > this.now ? this.free.endUs : Infinity;
      const next = Math.min(wakeDrive(this.state, this.now), stands);
      if (next > t) {
        this.now = t;
        return;
      }
      this.now = next;
      this.step();
    }
    throw new Error('the command logic changes without end');
  }

  give(inputs: DriveInputs): void {
    this.inputs = inputs;
    this.step();
    this.runTo(this.now);
  }

  view(): Omit<DriveSample, 'atMs'> {
    const { state, ...seen } = viewDrive(this.control, undefined, this.state, this.now);
    return { state, shaftHz: this.shaftHz(), ...seen };
  }

  private shaftHz(): number {
    const { motion } = this.state;
    if (motion.kind === 'dc') return stretchValue(pathStretch(motion.path, this.now), this.now);
    if (!this.free) return outputHz(motion, this.now);
    const { hz, fromUs, endUs } = this.free;
    return this.now >= endUs ? 0 : hz * (1 - (this.now - fromUs) / (endUs - fromUs));
  }

  private step(): void {
    const { control, now } = this;
    for (let guard = 0; guard < 50; guard++) {
      const hz = this.shaftHz();
      const before = this.state;
      const inputs = { ...this.inputs, shaft: { hz, turns: hz !== 0 } };
      this.state = stepDrive(control, undefined, before, inputs, now);
      if (this.state.motion.kind !== 'coast') this.free = undefined;
      else if (!this.free) {
        const lastsUs = Math.round(control.coastS * (Math.abs(hz) / control.maxHz) * 1e6);
        this.free = { hz, fromUs: now, endUs: now + lastsUs };
      }
      if (this.state === before) return;
    }
  }
}

/**
 * Runs the command logic alone: no circuit, inputs by task.
 *
 * @param input a case checked by `driveCaseSchema`
 * @returns state, output frequency, shaft speed, fault and block at every sample time, in the order asked
 * @example
 * runDriveCase({ control: { startMethod: 'levelForwardReverse', referenceHz: 30, … }, inputs: {},
 *   events: [{ atMs: 0, input: 'forward', level: 1 }], sampleMs: [1005] }) // [{ atMs: 1005, state: 'accelerating', hz: 10, … }]
 */
export function runDriveCase(input: DriveCase): DriveSample[] {
  const { control } = input;
  const { referenceHz: given, ...named } = input.inputs;
  let referenceHz = given ?? control.referenceHz;
  let levels: Levels = { ...restingLevels, ...(named as Partial<Levels>) };
  const steps = [
    ...input.events.map((event, order) => ({
      us: Math.round(event.atMs * 1000),
      order,
      event,
      sample: -1,
    })),
    ...input.sampleMs.map((ms, sample) => ({
      us: Math.round(ms * 1000),
      order: 1e9 + sample,
      event: undefined,
      sample,
    })),
  ].sort((x, y) => x.us - y.us || x.order - y.order);
  const run = new CaseRun(control, { levels, referenceHz });
  const samples: DriveSample[] = [];
  for (let i = 0; i < steps.length; i++) {
    const { us, event, sample } = steps[i];
    run.runTo(us);
    if (event) {
      if (event.input === 'referenceHz') referenceHz = event.level;
      else levels = { ...levels, [event.input]: event.level };
      const more = steps[i + 1]?.us === us && steps[i + 1].event;
      if (!more) run.give({ levels, referenceHz });
    } else samples[sample] = { atMs: input.sampleMs[sample], ...run.view() };
  }
  return samples;
}
