import type { Job } from '../job/index.js';
import { EARLY_BREAK, THERMAL_CONTACT } from '../parts/index.js';
import { lineIds } from './arrangement.js';
import { OUTPUT_SWITCH } from './output-contactor.js';
import type { Contact, Sketch } from './sketch.js';

/** Contacts of what Plate names beside the device, which the control takes up. */
export interface PlateContacts {
  /** They open before an isolator lies in the way of the motor's current. */
  readonly early: readonly Contact[];
  /** They open when a braking resistor is hot. */
  readonly hot: readonly Contact[];
}

/** What of device and motor decides whether a block can be there. */
interface PlateLimits {
  /** The motor is fed by six leads. */
  readonly sixLeads: boolean;
  /** The device has terminals for a braking resistor. */
  readonly resistor: boolean;
  /** It has no chopper, and brings its DC link to terminals. */
  readonly link: boolean;
}

/**
 * Isolator at the motor and braking resistor, where Plate names them.
 *
 * @returns their contacts, where they are said to be wired
 */
export function plateContacts(
  sketch: Sketch,
  { line }: Job['plate'],
  { sixLeads, resistor, link }: PlateLimits,
): PlateContacts {
  const contacts: { early: Contact[]; hot: Contact[] } = { early: [], hot: [] };
  if (line?.motorIsolator) {
    if (sixLeads) sketch.conflict(['motorIsolator', 'starterConnection'], 'isolatorSixLeads');
    const device = sketch.device(lineIds.motorIsolator, 'motorIsolator', 'machine');
    if (line.motorIsolator.earlyBreak) {
      sketch.operation('interlock.isolator', device);
      contacts.early.push([device, ...EARLY_BREAK]);
    }
  }
  const unit = line?.brakingUnit !== undefined && link;
  if (unit) sketch.device(lineIds.brakingUnit, 'brakingUnit', 'panel');
  if (line?.resistor && (resistor || unit)) {
    const device = sketch.device(lineIds.resistor, 'brakingResistor', 'panel');
    if (line.resistor.thermalContact) {
      sketch.operation('interlock.resistor', device);
      contacts.hot.push([device, ...THERMAL_CONTACT]);
    }
  }
  return contacts;
}

/**
 * Inputs of their own for those contacts, after those of the station: an early-break contact takes the output of a drive away, a
 * hot resistor that no line contactor is dropped by is a fault from outside.
 *
 * @param speeds the device changes the speed of its motor; one that only starts and stops it loses the run instead
 */
export function plateInputs(
  sketch: Sketch,
  { early, hot }: PlateContacts,
  { speeds, contactor }: { readonly speeds: boolean; readonly contactor: string | undefined },
): void {
  if (speeds && early.length > 0 && !sketch.has('inhibit')) {
    sketch.series('feed', early, 'inhibit', 'inhibit');
    const [first] = early[0];
    const own = first === lineIds.motorIsolator;
    // Worked by the hand at its switch, not by the relay behind it.
    const device = own ? first : OUTPUT_SWITCH;
    const wish = own ? 'motorIsolator' : 'outputContactor';
    sketch.input('inhibit', 'outputInhibit', device, wish, 'inhibit');
  }
  if (hot.length > 0 && contactor === undefined) {
    sketch.series('feed', hot, 'fault.external', 'fault.external');
    sketch.input('fault.external', 'externalFault', hot[0][0], 'resistor', 'fault.external');
  }
}
