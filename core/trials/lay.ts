import type { InstalledDevice } from '../installation/index.js';
import type { Act } from '../job/index.js';
import { contactsOf } from '../parts/index.js';
import {
  actsOf,
  give,
  powerUp,
  PULSE_MS,
  READY_MS,
  startActs,
  take,
  type Arrangement,
  type Direction,
} from '../scheme/index.js';
import type { Asks, Phase, RelayLag, Trial } from './trial.js';

/** Longest travel that is waited for, ms. */
const MOST_TRAVEL_MS = 600_000;
/** What is waited beyond the longest travel, ms. */
const SETTLE_MS = 1500;
/** How long before the next act a phase is looked at, ms. */
const LOOK_BEFORE_MS = 100;

/** Share of the range at which most is tried. */
export const TEST_SHARE = 0.5;

/** A key of the device pressed and let go. */
export const pressKey = (
  key: 'start' | 'stop' | 'reset' | 'up',
  atMs: number,
  lastsMs = 300,
): Act[] => [
  { do: 'key', atMs, key, down: true },
  { do: 'key', atMs: atMs + lastsMs, key, down: false },
];

/** Times and functions that every trial of a job is laid from. */
export interface Pace {
  readonly arrangement: Arrangement;
  /** Longest time between standstill and full speed, with a margin, ms. */
  readonly travelMs: number;
  /** Time of a start warning, ms. */
  readonly warningMs: number;
  /** Orders in which the contacts of a part may move, each with a lag that a device tells apart from another. */
  orders(device: string | undefined): readonly ContactOrder[];
  /** Contacts that the wishes want wired, by their first terminals: each is a channel of its own, landed or not. */
  channels(device: string | undefined): readonly string[];
  /** Mains taken away under load leave a fault that the reset key clears. */
  readonly cutNeedsReset: boolean;
  /** Phases of a supply with three of them: each can be lost alone. */
  readonly phases: readonly ('L1' | 'L2' | 'L3')[];
  /** Relays whose contacts do more than one thing, each contact first with each lag. */
  readonly relayLags: readonly RelayLag[];
}

/** One contact of a part, or several joined by a plus, move first, the others a while later. */
export interface ContactOrder {
  readonly first: string;
  readonly lagMs: number;
}

/** Margin by which a lag is beyond what a filter or a comparison of channels lets pass, ms. */
const BEYOND_MS = { filter: 5, discrepancy: 100 } as const;

/**
 * Times of a job's trials, from its device as installed.
 *
 * @param contacts first terminals of the contacts of a part, by its id
 * @param relays wired contacts of each relay, by their first terminals
 */
export function paceOf(
  arrangement: Arrangement,
  { facts, enables, mains }: Pick<InstalledDevice, 'facts' | 'enables' | 'mains'>,
  contacts: (device: string) => readonly string[] = () => [],
  relays: readonly { readonly device: string; readonly firsts: readonly string[] }[] = [],
): Pace {
  // Within one filter time, beyond it, and beyond what two channels may differ by: each hides other faults.
  const lags = [
    1,
    facts.filterMs + BEYOND_MS.filter,
    ...(enables.length > 1 ? [facts.discrepancyMs + BEYOND_MS.discrepancy] : []),
  ];
  return {
    channels: (device) => channelsOf(arrangement, device),
    cutNeedsReset: facts.cutNeedsReset,
    phases: mains.phases.length === 3 ? ['L1', 'L2', 'L3'] : [],
    orders: (device) => {
      const firsts = device === undefined ? [] : contacts(device);
      if (firsts.length < 2) return [];
      // Each contact before the others, and each behind them: with two contacts that is the same.
      const behind =
        firsts.length < 3 ? [] : firsts.map((last) => firsts.filter((f) => f !== last).join('+'));
      return [...firsts, ...behind].flatMap((first) => lags.map((lagMs) => ({ first, lagMs })));
    },
    relayLags: relays.flatMap(({ device, firsts }) =>
      firsts.flatMap((first) => lags.slice(0, 2).map((lagMs) => ({ device, first, lagMs }))),
    ),
    arrangement,
    travelMs: Math.min(MOST_TRAVEL_MS, facts.travelMs) + SETTLE_MS,
    warningMs: arrangement.warningMs,
  };
}

/** Contacts of a part of which both terminals are in a net of the wishes. */
function channelsOf({ devices, nets }: Arrangement, device: string | undefined): string[] {
  const part = devices.find(({ id }) => id === device);
  if (!part) return [];
  const wanted = new Set<string>(nets.flatMap((net) => net.points.map(({ at }) => at)));
  const contacts = contactsOf(part)?.contacts ?? [];
  return contacts.flatMap(({ a, b }) =>
    wanted.has(`${part.id}:${a}`) && wanted.has(`${part.id}:${b}`) ? [a] : [],
  );
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
    const { arrangement: a } = this.pace;
    return this.phase(
      'start',
      'runs',
      [...startActs(a, direction, this.t), ...this.raised()],
      lastsMs,
    );
  }

  /** Where buttons raise the speed, it is nothing until one of them is held. */
  raised(): (Act | undefined)[] {
    const { arrangement: a, travelMs } = this.pace;
    if (!a.operations.up) return [];
    const at = this.t + PULSE_MS + 100;
    return [give(a, 'up', at), take(a, 'up', at + Math.max(1000, this.share * travelMs))];
  }

  /** What the emergency stop has left is reset before anything is started again. */
  reset(): this {
    if (!this.pace.cutNeedsReset) return this;
    return this.phase('reset', 'stopped', pressKey('reset', this.t), 1000);
  }

  done(id: string): Trial {
    const { acts, phases, share, always } = this;
    return { id, acts, phases, keypad: { share, ...(always ? { always } : {}) }, endMs: this.t };
  }
}
