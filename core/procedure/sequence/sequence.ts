import { hasKeys } from '../../catalogue/index.js';
import type { Act, LiveSection } from '../../job/index.js';
import { install, type HookPlace, type Installation } from '../../installation/index.js';
import { Engine } from '../../rehearsal/index.js';
import {
  actsOf,
  directionsOf,
  give,
  lineIds,
  powerOnActs,
  powerUp,
  PULSE_MS,
  READY_MS,
  startActs,
  stopActs,
  take,
  type Arrangement,
  type Direction,
  type OperationId,
} from '../../scheme/index.js';
import type { Trial } from '../../trials/index.js';
import type { StepContext } from '../context.js';
import { Speed } from './speed.js';
import { STANDSTILL_HZ, Watched } from './watched.js';

/** Time without supply in which every display goes dark, ms. */
export const DARK_MS = 120_000;
/** Time a device takes to be ready when its supply returns, with a margin, ms. */
export const READY_AGAIN_MS = 5000;
/** How many travels are waited for at most: other ramps are longer. */
const MOST_TRAVELS = 20;
/** Nobody watches a shaft for longer, ms. */
const LONGEST_RUN_DOWN_MS = 2 * 3600 * 1000;
/** Heat up to which one more start may bring the image of the motor, % of what trips it. */
const HOT_PCT = 95;
const COOL_STEP_MS = 60_000;
/** Nobody waits longer for a motor than a day. */
const MOST_COOLING = 1440;
/** How long a key of the device is held, ms. */
const KEY_MS = 300;

/** What stands in for a control for a moment: a jumper, or volts or amps between two landings, with a wire lifted there. */
export interface Hooked {
  readonly a: string;
  readonly b: string;
  readonly as: 'short' | 'volts' | 'amps';
  readonly value?: number;
  readonly lifted?: string;
}

/** What had to be done so that an act ended with the machine at rest and everything let go. */
export interface Rest {
  readonly letGo: readonly OperationId[];
  /** Stop that was pressed, or the stop key of the device. */
  readonly stop?: OperationId | 'key';
  /** The button that lowers the speed was held until it is at nothing. */
  readonly lowered?: boolean;
  /** The device showed a fault, and it was reset with its key. */
  readonly fault?: string;
  /** The line contactor was closed again. */
  readonly power?: boolean;
  /** Nothing but the supply brought the machine to rest. */
  readonly powerOff?: boolean;
  /** What stood in for a control was taken away again. */
  readonly hooked?: Hooked;
}

/** An act at the panel: from rest to rest, with everything let go at its end. */
interface Group {
  readonly act: string;
  readonly section: LiveSection;
  readonly beginsMs: number;
  /** What stood when it began, so that it can be shown by itself. */
  readonly share: number;
  readonly held: readonly OperationId[];
  readonly branchOff: boolean;
  readonly acts: Act[];
}

/** The job as built with its keypad at nothing, and places to which something may be put. */
const hookedAt = (
  { job, profile, trials }: StepContext,
  hooks: readonly HookPlace[],
): Installation => {
  const panel = trials.panelFor({ keypad: { share: 0 } });
  return install(job, profile, { from: 'planned' }, { panel, hooks, lean: true });
};

/**
 * One person at the panel who does the acts of the live tests one after the other, on one simulated machine: each act
 * begins in the state that the act before left.
 */
export class Sequence extends Watched {
  readonly arrangement: Arrangement;
  readonly travelMs: number;
  readonly speed: Speed;
  private group: Group | undefined;
  private readonly given: OperationId[] = [];
  private held: readonly OperationId[] = [];
  private readonly done: Trial[] = [];
  /** A start was given for a moment, and nothing has been stopped since: it may be kept, although nothing turns. */
  private latched = false;

  /** @param hooks places to which a jumper or a source may be put */
  constructor(c: StepContext, hooks: readonly HookPlace[] = []) {
    super(c, new Engine(hooks.length > 0 ? hookedAt(c, hooks) : c.trials.installed({ share: 0 })));
    this.arrangement = c.arrangement;
    this.travelMs = c.trials.pace.travelMs + c.trials.pace.warningMs;
    this.speed = new Speed(c, this);
  }

  /** Each act as a trial of its own, so that it can be shown. */
  get trials(): readonly Trial[] {
    return this.done;
  }

  /** Begins an act; what is done from here belongs to it. */
  begin(act: string, section: LiveSection): this {
    const { nowMs: beginsMs, held, branchOff } = this;
    this.group = { act, section, beginsMs, share: this.speed.share, held, branchOff, acts: [] };
    this.cooledMs = 0;
    return this;
  }

  get current(): Readonly<Group> {
    if (!this.group) throw new Error('no act has begun');
    return this.group;
  }

  /** Moment of the act's own trial at which a moment of the whole sequence is, ms. */
  trialMs(ms: number): number {
    const { beginsMs } = this.current;
    return beginsMs === 0 ? ms : READY_MS + ms - beginsMs;
  }

  /** Does acts, at ms from now, and waits. */
  work(acts: readonly Act[], lastsMs: number): this {
    const begins = this.nowMs;
    const lasts = Math.round(lastsMs);
    const timed = acts.map((act) => ({ ...act, atMs: begins + act.atMs }));
    this.nowMs = begins + lasts;
    this.engine.runTo(
      Math.round(this.nowMs * 1000),
      timed.map((act) => ({ t: Math.round(act.atMs * 1000), act })),
    );
    const { beginsMs, acts: log } = this.current;
    log.push(...timed.map((act) => ({ ...act, atMs: act.atMs - beginsMs })));
    return this;
  }

  wait(ms: number): this {
    return this.work([], ms);
  }

  /** Whether a function of the station was given and not taken away since. */
  isGiven(operation: OperationId): boolean {
    return this.given.includes(operation);
  }

  /** Gives a function of the station and keeps it given. */
  give(operation: OperationId | undefined, lastsMs: number): this {
    if (!operation) return this;
    if (!this.given.includes(operation)) this.given.push(operation);
    const { starts, givenBy, stops } = this.arrangement;
    if (stops.includes(operation)) this.latched = false;
    if (Object.values(starts).includes(operation)) this.cool();
    if (givenBy === 'pulse' && Object.values(starts).includes(operation)) this.latched = true;
    return this.work(actsOf(give(this.arrangement, operation, 0)), lastsMs);
  }

  /** Lets go of a function of the station. */
  take(operation: OperationId | undefined, lastsMs: number): this {
    const at = operation ? this.given.indexOf(operation) : -1;
    if (at >= 0) this.given.splice(at, 1);
    return this.work(actsOf(take(this.arrangement, operation, 0)), lastsMs);
  }

  /** How long was waited in this act until the motor had cooled far enough for one more start, ms. */
  cooledMs = 0;

  /** Waits until one more start does not trip the image of the motor. */
  private cool(): void {
    const { startHeatPct } = this.c.device.facts;
    const most = HOT_PCT - startHeatPct;
    if (startHeatPct <= 0 || most <= 0) return;
    for (let n = 0; n < MOST_COOLING && this.at('device.heatPct') > most; n++) {
      this.wait(COOL_STEP_MS);
      this.cooledMs += COOL_STEP_MS;
    }
  }

  /** Starts in a direction and waits until it is at speed. */
  start(direction: Direction = 'forward', lastsMs = this.travelMs): this {
    this.cool();
    const a = this.arrangement;
    const start = a.starts[direction];
    if (!start) {
      this.latched = true;
      return this.key('start', lastsMs);
    }
    if (a.givenBy === 'pulse') this.latched = true;
    const acts = startActs(a, direction, 100);
    const stays = a.givenBy === 'level' ? [start] : [];
    const turned = direction === 'reverse' && a.direction ? [a.direction] : [];
    for (const id of [...stays, ...turned]) if (!this.given.includes(id)) this.given.push(id);
    this.work(acts, lastsMs).speed.raised();
    return this;
  }

  /** Stops as the station does it: what stays is let go, or the stop of a station is pressed for a moment. */
  stop(direction: Direction = 'forward', lastsMs = this.travelMs, station = 0): this {
    const a = this.arrangement;
    const start = a.starts[direction];
    this.latched = false;
    if (!start) return this.key('stop', lastsMs);
    if (a.givenBy === 'level') return this.take(start, lastsMs);
    return this.work(stopActs(a, direction, 0, station), lastsMs);
  }

  /** Waits on while the shaft runs down by itself, as a person does who watches it until it stands. */
  settle(): this {
    const begins = this.nowMs;
    while (this.runsDown && this.nowMs - begins < LONGEST_RUN_DOWN_MS) this.wait(this.travelMs);
    return this;
  }

  /** Nothing drives the shaft, and it still turns. */
  private get runsDown(): boolean {
    return this.shaft.turns !== 'rest' && Math.abs(this.hz) <= STANDSTILL_HZ;
  }

  /** Waits on until the device is in a state; not for ever. */
  until(state: string): this {
    for (let n = 0; n < MOST_TRAVELS && this.state !== state; n++) this.wait(this.travelMs);
    return this;
  }

  /** Presses a button for a moment. */
  pulse(operation: OperationId | undefined, lastsMs = this.travelMs): this {
    const a = this.arrangement;
    const acts = actsOf(give(a, operation, 0), take(a, operation, PULSE_MS));
    if (acts.length > 0) {
      this.cool();
      this.latched = true;
    }
    return this.work(acts, lastsMs);
  }

  /** Presses a key of the device for a moment. */
  key(key: 'start' | 'stop' | 'reset', lastsMs: number): this {
    const acts: Act[] = [
      { do: 'key', atMs: 0, key, down: true },
      { do: 'key', atMs: KEY_MS, key, down: false },
    ];
    return this.work(acts, lastsMs);
  }

  supply(on: boolean, lastsMs: number): this {
    return this.work([{ do: on ? 'supplyOn' : 'supplyOff', atMs: 0 }], lastsMs);
  }

  /** Keeps functions given from one act to the next: an emergency stop pressed in while nothing may turn. */
  hold(operations: readonly OperationId[]): void {
    for (const id of this.held) if (!operations.includes(id)) this.take(id, READY_AGAIN_MS);
    for (const id of operations) if (!this.held.includes(id)) this.give(id, 1500);
    this.held = operations;
  }

  /** The main breaker is open while the control has a supply of its own: inputs answer, and nothing can turn. */
  branchOff = false;

  /** Opens or closes the main breaker, and waits until the device is ready again. */
  branch(off: boolean): this {
    const device = this.arrangement.mainBreaker;
    const turn: Act = { do: 'turn', atMs: 0, device, position: off ? 'off' : 'on' };
    this.work([turn], READY_AGAIN_MS);
    this.branchOff = off;
    return this;
  }

  get holds(): readonly OperationId[] {
    return this.held;
  }

  private hooked: Hooked | undefined;

  /** Puts something in place of a control. @param runs it asks for a run, which may be kept when it is gone */
  hook(hooked: Hooked, lastsMs: number, runs = false): this {
    const { a, b, as, value, lifted } = hooked;
    this.hooked = hooked;
    if (runs) this.cool();
    if (runs && this.arrangement.givenBy === 'pulse') this.latched = true;
    return this.work(
      [
        ...(lifted === undefined ? [] : [{ do: 'breakWire', atMs: 0, wire: lifted } as const]),
        { do: 'hook', atMs: 10, a, b, as, ...(value === undefined ? {} : { value }) },
      ],
      lastsMs,
    );
  }

  /** Takes away what stands in for a control. */
  private unhook(): void {
    if (!this.hooked) return;
    const { a, b, lifted } = this.hooked;
    this.hooked = undefined;
    this.work(
      [
        { do: 'hook', atMs: 0, a, b, as: 'off' },
        ...(lifted === undefined ? [] : [{ do: 'mendWire', atMs: 10, wire: lifted } as const]),
      ],
      100,
    );
  }

  /** Tries something and takes everything back, the time too. */
  attempt<T>(what: (s: this) => T): T {
    const snapshot = this.engine.snapshot();
    const { nowMs, group, held, latched, hooked } = this;
    const given = [...this.given];
    this.group = { ...this.current, acts: [] };
    const seen = what(this);
    this.engine.restore(snapshot);
    [this.nowMs, this.group, this.held] = [nowMs, group, held];
    [this.latched, this.hooked] = [latched, hooked];
    this.given.splice(0, this.given.length, ...given);
    return seen;
  }

  /** Ends the act: everything let go, a fault reset, the machine at rest. */
  end(): Rest {
    const rest = this.bringToRest();
    const { act, beginsMs, share, held, branchOff, acts } = this.current;
    const before = beginsMs === 0 ? [] : this.preamble(share, held, branchOff);
    const shifted = acts.map((a) => ({ ...a, atMs: this.trialMs(beginsMs + a.atMs) }));
    if (this.current.acts.length > 0)
      this.done.push({
        id: `live.${act}`,
        acts: [...before, ...shifted],
        keypad: { share: beginsMs === 0 ? 0 : share },
        phases: [],
        endMs: this.trialMs(this.nowMs),
      });
    return rest;
  }

  private preamble(share: number, held: readonly OperationId[], branchOff: boolean): Act[] {
    const a = this.arrangement;
    const off: Act[] = branchOff
      ? [{ do: 'turn', atMs: READY_MS - 600, device: a.mainBreaker, position: 'off' }]
      : [];
    return [
      ...off,
      ...powerUp(a, share),
      ...actsOf(...held.map((id) => give(a, id, READY_MS - 500))),
    ];
  }

  private bringToRest(): Rest {
    const a = this.arrangement;
    const conditions = [a.estop, a.power?.off, ...a.interlocks, ...a.stops];
    const letGo = this.given.filter((id) => !this.held.includes(id));
    const first = letGo.filter((id) => !conditions.includes(id));
    const drives = (): boolean => this.movedSince(this.nowMs);
    const { hooked } = this;
    const rest: { -readonly [K in keyof Rest]: Rest[K] } = hooked ? { letGo, hooked } : { letGo };
    const moved = drives();
    this.unhook();
    for (const id of first) this.take(id, 100);
    if ((first.length > 0 || hooked) && moved) this.wait(this.travelMs);
    if (drives() || this.latched) {
      rest.stop = a.starts.forward ? a.stops[0] : 'key';
      if (rest.stop !== undefined) this.stop('forward');
    }
    this.settle();
    for (const id of letGo) if (conditions.includes(id)) this.takeBack(id);
    if (a.contactor && this.supplied && this.isOn(a.contactor) === false) {
      rest.power = true;
      this.powerOn();
    }
    // Nobody is quicker with the next act than the device's own wait between two starts.
    for (let n = 0; n < MOST_TRAVELS && this.state === 'inhibit'; n++)
      this.wait(1000 * Math.max(1, this.c.device.facts.waitS));
    if (this.speed.lower()) rest.lowered = true;
    if (this.state === 'faulted') {
      if (hasKeys(this.c.profile)) {
        rest.fault = this.fault ?? '';
        this.key('reset', 2000);
      }
    }
    if (drives() || this.state === 'faulted') {
      rest.powerOff = true;
      this.supply(false, DARK_MS).supply(true, READY_AGAIN_MS);
      this.powerOn();
    }
    return rest;
  }

  /** The main supply is on: before that a contactor has nothing to close for. */
  private get supplied(): boolean {
    return this.at(`${lineIds.supply}.on`) === 1;
  }

  private takeBack(id: OperationId): void {
    this.take(id, READY_AGAIN_MS);
    const { estop, power } = this.arrangement;
    if (id === estop || id === power?.off) this.powerOn();
  }

  /** Closes a line contactor again where there is one. */
  powerOn(): this {
    const acts = powerOnActs(this.arrangement, 0);
    return acts.length > 0 ? this.work(acts, READY_AGAIN_MS) : this;
  }

  /** Directions that can be started at all: from the station, or forward by the key of the device. */
  get directions(): readonly Direction[] {
    const own = directionsOf(this.arrangement);
    return own.length > 0 ? own : this.c.startsByKey ? ['forward'] : [];
  }
}
