import type { Profile } from '../../catalogue/index.js';
import {
  installAtSpeed,
  type Installation,
  type InstalledDrive,
} from '../../installation/index.js';
import type { Act, Job } from '../../job/index.js';
import { arrangeFor } from '../../plan/index.js';
import {
  Engine,
  signalAt,
  timedActs,
  type EngineState,
  type SolvedMoment,
} from '../../rehearsal/index.js';
import {
  areNeighbours,
  feedsOnlyShows,
  moments,
  sweepFaults,
  wireNets,
  type FaultClass,
  type Moment,
  type Potentials,
  type SweepFault,
  type SweepRow,
} from './faults.js';
import { classOf, grade, sweepScript, type SweepScript } from './script.js';

/** A protective conductor, judged by rule: its break shows in no trace. */
const PE_ROW: Readonly<Record<Moment, FaultClass>> = {
  beforePower: 'hidden',
  stopped: 'hidden',
  running: 'hidden',
  stopping: 'hidden',
};

const FAULT = 'fault';
/** All that is compared: what the motor does. */
const WATCHED = 'drive.hz';

/** A network of the installation that the healthy run went through, with the times from which it stood. */
interface Network {
  readonly solved: SolvedMoment;
  readonly from: number[];
}

/**
 * Sweeps a job fault by fault, so that a caller can show progress and stop. The healthy job runs once; a fault is put into
 * each network that run went through, and only where some device would sense anything else the job is run again, from the
 * last moment at which both were the same.
 */
export class Sweep {
  readonly faults: readonly SweepFault[];
  private readonly job: Job;
  private readonly installation: Installation;
  private readonly script: SweepScript;
  private readonly healthy: readonly number[];
  private readonly networks: Network[] = [];
  /** Network in force from each time on. */
  private readonly course: { t: number; network: number }[] = [];
  private readonly snapshots: EngineState[] = [];
  /** Net of wires that each landing lies on, and what a short of a net came to. */
  private readonly nets: ReadonlyMap<string, string>;
  private readonly shorts = new Map<string, Readonly<Record<Moment, FaultClass>>>();
  private readonly recordings = new Map<
    string,
    { from: number | undefined; networks: readonly SolvedMoment[] }
  >();

  /**
   * @param options `fromZero` runs every fault from power-up, for tests
   * @throws RangeError when the job has no adopted plan
   */
  constructor(
    job: Job,
    profile: Profile,
    private readonly options: { readonly fromZero?: boolean } = {},
  ) {
    this.job = job;
    this.installation = withoutOutput(job, installAtSpeed(job, profile, 0.5));
    const drive = this.installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
    if (!drive) throw new RangeError('the job has no drive');
    this.script = sweepScript(arrangeFor(job, profile), drive);
    this.nets = wireNets(job);
    this.faults = sweepFaults(job, this.potentials(profile));
    this.healthy = this.runHealthy();
  }

  private potentials(profile: Profile): Potentials {
    const { landings } = this.installation;
    const landing = (kind: string): string | undefined => {
      const terminal = Object.entries(profile.terminals).find(([, t]) => t.kind === kind)?.[0];
      return terminal !== undefined && landings.includes(`drive:${terminal}`)
        ? `drive:${terminal}`
        : undefined;
    };
    const first = (...names: string[]): string | undefined =>
      names.find((name) => landings.includes(name));
    return {
      to24: landing('supply24'),
      to0: landing('zeroVolt'),
      toLine: first('fuse.control:2', 'breaker.control:2'),
      toNeutral: first('transformer.control:S2', 'breaker.control:4'),
    };
  }

  /** Worst class of one fault over the four moments. */
  judge(fault: SweepFault): SweepRow {
    if (fault.wire && this.job.adopted?.wires[fault.wire].class === 'pe')
      return { fault, worst: 'hidden', moment: 'beforePower', at: PE_ROW };
    // Shorts to one potential anywhere on one net of wires are one fault: only milliohms lie between them.
    const net =
      fault.joins && fault.wire && !this.options.fromZero
        ? `${fault.kind}:${this.nets.get(fault.joins[0])}`
        : undefined;
    const known = net === undefined ? undefined : this.shorts.get(net);
    if (known) return rowOf(fault, known);
    const faulty = this.prepare([fault]);
    const at = Object.fromEntries(
      moments.map((moment) => [moment, this.classAt(faulty, moment)]),
    ) as Record<Moment, FaultClass>;
    if (net !== undefined) this.shorts.set(net, at);
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
    if (
      row.worst !== 'noEffect' ||
      row.fault.kind.startsWith('to') ||
      feedsOnlyShows(this.job, row.fault)
    )
      return row;
    for (const other of rows) {
      if (
        other.fault.key === row.fault.key ||
        other.fault.subject === row.fault.subject ||
        other.worst === 'hidden'
      )
        continue;
      if (!areNeighbours(this.job, row.fault, other.fault)) continue;
      const pair = this.prepare([other.fault, row.fault]);
      if (!this.addsToRun(row.fault, other.fault, pair)) continue;
      const both = this.classAt(pair, 'stopped');
      if (grade(both) > grade(other.at.stopped) && grade(both) > grade('losesFunction'))
        return rowOf(row.fault, { ...row.at, stopped: 'hidden' });
    }
    return row;
  }

  /** Whether a fault changes anything in the run with another one: in none of its networks would a device sense otherwise. */
  private addsToRun(fault: SweepFault, other: SweepFault, pair: Faulty): boolean {
    if (!pair.differs) return true;
    const faultUs = this.script.faultMs.stopped * 1000;
    const base = this.recorded(other, faultUs);
    const from = this.firstDifference(pair.differs, faultUs);
    if (from === undefined) return false;
    if (base.from === undefined || from < base.from) return true;
    const acts = actsOfFault(fault, 1);
    return base.networks.some((solved) => !pair.engine.sensesLike(solved, acts));
  }

  /** Networks of the run with one fault from the moment at which it first shows. */
  private recorded(
    fault: SweepFault,
    faultUs: number,
  ): { from: number | undefined; networks: readonly SolvedMoment[] } {
    const known = this.recordings.get(fault.key);
    if (known) return known;
    const networks = new Map<string, SolvedMoment>();
    const faulty = this.prepare(
      [fault],
      (solved) => void (networks.has(solved.key) || networks.set(solved.key, solved)),
    );
    networks.clear();
    const from = faulty.differs && this.firstDifference(faulty.differs, faultUs);
    if (from !== undefined) this.outputs(faulty, faultUs);
    const made = { from, networks: [...networks.values()] };
    this.recordings.set(fault.key, made);
    return made;
  }

  private runHealthy(): number[] {
    const keys = new Map<string, number>();
    const engine = new Engine(this.installation, {
      onSolved: (solved) => {
        const known = keys.get(solved.key) ?? keys.size;
        if (known === keys.size) {
          keys.set(solved.key, known);
          this.networks.push({ solved, from: [] });
        }
        this.networks[known].from.push(solved.t);
        this.course.push({ t: solved.t, network: known });
      },
      onSettled: (state) => void this.snapshots.push(state),
    });
    engine.runTo(this.script.endMs * 1000, timedActs(this.script.acts));
    return this.script.checks.map(({ atMs }) => signalAt(engine.trace, WATCHED, atMs * 1000));
  }

  /** The installation with the faults in it, and the first times at which anything would be sensed otherwise. */
  private prepare(
    faults: readonly SweepFault[],
    onSolved?: (solved: SolvedMoment) => void,
  ): Faulty {
    const { landings } = this.installation;
    const [edgeA, edgeB, devices] = [
      [...this.installation.edgeA],
      [...this.installation.edgeB],
      [...this.installation.devices],
    ];
    faults.forEach(({ joins }, i) => {
      if (!joins) return;
      const edge = edgeA.push(landings.indexOf(joins[0])) - 1;
      edgeB.push(landings.indexOf(joins[1]));
      const id = `${FAULT}.${i}`;
      devices.push({
        kind: 'contacts',
        id,
        tag: id,
        positions: ['out', 'in'],
        rest: 'out',
        momentary: false,
        latching: false,
        contacts: [{ edge, closedIn: ['in'] }],
      });
    });
    const acts = faults.flatMap((fault, i) => actsOfFault(fault, i));
    const installation = { ...this.installation, edgeA, edgeB, devices };
    const engine = new Engine(installation, { onSolved, only: [WATCHED] });
    const base = { runs: new Map<string, readonly number[]>(), engine, installation, acts };
    if (this.options.fromZero) return { ...base, differs: undefined };
    return {
      ...base,
      differs: this.networks.map(({ solved }) => !engine.sensesLike(solved, acts)),
    };
  }

  private classAt(faulty: Faulty, moment: Moment): FaultClass {
    const faultMs = this.script.faultMs[moment];
    const outputs = this.outputs(faulty, faultMs * 1000);
    return outputs ? classOf(this.script, this.healthy, outputs, faultMs) : 'noEffect';
  }

  /** Output frequency at every check with the fault coming at the moment; undefined where nothing is sensed otherwise. */
  private outputs(faulty: Faulty, faultUs: number): readonly number[] | undefined {
    const from = faulty.differs ? this.firstDifference(faulty.differs, faultUs) : 0;
    if (from === undefined) return undefined;
    const snapshot = faulty.differs ? this.snapshots.findLast((s) => s.t < from) : undefined;
    const startUs = snapshot?.t ?? 0;
    const atUs = Math.max(faultUs, startUs);
    // Two moments from which the run is the same need one run only.
    const key = `${startUs}.${atUs}`;
    const known = faulty.runs.get(key);
    if (known) return known;
    const engine = snapshot ? faulty.engine : new Engine(faulty.installation, { only: [WATCHED] });
    if (snapshot) engine.adopt(snapshot);
    const own = faulty.acts.map((act) => ({ t: atUs, act: { ...act, atMs: atUs / 1000 } }));
    const rest = timedActs(this.script.acts).filter((a) => a.t > startUs || !snapshot);
    const all = [
      ...rest.map((a, i) => ({ ...a, i })),
      ...own.map((a, i) => ({ ...a, i: rest.length + i })),
    ].sort((x, y) => x.t - y.t || x.i - y.i);
    engine.runTo(this.script.endMs * 1000, all);
    const made = this.script.checks.map(({ atMs }, i) =>
      atMs * 1000 < startUs ? this.healthy[i] : signalAt(engine.trace, WATCHED, atMs * 1000),
    );
    faulty.runs.set(key, made);
    return made;
  }

  /** First time at or after the fault at which the network in force would be sensed otherwise. */
  private firstDifference(differs: readonly boolean[], faultUs: number): number | undefined {
    const inForce = this.course.findLast((c) => c.t <= faultUs);
    if (inForce && differs[inForce.network]) return faultUs;
    return this.course.find((c) => c.t > faultUs && differs[c.network])?.t;
  }
}

/** Acts that bring the i-th of several faults about, whenever they come. */
function actsOfFault(fault: SweepFault, i: number): Act[] {
  if (fault.joins) return [{ do: 'turn', atMs: 0, device: `${FAULT}.${i}`, position: 'in' }];
  return fault.wire ? [{ do: 'breakWire', atMs: 0, wire: fault.wire }] : [];
}

interface Faulty {
  /** Runs made by now, by their start and the time of the fault. */
  readonly runs: Map<string, readonly number[]>;
  readonly engine: Engine;
  readonly installation: Installation;
  readonly acts: readonly Act[];
  /** For each network of the healthy run: whether any device senses it otherwise; undefined to run from power-up. */
  readonly differs: readonly boolean[] | undefined;
}

function rowOf(fault: SweepFault, at: Readonly<Record<Moment, FaultClass>>): SweepRow {
  const moment = moments.reduce(
    (worst, m) => (grade(at[m]) > grade(at[worst]) ? m : worst),
    moments[0],
  );
  return { fault, worst: at[moment], moment, at };
}

/** An analogue output to which nothing is wired moves with the frequency and touches nothing: it is left out. */
function withoutOutput(job: Job, installation: Installation): Installation {
  const wired = (landing: string): boolean =>
    Object.values(job.adopted?.wires ?? {}).some((w) => w.from === landing || w.to === landing);
  const devices = installation.devices.map((d) =>
    d.kind === 'drive' && d.output && !wired(`${d.id}:${d.output.terminal}`)
      ? { ...d, output: undefined }
      : d,
  );
  return { ...installation, devices };
}
