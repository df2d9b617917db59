import type { Profile } from '../catalogue/index.js';
import { installedOf } from '../installation/index.js';
import { landingParts, sizeText, type Job } from '../job/index.js';
import { contactsOf } from '../parts/index.js';
import { isControl, terminalRows, type TerminalVolts } from '../records/index.js';
import { trialsOf } from '../trials/index.js';
import { deviceKinds, tasksOf } from '../words/index.js';

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
export function saidTerminals(job: Job, profile: Profile): SaidTerminal[] {
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
