import {
  fitCircuit,
  loadTorque,
  motorAt,
  runUpOf,
  usualRatios,
  type FitPlate,
  type LoadCurve,
  type MotorCircuit,
  type RunUpResult,
  startAgainstClass,
  tripClasses,
  polePairsOf,
} from '../../motor/index.js';
import { CalculationError } from '../../calculation/index.js';
import type { PlateContext } from './context.js';

/** A point of the torque and current curve at full voltage. */
export interface CurvePoint {
  readonly rpm: number;
  readonly torqueNm: number;
  readonly loadNm: number;
  readonly amps: number;
}

/** What the fitted motor does at full voltage, and how it runs up with its load. */
export interface MotorCurves {
  readonly circuit: MotorCircuit;
  readonly errors: Readonly<Record<string, number>>;
  /** Ratios taken from usual motors of this size because the plate does not give them. */
  readonly assumed: readonly string[];
  readonly points: readonly CurvePoint[];
  readonly runUp: RunUpResult | null;
  /** Whether each overload class lets the direct start pass, from cold. */
  readonly classes: readonly { readonly tripClass: string; readonly verdict: string }[];
  /** Why there is no run-up. */
  readonly noRunUp: string | null;
}

const ratios = ['lockedCurrentRatio', 'lockedTorqueRatio', 'breakdownRatio'] as const;

/** What the fit needs, with usual ratios where the plate is silent; undefined until the plate is complete. */
export function fitInput({
  plate,
  n,
}: PlateContext): { plate: FitPlate; assumed: string[] } | undefined {
  const { powerKw, hz, rpm, powerFactor, efficiency, rated } = n;
  if (!powerKw || !hz || !rpm || !powerFactor || !efficiency || !rated?.volts || !rated.amps)
    return undefined;
  const usual = usualRatios(powerKw);
  const assumed = ratios.filter((name) => plate.motor[name] === undefined);
  const own = Object.fromEntries(
    ratios.map((name) => [name, plate.motor[name] ?? usual[name]]),
  ) as Pick<FitPlate, (typeof ratios)[number]>;
  return {
    plate: {
      powerKw,
      lineV: rated.volts,
      hz,
      rpm,
      currentA: rated.amps,
      powerFactor,
      efficiency,
      ...own,
      pullUpRatio: plate.motor.pullUpRatio,
    },
    assumed,
  };
}

/** Load at the motor shaft from the plates: rated torque shares over speed. */
export function loadCurveOf({ plate, n }: PlateContext): LoadCurve | undefined {
  const { kind = 'constant', torquePct, basePct = 0, breakawayPct } = plate.load;
  if (torquePct === undefined || !n.torqueNm || !n.rpm) return undefined;
  const nm = (pct: number): number => (pct / 100) * (n.torqueNm as number);
  return {
    kind,
    torqueNm: nm(torquePct),
    constantNm: nm(basePct),
    ratedRpm: n.rpm,
    breakawayNm: breakawayPct === undefined ? undefined : nm(breakawayPct),
  };
}

let kept: { key: string; circuit: MotorCircuit; errors: Record<string, number> } | undefined;

/** The fit is the same for the same plate: the last one is kept, so that a keystroke elsewhere does not repeat it. */
function fitted(plate: FitPlate): { circuit: MotorCircuit; errors: Record<string, number> } {
  const key = JSON.stringify(plate);
  if (kept?.key !== key) kept = { key, ...fitCircuit(plate) };
  return kept;
}

/** The circuit fitted to the plate; undefined until plate and data allow a fit. */
export function fittedMotor(
  c: PlateContext,
):
  | { circuit: MotorCircuit; errors: Record<string, number>; assumed: string[]; plate: FitPlate }
  | undefined {
  const input = fitInput(c);
  if (
    !input ||
    polePairsOf(input.plate.hz, input.plate.rpm) === undefined ||
    input.plate.breakdownRatio <= 1
  )
    return undefined;
  try {
    return { ...fitted(input.plate), ...input };
  } catch (error) {
    if (error instanceof CalculationError) return undefined;
    throw error;
  }
}

/**
 * Torque and current over speed, and the direct run-up with the load; undefined until plate and data allow a fit.
 *
 * @example motorCurves(plateContext(job, profile))?.runUp?.startS // 0.31
 */
export function motorCurves(c: PlateContext): MotorCurves | undefined {
  const fit = fittedMotor(c);
  if (!fit) return undefined;
  const { circuit, errors } = fit;
  const load = loadCurveOf(c);
  const loadAt = load && loadTorque(load);
  const synchronous = (120 * circuit.hz) / circuit.poles;
  const points = Array.from({ length: 81 }, (_, i) => {
    const slip = Math.max(1e-4, 1 - i / 80);
    const p = motorAt(circuit, slip);
    return {
      rpm: synchronous * (1 - slip),
      torqueNm: p.torqueNm,
      loadNm: loadAt ? loadAt((synchronous * (1 - slip) * 2 * Math.PI) / 60) : 0,
      amps: p.statorA,
    };
  });
  const { inertiaKgm2 } = c.n;
  const found = { circuit, errors, assumed: fit.assumed, points };
  if (!load || inertiaKgm2 === undefined)
    return { ...found, runUp: null, classes: [], noRunUp: load ? 'inertia' : 'load' };
  try {
    const runUp = runUpOf(circuit, inertiaKgm2, load, { kind: 'direct' });
    const startRatio = runUp.rmsA / fit.plate.currentA;
    const classes = tripClasses.map((tripClass) => ({
      tripClass,
      verdict:
        runUp.startS === null
          ? 'trips'
          : startAgainstClass.run({ startRatio, startS: runUp.startS, tripClass }).verdict,
    }));
    return { ...found, runUp, classes, noRunUp: null };
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error;
    return { ...found, runUp: null, classes: [], noRunUp: 'overload' };
  }
}
