import type { Profile } from '../catalogue/index.js';
import { contactKinds } from '../devices/index.js';
import { installAtSpeed, type Installation, type InstalledDrive } from '../installation/index.js';
import { sortedEntries, type Act, type Job } from '../job/index.js';
import { rehearse, signalAt } from '../rehearsal/index.js';
import { arrange, directionsOf, powerUp, READY_MS, startActs, stopActs, type Arrangement } from '../scheme/index.js';

/** Single faults of the safety-relevant kinds: a wire open or shorted, a contact welded. */
export type FaultKind = 'open' | 'to24' | 'to0' | 'welded';
/** When the fault comes: it may be harmless before power-up and start the motor while it stands. */
export const moments = ['beforePower', 'stopped', 'running', 'stopping'] as const;
export type Moment = (typeof moments)[number];

/** What a fault does, from harmless to gravest. */
export const faultClasses = ['noEffect', 'failsSafe', 'hidden', 'losesFunction', 'wrongDirectionOrSpeed', 'losesStop', 'startsByItself'] as const;
export type FaultClass = (typeof faultClasses)[number];

export interface SweepFault {
  readonly key: string;
  readonly kind: FaultKind;
  /** Wire id, or device id of a contact. */
  readonly subject: string;
  readonly wire?: string;
  readonly contact?: { readonly device: string; readonly a: string; readonly b: string };
}

export interface SweepRow {
  readonly fault: SweepFault;
  readonly worst: FaultClass;
  /** The first moment at which the worst shows. */
  readonly moment: Moment;
  readonly at: Readonly<Record<Moment, FaultClass>>;
}

/** A protective conductor, judged by rule: its break shows in no trace. */
const PE_ROW: Readonly<Record<Moment, FaultClass>> = { beforePower: 'hidden', stopped: 'hidden', running: 'hidden', stopping: 'hidden' };

const MARGIN_MS = 1500;
const DARK_MS = 60_000;
const RUNNING_HZ = 0.01;

/** The standard script, and the moments at which its healthy and its faulty run are compared. */
interface Script {
  readonly acts: readonly Act[];
  readonly endMs: number;
  /** Output expected of the healthy job is what its own run shows there. */
  readonly checks: readonly { readonly atMs: number; readonly kind: 'quiet' | 'runs' | 'stopped' | 'returned' | 'end' }[];
  readonly faultMs: Readonly<Record<Moment, number>>;
}

function standardScript(arrangement: Arrangement, drive: InstalledDrive): Script {
  const { accelS, decelS, sCurvePct, stopMode, coastS } = drive.control;
  const travel = Math.min(600_000, Math.max(accelS, decelS, stopMode === 'coast' ? coastS : 0) * (1 + sCurvePct / 100) * 1000) + MARGIN_MS;
  const directions = directionsOf(arrangement);
  const [first, second] = [directions[0] ?? 'forward', directions[1] ?? directions[0] ?? 'forward'];
  // A run lasts two travels, so that a fault in its middle has come to rest before the run is looked at.
  const [t1, t2, t3, t4, t5, t6] = [0, 2, 3, 5, 6, 8].map((n) => READY_MS + n * travel);
  const [off, on] = [t6, t6 + DARK_MS];
  const letGo = on + 5000 + travel;
  const acts: Act[] = [
    ...powerUp(arrangement, 0.5), ...startActs(arrangement, first, t1), ...stopActs(arrangement, first, t2), ...startActs(arrangement, second, t3), ...stopActs(arrangement, second, t4),
    ...startActs(arrangement, first, t5), { do: 'supplyOff', atMs: off }, { do: 'supplyOn', atMs: on }, ...stopActs(arrangement, first, letGo),
  ]; // prettier-ignore
  return {
    acts,
    endMs: letGo + travel,
    checks: [
      { atMs: t1 - 200, kind: 'quiet' }, { atMs: t2 - 200, kind: 'runs' }, { atMs: t3 - 200, kind: 'stopped' }, { atMs: t4 - 200, kind: 'runs' }, { atMs: t5 - 200, kind: 'stopped' },
      { atMs: off - 200, kind: 'runs' }, { atMs: letGo - 200, kind: 'returned' }, { atMs: letGo + travel - 200, kind: 'end' },
    ],
    faultMs: { beforePower: 0, stopped: t1 - 600, running: t1 + travel, stopping: t2 + 250 },
  }; // prettier-ignore
}

/** Every fault that is swept: control and signal wires open and shorted, contacts of the station welded, protective conductors open. */
export function sweepFaults(job: Job): SweepFault[] {
  const { adopted } = job;
  if (!adopted) return [];
  const faults: SweepFault[] = [];
  for (const [id, wire] of sortedEntries(adopted.wires)) {
    if (wire.class === 'pe') faults.push({ key: `open:${id}`, kind: 'open', subject: id, wire: id });
    if (wire.class !== 'controlDc' && wire.class !== 'analogue') continue;
    for (const kind of ['open', 'to24', 'to0'] as const) faults.push({ key: `${kind}:${id}`, kind, subject: id, wire: id });
  }
  for (const [id, device] of sortedEntries(adopted.devices)) {
    const kind = contactKinds[device.kind];
    if (!kind || kind.workedBy === 'supply') continue;
    for (const { a, b } of kind.contacts) faults.push({ key: `welded:${id}:${a}`, kind: 'welded', subject: id, contact: { device: id, a, b } });
  }
  return faults;
}

/** Sweeps a job fault by fault, so that a caller can show progress and stop. */
export class Sweep {
  readonly faults: readonly SweepFault[];
  private readonly job: Job;
  private readonly installation: Installation;
  private readonly script: Script;
  private readonly healthy: readonly number[];
  private readonly potentials: Readonly<Record<'to24' | 'to0', number | undefined>>;

  /** @throws RangeError when the job has no adopted plan */
  constructor(job: Job, profile: Profile) {
    this.job = job;
    this.installation = installAtSpeed(job, profile, 0.5);
    const drive = this.installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
    if (!drive) throw new RangeError('the job has no drive');
    this.script = standardScript(arrange(job), drive);
    const landing = (kind: string): number | undefined => {
      const terminal = Object.entries(profile.terminals).find(([, t]) => t.kind === kind)?.[0];
      const at = terminal === undefined ? -1 : this.installation.landings.indexOf(`drive:${terminal}`);
      return at < 0 ? undefined : at;
    };
    this.potentials = { to24: landing('supply24'), to0: landing('zeroVolt') };
    this.faults = sweepFaults(job).filter((f) => (f.kind !== 'to24' && f.kind !== 'to0') || this.potentials[f.kind] !== undefined);
    this.healthy = this.outputs([], 'stopped');
  }

  /** Worst class of one fault over the four moments. */
  judge(fault: SweepFault): SweepRow {
    if (fault.wire && this.job.adopted?.wires[fault.wire].class === 'pe') return { fault, worst: 'hidden', moment: 'beforePower', at: PE_ROW };
    const at = Object.fromEntries(moments.map((moment) => [moment, this.classAt([fault], moment)])) as Record<Moment, FaultClass>;
    return rowOf(fault, at);
  }

  /**
   * A fault that shows nowhere is hidden when a further single fault is then worse than in the healthy job: what should
   * have been noticed waits for the second.
   *
   * @param rows every row judged so far
   */
  lookBehind(row: SweepRow, rows: readonly SweepRow[]): SweepRow {
    if (row.worst !== 'noEffect') return row;
    for (const other of rows) {
      if (other.fault.key === row.fault.key || other.fault.subject === row.fault.subject || other.worst === 'hidden') continue;
      const both = this.classAt([row.fault, other.fault], 'stopped');
      if (grade(both) > grade(other.at.stopped) && grade(both) > grade('losesFunction')) return rowOf(row.fault, { ...row.at, stopped: 'hidden' });
    }
    return row;
  }

  private classAt(faults: readonly SweepFault[], moment: Moment): FaultClass {
    return classOf(this.script, this.healthy, this.outputs(faults, moment), this.script.faultMs[moment]);
  }

  /** Output frequency at every check of the script with these faults coming at the moment. */
  private outputs(faults: readonly SweepFault[], moment: Moment): number[] {
    const { installation, acts } = this.inject(faults, this.script.faultMs[moment]);
    const trace = rehearse(installation, acts, this.script.endMs);
    return this.script.checks.map(({ atMs }) => signalAt(trace, 'drive.hz', atMs * 1000));
  }

  /** The installation with the faults in it as contacts that close, and the script with them. */
  private inject(faults: readonly SweepFault[], atMs: number): { installation: Installation; acts: Act[] } {
    const { landings } = this.installation;
    const [edgeA, edgeB, devices] = [[...this.installation.edgeA], [...this.installation.edgeB], [...this.installation.devices]];
    const extra: Act[] = [];
    faults.forEach((fault, i) => {
      if (fault.kind === 'open' && fault.wire) return void extra.push({ do: 'breakWire', atMs, wire: fault.wire });
      const ends = this.endsOf(fault, landings);
      if (!ends) return;
      const edge = edgeA.push(ends[0]) - 1;
      edgeB.push(ends[1]);
      const id = `fault.${i}`;
      devices.push({ kind: 'contacts', id, tag: id, positions: ['out', 'in'], rest: 'out', momentary: false, contacts: [{ edge, closedIn: ['in'] }] });
      extra.push({ do: 'turn', atMs, device: id, position: 'in' });
    });
    const acts = [...this.script.acts, ...extra].map((act, i) => ({ act, i })).sort((x, y) => x.act.atMs - y.act.atMs || x.i - y.i).map(({ act }) => act); // prettier-ignore
    return { installation: { ...this.installation, edgeA, edgeB, devices }, acts };
  }

  private endsOf(fault: SweepFault, landings: readonly string[]): readonly [number, number] | undefined {
    const { contact, wire, kind } = fault;
    if (contact) return [landings.indexOf(`${contact.device}:${contact.a}`), landings.indexOf(`${contact.device}:${contact.b}`)];
    const to = wire && this.job.adopted?.wires[wire].to;
    const potential = kind === 'to24' || kind === 'to0' ? this.potentials[kind] : undefined;
    return to === undefined || potential === undefined ? undefined : [landings.indexOf(to), potential];
  }
}

const grade = (c: FaultClass): number => faultClasses.indexOf(c);

function rowOf(fault: SweepFault, at: Readonly<Record<Moment, FaultClass>>): SweepRow {
  const moment = moments.reduce((worst, m) => (grade(at[m]) > grade(at[worst]) ? m : worst), moments[0]);
  return { fault, worst: at[moment], moment, at };
}

/** Compares what the motor does at every check after the fault came; never volts. */
function classOf({ checks }: Script, healthy: readonly number[], faulty: readonly number[], faultMs: number): FaultClass {
  const turns = (hz: number): boolean => Math.abs(hz) > RUNNING_HZ;
  const seen: FaultClass[] = ['noEffect'];
  let [wanted, lost] = [0, 0];
  checks.forEach(({ atMs, kind }, i) => {
    if (atMs < faultMs) return;
    const [h, f] = [healthy[i], faulty[i]];
    if (turns(h)) {
      if (kind === 'runs') wanted++;
      if (!turns(f) && kind === 'runs') lost++;
      else if (turns(f) && (h * f < 0 || Math.abs(h - f) > 0.05 * Math.abs(h))) seen.push('wrongDirectionOrSpeed');
    } else if (turns(f)) seen.push((kind === 'stopped' || kind === 'end') && i > 0 && turns(faulty[i - 1]) ? 'losesStop' : 'startsByItself');
  });
  if (lost > 0) seen.push(lost === wanted ? 'failsSafe' : 'losesFunction');
  return seen.reduce((worst, c) => (grade(c) > grade(worst) ? c : worst));
}
