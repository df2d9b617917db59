import type { Instrument, InstrumentDoubt, InstrumentKind } from '@tactron/core/job';

/** What an instrument measures, in words. */
export const kindNames: Readonly<Record<InstrumentKind, string>> = {
  voltageTest: 'proving dead',
  voltage: 'volts',
  resistance: 'ohms',
  lowOhm: 'low ohms',
  insulation: 'insulation',
  current: 'amps',
  speed: 'speed',
  rotation: 'sequence of phases',
};

/** What is against an instrument, in words. */
export const doubtNames: Readonly<Record<InstrumentDoubt, string>> = {
  cannotMeasure: 'does not measure this',
  notTrueRms: 'no true RMS: wrong at the output of a device',
  outOfCalibration: 'calibration has ended',
};

/**
 * An instrument with its number and calibration.
 *
 * @example instrumentText({ name: 'Meter', serial: '12' }) // 'Meter, 12'
 */
export const instrumentText = ({ name, serial, calibratedUntil }: Instrument): string =>
  [name, serial, calibratedUntil ? `calibrated until ${calibratedUntil}` : '']
    .filter(Boolean)
    .join(', ');
