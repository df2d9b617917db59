import { integrate } from '../numeric/index.js';
import { breakaway, loadTorque, type LoadCurve } from './load-curve.js';
import { kickEnd, rampEnd, voltageShare, type AtFull, type StartWay } from './start-way.js';

/** What a voltage drives: the motor at full voltage, all inertia at its shaft, and the load. */
export interface Driven {
  /** Speed of the field, rad/s of the shaft. */
  readonly fieldRad: number;
  readonly ratedNm: number;
  readonly inertiaKgm2: number;
  readonly load: LoadCurve;
  /** Torque and current at full voltage and a speed in the direction of the field, rad/s. */
  at(rad: number): AtFull;
}

/** One moment of a run: since the voltage came on, s. */
export interface RunPoint {
  readonly t: number;
  /** Speed in the direction of the field, rad/s, and its change, rad/s². */
  readonly rad: number;
  readonly rate: number;
  readonly share: number;
  readonly amps: number;
  readonly torqueNm: number;
  readonly loadNm: number;
  /** ∫I²dt, A²s. */
  readonly i2t: number;
  /** Heat of the image, 1 after long running at the setting. */
  readonly heat: number;
}

/** A thermal image that the run's own current drives: θ' = ((I/I_r)² − θ)/τ. */
export interface RunImage {
  readonly settingA: number;
  readonly tauS: number;
  readonly from: number;
}

export interface RunOptions {
  /** Speed at first, rad/s; negative where it still turns against the field. */
  readonly fromRad?: number;
  /** Current below which the voltage goes to full, once it has been above it, A. */
  readonly fullBelowA?: number;
  readonly image?: RunImage;
  /** Longer than this it is not followed, s. */
  readonly untilS?: number;
  /** Longest step as a share of the usual one: shorter for tests, longer for a search. */
  readonly stepShare?: number;
  /** Size of an error that a step may make, as a share of the speed of the field. */
  readonly tolerance?: number;
}

/** A run at a given voltage: how it went, point by point. */
export interface VoltageRun {
  readonly points: readonly RunPoint[];
  /** Moment at which the shaft begins to move; null where it never does. */
  readonly breaksS: number | null;
  /** Moment from which the motor has full voltage; null where it never has. */
  readonly fullS: number | null;
  /** It comes to rest, or to a speed from which it does not get any further, below full voltage. */
  readonly stalls: boolean;
}

/** What is simulated at most, s: a run that still gains speed then is said to take longer. */
const LONGEST_S = 3600;
/** Gain of speed below which a run has come to its end, in speeds of the field per second. */
const AT_REST = 1 / 20_000;
/** Distance from the speed at which motor and load agree that counts as there, in speeds of the field. */
const HAIR = 2e-4;
const LONGEST_STEP_S = 0.25;
/** How long before a break of the voltage its last value is read, s. */
const BREAK_S = 1e-9;
const TOLERANCE = 1e-6;

/**
 * Runs a motor up under a voltage: J·dω/dt = u²·T(ω) − T_L(ω), I = u·I(ω), integrated with steps fitted to the tolerance in
 * pieces between the breaks of the voltage, so that no step bridges one.
 *
 * @param way how the voltage comes on
 * @returns the run until its speed no longer changes
 * @example runAtVoltage(driven, { kind: 'direct' }).points.at(-1)?.rad
 */
export function runAtVoltage(driven: Driven, way: StartWay, options: RunOptions = {}): VoltageRun {
  return new Run(driven, way, options).toTheEnd();
}

type State = readonly [rad: number, i2t: number, heat: number];

class Run {
  private readonly points: RunPoint[] = [];
  private readonly loadAt: (rad: number) => number;
  private readonly breakNm: number;
  private t = 0;
  private y: State;
  private breaksS: number | null;
  private fullS: number | null = null;
  private above = false;
  /** The voltage is full for good. */
  private full = false;
  private readonly untilS: number;

  constructor(
    private readonly driven: Driven,
    private readonly way: StartWay,
    private readonly options: RunOptions,
  ) {
    this.loadAt = loadTorque(driven.load);
    this.breakNm = breakaway(driven.load);
    this.y = [options.fromRad ?? 0, 0, options.image?.from ?? 0];
    this.breaksS = this.y[0] === 0 ? null : 0;
    this.untilS = options.untilS ?? LONGEST_S;
  }

  toTheEnd(): VoltageRun {
    this.note(this.t);
    // A break of the voltage: what follows begins anew from the same speed.
    for (const end of [kickEnd(this.way), rampEnd(this.way), LONGEST_S])
      while (this.t < Math.min(end, this.untilS) && !this.settled(end)) this.piece(end);
    const last = this.points[this.points.length - 1];
    const stalls = last.share < 1 - 1e-9 || last.rad <= 0;
    return { points: this.points, breaksS: this.breaksS, fullS: this.fullS, stalls };
  }

  /** The voltage no longer changes by time, and the speed has come to its end. */
  private settled(end: number): boolean {
    if (!this.full && end < LONGEST_S) return false;
    if (this.y[0] === 0) return !this.loose(this.t);
    const { rate, rad } = this.points[this.points.length - 1];
    return this.points.length > 1 && this.slow(rate, rad, this.t);
  }

  /**
   * The speed has come to its end: it hardly changes, or lies within a hair of the speed at which motor and load agree. Close to
   * the speed of the field the torque is so steep that the second is seen long before the first.
   */
  private slow(rate: number, rad: number, t: number): boolean {
    const { fieldRad, inertiaKgm2 } = this.driven;
    if (Math.abs(rate) < AT_REST * fieldRad) return true;
    const step = HAIR * fieldRad;
    const net = (at: number): number => {
      const full = this.driven.at(at);
      return this.share(t, full) ** 2 * full.torqueNm - this.loadAt(Math.max(0, at));
    };
    const steepness = (net(rad + step) - net(rad - step)) / (2 * step * inertiaKgm2);
    return steepness < 0 && Math.abs(rate) < -steepness * step;
  }

  /** One piece: at rest until it breaks loose, or turning until the voltage breaks or the shaft rests. */
  private piece(end: number): void {
    const before = this.t;
    if (this.y[0] === 0 && !this.loose(this.t)) this.stand(end);
    else this.turn(end);
    if (this.t > before) this.note(this.t);
  }

  private share(t: number, full: AtFull): number {
    return this.full ? 1 : Math.min(1, voltageShare(this.way, t, full, this.driven.ratedNm));
  }

  private loose(t: number): boolean {
    const locked = this.driven.at(0);
    return this.share(t, locked) ** 2 * locked.torqueNm > this.breakNm * (1 + 1e-9);
  }

  /** Stands under voltage until the torque has grown to what breaks it loose, found by halving. */
  private stand(end: number): void {
    const from = this.t;
    let [low, high] = [from, end - BREAK_S];
    const breaks = this.loose(high);
    if (breaks)
      for (let i = 0; i < 50; i++) {
        const middle = (low + high) / 2;
        if (this.loose(middle)) high = middle;
        else low = middle;
      }
    const until = breaks ? high : end;
    const locked = this.driven.at(0);
    const steps = integrate(
      (t, [, , heat]) =>
        this.heating(this.share(Math.min(from + t, end - BREAK_S), locked) * locked.amps, 0, heat),
      this.y,
      { ...this.precision(), end: until - from, until: () => false },
    );
    this.take(steps, from, end);
    this.t = until;
  }

  private turn(end: number): void {
    const from = this.t;
    this.breaksS ??= from;
    const { fullBelowA = 0 } = this.options;
    // The load opposes; inside a step that passes rest it keeps its side, so that nothing jumps there.
    const side = this.y[0] < 0 ? -1 : 1;
    const now = (t: number, rad: number): { rate: number; amps: number } => {
      const full = this.driven.at(rad);
      const share = this.share(Math.min(from + t, end - BREAK_S), full);
      const load = side * this.loadAt(Math.max(0, side * rad));
      return {
        rate: (share ** 2 * full.torqueNm - load) / this.driven.inertiaKgm2,
        amps: share * full.amps,
      };
    };
    let cut: 'rest' | 'fallen' | undefined;
    let amps = now(0, this.y[0]).amps;
    let share = 1;
    const steps = integrate(
      (t, [rad, , heat]) => {
        const at = now(t, rad);
        return this.heating(at.amps, at.rate, heat);
      },
      this.y,
      {
        ...this.precision(),
        end: end - from,
        until: ({ t, y: [rad] }) => {
          const next = now(t, rad);
          const [before] = [amps];
          amps = next.amps;
          if (from + t > kickEnd(this.way)) {
            if (!this.full && this.above && amps < fullBelowA) {
              cut = 'fallen';
              share = before > amps ? (before - fullBelowA) / (before - amps) : 1;
              return true;
            }
            this.above ||= amps > fullBelowA;
          }
          if (side * rad <= 0 && side * next.rate < 0) {
            cut = 'rest';
            return true;
          }
          if (from + t > this.untilS) return true;
          return (this.full || end === LONGEST_S) && this.slow(next.rate, rad, from + t);
        },
      },
    );
    if (cut) this.cutAt(steps, cut === 'rest' ? undefined : Math.min(1, Math.max(0, share)));
    this.take(steps, from, end);
    if (cut === 'fallen') this.full = true;
  }

  /** Ends the last step at a share of it, or where the shaft has come to rest. */
  private cutAt(steps: { t: number; y: readonly number[] }[], at: number | undefined): void {
    const [a, b] = [steps[steps.length - 2], steps[steps.length - 1]];
    const rests = a.y[0] === b.y[0] ? 1 : a.y[0] / (a.y[0] - b.y[0]);
    const part = at ?? Math.min(1, Math.max(0, rests));
    const y = a.y.map((x, i) => x + part * (b.y[i] - x));
    if (at === undefined) y[0] = 0;
    steps[steps.length - 1] = { t: a.t + part * (b.t - a.t), y };
  }

  private precision(): { scale: number[]; tolerance: number; longest: number } {
    const { stepShare = 1, tolerance = TOLERANCE } = this.options;
    const locked = this.driven.at(0).amps;
    return {
      scale: [this.driven.fieldRad, locked ** 2, 1],
      tolerance,
      longest: LONGEST_STEP_S * stepShare,
    };
  }

  private heating(amps: number, rate: number, heat: number): number[] {
    const { image } = this.options;
    const theta = image ? ((amps / image.settingA) ** 2 - heat) / image.tauS : 0;
    return [rate, amps * amps, theta];
  }

  /** Keeps the steps of a piece as points; the voltage is that of the piece, also at its very end. */
  private take(
    steps: readonly { t: number; y: readonly number[] }[],
    from: number,
    end: number,
  ): void {
    for (const { t, y } of steps.slice(1)) {
      this.t = from + t;
      this.y = y as unknown as State;
      this.note(Math.min(this.t, end - BREAK_S));
    }
  }

  /** @param at moment whose voltage counts */
  private note(at: number): void {
    const [rad, i2t, heat] = this.y;
    const full = this.driven.at(rad);
    const share = this.share(at, full);
    const stands = rad === 0 && !this.loose(at);
    const loadNm = stands ? this.breakNm : this.loadAt(Math.abs(rad));
    const torqueNm = share ** 2 * full.torqueNm;
    const rate = stands ? 0 : (torqueNm - (rad < 0 ? -loadNm : loadNm)) / this.driven.inertiaKgm2;
    if (share >= 1 - 1e-9) this.fullS ??= this.t;
    const amps = share * full.amps;
    this.points.push({ t: this.t, rad, rate, share, amps, torqueNm, loadNm, i2t, heat });
  }
}
