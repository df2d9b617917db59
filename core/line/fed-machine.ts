import type { Model, Profile } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import {
  fullVoltageFromCurve,
  fullVoltageOf,
  usualRatios,
  type CurvePoint,
  type FedFacts,
  type FullVoltage,
  type LoadCurve,
} from '../motor/index.js';
import { plateContext, type PlateContext } from './plate/context.js';
import { fittedMotor, loadCurveOf } from './plate/motor-curves.js';

/** Usual values where a plate is silent. */
const USUAL = { hz: 50, polePairs: 2, volts: 400, slip: 0.03, powerFactor: 0.85, efficiency: 0.9 };
/** Load taken where none is entered: half of rated torque at rated speed, with its square. */
const USUAL_LOAD_SHARE = 0.5;
/** Time of a direct start with three times rated torque that the inertia is taken from where it is not entered, s. */
const USUAL_START_S = 2;

/**
 * The motor of a job at the voltage of its supply, with inertia and load: by the curves of its data sheet, else by the circuit
 * fitted to its plate, else by a usual motor of its size. What was not entered is named.
 *
 * @example fedMachine(job, profile, model).assumed // ['inertia']
 */
export function fedMachine(job: Job, profile: Profile, model: Model): FedFacts {
  const c = plateContext(job, profile);
  const assumed: string[] = [];
  const rated = ratedOf(c, model, assumed);
  const motor = motorOf(c, rated, assumed);
  const load = loadCurveOf(c);
  if (!load) assumed.push('load');
  const { inertiaKgm2 } = c.n;
  if (inertiaKgm2 === undefined) assumed.push('inertia');
  const usual: LoadCurve = {
    kind: 'square',
    torqueNm: USUAL_LOAD_SHARE * rated.torqueNm,
    ratedRpm: (rated.rad * 30) / Math.PI,
  };
  return {
    motor,
    load: load ?? usual,
    inertiaKgm2: inertiaKgm2 ?? (2 * rated.torqueNm * USUAL_START_S) / rated.rad,
    polePairs: c.n.polePairs ?? USUAL.polePairs,
    shapeKnown: (c.plate.motor.curve?.length ?? 0) > 1 || c.plate.motor.pullUpRatio !== undefined,
    assumed,
  };
}

/** Speed of the field at the frequency of the supply, rad/s. */
const fieldOf = ({ n }: PlateContext): number =>
  (2 * Math.PI * (n.supplyHz ?? n.hz ?? USUAL.hz)) / (n.polePairs ?? USUAL.polePairs);

function ratedOf(c: PlateContext, model: Model, assumed: string[]): FullVoltage['rated'] {
  const { rpm, torqueNm, rated } = c.n;
  const field = fieldOf(c);
  const rad = rpm === undefined ? (1 - USUAL.slip) * field : (rpm * Math.PI) / 30;
  const amps = rated?.amps ?? model.ratedA;
  const watts =
    Math.sqrt(3) * (rated?.volts ?? USUAL.volts) * amps * USUAL.powerFactor * USUAL.efficiency;
  if (torqueNm === undefined) assumed.push('motor');
  return { rad: Math.min(rad, 0.999 * field), torqueNm: torqueNm ?? watts / rad, amps };
}

/** Torque and current over speed in rated ones, of a usual motor. */
function usualCurve(powerKw: number): CurvePoint[] {
  const { lockedCurrentRatio: i, lockedTorqueRatio: t, breakdownRatio: k } = usualRatios(powerKw);
  const point = (share: number, torqueRatio: number, currentRatio: number): CurvePoint => ({
    share,
    torqueRatio,
    currentRatio,
  });
  return [
    point(0, t, i),
    point(0.2, 0.9 * t, 0.97 * i),
    point(0.4, 0.85 * t, 0.93 * i),
    point(0.6, 0.9 * t, 0.86 * i),
    point(0.8, 0.9 * k, 0.72 * i),
    point(0.9, k, 0.57 * i),
    point(0.95, 0.85 * k, 0.4 * i),
  ];
}

function motorOf(c: PlateContext, rated: FullVoltage['rated'], assumed: string[]): FullVoltage {
  const { supplyV, powerKw } = c.n;
  const ratedV = c.n.rated?.volts;
  const volts = supplyV !== undefined && ratedV !== undefined ? supplyV / ratedV : 1;
  const { curve } = c.plate.motor;
  const field = fieldOf(c);
  if (curve && curve.length > 1) return fullVoltageFromCurve(curve, field, rated, volts);
  const fit = fittedMotor(c);
  if (fit) {
    assumed.push(...fit.assumed);
    return fullVoltageOf(fit.circuit, rated, fit.circuit.lineV * volts);
  }
  if (!assumed.includes('motor')) assumed.push('motor');
  return fullVoltageFromCurve(usualCurve(powerKw ?? 1), field, rated, volts);
}
