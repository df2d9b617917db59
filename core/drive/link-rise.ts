import { stretchValue, type Path } from '../numeric/index.js';
import { planRamp, rampTimes, type RampPair } from './ramp.js';
import type { Control } from './vocabulary.js';

/** What a slowing load gives back to the DC link, and what the link bears. */
export interface LinkBraking {
  /** Power that the turning mass gives back, W for each Hz and each Hz/s of slowing. */
  readonly massW: number;
  /** Losses of motor and device, W for each Hz. */
  readonly lossW: number;
  /** What the load itself takes up: h1·|f| + h2·f² + h3·|f|³, W. */
  readonly helpW: readonly [number, number, number];
  /** Draw of the device itself, W. */
  readonly idleW: number;
  readonly capacityF: number;
  /** Voltage of the link with the motor stopped. */
  readonly usualV: number;
  /** Voltage at which the device trips. */
  readonly tripV: number;
  /** Voltage below which the link counts as lost. */
  readonly lostV: number;
  /** Time after which it is discharged, by the plate of the device, s. */
  readonly dischargeS: number;
  /** Chopper with a resistor that is fitted: from which voltage on, and what it burns there. */
  readonly chopper?: { readonly volts: number; readonly watts: number };
}

/** Energy of the link above its usual one at a moment. */
export interface LinkSample {
  /** µs. */
  readonly t: number;
  readonly joules: number;
}

/** Pieces in which the energy of one stretch of a path is summed up. */
const PIECES = 24;

/** Energy above the usual one at a voltage of the link, J: C·(U² − U0²)/2. */
export const linkJoules = ({ capacityF, usualV }: LinkBraking, volts: number): number =>
  (capacityF / 2) * (volts * volts - usualV * usualV);

/**
 * Voltage of the link with an energy above its usual one: √(U0² + 2·E/C).
 *
 * @example linkVolts({ capacityF: 1e-3, usualV: 566, … }, 0) // 566
 */
export const linkVolts = ({ capacityF, usualV }: LinkBraking, joules: number): number =>
  Math.sqrt(Math.max(0, usualV * usualV + (2 * joules) / capacityF));

/**
 * Power that flows into the link at a frequency that falls by so many Hz/s; negative where it is drawn from.
 *
 * Source: P = J·ω·(−dω/dt) less losses and load; domain of a stop without a resistor is where it stays below nothing.
 */
export function linkWatts(b: LinkBraking, hz: number, fallsBy: number): number {
  const f = Math.abs(hz);
  const help = ((b.helpW[2] * f + b.helpW[1]) * f + b.helpW[0]) * f;
  return b.massW * f * fallsBy - b.lossW * f - help;
}

/** Energy after a while in which some power flows in: never below the usual one, held by the chopper as far as it goes. */
function after(b: LinkBraking, joules: number, watts: number, seconds: number): number {
  if (!b.chopper) return Math.max(0, joules + watts * seconds);
  const from = linkJoules(b, b.chopper.volts);
  const free = joules + watts * seconds;
  if (free <= from) return Math.max(0, free);
  const [over, time] = joules >= from ? [joules, seconds] : [from, (free - from) / watts];
  return Math.max(from, over + (watts - b.chopper.watts) * time);
}

/**
 * Energy of the link along a path of the frequency, until it ends or the trip voltage is reached.
 *
 * @param joules energy above the usual one at its beginning
 * @returns samples in order of time; the last has the energy of the trip where it trips
 */
export function linkRise(b: LinkBraking, path: Path, joules = 0): LinkSample[] {
  const trips = linkJoules(b, b.tripV);
  const samples: LinkSample[] = [{ t: path.stretches[0].t0, joules }];
  let now = joules;
  for (const [i, s] of path.stretches.entries()) {
    const end = path.stretches[i + 1]?.t0 ?? path.endUs;
    const step = (end - s.t0) / PIECES;
    if (!(step > 0)) continue;
    for (let k = 0; k < PIECES; k++) {
      const middle = s.t0 + (k + 0.5) * step;
      const hz = stretchValue(s, middle);
      const slope = s.dy + (s.ddy * (middle - s.t0)) / 1e6;
      const watts = linkWatts(b, hz, -slope * (Math.sign(hz) || 1)) - b.idleW;
      const next = after(b, now, watts, step / 1e6);
      if (next >= trips) {
        const share = next > now ? (trips - now) / (next - now) : 0;
        samples.push({ t: s.t0 + (k + Math.max(0, share)) * step, joules: trips });
        return samples;
      }
      now = next;
      samples.push({ t: s.t0 + (k + 1) * step, joules: now });
    }
  }
  return samples;
}

/**
 * Moment at which the link reaches the voltage of its trip along a path, µs; Infinity where it never does. The link has its
 * usual voltage at the beginning.
 *
 * @example overvoltageUs({ massW: 100, tripV: 800, … }, planRamp(0, 50, 0, 1, 50, 0)) // 37_000
 */
export function overvoltageUs(b: LinkBraking, path: Path): number {
  const last = linkRise(b, path).at(-1) as LinkSample;
  return last.joules >= linkJoules(b, b.tripV) ? Math.ceil(last.t) : Infinity;
}

/** Share of the energy of the trip from which a stop matters to the link. */
const MATTERS_SHARE = 0.1;

/**
 * Whether some stop from the highest frequency lifts the link.
 *
 * @param tasks of the inputs in use: a second ramp, a quick stop and a jog count only where something asks for them
 * @example brakingMatters({ ...control, decelS: 1 }, link, []) // true for a drum of 0.2 kg·m²
 */
export function brakingMatters(
  control: Control,
  b: LinkBraking,
  tasks: readonly string[],
): boolean {
  if (b.chopper) return true;
  const most = MATTERS_SHARE * linkJoules(b, b.tripV);
  const reference = control.rampReferenceHz ?? control.maxHz;
  const { maxHz, jogHz } = control;
  const stops: (readonly [RampPair, number])[] = [['main', maxHz]];
  if (tasks.includes('rampSelect')) stops.push(['second', maxHz]);
  if (tasks.includes('quickStop')) stops.push(['quick', maxHz]);
  if (tasks.some((t) => t === 'jogForward' || t === 'jogReverse')) stops.push(['jog', jogHz]);
  return stops.some(([pair, fromHz]) => {
    const { decelS } = rampTimes(control, pair);
    const stop = planRamp(0, fromHz, 0, decelS, reference, control.sCurvePct);
    return linkRise(b, stop).some((x) => x.joules > most);
  });
}
