import type { InstalledDevice } from '../installation/index.js';
import type { Act } from '../job/index.js';
import {
  actsOf,
  powerUp,
  READY_MS,
  startActs,
  type Arrangement,
  type Direction,
} from '../scheme/index.js';
import type { Asks, Phase, Trial } from './trial.js';

/** Longest travel that is waited for, ms. */
const MOST_TRAVEL_MS = 600_000;
/** What is waited beyond the longest travel, ms. */
const SETTLE_MS = 1500;
/** How long before the next act a phase is looked at, ms. */
const LOOK_BEFORE_MS = 100;

/** Times and functions that every trial of a job is laid from. */
export interface Pace {
  readonly arrangement: Arrangement;
  /** Longest time between standstill and full speed, with a margin, ms. */
  readonly travelMs: number;
  /** Time of a start warning, ms. */
  readonly warningMs: number;
}

/** Times of a job's trials, from its device as installed. */
export function paceOf(arrangement: Arrangement, { facts }: Pick<InstalledDevice, 'facts'>): Pace {
  return {
    arrangement,
    travelMs: Math.min(MOST_TRAVEL_MS, facts.travelMs) + SETTLE_MS,
    warningMs: arrangement.warningMs,
  };
}

/** Lays a trial phase by phase, from power-up on. */
export class Lay {
  private readonly acts: Act[];
  private readonly phases: Phase[] = [];
  /** Moment at which the next phase begins, ms. */
  t = READY_MS;

  /** @param share setting of the dial or signal, or of the keypad where it gives the speed, 0 … 1 */
  constructor(
    readonly pace: Pace,
    private readonly share: number,
    private readonly always = false,
  ) {
    this.acts = powerUp(pace.arrangement, share);
    this.looked('ready', 'quiet', 0);
  }

  /** Time in which a start has come to speed, ms. */
  get travelMs(): number {
    return this.pace.travelMs + this.pace.warningMs;
  }

  private looked(mark: string, asks: Asks, fromMs: number): void {
    this.phases.push({ mark, asks, fromMs, lookMs: this.t - LOOK_BEFORE_MS });
  }

  /** Does something and waits; nothing is laid where the station has nothing to do it with. */
  phase(mark: string, asks: Asks, acts: readonly (Act | undefined)[], lastsMs: number): this {
    const made = actsOf(...acts);
    if (made.length === 0) return this;
    this.acts.push(...made);
    const from = this.t;
    this.t += lastsMs;
    this.looked(mark, asks, from);
    return this;
  }

  /** Starts in a direction and waits until it is at speed. */
  start(direction: Direction = 'forward', lastsMs = this.travelMs): this {
    return this.phase(
      'start',
      'runs',
      startActs(this.pace.arrangement, direction, this.t),
      lastsMs,
    );
  }

  done(id: string): Trial {
    const { acts, phases, share, always } = this;
    return { id, acts, phases, keypad: { share, ...(always ? { always } : {}) }, endMs: this.t };
  }
}
