import type { Job } from '@tactron/core/job';
import type { Quantity } from '@tactron/core/units';

export type Plate = Job['plate'];
/** A quantity as it is typed: a number, a blank, a unit. */
export const q = (text: string): never => {
  const [v, ...u] = text.split(' ');
  return { v: Number(v), u: u.join(' ') } satisfies Quantity as never;
};

/** A motor plate as stamped: power, connection, both voltages and currents, and the data sheet's ratios. */
export function motor(
  power: string,
  connection: 'deltaStar' | 'seriesParallel',
  volts: [number, number],
  amps: [number, number],
  hz: number,
  rpm: number,
  pf: number,
  eta: number,
  ratios: [number, number, number],
  inertia: number,
  link: Plate['motor']['link'],
): Plate['motor'] {
  return {
    power: q(power),
    connection,
    lowV: q(`${volts[0]} V`),
    highV: q(`${volts[1]} V`),
    lowA: q(`${amps[0]} A`),
    highA: q(`${amps[1]} A`),
    hz: q(`${hz} Hz`),
    rpm: q(`${rpm} rpm`),
    powerFactor: pf,
    efficiency: eta,
    lockedCurrentRatio: ratios[0],
    lockedTorqueRatio: ratios[1],
    breakdownRatio: ratios[2],
    inertia: q(`${inertia} kg·m²`),
    link,
  };
}

/** Curves of a data sheet: share of the speed of the field, torque and current in rated ones. */
export const curve = (
  rows: readonly (readonly [share: number, torque: number, current: number])[],
): NonNullable<Plate['motor']['curve']> =>
  rows.map(([share, torqueRatio, currentRatio]) => ({ share, torqueRatio, currentRatio }));

/** Supplies of the two sites, and of the workshop. */
export const maltings: Plate['supply'] = {
  phases: 3,
  volts: q('400 V'),
  hz: q('50 Hz'),
  earthing: 'TN-S',
  transformer: q('250 kVA'),
  impedancePct: 4,
};
export const workshop: Plate['supply'] = {
  phases: 1,
  volts: q('230 V'),
  hz: q('50 Hz'),
  earthing: 'TN-S',
};
export const sawyard: Plate['supply'] = {
  phases: 3,
  volts: q('480 V'),
  hz: q('60 Hz'),
  earthing: 'TN-S',
  transformer: q('500 kVA'),
  impedancePct: 5,
};
