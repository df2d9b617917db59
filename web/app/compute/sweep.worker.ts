import { expose } from 'comlink';
import type { Profile } from '@tactron/core/catalogue';
import { faultClasses, Sweep, type FaultClass, type SweepRow } from '@tactron/core/hazards';
import type { Job } from '@tactron/core/job';
import { sayName } from '@tactron/core/words';

/** A row of the sweep in words, the gravest first. */
export interface SaidRow {
  readonly key: string;
  readonly wire: string | null;
  readonly what: string;
  readonly kind: string;
  readonly worst: FaultClass;
  readonly worstText: string;
  readonly moment: string;
  /** Class at each of the four moments, in words. */
  readonly at: readonly { readonly moment: string; readonly text: string }[];
}

/** The four moments in which a fault is tried. */
const moments: Readonly<Record<string, string>> = {
  beforePower: 'before power-up',
  stopped: 'while stopped',
  running: 'while running',
  stopping: 'while stopping',
};

/** Time after which the worker breathes, so that it hears of the end and tells how far it is, ms. */
const SLICE_MS = 20;

const breath = (): Promise<void> => new Promise((done) => setTimeout(done));

function said(row: SweepRow, job: Job): SaidRow {
  const { fault } = row;
  const wire = fault.wire ? job.adopted?.wires[fault.wire] : undefined;
  const tag = (landing: string): string =>
    landing.replace(/^[^:]+/u, (id) => job.adopted?.devices[id]?.tag ?? id);
  const shock = wire?.class === 'pe';
  const moment = (m: string): string => moments[m] ?? sayName(m);
  return {
    key: fault.key,
    wire: fault.wire ?? null,
    what: wire
      ? `${wire.number}: ${tag(wire.from)} – ${tag(wire.to)}`
      : fault.fault.kind === 'loose'
        ? tag(fault.fault.at)
        : `${job.adopted?.devices[fault.subject]?.tag ?? fault.subject}`,
    kind: sayName(fault.kind),
    worst: row.worst,
    worstText: shock ? 'hidden: shock hazard' : sayName(row.worst),
    moment: shock ? 'in no run' : moment(row.moment),
    at: Object.entries(row.at).map(([m, c]) => ({ moment: moment(m), text: sayName(c) })),
  };
}

let kept: Sweep | undefined;

const worker = {
  /**
   * Judges a share of the single faults, every n-th from the i-th on; ended by ending the worker. Rows come back as they
   * are, so that the hidden ones can be looked for when all shares are there.
   */
  async judge(
    job: Job,
    profile: Profile,
    share: { i: number; n: number },
    progress: (done: number, of: number) => void,
  ): Promise<SweepRow[]> {
    const sweep = (kept = new Sweep(job, profile));
    const mine = sweep.faults.filter((_, k) => k % share.n === share.i);
    const rows: SweepRow[] = [];
    let since = performance.now();
    const step = async (done: number, of: number): Promise<void> => {
      if (performance.now() - since < SLICE_MS) return;
      progress(done, of);
      await breath();
      since = performance.now();
    };
    for (const fault of mine) {
      rows.push(sweep.judge(fault));
      await step(rows.length, mine.length);
    }
    return rows;
  },

  /** Looks for hidden faults among a share of the rows. @param rows every row of every share */
  async lookBehind(
    rows: readonly SweepRow[],
    share: { i: number; n: number },
    progress: (done: number, of: number) => void,
  ): Promise<SweepRow[]> {
    const sweep = kept;
    if (!sweep) throw new Error('nothing was judged yet');
    const mine = rows.filter((_, k) => k % share.n === share.i);
    const all: SweepRow[] = [];
    let since = performance.now();
    for (const row of mine) {
      all.push(sweep.lookBehind(row, rows));
      if (performance.now() - since < SLICE_MS) continue;
      progress(all.length, mine.length);
      await breath();
      since = performance.now();
    }
    return all;
  },

  /** Rows in words, the gravest first. */
  say(all: readonly SweepRow[], job: Job): SaidRow[] {
    const grade = (r: SweepRow): number => faultClasses.indexOf(r.worst);
    return all
      .map((r, i) => ({ r, i }))
      .sort((x, y) => grade(y.r) - grade(x.r) || x.i - y.i)
      .map(({ r }) => said(r, job));
  },
};

export type SweepWorker = typeof worker;

expose(worker);
