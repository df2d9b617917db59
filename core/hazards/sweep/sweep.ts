import type { Profile } from '../../catalogue/index.js';
import {
  insideFaults,
  looseJoints,
  potentialsOf,
  singleFaults,
  switchFault,
  wireNets,
  type InsidePart,
  type SweptFault,
  type Switchable,
  type SwitchedFault,
} from '../../faults/index.js';
import { applyFault, install, looseJoint, SWITCHES, type Panel } from '../../installation/index.js';
import { landingParts, type Job } from '../../job/index.js';
import { MAIN_POLES, onlyShows, parts, type InstalledSwitches } from '../../parts/index.js';
import { Engine, type SolvedMoment, type TimedAct } from '../../rehearsal/index.js';
import { sweepTrial, trialsOf, type FaultMoments, type Trial } from '../../trials/index.js';
import { grade, moments, seenBy, type FaultClass, type Moment, type Seen } from './classes.js';
import { HealthyRun, outputAt, sameState, WATCHED, type KeptMoment } from './healthy.js';

export interface SweepRow {
  readonly fault: SweptFault;
  readonly worst: FaultClass;
  /** The first moment at which the worst shows. */
  readonly moment: Moment;
  readonly at: Readonly<Record<Moment, FaultClass>>;
  /** The act after which the worst shows, as a mark; undefined where no run shows it. */
  readonly shows?: string;
}

type AtMoments = Readonly<Record<Moment, Seen>>;

/** A protective conductor, judged by rule: its break shows in no trace. */
const PE_ROW: Readonly<Record<Moment, FaultClass>> = {
  beforePower: 'hidden',
  stopped: 'hidden',
  running: 'hidden',
  stopping: 'hidden',
};

/** What the run with a fault that comes at standstill went through. */
interface Recording {
  /** Where it was not the healthy run, µs; the last may have no end. */
  readonly stretches: { readonly from: number; end: number | undefined }[];
  /** Electrically different networks met there. */
  readonly networks: Map<string, KeptMoment>;
}

/** Some faults together, with what is known of their runs. */
interface Case {
  readonly switches: readonly number[];
  /** For each network of the healthy run whether a device senses it otherwise; undefined until it was asked. */
  readonly differs: (boolean | undefined)[];
  /** States and further outputs of runs made by now, by the phase at whose end they stood. */
  readonly known: { readonly states: readonly unknown[]; readonly run: number[] }[][];
  /** Runs in which the fault was there before it first showed, by that moment: when it came does not matter to them. */
  readonly later: Map<number, readonly number[]>;
}

/**
 * Sweeps a job fault by fault, so that a caller can show progress and stop. The healthy job runs once. A fault is a switch
 * in the one compiled network: only where some device would sense anything else with it thrown, the job is run again from
 * the last moment at which both were the same, and only until both are the same again.
 */
export class Sweep {
  readonly faults: readonly SweptFault[];
  private readonly job: Job;
  private readonly panel: Panel;
  private readonly switchable: Switchable;
  private readonly trial: Trial;
  private readonly moments: FaultMoments;
  private readonly healthy: HealthyRun;
  private readonly engine: Engine;
  private readonly switches: InstalledSwitches['switches'];
  private readonly switchesAt: number;
  /** Net of wires that each landing lies on. */
  private readonly nets: ReadonlyMap<string, string>;
  /** What faults that are alike came to. */
  private readonly known = new Map<string, AtMoments>();
  private readonly recordings = new Map<string, Recording>();

  /**
   * @param options `fromZero` runs every fault from power-up to the end, for tests
   * @throws RangeError when the job has no adopted plan
   */
  constructor(
    job: Job,
    private readonly profile: Profile,
    private readonly options: { readonly fromZero?: boolean } = {},
  ) {
    this.job = job;
    const trials = trialsOf(job, profile);
    const installation = trials.installed({ share: 0.5 });
    ({ trial: this.trial, moments: this.moments } = sweepTrial(trials.pace));
    this.panel = trials.panelFor({ keypad: { share: 0.5 } });
    this.nets = wireNets(trials.panel);
    const inside = insideFaults(profile, trials.panel);
    this.faults = [
      ...singleFaults(trials.panel, potentialsOf(installation)),
      ...looseJoints(trials.panel),
      ...inside,
    ];
    this.switchable = switchFault(
      installation,
      this.faults.flatMap((f) => switched(f, this.panel)),
    );
    const { devices } = this.switchable.installation;
    this.switchesAt = devices.findIndex((d) => d.id === SWITCHES);
    this.switches = (devices[this.switchesAt] as InstalledSwitches).switches;
    this.healthy = new HealthyRun(this.switchable, this.trial);
    this.engine = new Engine(this.switchable.installation, { only: [...WATCHED] });
  }

  /** Worst class of one fault over the four moments. */
  judge(fault: SweptFault): SweepRow {
    if (fault.wire && this.job.adopted?.wires[fault.wire].class === 'pe')
      return { fault, worst: 'hidden', moment: 'beforePower', at: PE_ROW };
    const alike = this.options.fromZero ? undefined : this.alike(fault);
    const known = alike === undefined ? undefined : this.known.get(alike);
    if (known) return rowOf(fault, known);
    const { fault: what } = fault;
    if (what.kind === 'part' && switched(fault, this.panel).length === 0)
      return rowOf(fault, this.insideAt(what));
    const these = this.caseOf([fault]);
    // Recorded first, while no other run of this fault can stand for the rest of this one.
    const stopped = this.seenAt(these, 'stopped', this.recordingOf(fault));
    const at = Object.fromEntries(
      moments.map((m) => [m, m === 'stopped' ? stopped : this.seenAt(these, m)]),
    ) as Record<Moment, Seen>;
    if (alike !== undefined) this.known.set(alike, at);
    return rowOf(fault, at);
  }

  /**
   * A fault that shows nowhere is hidden when a further single fault is then worse than in the healthy job: what should
   * have been noticed waits for the second. Faults that cannot act on each other are not paired, and a short that changes
   * nothing only doubles a wire.
   *
   * @param rows every row judged so far
   */
  lookBehind(row: SweepRow, rows: readonly SweepRow[]): SweepRow {
    const { fault } = row;
    const { kind } = fault.fault;
    if (kind === 'part' && switched(fault, this.panel).length > 0)
      return this.behindContactor(row, rows);
    if (row.worst !== 'noEffect' || kind === 'short' || kind === 'part' || this.onlyShows(fault))
      return row;
    const tried = new Set<string>();
    for (const other of rows) {
      if (other.fault.key === fault.key || other.fault.subject === fault.subject) continue;
      if (
        other.worst === 'hidden' ||
        other.fault.fault.kind === 'part' ||
        !this.areNeighbours(fault, other.fault)
      )
        continue;
      const short = this.alike(other.fault);
      if (short !== undefined && tried.has(short)) continue;
      if (short !== undefined) tried.add(short);
      const pair = this.caseOf([other.fault, fault]);
      if (!this.addsToRun(fault, other.fault, pair)) continue;
      const both = this.seenAt(pair, 'stopped').is;
      if (grade(both) > grade(other.at.stopped) && grade(both) > grade('losesFunction'))
        return { ...row, worst: 'hidden', moment: 'stopped', at: { ...row.at, stopped: 'hidden' } };
    }
    return row;
  }

  /** What fails inside the device is no edge: from the moment it fails on, the job runs with the logic that has it. */
  private insideAt(part: InsidePart, beside: readonly SweptFault[] = []): AtMoments {
    const { switches } = this.caseOf(beside);
    const { healthy, job, profile } = this;
    const panel = applyFault(this.panel, part);
    const failed = install(job, profile, { from: 'planned' }, { panel, lean: true }).device.spec;
    const { installation } = this.switchable;
    const devices = installation.devices.map((d) =>
      d.kind === 'device' ? { ...d, spec: failed } : d,
    );
    const engine = new Engine({ ...installation, devices }, { only: [...WATCHED] });
    const at = moments.map((moment): [Moment, Seen] => {
      const faultUs = this.moments[moment] * 1000;
      const { acts: own, state } = healthy.leftAt(faultUs);
      const acts = inOrder([...own, ...this.throwAt({ switches }, Math.max(faultUs, state.t))]);
      engine.adopt(state);
      let done = 0;
      const outputs = healthy.looks.map((look, i) => {
        if (look < state.t) return healthy.outputs[i];
        const next = acts.findIndex((a) => a.t > look);
        const until = next < 0 ? acts.length : next;
        engine.runTo(look, acts.slice(done, until));
        done = until;
        return outputAt(engine.trace, look);
      });
      return [moment, seenBy(this.trial.phases, healthy.outputs, outputs, this.moments[moment])];
    });
    return Object.fromEntries(at) as AtMoments;
  }

  /** A contactor that no longer opens shows nothing by itself, and takes away what stops a device that feeds unasked. */
  private behindContactor(row: SweepRow, rows: readonly SweepRow[]): SweepRow {
    if (row.worst !== 'noEffect') return row;
    const worse = rows.some(({ fault, at }) => {
      if (fault.fault.kind !== 'part' || switched(fault, this.panel).length > 0) return false;
      const both = this.insideAt(fault.fault, [row.fault]);
      return moments.some((m) => grade(both[m].is) > grade(at[m]));
    });
    if (!worse) return row;
    return { ...row, worst: 'hidden', moment: 'stopped', at: { ...row.at, stopped: 'hidden' } };
  }

  /** Name under which shorts to one potential anywhere on one net of wires are one fault: only milliohms lie between them. */
  private alike({ fault, kind }: SweptFault): string | undefined {
    return fault.kind === 'short' ? `${kind}:${this.nets.get(fault.a)}` : undefined;
  }

  private caseOf(faults: readonly SweptFault[]): Case {
    const switches = faults.flatMap((f) =>
      switched(f, this.panel).flatMap((s) => this.switchable.switchOf(s) ?? []),
    );
    return { switches, differs: [], known: this.healthy.looks.map(() => []), later: new Map() };
  }

  /** Whether any device would sense a network of the healthy run otherwise. */
  private differs(c: Case, network: number): boolean {
    return (c.differs[network] ??= !this.senses(this.healthy.networks[network], c.switches));
  }

  private senses(moment: KeptMoment, switches: readonly number[]): boolean {
    return this.engine.sensesLike(
      moment,
      switches.map((i) => this.switches[i]),
    );
  }

  private seenAt(c: Case, moment: Moment, recording?: Recording): Seen {
    const faultMs = this.moments[moment];
    const outputs = this.options.fromZero
      ? this.runThrough(c, faultMs * 1000)
      : this.runFrom(c, faultMs * 1000, recording);
    return outputs
      ? seenBy(this.trial.phases, this.healthy.outputs, outputs, faultMs)
      : { is: 'noEffect' };
  }

  private throwAt(c: Pick<Case, 'switches'>, t: number): TimedAct[] {
    return c.switches.map((i) => ({
      t,
      act: { do: 'switch', atMs: t / 1000, switch: i, on: true },
    }));
  }

  /** Output frequency at every look with the fault coming at a moment, run whole from power-up. */
  private runThrough(c: Case, faultUs: number): number[] {
    const engine = new Engine(this.switchable.installation, { only: [...WATCHED] });
    const { acts, looks } = this.healthy;
    const all = inOrder([...acts, ...this.throwAt(c, faultUs)]);
    engine.runTo(looks.at(-1) as number, all);
    return looks.map((look) => outputAt(engine.trace, look));
  }

  /** The same, run only where it differs from what is known; undefined where nothing is sensed otherwise. */
  private runFrom(c: Case, faultUs: number, recording?: Recording): readonly number[] | undefined {
    const { healthy } = this;
    const isOther = (network: number): boolean => this.differs(c, network);
    let from = healthy.firstDifference(isOther, faultUs);
    if (from === undefined) return undefined;
    const shows = from > faultUs ? from : undefined;
    const same = shows === undefined ? undefined : c.later.get(shows);
    if (same) return same;
    const run = [...healthy.outputs];
    const passed: { look: number; states: readonly unknown[] }[] = [];
    this.engine.onSolved = recording && ((solved) => this.keep(solved, recording));
    while (from !== undefined) {
      const end = this.follow(c, from, faultUs, run, passed);
      recording?.stretches.push({ from, end });
      from = end === undefined ? undefined : healthy.firstDifference(isOther, end);
    }
    for (const { look, states } of passed) c.known[look].push({ states, run });
    if (shows !== undefined) c.later.set(shows, run);
    return run;
  }

  /**
   * Runs with the fault from just before a difference until the states are the healthy ones again.
   *
   * @returns when they are, µs; undefined when the run is known to its end
   */
  private follow(
    c: Case,
    from: number,
    faultUs: number,
    run: number[],
    passed: { look: number; states: readonly unknown[] }[],
  ): number | undefined {
    const { healthy, engine } = this;
    const { acts, state: begin } = healthy.leftAt(from);
    engine.adopt(begin);
    const all = inOrder([...acts, ...this.throwAt(c, Math.max(faultUs, begin.t))]);
    let done = 0;
    for (let look = 0; look < healthy.looks.length; look++) {
      const at = healthy.looks[look];
      if (at < begin.t) continue;
      const next = all.findIndex((a) => a.t > at);
      const until = next < 0 ? all.length : next;
      engine.runTo(at, all.slice(done, until));
      done = until;
      run[look] = outputAt(engine.trace, at);
      if (at < faultUs) continue;
      const states = this.withoutSwitches(engine.restedStates());
      if (at > from && sameState(states, this.withoutSwitches(healthy.states[look]))) return at;
      const known = c.known[look].find((k) => sameState(k.states, states));
      if (known) {
        for (let i = look + 1; i < run.length; i++) run[i] = known.run[i];
        return undefined;
      }
      passed.push({ look, states });
    }
    return undefined;
  }

  private withoutSwitches(states: readonly unknown[]): readonly unknown[] {
    return states.filter((_, i) => i !== this.switchesAt);
  }

  /** Whether a fault changes anything in the run with another one: in none of its networks would a device sense otherwise. */
  private addsToRun(fault: SweptFault, other: SweptFault, pair: Case): boolean {
    const { stretches, networks } = this.recorded(other);
    const isOther = (network: number): boolean => this.differs(pair, network);
    // Where the other fault alone left the run as it was.
    let t: number | undefined = this.moments.stopped * 1000;
    for (const { from, end } of stretches) {
      const first = this.healthy.firstDifference(isOther, t);
      if (first !== undefined && first < from) return true;
      t = end;
      if (t === undefined) break;
    }
    if (t !== undefined && this.healthy.firstDifference(isOther, t) !== undefined) return true;
    const { switches } = this.caseOf([fault]);
    for (const moment of networks.values()) if (!this.senses(moment, switches)) return true;
    return false;
  }

  /** What was recorded when a fault was judged; judged now where that was done elsewhere. */
  private recorded(fault: SweptFault): Recording {
    const known = this.recordings.get(recordName(fault, this.alike(fault)));
    if (known) return known;
    const made = this.recordingOf(fault);
    this.seenAt(this.caseOf([fault]), 'stopped', made);
    return made;
  }

  private recordingOf(fault: SweptFault): Recording {
    const made: Recording = { stretches: [], networks: new Map() };
    this.recordings.set(recordName(fault, this.alike(fault)), made);
    return made;
  }

  private keep(solved: SolvedMoment, { networks }: Recording): void {
    if (!networks.has(solved.key))
      networks.set(solved.key, { ...solved, board: this.engine.keepBoard() });
  }

  /** It only feeds what shows something or what the device works: no further fault can make it worse for the motor. */
  private onlyShows({ wire, subject }: SweptFault): boolean {
    const { wires = {}, devices = {} } = this.job.adopted ?? {};
    const worked = new Set(
      Object.values(wires).flatMap((w) => {
        const [from, to] = [w.from, w.to].map((end) => landingParts(end).device);
        return parts[devices[to]?.kind]?.holds
          ? [from, to]
          : parts[devices[from]?.kind]?.holds
            ? [to, from]
            : [];
      }),
    );
    const shows = (id: string): boolean =>
      id in devices &&
      (onlyShows(devices[id].kind) ||
        (worked.has(id) && parts[devices[id].kind]?.coil !== undefined));
    const on = wire ? wires[wire] : undefined;
    return on ? [on.from, on.to].some((end) => shows(landingParts(end).device)) : shows(subject);
  }

  /** Two faults that can act on each other: on one potential, at one part, or both stuck contacts. */
  private areNeighbours(x: SweptFault, y: SweptFault): boolean {
    if (x.kind === 'welded' && y.kind === 'welded') return true;
    const { wires = {}, device } = this.job.adopted ?? {};
    const reach = (f: SweptFault): { potential?: string; devices: readonly string[] } => {
      const wire = f.wire ? wires[f.wire] : undefined;
      if (!wire) return { devices: [f.subject] };
      const ends = [wire.from, wire.to].map((end) => landingParts(end).device);
      return { potential: wire.potential, devices: ends.filter((d) => d !== device) };
    };
    const [a, b] = [reach(x), reach(y)];
    return (
      (a.potential !== undefined && a.potential === b.potential) ||
      a.devices.some((d) => b.devices.includes(d))
    );
  }
}

/**
 * The edges of a fault: a contactor whose poles have welded is three, a loose joint all its conductors and what they still
 * join, what fails inside the device is none.
 */
function switched({ fault: f }: SweptFault, panel: Panel): SwitchedFault[] {
  if (f.kind === 'loose') {
    const { opens, joins } = looseJoint(panel, f.at);
    return [
      ...opens.map((wire): SwitchedFault => ({ kind: 'open', wire })),
      ...joins.map(({ a, b }): SwitchedFault => ({ kind: 'short', a, b })),
    ];
  }
  if (f.kind !== 'part') return [f];
  if (f.what !== 'contacts') return [];
  return MAIN_POLES.map((contact) => ({ kind: 'stuck', device: f.device, contact, is: 'closed' }));
}

const recordName = (fault: SweptFault, alike: string | undefined): string => alike ?? fault.key;

const inOrder = (acts: readonly TimedAct[]): TimedAct[] =>
  acts
    .map((act, i) => ({ act, i }))
    .sort((x, y) => x.act.t - y.act.t || x.i - y.i)
    .map(({ act }) => act);

function rowOf(fault: SweptFault, seen: AtMoments): SweepRow {
  const worstOf = (worst: Moment, m: Moment): Moment =>
    grade(seen[m].is) > grade(seen[worst].is) ? m : worst;
  const moment = moments.reduce(worstOf, moments[0]);
  const at = Object.fromEntries(moments.map((m) => [m, seen[m].is])) as SweepRow['at'];
  const { is, mark } = seen[moment];
  return { fault, worst: is, moment, at, ...(mark === undefined ? {} : { shows: mark }) };
}
