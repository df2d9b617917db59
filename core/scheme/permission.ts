import type { InputTask } from '../catalogue/index.js';
import { ANSWERS } from '../parts/index.js';
import type { Contact } from './sketch.js';
import type { StationContext } from './stations.js';
import { coilOn } from './supplies.js';

const ACTUATOR = 'actuator.permission';
/** Time in which a damper, valve or lubricator has answered, where nobody has told it, s. */
export const ANSWERS_S = 10;

/**
 * The part of a machine that has to be ready before the motor runs: a relay asks it, its contact answers.
 *
 * @returns its contact for this direction, which lies in the way of the run
 */
function answering({ sketch, supplies, scheme }: StationContext, task: InputTask): Contact {
  const { neutral } = supplies.alternating();
  const volts = supplies.alternatingV;
  if (!sketch.devices.some((d) => d.id === ACTUATOR)) {
    const params = {
      volts,
      ac: true,
      ohm: (volts * volts) / 20,
      delayOnS: scheme.permissionS ?? ANSWERS_S,
    };
    sketch.device(ACTUATOR, 'actuator', 'machine', params);
    sketch.join(neutral, `${ACTUATOR}:A2`, 'permission.return', 'controlAc');
  }
  return [ACTUATOR, ...ANSWERS[task === 'reverse' ? 1 : 0]];
}

/** Potential of a run that is asked for and not yet permitted, and the contact that lets it on. */
export interface Asking {
  readonly from: string;
  readonly contacts: readonly Contact[];
}

/**
 * A run that first asks: its contact pulls a relay in, the relay feeds the actuator, the actuator's contact lets the run on.
 *
 * @param from potential behind the conditions for a run
 * @param contact what gives the run
 */
export function askFirst(
  c: StationContext,
  task: InputTask,
  from: string,
  contact: Contact,
): Asking {
  const { sketch, supplies, contactsSwitch } = c;
  const { ac, volts } = supplies.device();
  const { line } = supplies.alternating();
  const relay = sketch.device(`ask.${task}`, 'contactorRelay', 'panel', coilOn({ volts, ac }));
  const asks = `${task}.asks`;
  sketch.series(from, [contact], asks, asks);
  const [near, far] = contactsSwitch === 'plus24' || ac ? ['A1', 'A2'] : ['A2', 'A1'];
  sketch.join(asks, `${relay}:${near}`, `${asks}.coil`);
  sketch.join('return', '@return', `${asks}.return`);
  sketch.join('return', `${relay}:${far}`, `${asks}.return`);
  sketch.series(line, [[relay, '13', '14']], 'permission', 'permission', 'controlAc');
  const answer = answering(c, task);
  sketch.join('permission', `${ACTUATOR}:A1`, 'permission.drive', 'controlAc');
  return { from: asks, contacts: [answer] };
}
