import { runCalculation, type Calculation, type Working } from '../calculation/index.js';
import type { Model, Profile } from '../catalogue/index.js';
import { motorCurrent, plateSpeed, ratedPointInUse, linkFor, type RatedPoint } from '../motor/index.js';
import type { Plate } from '../job/index.js';
import { toBase } from '../units/index.js';
import { dcLinkVoltage } from './dc-link-voltage.js';
import { inertiaAtMotor } from './inertia.js';
import { voltageDrop } from './voltage-drop.js';

/** Blocks of the one-line picture, from supply to load. */
export type PlateBlock = 'supply' | 'device' | 'cable' | 'motor' | 'load';

/** A number the plate gives, with the working behind it. */
export interface PlateFact {
  readonly id: string;
  readonly block: PlateBlock;
  readonly value: number | string;
  readonly unit: string;
  readonly working: Working;
}

/** Plate values in base units, undefined where they are not entered. */
export interface PlateNumbers {
  readonly powerKw?: number;
  readonly hz?: number;
  readonly rpm?: number;
  readonly powerFactor?: number;
  readonly efficiency?: number;
  readonly supplyV?: number;
  readonly phases?: 1 | 3;
  /** Voltage the device can give its motor. */
  readonly outputV?: number;
  readonly rated?: RatedPoint;
}

/** The plate's numbers in base units, and the rated point the motor is linked for. */
export function plateNumbers(plate: Plate, profile?: Profile): PlateNumbers {
  const { motor, supply } = plate;
  const supplyV = supply.volts && toBase(supply.volts, 'voltage');
  const outputV = supplyV;
  const within = (x: number | undefined): number | undefined => (x !== undefined && x > 0 && x <= 1 ? x : undefined);
  return {
    powerKw: motor.power && toBase(motor.power, 'power'),
    hz: motor.hz && toBase(motor.hz, 'frequency'),
    rpm: motor.rpm && toBase(motor.rpm, 'speed'),
    powerFactor: within(motor.powerFactor),
    efficiency: within(motor.efficiency),
    supplyV,
    phases: supply.phases ?? profile?.supply.phases,
    outputV,
    rated: ratedPointInUse(motor, outputV),
  };
}

/**
 * Everything that can be reckoned from what has been entered so far, in the order of the one-line picture.
 *
 * @returns facts only where all their inputs are there and within the range of their formula
 */
export function plateFacts(plate: Plate, profile?: Profile, model?: Model): PlateFact[] {
  const n = plateNumbers(plate, profile);
  const facts: PlateFact[] = [];
  const add = (block: PlateBlock, c: Calculation, args: Record<string, unknown>, ids: Record<string, string>): void => {
    if (Object.values(args).some((value) => value === undefined)) return;
    const done = tryRun(c, args);
    if (!done) return;
    for (const [result, id] of Object.entries(ids)) {
      const value = done.result[result];
      if (typeof value === 'number' || typeof value === 'string') facts.push({ id, block, value, unit: c.results[result].unit, working: done.working });
    }
  };
  add('supply', dcLinkVoltage, { supplyV: n.supplyV, phases: n.phases }, { unloadedV: 'dcLinkStopped', loadedV: 'dcLinkLoaded' });
  if (model && n.rated?.amps !== undefined) facts.push(deviceShare(model, n.rated.amps));
  const { length, size } = plate.cable;
  const cable = { lengthM: length && toBase(length, 'length'), areaMm2: size && 'mm2' in size ? size.mm2 : undefined };
  add(
    'cable',
    voltageDrop,
    { system: 'three', currentA: n.rated?.amps, ...cable, conductorC: 70, powerFactor: n.powerFactor, nominalV: n.outputV },
    { dropV: 'cableDrop', dropPct: 'cableDropPct' },
  );
  add(
    'motor',
    plateSpeed,
    { hz: n.hz, rpm: n.rpm, powerKw: n.powerKw },
    { polePairs: 'polePairs', synchronousRpm: 'synchronousRpm', slipPct: 'slip', torqueNm: 'ratedTorque' },
  );
  add(
    'motor',
    motorCurrent,
    { powerKw: n.powerKw, voltageV: n.rated?.volts, efficiency: n.efficiency, powerFactor: n.powerFactor },
    { currentA: 'reckonedCurrent' },
  );
  const wanted = n.outputV === undefined ? undefined : linkFor(plate.motor, n.outputV);
  if (wanted && n.outputV !== undefined) facts.push(linkFact(wanted, n.outputV));
  const { load, motor } = plate;
  const inertia = {
    motorKgm2: motor.inertia && toBase(motor.inertia, 'inertia'),
    loadKgm2: load.inertia && toBase(load.inertia, 'inertia'),
    gearRatio: load.gearRatio,
  };
  add('load', inertiaAtMotor, inertia, { totalKgm2: 'totalInertia' });
  return facts;
}

function tryRun(c: Calculation, args: Record<string, unknown>): ReturnType<typeof runCalculation> | undefined {
  try {
    return runCalculation(c, args);
  } catch {
    return undefined;
  }
}

function deviceShare(model: Model, amps: number): PlateFact {
  const share = (100 * amps) / model.ratedA;
  return {
    id: 'deviceShare',
    block: 'device',
    value: share,
    unit: '%',
    working: {
      name: 'deviceShare',
      title: 'Plate current against the device',
      inputs: [
        { name: 'amps', title: 'plate current in this link', value: amps, unit: 'A' },
        { name: 'ratedA', title: 'rated output current of the device', value: model.ratedA, unit: 'A' },
      ],
      results: [{ name: 'share', title: 'share of the device', value: share, unit: '%' }],
      formula: '100·I_motor/I_device',
      source: 'device rating from its profile; derating for altitude, heat and carrier frequency is for the maker’s manual',
    },
  };
}

function linkFact(point: RatedPoint, outputV: number): PlateFact {
  return {
    id: 'motorLink',
    block: 'motor',
    value: point.link,
    unit: '',
    working: {
      name: 'motorLink',
      title: 'Motor link for this supply',
      inputs: [
        { name: 'outputV', title: 'output voltage', value: outputV, unit: 'V' },
        { name: 'plateV', title: 'plate voltage that suits it', value: point.volts ?? 0, unit: 'V' },
      ],
      results: [{ name: 'link', title: 'link', value: point.link, unit: '' }],
      formula: 'the plate voltage within 6 % of the output decides the link',
      source: 'NEMA MG 1 §12.44 for 460 V plates on 480 V; IEC 60034-1 zone A',
    },
  };
}
