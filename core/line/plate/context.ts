import {
  CalculationError,
  runCalculation,
  type Calculation,
  type ResultValue,
  type Working,
} from '../../calculation/index.js';
import type { Model, Profile } from '../../catalogue/index.js';
import {
  findingKey,
  hashOf,
  type Finding,
  type Job,
  type Line,
  type Plate,
} from '../../job/index.js';
import { polePairsOf, ratedPointInUse, type RatedPoint } from '../../motor/index.js';
import { toBase, type Dimension, type Quantity } from '../../units/index.js';

/** Blocks of the one-line picture in their order, and those beside it. */
export const plateBlocks = [
  'supply',
  'isolator',
  'protection',
  'transformer',
  'rcd',
  'contactor',
  'capacitor',
  'inputFilter',
  'reactor',
  'device',
  'brakingUnit',
  'resistor',
  'outputFilter',
  'cable',
  'motorIsolator',
  'motor',
  'brake',
  'load',
  'control',
  'place',
  'arrival',
] as const;
export type PlateBlock = (typeof plateBlocks)[number];

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
  readonly supplyHz?: number;
  readonly phases?: 1 | 3;
  /** Voltage the device can give its motor. */
  readonly outputV?: number;
  readonly rated?: RatedPoint;
  /** Rated torque, Nm. */
  readonly torqueNm?: number;
  readonly polePairs?: number;
  /** Inertia of motor and load at the motor, kg·m². */
  readonly inertiaKgm2?: number;
}

/** What the facts and findings of every block are made from. */
export interface PlateContext {
  readonly job: Job;
  readonly plate: Plate;
  readonly line: Line;
  readonly n: PlateNumbers;
  readonly profile?: Profile;
  readonly model?: Model;
}

/** A quantity in its base unit; undefined stays undefined. */
export const base = (q: Quantity | undefined, dimension: Dimension): number | undefined =>
  q && toBase(q, dimension);

/** The plate's numbers in base units, and the rated point the motor is linked for. */
export function plateNumbers(plate: Plate, profile?: Profile): PlateNumbers {
  const { motor, supply, load, line } = plate;
  const supplyV = base(line?.transformer?.secondary, 'voltage') ?? base(supply.volts, 'voltage');
  const within = (x: number | undefined): number | undefined =>
    x !== undefined && x > 0 && x <= 1 ? x : undefined;
  const powerKw = base(motor.power, 'power');
  const [hz, rpm] = [base(motor.hz, 'frequency'), base(motor.rpm, 'speed')];
  const motorJ = base(motor.inertia, 'inertia');
  const loadJ = base(load.inertia, 'inertia');
  const polePairs = hz && rpm ? polePairsOf(hz, rpm) : undefined;
  return {
    powerKw,
    hz,
    rpm,
    powerFactor: within(motor.powerFactor),
    efficiency: within(motor.efficiency),
    supplyV,
    supplyHz: base(supply.hz, 'frequency'),
    phases: supply.phases ?? profile?.supply.phases,
    outputV: supplyV,
    rated: ratedPointInUse(motor, supplyV),
    torqueNm: powerKw && rpm ? (powerKw * 1000) / ((2 * Math.PI * rpm) / 60) : undefined,
    polePairs,
    inertiaKgm2:
      motorJ !== undefined && loadJ !== undefined && load.gearRatio
        ? motorJ + loadJ / load.gearRatio ** 2
        : undefined,
  };
}

/** How far the two ratios of a faster base may be apart: plates round. */
const FASTER_SHARE = 0.06;

/**
 * Point up to which a drive keeps the flux of its motor: the plate's, or the faster base of a winding that is linked for a
 * lower voltage on purpose (230 V in delta on 400 V: 87 Hz). Volts and hertz grow alike, so does the current stay.
 *
 * @returns undefined where the plate does not say enough
 * @example baseOf({ …, motor: { link: 'delta', lowV: 230 V, hz: 50 } }, 87) // { volts: 400, hz: 87, faster: true }
 */
export function baseOf(
  plate: Plate,
  maxHz: number | undefined,
): { readonly volts: number; readonly hz: number; readonly faster: boolean } | undefined {
  const { outputV, rated, hz } = plateNumbers(plate);
  if (!rated?.volts || !hz) return undefined;
  const up = outputV === undefined || maxHz === undefined ? 1 : outputV / rated.volts;
  const faster = up > 1 + FASTER_SHARE && Math.abs((maxHz as number) / hz / up - 1) <= FASTER_SHARE;
  return faster
    ? { volts: outputV as number, hz: Math.round(hz * up), faster }
    : { volts: rated.volts, hz, faster };
}

/** Gathers a job's plates with its device. */
export function plateContext(job: Job, profile?: Profile): PlateContext {
  const model = profile?.models.find((m) => m.name === job.profile.model);
  return {
    job,
    plate: job.plate,
    line: job.plate.line ?? {},
    n: plateNumbers(job.plate, profile),
    profile,
    model,
  };
}

/** Runs a calculation if all its arguments are there and in range. */
export function tryRun(
  c: Calculation,
  args: Readonly<Record<string, unknown>>,
): { result: Record<string, ResultValue>; working: Working } | undefined {
  if (Object.values(args).some((value) => value === undefined)) return undefined;
  try {
    return runCalculation(c, args);
  } catch (error) {
    if (error instanceof CalculationError) return undefined;
    throw error;
  }
}

/** Why a calculation refuses arguments that are all there: out of its range. Undefined where it does not. */
export function refusalOf(
  c: Calculation,
  args: Readonly<Record<string, unknown>>,
): string | undefined {
  if (Object.values(args).some((value) => value === undefined)) return undefined;
  try {
    runCalculation(c, args);
    return undefined;
  } catch (error) {
    if (error instanceof CalculationError) return error.message;
    throw error;
  }
}

/** Facts of one block from one calculation: result name → fact id. Nothing where an argument is missing or out of range. */
export function facts(
  block: PlateBlock,
  c: Calculation,
  args: Readonly<Record<string, unknown>>,
  ids: Readonly<Record<string, string>>,
): PlateFact[] {
  const done = tryRun(c, args);
  if (!done) return [];
  return Object.entries(ids).flatMap(([name, id]) => {
    const value = done.result[name];
    return typeof value === 'number' || typeof value === 'string'
      ? [{ id, block, value, unit: c.results[name].unit, working: done.working }]
      : [];
  });
}

/** Rules by which a fault is cleared, a touch is harmless or a load is held. */
const protecting =
  /^(protection|isolator|rcd|resistor|brakingUnit|place\.zone|cable\.(pe|ampacity)|device\.shortCircuit|load\.|brake\.|control\.fuseWire|supply\.(reinforcedPe|earthLink|filterToEarth)|plate\.supplyOutsideDevice)/u;
/** Rules about what is entered, not about what runs. */
const telling = /^plate\.(efficiency|powerFactor|currentDisagrees|voltageRatio)/u;

/** A finding at a field of the plates. */
export function finding(
  rule: string,
  severity: Finding['severity'],
  field: string,
  args: Finding['args'],
  source: string,
): Finding {
  return {
    key: findingKey(rule, field),
    rule,
    severity,
    rank: protecting.test(rule) ? 'protects' : telling.test(rule) ? 'tells' : 'moves',
    stage: 'plate',
    where: [{ kind: 'plate', id: field }],
    args,
    source,
    basis: hashOf([rule, field, args]),
  };
}
