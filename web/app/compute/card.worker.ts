import { expose } from 'comlink';
import { stripOf } from '@tactron/core/compare';
import type { Profile } from '@tactron/core/catalogue';
import { nightCard, type NightFault } from '@tactron/core/hazards';
import { installedOf } from '@tactron/core/installation';
import { landingName, landingParts, sizeText, type Job } from '@tactron/core/job';
import { contactsOf } from '@tactron/core/parts';
import { isControl, terminalRows, type TerminalVolts } from '@tactron/core/records';
import { trialsOf } from '@tactron/core/trials';
import { deviceKinds, sayFaults, sayMark, sayName, tasksOf } from '@tactron/core/words';
import type { SaidNight } from './compute.types';
import { saidStrip, type SaidStrip } from './said/strip';

/** A terminal of the device in words: what it does, what lands there, and what a meter must show. */
export interface SaidTerminal {
  readonly terminal: string;
  readonly task: string;
  readonly control: boolean;
  readonly ends: readonly {
    readonly number: string;
    readonly text: string;
    readonly far: string;
    readonly farPart: string;
    readonly cable: string;
  }[];
  readonly setting: string;
  /** Against which landing it is measured; empty where nothing is. */
  readonly against: string;
  readonly expects: readonly { readonly when: string; readonly volts: number }[];
}

/** Every terminal in use, in the order in which they lie on the device; nothing without a plan. */
function terminalsOf(job: Job, profile: Profile): SaidTerminal[] {
  const { adopted } = job;
  if (!adopted) return [];
  const tagOf = (id: string): string => adopted.devices[id]?.tag ?? id;
  const name = (landing: string): string => {
    const { device, terminal } = landingParts(landing);
    return `${tagOf(device)}:${terminal}`;
  };
  const when = ({ device, position, share }: TerminalVolts): string => {
    if (!device) return 'at rest';
    if (share !== undefined) return `${tagOf(device)} at ${share * 100} %`;
    const set = contactsOf(adopted.devices[device]);
    const worked = position ?? set?.positions.find((p) => p !== set.rest) ?? '';
    return `${tagOf(device)} ${worked}`.trim();
  };
  const { installation } = trialsOf(job, profile);
  const tasks = tasksOf(job, profile, installation.device);
  const sources = new Set(installedOf(installation, 'supply').map((s) => s.id));
  return terminalRows(job, profile).map((r) => {
    const setting = r.setting && profile.settings[r.setting.code];
    return {
      terminal: `${tagOf(adopted.device)}:${r.terminal}`,
      task: tasks[r.terminal] ?? '',
      control: isControl(profile, r.terminal),
      ends: r.ends.map((e) => {
        const { device } = landingParts(e.far);
        return {
          number: e.number,
          text: `${sizeText(e.size)} ${e.colour}`,
          far: name(e.far),
          farPart: sources.has(device)
            ? 'supply'
            : (deviceKinds[adopted.devices[device]?.kind ?? ''] ?? ''),
          cable: e.cable,
        };
      }),
      setting: r.setting
        ? `${r.setting.code} = ${[r.setting.value, setting?.choices?.[String(r.setting.value)]].filter((x) => x !== undefined).join(' · ')}`
        : '',
      against: r.against === undefined ? '' : name(r.against),
      expects: r.expects.map((e) => ({ when: when(e), volts: e.volts })),
    };
  });
}

/** The panel card: terminals of the device, and what the job does. */
export interface SaidPanel {
  readonly terminals: readonly SaidTerminal[];
  readonly strip: SaidStrip;
}

const worker = {
  /** What the card tells beside plan and settings; null without a plan. */
  panel(job: Job, profile: Profile): SaidPanel | null {
    if (!job.adopted) return null;
    return { terminals: terminalsOf(job, profile), strip: saidStrip(stripOf(job, profile)) };
  },

  /** The likeliest faults of the machine in use; none without a plan. */
  night(job: Job, profile: Profile): SaidNight[] {
    if (!job.adopted) return [];
    const terminals = terminalsOf(job, profile);
    return nightCard(job, profile).map((fault) => saidNight(fault, job, terminals));
  },
};

/** What is behind one row of the night card, in words. */
function saidNight(fault: NightFault, job: Job, terminals: readonly SaidTerminal[]): SaidNight {
  const tag = job.adopted?.devices[fault.part ?? '']?.tag;
  const said = fault.faults.map((f) => sayFaults([f], job));
  // What is of one sort is looked at in one go: every end that may be loose, not those of the first wire alone.
  const alike = fault.faults.filter((f) => f.kind === fault.faults[0].kind);
  const after = fault.shows ? `, at “${sayMark(fault.shows)}”` : '';
  // A terminal of the device that one of the wires ends on has volts that can be compared.
  const ends = fault.faults.flatMap((f) => {
    const wire = f.kind === 'open' ? job.adopted?.wires[f.wire] : undefined;
    return wire ? [wire.from, wire.to].map((at) => landingName(job.adopted?.devices, at)) : [];
  });
  const at = terminals.find((t) => ends.includes(t.terminal) && t.expects.length > 1);
  const volts = at
    ? ` ${at.terminal} against ${at.against}: ${at.expects.map((e) => `${e.when} ${e.volts} V`).join(', ')}.`
    : '';
  return {
    noticed: `${upper(sayName(fault.is))}${after}`,
    likely: `${tag ? `${tag}: ` : ''}${[...new Set(said.map((s) => s.what))].join(' ')}`,
    look: `${sayFaults(alike, job).act}${volts}`,
  };
}

const upper = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;

export type CardWorker = typeof worker;
expose(worker);
