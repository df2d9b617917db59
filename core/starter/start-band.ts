import { LOCKED_TORQUE, SHAPES, withTorque } from '../motor/index.js';
import type { StarterSpec } from './logic.js';
import { planStart, type FedMachine } from './plan-run.js';
import { smallestLimit } from './recommend.js';
import { heavier } from './start-facts.js';

/** What a load may miss its plate by, as a share. */
const LOAD_SHARE = 0.2;

/** Times within which a start of a sound motor ends, s; the longest null where it may never end. */
export interface StartBand {
  readonly fromS: number;
  readonly toS: number | null;
}

/**
 * Times between which a start ends when nothing is wrong: a load a fifth lighter with the strongest motor of this plate, a
 * load a fifth heavier with the weakest. Where only the plate is known, the two usual shapes of the torque widen it.
 *
 * @example startBand(spec) // { fromS: 8.1, toS: 19 }
 */
export function startBand({ control, machine }: StarterSpec): StartBand {
  const wider = machine.shapeKnown === true ? 1 : SHAPES.strong / SHAPES.weak;
  const at = (m: FedMachine): number | null => {
    const run = planStart(control, m, { rad: 0, heat: 0, t: 0, phases: 3 });
    return run.bypassUs === Infinity ? null : run.bypassUs / 1e6;
  };
  const { motor, load } = machine;
  const quick = at({
    ...machine,
    motor: withTorque(motor, LOCKED_TORQUE.high, wider),
    load: heavier(load, 1 - LOAD_SHARE),
  });
  const slow = at({
    ...machine,
    motor: withTorque(motor, LOCKED_TORQUE.low),
    load: heavier(load, 1 + LOAD_SHARE),
  });
  return { fromS: quick ?? 0, toS: slow };
}

/**
 * Smallest limits at which this load starts within its class: with the torque of the stronger of the two usual shapes, and with
 * that of the weaker. One and the same where a data sheet tells the shape.
 *
 * @returns in % of the motor's current; undefined where no limit does it
 */
export function leastLimits({
  control,
  machine,
}: StarterSpec): readonly [number, number] | undefined {
  const weak = smallestLimit(machine, control.tripClass);
  if (weak === undefined || control.start.limitA === undefined) return undefined;
  if (machine.shapeKnown === true) return [100 * weak, 100 * weak];
  const motor = withTorque(machine.motor, 1, SHAPES.strong / SHAPES.weak);
  const strong = smallestLimit({ ...machine, motor }, control.tripClass) ?? weak;
  return [100 * Math.min(strong, weak), 100 * weak];
}
