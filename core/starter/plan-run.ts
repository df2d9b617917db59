import {
  atFullVoltage,
  imageTau,
  loadTorque,
  runAtVoltage,
  TRIP_HEAT,
  type Driven,
  type FullVoltage,
  type LoadCurve,
  type RunPoint,
  type StartWay,
} from '../motor/index.js';
import { integrate, type Path, type Stretch } from '../numeric/index.js';
import type { PlannedRun } from './state.js';
import type { StarterControl } from './vocabulary.js';

/** What the starter feeds, plain, so that it can be posted. */
export interface FedMachine {
  readonly motor: FullVoltage;
  readonly inertiaKgm2: number;
  readonly load: LoadCurve;
  /** Pole pairs: speed of the shaft as Hz of the supply. */
  readonly polePairs: number;
  /** A data sheet tells how the torque goes between standstill and breakdown. */
  readonly shapeKnown?: boolean;
  /** Current the motor's settings stand at, A: base of limit, bypass and thermal image. */
  readonly motorA: number;
  readonly deviceA: number;
}

/** Time for which the current must have been below the bypass's before it closes, s. */
const BYPASS_AFTER_S = 0.2;
/** Size of an error a step may make while the application simulates; run-ups as sums are reckoned finer. */
const TOLERANCE = 1e-5;
/** Share of rated torque a controlled brake is taken to give. */
const BRAKE_SHARE = 0.5;

const toUs = (s: number): number => Math.round(s * 1e6);

/** Speed of the shaft as Hz from rad/s. */
export const asHz = ({ polePairs }: FedMachine, rad: number): number =>
  (rad * polePairs) / (2 * Math.PI);
export const asRad = ({ polePairs }: FedMachine, hz: number): number =>
  (hz * 2 * Math.PI) / polePairs;

/** The machine as what a voltage drives; with a phase missing it gives no torque from rest. */
export function drivenMachine(m: FedMachine, phases: 2 | 3 = 3): Driven {
  const { motor, inertiaKgm2, load } = m;
  return {
    fieldRad: motor.fieldRad,
    ratedNm: motor.rated.torqueNm,
    inertiaKgm2,
    load,
    at: (rad) => {
      const full = atFullVoltage(motor, rad);
      // Two phases make no turning field: nothing from rest, and on the run about half.
      return phases === 3
        ? full
        : { torqueNm: rad <= 0 ? 0 : full.torqueNm / 2, amps: full.amps * SINGLE_PHASING };
    },
  };
}

/** Current of a motor left on two phases at standstill, in that on three: √3/2. */
const SINGLE_PHASING = Math.sqrt(3) / 2;

/** The way the voltage comes on under the control's policies: limits counted from their base. */
export function wayOf({ start, ...c }: StarterControl): StartWay {
  // Measured from nothing, the time counts to 100 % over what is left above the voltage at first.
  const rampS =
    c.rampTimeFrom === 'zero' && start.rampS !== undefined && start.kind !== 'torqueRamp'
      ? start.rampS * (1 - (start.fraction ?? 0))
      : start.rampS;
  return {
    ...start,
    ...(rampS === undefined ? {} : { rampS }),
    kickUnderLimit: c.kickUnderLimit,
    fullAfterTorque: c.afterTorqueRamp === 'fullVoltage',
  };
}

/**
 * Plans a start whole: speed, current, voltage and heat until they no longer change, and the moments that matter on the way.
 *
 * @param fromRad speed in the direction of the field, rad/s
 * @param heat of the image at its beginning
 */
export function planStart(
  control: StarterControl,
  m: FedMachine,
  from: { rad: number; heat: number; t: number; phases: 2 | 3; way?: StartWay },
): PlannedRun {
  const bypassA = (control.bypassAtPct / 100) * m.motorA;
  const way = from.way ?? wayOf(control);
  const run = runAtVoltage(drivenMachine(m, from.phases), way, {
    fromRad: from.rad,
    tolerance: TOLERANCE,
    ...(control.endRampAtSpeed ? { fullBelowA: bypassA } : {}),
    image: { settingA: m.motorA, tauS: imageTau(control.tripClass), from: from.heat },
  });
  const { points } = run;
  const at = (s: number | null): number => (s === null ? Infinity : from.t + toUs(s));
  const low = lowFrom(points, bypassA, run.fullS ?? Infinity);
  const last = points[points.length - 1];
  return {
    beganUs: from.t,
    points,
    kickUs: from.t + toUs(way.kickFraction === undefined ? 0 : (way.kickS ?? 0)),
    fullUs: at(run.fullS),
    bypassUs: at(low === Infinity ? null : low + (control.bypass === 'none' ? 0 : BYPASS_AFTER_S)),
    tripUs: tripOf(control, m, points, from.t),
    settledUs: from.t + Math.max(1, toUs(last.t)),
    stalls: run.stalls,
    breaksLoose: run.breaksS !== null,
  };
}

/** Since when, at full voltage, the current stays below the bypass's, s. */
function lowFrom(points: readonly RunPoint[], bypassA: number, fullS: number): number {
  let since = Infinity;
  for (const p of points) {
    if (p.t < fullS || p.amps >= bypassA) since = Infinity;
    else if (since === Infinity) since = p.t;
  }
  return since;
}

/** Moment at which the image trips: on the way, or by the current at its end. */
function tripOf(
  { tripClass }: StarterControl,
  { motorA }: FedMachine,
  points: readonly RunPoint[],
  t: number,
): number {
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    if (b.heat < TRIP_HEAT) continue;
    const part = b.heat > a.heat ? (TRIP_HEAT - a.heat) / (b.heat - a.heat) : 1;
    return t + toUs(a.t + Math.max(0, part) * (b.t - a.t));
  }
  const last = points[points.length - 1];
  const toward = (last.amps / motorA) ** 2;
  if (toward <= TRIP_HEAT) return Infinity;
  const more = imageTau(tripClass) * Math.log((toward - last.heat) / (toward - TRIP_HEAT));
  return t + toUs(last.t + more);
}

/**
 * Plans a soft stop: the voltage falls, by itself or so that the torque does, until its time is over or the torque has fallen
 * far enough; then the motor is let go.
 *
 * @param share voltage it begins at
 */
export function planStop(
  control: StarterControl,
  m: FedMachine,
  from: { rad: number; heat: number; t: number; share: number },
): { run: PlannedRun; endUs: number } {
  const { softStopS, softStopBy, endTorquePct, endVoltagePct } = control;
  const first = atFullVoltage(m.motor, from.rad);
  const stopNm = first.torqueNm * from.share ** 2;
  const byTorque = softStopBy === 'torque';
  const lastsS = Math.max(1e-3, softStopS * (byTorque ? 1 - Math.min(100, endTorquePct) / 100 : 1));
  const end = Math.min(from.share, endVoltagePct / 100);
  const shareAt = (t: number, torqueNm: number): number => {
    if (!byTorque) return from.share + (end - from.share) * Math.min(1, t / lastsS);
    const asked = stopNm * (1 - t / Math.max(1e-3, softStopS));
    return torqueNm > 0 ? Math.min(1, Math.sqrt(Math.max(0, asked) / torqueNm)) : 0;
  };
  return slowed(control, m, from, lastsS, shareAt);
}

/** Plans a controlled brake: it slows the shaft with a share of rated torque beside the load. */
export function planBrake(
  control: StarterControl,
  m: FedMachine,
  from: { rad: number; heat: number; t: number },
): { run: PlannedRun; endUs: number } {
  const brakeNm = BRAKE_SHARE * m.motor.rated.torqueNm;
  return slowed(control, m, from, LONGEST_S, () => 0, brakeNm);
}

/** Plans the way of a shaft that nothing drives: its load slows it to rest. */
export function planCoast(
  control: StarterControl,
  m: FedMachine,
  from: { rad: number; heat: number; t: number },
): { run: PlannedRun; endUs: number } {
  return slowed(control, m, from, LONGEST_S, () => 0, 0);
}

/** A shaft that turns longer than this without being driven is not followed any further, s. */
const LONGEST_S = 3600;

function slowed(
  control: StarterControl,
  m: FedMachine,
  from: { rad: number; heat: number; t: number },
  lastsS: number,
  shareAt: (t: number, torqueNm: number) => number,
  brakeNm?: number,
): { run: PlannedRun; endUs: number } {
  const loadAt = loadTorque(m.load);
  const tauS = imageTau(control.tripClass);
  const at = (t: number, rad: number): Omit<RunPoint, 't' | 'rad' | 'i2t' | 'heat'> => {
    const full = atFullVoltage(m.motor, rad);
    const share = shareAt(t, full.torqueNm);
    const torqueNm = full.torqueNm * share ** 2 - (brakeNm ?? 0);
    const loadNm = loadAt(Math.max(0, rad));
    const stands = rad <= 0 && torqueNm < loadNm;
    const rate = stands ? 0 : (torqueNm - loadNm) / m.inertiaKgm2;
    return { rate, share, amps: full.amps * share, torqueNm, loadNm };
  };
  const steps = integrate(
    (t, [rad, , heat]) => {
      const { rate, amps } = at(t, rad);
      return [rate, amps ** 2, ((amps / m.motorA) ** 2 - heat) / tauS];
    },
    [from.rad, 0, from.heat],
    {
      end: lastsS,
      scale: [m.motor.fieldRad, atFullVoltage(m.motor, 0).amps ** 2, 1],
      tolerance: TOLERANCE,
      longest: 0.25,
      until: ({ y: [rad] }) => brakeNm !== undefined && rad <= 0,
    },
  );
  const points = steps.map(({ t, y: [rad, i2t, heat] }) => {
    const w = Math.max(0, rad);
    return { t, rad: w, i2t, heat, ...at(t, w) };
  });
  const endUs = from.t + Math.max(1, toUs(points[points.length - 1].t));
  const run: PlannedRun = {
    beganUs: from.t,
    points,
    kickUs: from.t,
    fullUs: Infinity,
    bypassUs: Infinity,
    tripUs: Infinity,
    settledUs: endUs,
    stalls: false,
    breaksLoose: true,
  };
  return { run, endUs };
}

type Read = (p: RunPoint) => number;

/** A quantity of a run as stretches between its points; where the voltage jumps, two points share a moment. */
function stretchesOf(run: PlannedRun, read: Read): Stretch[] {
  const { points, beganUs } = run;
  const stretches: Stretch[] = [];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const span = b.t - a.t;
    if (span <= 0) continue;
    const y = read(a);
    stretches.push({ t0: beganUs + toUs(a.t), y, dy: (read(b) - y) / span, ddy: 0 });
  }
  const last = points[points.length - 1];
  if (stretches.length === 0) stretches.push({ t0: beganUs, y: read(last), dy: 0, ddy: 0 });
  return stretches;
}

/** Moment before t at which the run stands: the point at or before it. */
export function runPoint(run: PlannedRun, t: number): RunPoint {
  const s = (t - run.beganUs) / 1e6;
  const { points } = run;
  if (t >= run.settledUs) return points[points.length - 1];
  let low = 0;
  let high = points.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (points[middle].t <= s) low = middle;
    else high = middle;
  }
  const [a, b] = [points[low], points[high]];
  const part = b.t > a.t ? Math.min(1, Math.max(0, (s - a.t) / (b.t - a.t))) : 1;
  const mix = (read: Read): number => read(a) + part * (read(b) - read(a));
  return {
    t: s,
    rad: mix((p) => p.rad),
    rate: mix((p) => p.rate),
    share: mix((p) => p.share),
    amps: mix((p) => p.amps),
    torqueNm: mix((p) => p.torqueNm),
    loadNm: mix((p) => p.loadNm),
    i2t: mix((p) => p.i2t),
    heat: mix((p) => p.heat),
  };
}

const paths = new WeakMap<PlannedRun, Map<string, Path>>();

/** A quantity of a run along its way; made once for each. */
export function pathOf(run: PlannedRun, name: string, read: Read): Path {
  const known = paths.get(run) ?? new Map<string, Path>();
  if (!paths.has(run)) paths.set(run, known);
  const made = known.get(name);
  if (made) return made;
  const path: Path = {
    stretches: stretchesOf(run, read),
    endUs: run.settledUs,
    rest: read(run.points[run.points.length - 1]),
  };
  known.set(name, path);
  return path;
}
