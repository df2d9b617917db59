import type { Profile, Value } from '../../catalogue/index.js';
import { hookPlaces, install, panelAt, type Panel } from '../../installation/index.js';
import type { Job, ProcedureStep, Sees } from '../../job/index.js';
import { Engine, timedActs, type TimedAct } from '../../rehearsal/index.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../../trace/index.js';
import type { Trial } from '../../trials/index.js';

const STANDSTILL_HZ = 0.05;

/**
 * What an observer sees at a moment of a trace.
 *
 * @param numbers numbers of the landings by their names
 * @returns undefined where what is looked at is not there
 */
export function seenAt(
  trace: Trace,
  sees: Sees,
  atUs: number,
  numbers: ReadonlyMap<string, number>,
): number | string | undefined {
  const has = (id: string): boolean => trace.signals.some((s) => s.id === id);
  switch (sees.kind) {
    case 'level':
      return has(sees.signal)
        ? signalAt(trace, sees.signal, atUs) === 1
          ? 'on'
          : 'off'
        : undefined;
    case 'volts': {
      const [plus, minus] = [numbers.get(sees.plus), numbers.get(sees.minus)];
      if (plus === undefined || minus === undefined) return undefined;
      const across = voltsAt(trace, plus, minus, atUs);
      const volts = (sees.ac ? across?.ac : across?.dc) ?? 0;
      if (sees.throughOhm !== undefined) return (1000 * volts) / sees.throughOhm;
      return Math.abs(volts);
    }
    case 'hz':
      return Math.abs(signalAt(trace, 'device.hz', atUs));
    case 'starts':
      return Math.abs(signalAt(trace, 'device.hz', atUs)) > 0 ? 'startsByItself' : 'staysStopped';
    case 'state':
      return stateAt(trace, 'device.state', atUs);
    case 'turns': {
      const hz = signalAt(trace, 'shaft.hz', atUs);
      return Math.abs(hz) <= STANDSTILL_HZ ? 'stopped' : hz > 0 ? 'forward' : 'reverse';
    }
  }
}

/** A rehearsal that is taken as far as it is looked at. */
interface Running {
  readonly engine: Engine;
  readonly numbers: ReadonlyMap<string, number>;
  readonly acts: readonly TimedAct[];
  doneUs: number;
}

/** Acts of the tests, rehearsed on a panel that is not as planned. */
export class PanelRuns {
  private readonly running = new Map<string, Running>();

  constructor(
    private readonly job: Job,
    private readonly profile: Profile,
    private readonly panel: Panel,
  ) {}

  /** What this panel shows at a step of a trial; undefined where it cannot be told. */
  seen({ sees, from }: ProcedureStep, trial: Trial): Value | undefined {
    if (!sees || from.kind !== 'simulation' || from.script !== trial.id) return undefined;
    const { engine, numbers } = this.upTo(trial, from.atUs);
    return seenAt(engine.trace, sees, from.atUs, numbers);
  }

  private upTo(trial: Trial, atUs: number): Running {
    const run = this.running.get(trial.id) ?? this.begun(trial);
    if (atUs > run.doneUs) {
      run.engine.runTo(
        atUs,
        run.acts.filter(({ t }) => t > run.doneUs && t <= atUs),
      );
      run.doneUs = atUs;
    }
    return run;
  }

  private begun(trial: Trial): Running {
    const { job, profile } = this;
    const panel = panelAt(job, profile, this.panel, trial.keypad);
    const hooks = hookPlaces(trial.acts);
    const installation = install(job, profile, { from: 'planned' }, { panel, hooks, lean: true });
    const numbers = new Map(installation.landings.map((landing, i) => [landing, i]));
    const made = {
      engine: new Engine(installation),
      numbers,
      acts: timedActs(trial.acts),
      doneUs: -1,
    };
    this.running.set(trial.id, made);
    return made;
  }
}
