import { expose } from 'comlink';
import type { Profile, SettingValues } from '@tactron/core/catalogue';
import { install, type Installation } from '@tactron/core/installation';
import type { Act, Job } from '@tactron/core/job';
import { Session, type Trace } from '@tactron/core/rehearsal';
import { sayName } from '@tactron/core/words';

/** A window on a running rehearsal: the whole trace so far, cut at what was worked out. */
export interface Frame {
  readonly seq: number;
  readonly trace: Trace;
  readonly log: readonly { readonly t: number; readonly act: Act }[];
}

export interface Opened extends Frame {
  readonly landings: readonly string[];
  readonly reference: number;
  readonly names: Readonly<Record<string, string>>;
  readonly wires: Installation['wires'];
  readonly devices: readonly {
    readonly id: string;
    readonly kind: string;
    readonly positions: readonly string[];
    readonly tag: string;
    readonly momentary: boolean;
  }[];
  readonly links: Readonly<Record<string, string>>;
  readonly polePairs: number;
}

let session: Session | undefined;

const worker = {
  open(job: Job, profile: Profile, from: 'planned' | 'factory' | { id: string; values: SettingValues }, log: readonly { t: number; act: Act }[]): Opened {
    const source = typeof from === 'string' ? { from } : ({ from: 'snapshot', ...from } as const);
    const installation = install(job, profile, source);
    session = new Session(installation, log);
    const drive = installation.devices.find((d) => d.kind === 'drive');
    const states = session.trace.signals.flatMap((s) => s.states ?? []);
    return {
      seq: 0,
      trace: session.trace,
      log: session.log,
      landings: installation.landings,
      reference: installation.reference,
      names: Object.fromEntries(states.map((s) => [s, sayName(s)])),
      wires: installation.wires,
      devices: installation.devices.flatMap((d) =>
        d.kind === 'contacts' || d.kind === 'dial'
          ? [{ id: d.id, kind: d.kind, tag: d.tag, positions: d.kind === 'contacts' ? d.positions : [], momentary: d.kind === 'contacts' && d.momentary }]
          : [],
      ),
      links: Object.fromEntries((drive?.kind === 'drive' ? drive.links : []).map((l) => [l.id, l.position])),
      polePairs: (drive?.kind === 'drive' ? drive.polePairs : undefined) ?? 2,
    };
  },

  act(seq: number, t: number, acts: readonly Act[]): Frame {
    if (!session) throw new Error('no rehearsal is open');
    return { seq, trace: session.act(t, acts), log: session.log };
  },

  reach(seq: number, t: number): Frame {
    if (!session) throw new Error('no rehearsal is open');
    return { seq, trace: session.reach(t), log: session.log };
  },
};

export type RehearseWorker = typeof worker;

expose(worker);
