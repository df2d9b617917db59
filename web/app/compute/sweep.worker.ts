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

/** Time after which the worker breathes, so that it hears of the end and tells how far it is, ms. */
const SLICE_MS = 20;

const breath = (): Promise<void> => new Promise((done) => setTimeout(done));

function said(row: SweepRow, job: Job): SaidRow {
  const { fault } = row;
  const wire = fault.wire ? job.adopted?.wires[fault.wire] : undefined;
  const tag = (landing: string): string => landing.replace(/^[^:]+/u, (id) => job.adopted?.devices[id]?.tag ?? id);
  const shock = wire?.class === 'pe';
  const moment = (m: string): string => (m === 'stopped' ? 'while stopped' : sayName(m));
  return {
    key: fault.key,
    wire: fault.wire ?? null,
    what: wire ? `${wire.number}: ${tag(wire.from)} – ${tag(wire.to)}` : `${job.adopted?.devices[fault.subject]?.tag ?? fault.subject}`,
    kind: sayName(fault.kind),
    worst: row.worst,
    worstText: shock ? 'hidden: shock hazard' : sayName(row.worst),
    moment: shock ? 'in no run' : moment(row.moment),
    at: Object.entries(row.at).map(([m, c]) => ({ moment: moment(m), text: sayName(c) })),
  };
}

const worker = {
  /** Sweeps every single fault; ended by ending the worker. */
  async run(job: Job, profile: Profile, progress: (done: number, of: number) => void): Promise<SaidRow[]> {
    const sweep = new Sweep(job, profile);
    const rows: SweepRow[] = [];
    let since = performance.now();
    const step = async (done: number, of: number): Promise<void> => {
      if (performance.now() - since < SLICE_MS) return;
      progress(done, of);
      await breath();
      since = performance.now();
    };
    const total = sweep.faults.length * 2;
    for (const fault of sweep.faults) {
      rows.push(sweep.judge(fault));
      await step(rows.length, total);
    }
    const all: SweepRow[] = [];
    for (const row of rows) {
      all.push(sweep.lookBehind(row, rows));
      await step(rows.length + all.length, total);
    }
    const grade = (r: SweepRow): number => faultClasses.indexOf(r.worst);
    return all.map((r, i) => ({ r, i })).sort((x, y) => grade(y.r) - grade(x.r) || x.i - y.i).map(({ r }) => said(r, job)); // prettier-ignore
  },
};

export type SweepWorker = typeof worker;

expose(worker);
