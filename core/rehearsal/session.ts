import type { Installation } from '../installation/index.js';
import type { Act } from '../job/index.js';
import { Engine, type EngineState, type TimedAct } from './engine.js';
import type { Trace } from './trace.js';

/** How far a live session looks ahead of the last act, µs. */
const HORIZON_US = 10_000_000;

/**
 * A live rehearsal. It is its log of acts: each act takes the run back to the moment of the act, applies it and runs on to
 * the horizon, so that what the page shows has already been worked out.
 */
export class Session {
  private engine: Engine;
  private readonly acts: TimedAct[] = [];
  private readonly snapshots: EngineState[];

  constructor(
    readonly installation: Installation,
    log: readonly TimedAct[] = [],
  ) {
    this.engine = new Engine(installation);
    this.snapshots = [this.engine.snapshot()];
    for (const { t, act } of log) this.act(t, [act]);
    if (log.length === 0) this.engine.runTo(HORIZON_US, []);
  }

  /** The acts so far: the session as a script. */
  get log(): readonly TimedAct[] {
    return this.acts;
  }

  get trace(): Trace {
    return this.engine.trace;
  }

  /** Applies acts at t µs. What was reckoned beyond t is thrown away; acts before t stay. */
  act(t: number, acts: readonly Act[]): Trace {
    this.backTo(t);
    const timed = acts.map((act) => ({ t, act }));
    this.acts.push(...timed);
    this.engine.runTo(t, timed);
    this.snapshots.push(this.engine.snapshot());
    this.engine.runTo(t + HORIZON_US, []);
    return this.engine.trace;
  }

  /** Runs on so that everything up to t + horizon is known; returns the trace. */
  reach(t: number): Trace {
    if (t + HORIZON_US / 2 > this.engine.trace.endUs) this.engine.runTo(t + HORIZON_US, []);
    return this.engine.trace;
  }

  /** An engine of its own at t, for questions about that moment. */
  engineAt(t: number): Engine {
    const engine = new Engine(this.installation);
    engine.runTo(
      t,
      this.acts.filter((act) => act.t <= t),
    );
    return engine;
  }

  private backTo(t: number): void {
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
  }
}
