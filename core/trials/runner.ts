import type { Installation } from '../installation/index.js';
import { Engine, timedActs, type EngineState, type TimedAct } from '../rehearsal/index.js';
import type { Trace } from '../trace/index.js';
import type { Trial } from './trial.js';

/** Where a run stood after some acts: other trials with the same beginning go on from there. */
interface Moment {
  kept: { readonly state: EngineState; readonly trace: Trace } | undefined;
  /** Moments after one act more, by its name. */
  readonly after: Map<string, Moment>;
}

const unseen = (): Moment => ({ kept: undefined, after: new Map() });

/** Acts in the form in which two beginnings are the same. */
const nameOf = ({ t, act }: TimedAct): string => `${t} ${JSON.stringify({ ...act, atMs: 0 })}`;

/**
 * Runs trials on one installation with one engine. A trial branches off from the last moment at which another did the same
 * acts at the same times.
 */
export class Runner {
  private engine: Engine | undefined;
  private readonly powerUp = unseen();

  constructor(private readonly installation: Installation) {}

  /** @returns the whole trace from switched-off on */
  run(trial: Trial): Trace {
    const acts = timedActs(trial.acts);
    const way = this.wayOf(acts);
    const ends = (n: number): boolean =>
      n === 0 || n === acts.length || acts[n].t !== acts[n - 1].t;
    let done = acts.length;
    while (done > 0 && !(way[done].kept && ends(done))) done--;
    const engine = (this.engine ??= new Engine(this.installation));
    const begin = way[done].kept;
    if (begin) engine.branch(begin.trace, begin.state);
    const states: [Moment, EngineState][] = [];
    // The moment before any act is kept by the first run: no later one begins anew.
    if (!begin) states.push([way[0], engine.snapshot()]);
    for (let i = done; i < acts.length;) {
      let next = i + 1;
      while (!ends(next)) next++;
      engine.runTo(acts[i].t, acts.slice(i, next));
      states.push([way[next], engine.snapshot()]);
      i = next;
    }
    engine.runTo(Math.round(trial.endMs * 1000), []);
    // The next run branches off into a trace of its own: this one stays as it is.
    const { trace } = engine;
    for (const [moment, state] of states) moment.kept = { state, trace };
    return trace;
  }

  /** The moments after none, one, two … of the acts. */
  private wayOf(acts: readonly TimedAct[]): Moment[] {
    const way = [this.powerUp];
    for (const act of acts) {
      const { after } = way[way.length - 1];
      const name = nameOf(act);
      const next = after.get(name) ?? unseen();
      after.set(name, next);
      way.push(next);
    }
    return way;
  }
}
