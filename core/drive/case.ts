import { initialDrive, stepDrive, wakeDrive, type DriveInputs } from './step.js';
import type { DriveState } from './state.js';
import { viewDrive, type DriveView } from './view.js';
import { restingLevels, type Control, type DriveCase, type Levels } from './vocabulary.js';

/** One sample of a case. */
export interface DriveSample extends DriveView {
  readonly atMs: number;
}

/** Steps a drive through its own wakes up to and including t. */
export function runDriveTo(
  control: Control,
  s: DriveState,
  inputs: DriveInputs,
  from: number,
  t: number,
): DriveState {
  let now = from;
  for (let guard = 0; guard < 1_000_000; guard++) {
    const next = wakeDrive(s, now);
    if (next > t) return s;
    now = next;
    s = stepDrive(control, undefined, s, inputs, now);
  }
  throw new Error('the command logic changes without end');
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
  let s = initialDrive(control, { levels, referenceHz });
  let now = 0;
  const samples: DriveSample[] = [];
  for (let i = 0; i < steps.length; i++) {
    const { us, event, sample } = steps[i];
    s = runDriveTo(control, s, { levels, referenceHz }, now, us);
    now = us;
    if (event) {
      if (event.input === 'referenceHz') referenceHz = event.level;
      else levels = { ...levels, [event.input]: event.level };
      const more = steps[i + 1]?.us === us && steps[i + 1].event;
      if (!more)
        s = runDriveTo(
          control,
          stepDrive(control, undefined, s, { levels, referenceHz }, us),
          { levels, referenceHz },
          us,
          us,
        );
    } else
      samples[sample] = { atMs: input.sampleMs[sample], ...viewDrive(control, undefined, s, us) };
  }
  return samples;
}
