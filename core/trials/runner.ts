import type { Installation } from '../installation/index.js';
import { Engine, timedActs, type EngineState, type TimedAct } from '../rehearsal/index.js';
import { copyTrace, type Trace } from '../trace/index.js';
import type { Trial } from './trial.js';

/** A moment that a run went through, after some of its acts: other trials with the same beginning go on from there. */
interface Kept {
  readonly state: EngineState;
  readonly trace: Trace;
}

/** Acts in the form in which two beginnings are the same. */
const nameOf = ({ t, act }: TimedAct): string => `${t} ${JSON.stringify({ ...act, atMs: 0 })}`;

/**
 * Runs trials on one installation with one engine. A trial branches off from the last moment at which another did the same
 * acts at the same times.
 */
export class Runner {
  private engine: Engine | undefined;
  private readonly moments = new Map<string, Kept>();

  constructor(private readonly installation: Installation) {}

  /** @returns the whole trace from switched-off on */
  run(trial: Trial): Trace {
    const acts = timedActs(trial.acts);
    const names = acts.map(nameOf);
    let done = acts.length;
    while (done > 0 && !this.moments.has(names.slice(0, done).join('\n'))) done--;
    const engine = (this.engine ??= new Engine(this.installation));
    const begin = this.moments.get(names.slice(0, done).join('\n'));
    if (begin) engine.branch(begin.trace, begin.state);
    // The moment before any act is kept by the first run: no later one begins anew.
    const states: [string, EngineState][] = begin ? [] : [['', engine.snapshot()]];
    for (let i = done; i < acts.length;) {
      const { t } = acts[i];
      let next = i;
      while (next < acts.length && acts[next].t === t) next++;
      engine.runTo(t, acts.slice(i, next));
      states.push([names.slice(0, next).join('\n'), engine.snapshot()]);
      i = next;
    }
    engine.runTo(Math.round(trial.endMs * 1000), []);
    const whole = copyTrace(engine.trace, engine.snapshot().lengths);
    for (const [name, moment] of states) this.moments.set(name, { state: moment, trace: whole });
    return whole;
  }
}
