import { expose } from 'comlink';
import {
  changesSpeed,
  displayFace,
  hasKeys,
  type DisplayFace,
  type Profile,
  type SettingValues,
} from '@tactron/core/catalogue';
import { closedWhen, worksWhen, type ClosedWhen } from '@tactron/core/drawings';
import { baseOf, plateNumbers } from '@tactron/core/line';
import { contactsOf } from '@tactron/core/parts';
import {
  hookPlaces,
  asBuilt,
  install,
  leadsOf,
  linkOf,
  motorLeads,
  type Panel,
  type HookPlace,
  type Installation,
  installedOf,
  startCurvesOf,
  type InstalledDevice,
  type SettingsFrom,
} from '@tactron/core/installation';
import type { Act, Job, Where } from '@tactron/core/job';
import {
  linkLane,
  ohmsBetween,
  Session,
  whyNotRunning,
  type OhmReading,
} from '@tactron/core/rehearsal';
import type { SignalTrace, Trace, TraceWindow } from '@tactron/core/trace';
import { shownTrial } from '@tactron/core/procedure';
import { trialsOf, type Trial } from '@tactron/core/trials';
import {
  deviceKinds,
  tasksOf,
  sayCondition,
  sayMark,
  sayName,
  sayOpenPlace,
} from '@tactron/core/words';

/** What an act or a look ahead changed of a running rehearsal. */
export interface Frame {
  readonly seq: number;
  readonly window: TraceWindow;
  /** Voltage of the DC link over the whole of it, where stops lift it. */
  readonly linkVolts: SignalTrace | undefined;
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

/** The leads of the motor, and what is needed to say what lies between two of them. */
export interface ShownMotor {
  readonly leads: readonly string[];
  /** Leads that no single output reaches. */
  readonly missing: readonly string[];
  /** Isolator in the leads. */
  readonly isolator: Pick<ShownDevice, 'id' | 'tag' | 'positions'> | undefined;
  /** Voltage for each Hz and the highest, of a device that changes the speed, V. */
  readonly perHz?: number;
  readonly mostV?: number;
  /** Voltage of the supply, of a device that changes the voltage, V. */
  readonly lineV?: number;
}

/** A rehearsal that was opened: everything worked out so far, and what is there to see and press. */
export interface Opened {
  readonly seq: number;
  readonly trace: Trace;
  readonly log: readonly { readonly t: number; readonly act: Act }[];
  /** Device and terminals of the drive or starter itself. */
  readonly device: string;
  readonly landings: readonly string[];
  readonly reference: number;
  readonly names: Readonly<Record<string, string>>;
  /** What each terminal of the device is there for, in words. */
  readonly tasks: Readonly<Record<string, string>>;
  readonly wires: readonly {
    readonly id: string;
    readonly number: string;
    readonly from: number;
    readonly to: number;
    readonly ohm: number;
  }[];
  /** Wires that were found broken or were never landed. */
  readonly open: readonly string[];
  /** When each contact is closed and each element works, by the two landings it lies between. */
  readonly closed: Readonly<Record<string, ClosedWhen>>;
  readonly works: Readonly<Record<string, ClosedWhen>>;
  readonly devices: readonly ShownDevice[];
  readonly links: readonly ShownLink[];
  readonly panelDial: boolean;
  /** What it shows in each state; undefined where its profile does not say. */
  readonly face: DisplayFace | undefined;
  /** Its keypad has a frequency of its own, which its keys move. */
  readonly keypadSpeed: boolean;
  /** It has keys to start, stop and reset it. */
  readonly keys: boolean;
  /** Highest values to be drawn of what it shows beside its speed, by signal; none where it shows nothing. */
  readonly tops: Readonly<Record<string, number>>;
  readonly motor: ShownMotor;
  /** What stops do to the DC link, where one lifts it. */
  readonly link: ReturnType<typeof linkOf>;
  readonly linkVolts: SignalTrace | undefined;
  /** Turns of the shaft a minute for each Hz; undefined where the pole pairs are not known. */
  readonly rpmPerHz: number | undefined;
  readonly slipRpm: number;
  /** Shown trial: what is done when, in words. */
  readonly trial: readonly { readonly atMs: number; readonly text: string }[];
}

/** A condition for running in words, with what it concerns. */
export interface SaidCondition {
  readonly met: boolean;
  readonly text: string;
  readonly where: Where;
  /** Places that are open on its way. */
  readonly places: readonly { readonly text: string; readonly where: Where }[];
}

/** What the device holds: as planned and built, of the factory, as a snapshot says, or as a trial of the job has it. */
export type SettingsChoice =
  | 'planned'
  | 'factory'
  | { readonly id: string; readonly values: SettingValues }
  | { readonly trial: string };

/** Ends of the lanes of current and torque: what a direct start comes to. */
function topsOf(device: InstalledDevice): Record<string, number> {
  const direct = startCurvesOf(device)?.direct;
  if (!direct) return {};
  return {
    'device.amps': Math.ceil(direct.peakA),
    'device.torqueNm': Math.ceil(Math.max(...direct.points.map((p) => p.torqueNm))),
    'device.voltsPct': 100,
    'device.heatPct': 120,
  };
}

let session: Session | undefined;

/** Where the settings come from, and the trial that is shown, where one is. */
function sourceOf(
  job: Job,
  profile: Profile,
  from: SettingsChoice,
): { source: SettingsFrom; trial?: Trial } {
  if (typeof from === 'string') return { source: { from } };
  if ('values' in from) return { source: { from: 'snapshot', ...from } };
  const trial = shownTrial(job, profile, from.trial);
  return { source: { from: 'planned' }, ...(trial ? { trial } : {}) };
}

function shown(d: Installation['devices'][number], job: Job): ShownDevice[] {
  const planned = job.adopted?.devices[d.id];
  if (!planned || d.kind === 'device' || d.kind === 'shaft') return [];
  const contacts = d.kind === 'contacts' ? d : undefined;
  const base = { id: d.id, kind: d.kind, tag: d.tag, name: deviceKinds[planned.kind] ?? '' };
  const workedBy = contactsOf(planned)?.workedBy ?? (d.kind === 'transistor' ? 'process' : 'hand');
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

function shownMotor(
  job: Job,
  profile: Profile,
  { shaft, devices }: Installation,
  panel: Panel,
): ShownMotor {
  const { missing } = motorLeads(panel, profile, shaft.id);
  const leads = leadsOf(panel.devices[shaft.id]);
  const isolator = devices.flatMap((d) =>
    d.kind === 'contacts' && d.id === shaft.isolator
      ? [{ id: d.id, tag: d.tag, positions: d.positions }]
      : [],
  )[0];
  const { outputV } = plateNumbers(job.plate, profile);
  const known = { leads, missing, isolator };
  // Inside the delta its leads stand at the voltage of the supply, whatever the windings get.
  const insideDelta = panel.devices[shaft.id]?.params['leads'] === 6;
  if (!changesSpeed(profile))
    return { ...known, ...(outputV && !insideDelta ? { lineV: outputV } : {}) };
  const base = baseOf(job.plate, job.scheme.maxHz);
  return {
    ...known,
    ...(base ? { perHz: base.volts / base.hz, mostV: base.volts } : {}),
  };
}

function shownLinks({ links }: InstalledDevice, profile: Profile): ShownLink[] {
  return links.map(({ id, position }) => ({
    id,
    position,
    name: profile.links[id].name,
    positions: Object.entries(profile.links[id].positions).map(([value, p]) => ({
      value,
      name: p.name,
    })),
  }));
}

/** The DC link as the rehearsal has gone, where stops lift it. */
function linkVolts({ trace, installation }: Session): SignalTrace | undefined {
  const link = linkOf(installation.device);
  return link && linkLane(trace, link);
}

const live = (): Session => {
  if (!session) throw new Error('no rehearsal is open');
  return session;
};

const frameOf = (seq: number, s: Session, window: TraceWindow): Frame => ({
  seq,
  window,
  log: s.log,
  linkVolts: linkVolts(s),
});

const worker = {
  open(
    job: Job,
    profile: Profile,
    from: SettingsChoice,
    log: readonly { t: number; act: Act }[],
    hooks: readonly HookPlace[] = [],
  ): Opened {
    const { source, trial } = sourceOf(job, profile, from);
    const acts =
      trial && log.length === 0
        ? trial.acts.map((act) => ({ t: Math.round(act.atMs * 1000), act }))
        : log;
    const built = asBuilt(job, profile);
    const installation = install(job, profile, source, {
      hooks: [...hooks, ...hookPlaces(acts.map((l) => l.act))],
      panel: trial ? trialsOf(job, profile).panelFor(trial) : built,
    });
    session = new Session(installation, acts);
    if (trial) session.reach(Math.round(trial.endMs * 1000));
    const { device, shaft } = installation;
    const wires = installedOf(installation, 'wires').flatMap((w) => w.wires);
    const states = session.trace.signals.flatMap((s) => s.states ?? []);
    return {
      seq: 0,
      trace: session.trace,
      log: session.log,
      landings: installation.landings,
      reference: installation.reference,
      names: Object.fromEntries(states.map((s) => [s, sayName(s)])),
      tasks: tasksOf(job, profile, installation.device),
      device: device.id,
      wires: wires.map((w) => ({
        id: w.id,
        number: w.number,
        from: installation.edgeA[w.edge],
        to: installation.edgeB[w.edge],
        ohm: w.ohm,
      })),
      open: installedOf(installation, 'wires').flatMap((w) => w.open),
      closed: closedWhen(installation),
      works: worksWhen(installation),
      devices: installation.devices.flatMap((d) => shown(d, job)),
      links: shownLinks(device, profile),
      panelDial: device.facts.panelDial,
      face: displayFace(profile),
      keypadSpeed: device.facts.keypadHasSpeed,
      keys: hasKeys(profile),
      tops: topsOf(device),
      link: linkOf(device),
      linkVolts: linkVolts(session),
      motor: shownMotor(job, profile, installation, built),
      rpmPerHz: shaft.polePairs === undefined ? undefined : 60 / shaft.polePairs,
      slipRpm: shaft.slipRpm,
      trial: (trial?.phases ?? []).map((p) => ({ atMs: p.fromMs, text: sayMark(p.mark) })),
    };
  },

  act(seq: number, t: number, acts: readonly Act[]): Frame {
    const s = live();
    return frameOf(seq, s, s.act(t, acts));
  },

  reach(seq: number, t: number): Frame {
    const s = live();
    return frameOf(seq, s, s.reach(t));
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
