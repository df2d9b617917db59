import { expose } from 'comlink';
import type { Profile, SettingValues } from '@tactron/core/catalogue';
import { contactKinds } from '@tactron/core/parts';
import {
  hookPlaces,
  install,
  type HookPlace,
  type Installation,
  type InstalledDrive,
} from '@tactron/core/installation';
import type { Act, Job, Where } from '@tactron/core/job';
import {
  ohmsBetween,
  Session,
  whyNotRunning,
  type OhmReading,
  type Trace,
} from '@tactron/core/rehearsal';
import { deviceKinds, sayCondition, sayName, sayOpenPlace } from '@tactron/core/words';

/** A window on a running rehearsal: the whole trace so far, cut at what was worked out. */
export interface Frame {
  readonly seq: number;
  readonly trace: Trace;
  readonly log: readonly { readonly t: number; readonly act: Act }[];
}

/** A device of the station as the page shows and works it. */
export interface ShownDevice {
  readonly id: string;
  readonly tag: string;
  /** What it is, in words. */
  readonly name: string;
  readonly kind: Installation['devices'][number]['kind'];
  readonly positions: readonly string[];
  readonly rest: string;
  readonly momentary: boolean;
  readonly workedBy: 'hand' | 'process' | 'supply';
}

export interface ShownLink {
  readonly id: string;
  readonly name: string;
  readonly position: string;
  readonly positions: readonly { readonly value: string; readonly name: string }[];
}

export interface Opened extends Frame {
  readonly landings: readonly string[];
  readonly reference: number;
  readonly names: Readonly<Record<string, string>>;
  readonly wires: readonly {
    readonly id: string;
    readonly number: string;
    readonly from: number;
    readonly to: number;
    readonly ohm: number;
  }[];
  readonly devices: readonly ShownDevice[];
  readonly links: readonly ShownLink[];
  readonly panelDial: boolean;
  readonly polePairs: number;
}

/** A condition for running in words, with what it concerns. */
export interface SaidCondition {
  readonly met: boolean;
  readonly text: string;
  readonly where: Where;
  /** Places that are open on its way. */
  readonly places: readonly { readonly text: string; readonly where: Where }[];
}

let session: Session | undefined;

function shown(d: Installation['devices'][number], job: Job): ShownDevice[] {
  if (d.kind === 'drive' || d.kind === 'hook') return [];
  const planned = job.adopted?.devices[d.id];
  const contacts = d.kind === 'contacts' ? d : undefined;
  const base = { id: d.id, kind: d.kind, tag: d.tag, name: deviceKinds[planned?.kind ?? ''] ?? '' };
  const workedBy =
    contactKinds[planned?.kind ?? '']?.workedBy ?? (d.kind === 'transistor' ? 'process' : 'hand');
  const positions = contacts?.positions ?? (d.kind === 'transistor' ? ['open', 'closed'] : []);
  return [
    {
      ...base,
      positions,
      rest: contacts?.rest ?? 'open',
      momentary: contacts?.momentary ?? false,
      workedBy,
    },
  ];
}

function shownLinks(drive: InstalledDrive | undefined, profile: Profile): ShownLink[] {
  return (drive?.links ?? []).map(({ id, position }) => ({
    id,
    position,
    name: profile.links[id].name,
    positions: Object.entries(profile.links[id].positions).map(([value, p]) => ({
      value,
      name: p.name,
    })),
  }));
}

const live = (): Session => {
  if (!session) throw new Error('no rehearsal is open');
  return session;
};

const worker = {
  open(
    job: Job,
    profile: Profile,
    from: 'planned' | 'factory' | { id: string; values: SettingValues },
    log: readonly { t: number; act: Act }[],
    hooks: readonly HookPlace[] = [],
  ): Opened {
    const source = typeof from === 'string' ? { from } : ({ from: 'snapshot', ...from } as const);
    const installation = install(job, profile, source, {
      hooks: [...hooks, ...hookPlaces(log.map((l) => l.act))],
    });
    session = new Session(installation, log);
    const drive = installation.devices.find((d): d is InstalledDrive => d.kind === 'drive');
    const states = session.trace.signals.flatMap((s) => s.states ?? []);
    return {
      seq: 0,
      trace: session.trace,
      log: session.log,
      landings: installation.landings,
      reference: installation.reference,
      names: Object.fromEntries(states.map((s) => [s, sayName(s)])),
      wires: installation.wires.map((w) => ({
        id: w.id,
        number: w.number,
        from: installation.edgeA[w.edge],
        to: installation.edgeB[w.edge],
        ohm: w.ohm,
      })),
      devices: installation.devices.flatMap((d) => shown(d, job)),
      links: shownLinks(drive, profile),
      panelDial: drive?.control.referenceSource === 'panelDial',
      polePairs: drive?.polePairs ?? 2,
    };
  },

  act(seq: number, t: number, acts: readonly Act[]): Frame {
    const s = live();
    return { seq, trace: s.act(t, acts), log: s.log };
  },

  reach(seq: number, t: number): Frame {
    const s = live();
    return { seq, trace: s.reach(t), log: s.log };
  },

  /** Why the motor runs or does not at t, in words, the conditions in the order in which they are to be looked at. */
  why(t: number): { running: boolean; conditions: readonly SaidCondition[] } {
    const s = live();
    const { running, conditions } = whyNotRunning(s.installation, s.engineAt(t), t);
    return {
      running,
      conditions: conditions.map((c) => {
        const places = c.open.map((p) => ({ text: sayOpenPlace(p.code, p.args), where: p.where }));
        const name: Record<string, string> =
          c.code === 'fault' && c.args['name'] ? { name: sayName(String(c.args['name'])) } : {};
        return {
          met: c.met,
          text: sayCondition(c.code, c.met, { ...c.args, ...name }),
          where: c.where,
          places,
        };
      }),
    };
  },

  /** Resistance between two landings at t, or why it cannot be measured. */
  ohms(t: number, a: number, b: number): OhmReading {
    const s = live();
    return ohmsBetween(s.installation, s.engineAt(t), a, b);
  },
};

export type RehearseWorker = typeof worker;

expose(worker);
