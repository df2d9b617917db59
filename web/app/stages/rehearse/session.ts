import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { v4 as uuid } from 'uuid';
import type { Act, Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import { joinWindow, pieceAt, type Trace } from '@tactron/core/trace';
import { valueAt } from './lane-reader';
import { Compute } from '../../compute/compute';
import type { Frame, Opened, SaidCondition, SettingsChoice } from '../../compute/rehearse.worker';
import type { OhmReading } from '@tactron/core/rehearsal';

export type { SettingsChoice };

type Log = readonly { t: number; act: Act }[];

/** Signal of the voltage of the DC link, drawn from what the others say. */
export const LINK_SIGNAL = 'device.linkV';

/** Time between two pictures while it plays, µs. */
const PICTURE_US = 50_000;

/** Time between two steps of the clock while nothing turns, ms. */
const REST_MS = 90;

/** How much of what is known ahead is left when more is asked for, µs. */
const REFILL_US = 4_000_000;

const NO_DEVICES: Opened['devices'] = [];

/**
 * The live rehearsal of one page: it plays what the worker has worked out ahead, and sends acts. Answers of a rehearsal
 * opened before are dropped. Nothing of it is in the store: it changes with every picture.
 */
@Injectable()
export class RehearsalSession {
  private readonly compute = inject(Compute);
  private link = this.start();
  private seq = 0;
  /** Which rehearsal is open: answers of one before it belong to nothing. */
  private opening = 0;
  private refilling = false;
  private frame = 0;
  private lastTick = 0;
  /** Real time gone since the clock was last moved, ms. */
  private rested = 0;
  private job: Job | null = null;
  private profile: Profile | null = null;
  private from: SettingsChoice = 'planned';
  /** Pairs of landings something was put to, also before it is in the log. */
  private hooks: readonly (readonly [string, string])[] = [];
  private firstOpened = (): void => undefined;
  /** Done when the rehearsal asked for last is open; an act before that waits for it, also before the first is asked for. */
  private ready: Promise<void> = new Promise((done) => (this.firstOpened = done));

  readonly opened = signal<Opened | null>(null);
  /** The same from picture to picture while nothing else is opened: what is sorted of them is sorted once. */
  readonly devices = computed(() => this.opened()?.devices ?? NO_DEVICES);
  readonly nowUs = signal(0);
  /**
   * Moment the picture shows: twenty a second while it plays, never behind the present, so that a press is seen at once
   * and the processor is left to the reckoning.
   */
  readonly shownUs = computed(() =>
    this.playing() && this.rate() >= 1
      ? Math.ceil(this.nowUs() / PICTURE_US) * PICTURE_US
      : this.nowUs(),
  );
  readonly playing = signal(true);
  readonly rate = signal(1);
  readonly problem = signal<string | null>(null);
  readonly log = signal<Log>([]);
  readonly latencyMs = signal(0);
  /** What the worker has worked out, with the voltage of the DC link where stops lift it. */
  readonly trace = computed(() => {
    const opened = this.opened();
    return opened && withLink(opened);
  });
  /** Which stretch of the rehearsal is shown: changes whenever a voltage or the state of the device does. */
  readonly stretch = computed(() => {
    const trace = this.trace();
    if (!trace) return '';
    const now = this.nowUs();
    const state = trace.signals.findIndex((s) => s.id === 'device.state');
    const since = state < 0 ? -1 : pieceAt(trace.segments[state].t, now);
    return `${pieceAt(trace.instants.t, now)} ${since}`;
  });

  constructor() {
    const tick = (at: number): void => {
      this.advance(at);
      this.frame = requestAnimationFrame(tick);
    };
    this.frame = requestAnimationFrame(tick);
    inject(DestroyRef).onDestroy(() => {
      cancelAnimationFrame(this.frame);
      this.link.end();
    });
  }

  /** Opens a rehearsal; with the same log when the installation changed under it, from the beginning otherwise. */
  open(
    job: Job,
    profile: Profile,
    from: SettingsChoice,
    log: Log,
    keepTime: boolean,
  ): Promise<void> {
    this.ready = this.reopen(job, profile, from, log, keepTime);
    void this.ready.then(this.firstOpened);
    return this.ready;
  }

  private async reopen(
    job: Job,
    profile: Profile,
    from: SettingsChoice,
    log: Log,
    keepTime: boolean,
  ): Promise<void> {
    Object.assign(this, { job, profile, from });
    this.seq++;
    const mine = ++this.opening;
    try {
      const opened = await this.link.worker.open(job, profile, from, [...log], this.hooks);
      if (mine !== this.opening) return;
      this.opened.set(opened);
      this.log.set(opened.log);
      if (!keepTime) this.nowUs.set(0);
      this.problem.set(null);
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    }
  }

  /**
   * Acts now. What was known beyond this moment is worked out anew. The act is in the log at once, so that a rehearsal
   * opened anew while the worker still answers plays it too.
   */
  async act(...acts: DistributiveOmit<Act, 'atMs'>[]): Promise<void> {
    await this.settled();
    if (!this.opened()) return;
    if (this.playing()) this.advance(performance.now(), true);
    const t = Math.round(this.nowUs());
    const mine = ++this.seq;
    const { opening } = this;
    const begin = performance.now();
    const timed = acts.map((act) => ({ ...act, atMs: t / 1000 }) as Act);
    this.log.update((log) => [...log.filter((a) => a.t <= t), ...timed.map((act) => ({ t, act }))]);
    const frame = await this.link.worker.act(mine, t, timed);
    // Each answer builds on the one before it: none is left out, also when another act is already on its way.
    if (opening !== this.opening) return;
    this.join(frame);
    if (frame.seq !== this.seq) return;
    this.log.set(frame.log);
    this.latencyMs.set(performance.now() - begin);
  }

  /** Waits until the rehearsal asked for last is open, also when another is asked for meanwhile. */
  private async settled(): Promise<void> {
    let waited: Promise<void> | undefined;
    while (waited !== this.ready) {
      waited = this.ready;
      await waited;
    }
  }

  /** Forgets what was done, before another rehearsal is opened. */
  clear(): void {
    this.log.set([]);
    this.opened.set(null);
  }

  restart(log: Log = []): void {
    if (this.job && this.profile) void this.open(this.job, this.profile, this.from, log, false);
    this.playing.set(true);
  }

  /**
   * Puts a bridge, a battery or a calibrator to two landings, or takes it away. The network grows by the pair, so the
   * rehearsal is laid anew under the same acts first.
   *
   * @param value volts or amperes, driven out of `a`
   */
  async hook(
    a: string,
    b: string,
    as: 'short' | 'volts' | 'amps' | 'off',
    value?: number,
  ): Promise<void> {
    const known = this.hooks.some(([x, y]) => (x === a && y === b) || (x === b && y === a));
    if (!known && this.job && this.profile) {
      this.hooks = [...this.hooks, [a, b]];
      await this.open(this.job, this.profile, this.from, this.log(), true);
    }
    await this.act({ do: 'hook', a, b, as, ...(value === undefined ? {} : { value }) });
  }

  /** Why the motor runs or does not now. */
  async why(): Promise<{ running: boolean; conditions: readonly SaidCondition[] }> {
    await this.settled();
    return this.link.worker.why(Math.round(this.nowUs()));
  }

  /** Resistance between two landings now. */
  async ohms(plus: number, minus: number): Promise<OhmReading> {
    await this.settled();
    return this.link.worker.ohms(Math.round(this.nowUs()), plus, minus);
  }

  /** Goes to a moment already past and stays there; the next act goes on from it. */
  seek(us: number): void {
    this.playing.set(false);
    this.nowUs.set(Math.max(0, Math.min(us, this.trace()?.endUs ?? 0)));
  }

  /** Goes to the next moment at which any signal changes by itself. */
  step(): void {
    const trace = this.opened()?.trace;
    if (!trace) return;
    this.playing.set(false);
    const now = this.nowUs();
    const next = Math.min(...trace.segments.map((s) => s.t.find((t) => t > now) ?? Infinity));
    if (Number.isFinite(next)) this.nowUs.set(next);
  }

  /** The acts so far as a script to keep. */
  script(name: string, ord: number): { id: string; script: Job['scripts'][string] } {
    const acts = this.log().map(({ t, act }) => ({ ...act, atMs: t / 1000 }));
    return {
      id: `s${uuid().slice(0, 8)}`,
      script: { ord, name, acts, endMs: Math.round(this.nowUs() / 1000) },
    };
  }

  /** Joins what an answer changed to what is shown. */
  private join({ window, linkVolts }: Frame): void {
    const opened = this.opened();
    if (opened) this.opened.set({ ...opened, linkVolts, trace: joinWindow(opened.trace, window) });
  }

  private start(): ReturnType<Compute['rehearsal']> {
    return this.compute.rehearsal(() => {
      this.problem.set('The rehearsal stopped and was started again from its acts.');
      this.link = this.start();
      if (this.job && this.profile)
        void this.open(this.job, this.profile, this.from, this.log(), true);
    });
  }

  private advance(at: number, force = false): void {
    const passed = this.lastTick ? Math.min(at - this.lastTick, 100) : 0;
    this.lastTick = at;
    const trace = this.trace();
    if (!trace || !this.playing()) return;
    // While nothing turns the clock alone moves: a few pictures a second are enough.
    this.rested += passed;
    if (
      !force &&
      this.rested < REST_MS &&
      Math.abs(valueAt(trace, 'shaft.hz', this.nowUs())) < 1e-6
    )
      return;
    const elapsed = this.rested;
    this.rested = 0;
    this.nowUs.set(Math.min(this.nowUs() + elapsed * 1000 * this.rate(), trace.endUs));
    if (!this.refilling && trace.endUs - this.nowUs() < REFILL_US) void this.refill();
  }

  private async refill(): Promise<void> {
    this.refilling = true;
    const { opening } = this;
    try {
      const frame = await this.link.worker.reach(this.seq, Math.round(this.nowUs()));
      if (opening === this.opening) this.join(frame);
    } catch {
      this.problem.set('The rehearsal does not answer. Start it again.');
      this.playing.set(false);
    } finally {
      this.refilling = false;
    }
  }
}

type DistributiveOmit<T, K extends PropertyKey> = T extends unknown ? Omit<T, K> : never;
export type SessionAct = DistributiveOmit<Act, 'atMs'>;

/** The trace with the DC link as a signal more. */
function withLink({ trace, linkVolts, device }: Opened): Trace {
  if (!linkVolts) return trace;
  const spec = {
    id: LINK_SIGNAL,
    of: { kind: 'device', id: device },
    unit: 'V',
    kind: 'value',
  } as const;
  return {
    ...trace,
    signals: [...trace.signals, spec],
    segments: [...trace.segments, linkVolts],
  };
}
