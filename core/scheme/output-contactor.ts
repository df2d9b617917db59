import type { Scheme } from '../job/index.js';
import type { Contact, Sketch } from './sketch.js';
import { coilOn, type Supplies } from './supplies.js';

/** Id of the contactor between device and motor. */
export const OUTPUT_CONTACTOR = 'contactor.output';

/** Id of the relay that the switch pulls in. */
const OUTPUT_RELAY = 'relay.output';

/** Id of the switch that calls for the motor. */
export const OUTPUT_SWITCH = 'switch.output';

/** Time for which the contactor stays closed after the output was taken away, s: longer than any filter of the input. */
const HELD_S = 0.5;

/** Contacts in the way of the input that takes the output away, where there is such a contactor. */
export const outputContacts = (s: Scheme): Contact[] =>
  s.outputContactor
    ? [
        [OUTPUT_RELAY, '13', '14'],
        [OUTPUT_CONTACTOR, '13', '14'],
      ]
    : [];

/**
 * Contactor between device and motor with its sequence: a switch that is turned off takes the output away at once and lets the
 * contactor open only after a time; turned on, the contactor closes first, and its contact then lets the output on. A contactor
 * that opens under load draws an arc between the poles and trips the device.
 */
export function outputContactor(sketch: Sketch, supplies: Supplies, s: Scheme): void {
  if (!s.outputContactor) return;
  const { plus, minus, ...on } = supplies.device();
  const { line, neutral } = supplies.alternating();
  const volts = supplies.alternatingV;
  const coil = (share: number) => ({ volts, ac: true, ohm: (volts * volts) / share });
  const hand = sketch.device(OUTPUT_SWITCH, 'selectorOnOff');
  sketch.operation('interlock.output', hand);
  const relay = sketch.device(OUTPUT_RELAY, 'contactorRelay', 'panel', coilOn(on));
  const timer = sketch.device('timer.output', 'timerRelay', 'panel', {
    ...coil(3),
    delayOnS: HELD_S,
  });
  sketch.device(OUTPUT_CONTACTOR, 'contactor', 'panel', coil(8));
  sketch.series(plus, [[hand, '13', '14']], 'output.call', 'output.call');
  sketch.join('output.call', `${relay}:A1`, 'output.call.coil');
  sketch.join(minus, `${relay}:A2`, 'output.call.return');
  // The time runs while nobody calls for the motor; only a contactor that was closed is held through it.
  sketch.series(line, [[relay, '31', '32']], 'output.wait', 'output.wait', 'controlAc');
  sketch.join('output.wait', `${timer}:A1`, 'output.wait.coil', 'controlAc');
  sketch.join(neutral, `${timer}:A2`, 'output.wait.return', 'controlAc');
  sketch.series(line, [[relay, '23', '24']], 'output.coil', 'output.close', 'controlAc');
  const held: Contact[] = [
    [timer, '15', '16'],
    [OUTPUT_CONTACTOR, '33', '34'],
  ];
  sketch.series(line, held, 'output.coil', 'output.hold', 'controlAc');
  sketch.join('output.coil', `${OUTPUT_CONTACTOR}:A1`, 'output.coil', 'controlAc');
  sketch.join(neutral, `${OUTPUT_CONTACTOR}:A2`, 'output.coil.return', 'controlAc');
}
