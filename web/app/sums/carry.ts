import type { Job } from '@tactron/core/job';
import type { Quantity } from '@tactron/core/units';

/** A number of a sum that has a place in a job. */
export interface Carry {
  /** Argument or result it comes from. */
  readonly from: string;
  readonly path: string;
  readonly label: string;
  /** Unit of the quantity in the job; absent for a plain number. */
  readonly unit?: string;
  readonly round?: number;
}

/** Which numbers of which sums can be carried into a job, and where they land. */
export const carries: Readonly<Record<string, readonly Carry[]>> = {
  rampTime: [
    { from: 'accelS', path: 'scheme.accelS', label: 'time to speed up' },
    { from: 'decelS', path: 'scheme.decelS', label: 'time to slow down' },
    { from: 'maxHz', path: 'scheme.maxHz', label: 'highest frequency' },
  ],
  reversalTime: [
    { from: 'accelS', path: 'scheme.accelS', label: 'time to speed up' },
    { from: 'decelS', path: 'scheme.decelS', label: 'time to slow down' },
  ],
  shortestAcceleration: [
    { from: 'timeS', path: 'scheme.accelS', label: 'time to speed up', round: 1 },
  ],
  braking: [
    {
      from: 'maxOhm',
      path: 'plate.line.resistor.ohm',
      label: 'braking resistor',
      unit: 'Ω',
      round: 0,
    },
    {
      from: 'averageCyclePowerW',
      path: 'plate.line.resistor.power',
      label: 'its rating',
      unit: 'W',
      round: 0,
    },
    { from: 'decelS', path: 'scheme.decelS', label: 'time to slow down' },
  ],
  dialLoading: [{ from: 'potOhm', path: 'scheme.dialOhm', label: 'dial', unit: 'Ω' }],
  dialChart: [
    { from: 'potOhm', path: 'scheme.dialOhm', label: 'dial', unit: 'Ω' },
    { from: 'maxHz', path: 'scheme.maxHz', label: 'highest frequency' },
  ],
  controllerFullScale: [{ from: 'maxHz', path: 'scheme.maxHz', label: 'highest frequency' }],
  motorCurrent: [
    {
      from: 'currentA',
      path: 'plate.motor.lowA',
      label: 'plate current (lower voltage)',
      unit: 'A',
      round: 2,
    },
  ],
  voltageDrop: [
    { from: 'lengthM', path: 'plate.cable.length', label: 'length of the motor cable', unit: 'm' },
  ],
  longestCable: [
    { from: 'lengthM', path: 'plate.cable.length', label: 'length of the motor cable', unit: 'm' },
  ],
  unbalance: [],
  derating: [
    { from: 'altitudeM', path: 'plate.place.altitude', label: 'altitude', unit: 'm' },
    { from: 'ambientC', path: 'plate.place.ambient', label: 'air at the device', unit: '°C' },
  ],
  inertiaAtMotor: [
    { from: 'loadKgm2', path: 'plate.load.inertia', label: 'inertia of the load', unit: 'kg·m²' },
    {
      from: 'motorKgm2',
      path: 'plate.motor.inertia',
      label: 'inertia of the motor',
      unit: 'kg·m²',
    },
    { from: 'gearRatio', path: 'plate.load.gearRatio', label: 'gear ratio' },
  ],
  machineSpeed: [{ from: 'gearRatio', path: 'plate.load.gearRatio', label: 'gear ratio' }],
  controlTransformer: [
    {
      from: 'ratingVA',
      path: 'plate.control.transformer',
      label: 'control transformer',
      unit: 'VA',
    },
  ],
  supplyBudget: [
    { from: 'ratingA', path: 'plate.control.supply24', label: '24 V supply', unit: 'A' },
  ],
};

/** The value as the job keeps it. */
export function carried(carry: Carry, value: number): number | Quantity {
  const rounded =
    carry.round === undefined ? Number(value.toPrecision(6)) : Number(value.toFixed(carry.round));
  return carry.unit === undefined ? rounded : { v: rounded, u: carry.unit };
}

/** A patch that puts the value there; records on the way are made where they are missing. */
export function carryPatch(
  job: Job,
  carry: Carry,
  value: number,
): { op: 'add'; path: string; value: unknown }[] {
  const keys = carry.path.split('.');
  const patch: { op: 'add'; path: string; value: unknown }[] = [];
  let at: unknown = job;
  keys.forEach((key, i) => {
    const path = `/${keys.slice(0, i + 1).join('/')}`;
    if (i === keys.length - 1) patch.push({ op: 'add', path, value: carried(carry, value) });
    else {
      at = (at as Record<string, unknown> | undefined)?.[key];
      if (at === undefined) patch.push({ op: 'add', path, value: {} });
    }
  });
  return patch;
}
