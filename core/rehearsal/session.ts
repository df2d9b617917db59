import type { Installation } from '../installation/index.js';
import type { Act } from '../job/index.js';
import { Engine } from './engine.js';
import type { EngineState } from './engine-state.js';
import { traceWindow, type Trace, type TraceWindow } from '../trace/index.js';

/** How far a live session looks ahead of the last act, µs. */
const HORIZON_US = 10_000_000;

/** An act of a person at its time, µs. */
export interface LoggedAct {
  readonly t: number;
  readonly act: Act;
}

/**
 * A live rehearsal. It is its log of acts: each act takes the run back to the moment of the act, applies it and runs on to
 * the horizon, so that what the page shows has already been worked out.
 */
export class Session {
  private engine: Engine;
  private readonly acts: LoggedAct[] = [];
  private readonly snapshots: EngineState[];

  /** Engine for questions about a moment, so that the run itself is not disturbed. */
  private asked: Engine | undefined;

  constructor(
    readonly installation: Installation,
    log: readonly LoggedAct[] = [],
  ) {
    this.engine = new Engine(installation);
    this.snapshots = [this.engine.snapshot()];
    for (const { t, act } of log) this.take(t, [act]);
    this.engine.runTo((log.at(-1)?.t ?? 0) + HORIZON_US, []);
  }

  /** The acts so far: the session as a script. */
  get log(): readonly LoggedAct[] {
    return this.acts;
  }

  get trace(): Trace {
    return this.engine.trace;
  }

  /**
   * Applies acts at t µs. What was reckoned beyond t is thrown away; acts before t stay.
   *
   * @returns what changed of the trace
   */
  act(t: number, acts: readonly Act[]): TraceWindow {
    const from = this.take(t, acts);
    this.engine.runTo(t + HORIZON_US, []);
    return traceWindow(this.engine.trace, from.t, from.lengths.solutions);
  }

  private take(t: number, acts: readonly Act[]): EngineState {
    const from = this.backTo(t);
    const timed = acts.map((act) => ({ t, act }));
    this.acts.push(...timed);
    this.engine.runTo(t, timed);
    this.snapshots.push(this.engine.snapshot());
    return from;
  }

  /** Runs on so that everything up to t + horizon is known; returns what that adds to the trace. */
  reach(t: number): TraceWindow {
    const { endUs, solutions } = this.engine.trace;
    const known = solutions.length;
    if (t + HORIZON_US / 2 > endUs) this.engine.runTo(t + HORIZON_US, []);
    return traceWindow(this.engine.trace, endUs + 1, known);
  }

  /** An engine that stands at t, for questions about that moment; reckoned from the nearest moment kept before it. */
  engineAt(t: number): Engine {
    const from = this.snapshots.findLast((s) => s.t <= t) ?? this.snapshots[0];
    this.asked ??= new Engine(this.installation);
    this.asked.adopt(from);
    this.asked.runTo(
      t,
      this.acts.filter((act) => act.t > from.t && act.t <= t),
    );
    return this.asked;
  }

  /** @returns the kept moment that it went back to */
  private backTo(t: number): EngineState {
    while (this.snapshots.length > 1 && this.snapshots[this.snapshots.length - 1].t > t)
      this.snapshots.pop();
    const snapshot = this.snapshots[this.snapshots.length - 1];
    const later = this.acts.findIndex((act) => act.t > t);
    if (later >= 0) this.acts.length = later;
    this.engine.restore(snapshot);
    this.engine.runTo(
      t,
      this.acts.filter((act) => act.t > snapshot.t),
    );
    return snapshot;
  }
}
