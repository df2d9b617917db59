import { modelOf, type Model, type Profile, type Value } from '../catalogue/index.js';
import {
  applyFault,
  asBuilt,
  install,
  panelAt,
  type Installation,
  type KeypadAt,
  type Panel,
} from '../installation/index.js';
import type { Fault, Job, WireSpec } from '../job/index.js';
import { arrangeFor } from '../plan/index.js';
import { signalAt, stateAt, voltsAt, type Trace } from '../trace/index.js';
import { parts } from '../parts/index.js';
import { directionsOf, type Arrangement } from '../scheme/index.js';
import { showTrial } from './composite.js';
import { paceOf, type Pace } from './lay.js';
import { singleTrials } from './list.js';
import { Runner } from './runner.js';
import { phaseOf, type RelayLag, type Trial } from './trial.js';

/** Wires that only carry what the machine works with: in which order their contacts move tells the control nothing. */
const powerClasses: readonly WireSpec['class'][] = ['mains', 'neutral', 'motor', 'pe'];

/** A trial that has been run, with what was run and questions about it. */
export class Run {
  constructor(
    readonly trial: Trial,
    readonly installation: Installation,
    readonly trace: Trace,
  ) {}

  /** Moment at which a phase is looked at, ms. */
  lookMs(mark: string): number {
    return phaseOf(this.trial, mark).lookMs;
  }

  /** Value of a signal when a phase is looked at. */
  at(mark: string, signal: string): number {
    return signalAt(this.trace, signal, this.lookMs(mark) * 1000);
  }

  /** Output frequency when a phase is looked at, negative in reverse. */
  hz(mark: string): number {
    return this.at(mark, 'device.hz');
  }

  /** Whether the output drives the motor when a phase is looked at. */
  runs(mark: string): boolean {
    return this.hz(mark) !== 0;
  }

  /** State of the device at a moment, ms. */
  state(ms: number): string {
    return stateAt(this.trace, 'device.state', ms * 1000);
  }

  /** Voltage between two landings, by their numbers, at a moment, ms; null where nothing joins them. */
  volts(plus: number, minus: number, ms: number): { dc: number; ac: number } | null {
    return voltsAt(this.trace, plus, minus, ms * 1000);
  }

  /** Moment of a phase's end in the words of a proof: the trial and when it shows. */
  proof(mark: string): { readonly script: string; readonly atUs: number } {
    return { script: this.trial.id, atUs: Math.round(this.lookMs(mark) * 1000) };
  }
}

/** Behaviour of the device where its profile does not know it, for one way it may turn out. */
export type Policies = Readonly<Record<string, Value>>;

/**
 * All experiments of a job as built: the list of trials, and their runs, each made once. Everything that simulates asks
 * here.
 */
export class Trials {
  readonly panel: Panel;
  readonly model: Model;
  readonly arrangement: Arrangement;
  readonly pace: Pace;
  /** The job as built with the keypad at its highest frequency, where it gives the speed. */
  readonly installation: Installation;
  private readonly installations = new Map<string, Installation>();
  private readonly runners = new Map<Installation, Runner>();
  private readonly byId: ReadonlyMap<string, Trial>;
  private readonly runs = new Map<string, Run>();

  /** @throws RangeError when the job has no adopted plan, or the profile not its model */
  constructor(
    readonly job: Job,
    readonly profile: Profile,
  ) {
    this.panel = asBuilt(job, profile);
    this.model = modelOf(profile, job.profile.model) as Model;
    this.arrangement = arrangeFor(job, profile);
    this.installation = this.installed({ share: 1 });
    this.pace = paceOf(
      this.arrangement,
      this.installation.device,
      (id) => this.contactsOf(id),
      this.relays(),
    );
    const trials = directionsOf(this.arrangement).length
      ? [...singleTrials(this.pace), showTrial(this.pace)]
      : singleTrials(this.pace);
    this.byId = new Map(trials.map((t) => [t.id, t]));
  }

  /** First terminals of the wired contacts of a part as installed. */
  private contactsOf(id: string): string[] {
    const control = Object.values(this.panel.wires).filter((w) => !powerClasses.includes(w.class));
    const wired = new Set(control.flatMap((w) => [w.from, w.to]));
    return this.installation.devices.flatMap((d) =>
      d.kind === 'contacts' && d.id === id
        ? d.contacts.flatMap((c) => (wired.has(`${id}:${c.terminal}`) ? [c.terminal] : []))
        : [],
    );
  }

  /** Relays of which at least two contacts of the control are wired. */
  private relays(): { device: string; firsts: string[] }[] {
    const wires = Object.values(this.panel.wires).filter((w) => w.class.startsWith('control'));
    const wired = new Set(wires.flatMap((w) => [w.from, w.to]));
    return Object.entries(this.panel.devices).flatMap(([device, { kind }]) => {
      const coil = parts[kind]?.coil;
      const firsts = [...(coil?.makes ?? []), ...(coil?.breaks ?? [])].flatMap(([a, b]) =>
        wired.has(`${device}:${a}`) && wired.has(`${device}:${b}`) ? [a] : [],
      );
      return firsts.length > 1 ? [{ device, firsts }] : [];
    });
  }

  /** Every trial of the job, in the order of rising energy. */
  get list(): readonly Trial[] {
    return [...this.byId.values()];
  }

  has(id: string): boolean {
    return this.byId.has(id);
  }

  /** @throws RangeError when the job has no such trial */
  trial(id: string): Trial {
    const trial = this.byId.get(id);
    if (!trial) throw new RangeError(`the job has no trial "${id}"`);
    return trial;
  }

  /** A trial run on the job as built; the same run each time. @throws RangeError when the job has no such trial */
  run(id: string, policies: Policies = {}): Run {
    const key = `${id} ${JSON.stringify(policies)}`;
    const known = this.runs.get(key);
    if (known) return known;
    const trial = this.trial(id);
    const installation = this.installed(trial.keypad, policies, trial.lag);
    const made = new Run(trial, installation, this.runner(installation).run(trial));
    this.runs.set(key, made);
    return made;
  }

  /**
   * A trial run on a device that bears everything: what its terminals would have to bear, where the real one is destroyed.
   *
   * @throws RangeError when the job has no such trial
   */
  unbroken(id: string): Run {
    const trial = this.trial(id);
    const options = { panel: this.panelFor(trial), lean: true, bearsAll: true };
    const installation = install(this.job, this.profile, { from: 'planned' }, options);
    return new Run(trial, installation, new Runner(installation).run(trial));
  }

  /** A trial run on the job as built with more things wrong. @throws RangeError when the job has no such trial */
  faulty(id: string, faults: readonly Fault[]): Run {
    const trial = this.trial(id);
    const panel = faults.reduce(applyFault, this.panelFor(trial));
    const installation = install(
      this.job,
      this.profile,
      { from: 'planned' },
      { panel, lean: true },
    );
    return new Run(trial, installation, new Runner(installation).run(trial));
  }

  /** As `run`; undefined where the station cannot do it. */
  tried(id: string, policies?: Policies): Run | undefined {
    return this.has(id) ? this.run(id, policies) : undefined;
  }

  /** The job as built with its keypad at a share of the highest frequency; compiled once. */
  installed(keypad: KeypadAt, policies: Policies = {}, lag?: RelayLag): Installation {
    const { job, profile } = this;
    const panel = this.panelFor({ keypad, ...(lag ? { lag } : {}) });
    const same = panel === this.panel;
    const place = same ? '' : `${keypad.share}${keypad.always ? ' always' : ''}`;
    const key = `${place} ${JSON.stringify([policies, lag])}`;
    const known = this.installations.get(key);
    if (known) return known;
    const made = install(job, profile, { from: 'planned' }, { panel, policies, lean: true });
    this.installations.set(key, made);
    return made;
  }

  /** The panel as a trial has it: its keypad, and a contact of a relay that moves first. */
  panelFor({ keypad, lag }: Pick<Trial, 'keypad' | 'lag'>): Panel {
    const bare = panelAt(this.job, this.profile, this.panel, keypad);
    return lag ? lagging(bare, lag) : bare;
  }

  private runner(installation: Installation): Runner {
    const known = this.runners.get(installation);
    if (known) return known;
    const made = new Runner(installation);
    this.runners.set(installation, made);
    return made;
  }
}

/** A panel in which one contact of a relay moves before its others. */
function lagging(panel: Panel, { device, first, lagMs }: RelayLag): Panel {
  const part = panel.devices[device];
  const params = { ...part.params, first, lagMs };
  return { ...panel, devices: { ...panel.devices, [device]: { ...part, params } } };
}

const kept = new WeakMap<Job, WeakMap<Profile, Trials>>();

/**
 * The trials of a job, remembered as long as the very same job and profile are asked for.
 *
 * @throws RangeError when the job has no adopted plan, or the profile not its model
 * @example trialsOf(job, profile).run('power.return').runs('powerReturns') // false
 */
export function trialsOf(job: Job, profile: Profile): Trials {
  const byProfile = kept.get(job) ?? new WeakMap<Profile, Trials>();
  kept.set(job, byProfile);
  const known = byProfile.get(profile);
  if (known) return known;
  const made = new Trials(job, profile);
  byProfile.set(profile, made);
  return made;
}
