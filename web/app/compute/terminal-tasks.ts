import type { Profile } from '@tactron/core/catalogue';
import type { InstalledDevice } from '@tactron/core/installation';
import type { Job } from '@tactron/core/job';

/** What a relay is called by its task. */
type Names = Readonly<Record<string, string>>;

/** Words of a role: `jogForward` → `jog forward`. */
const inWords = (role: string): string =>
  role
    .replaceAll('.', ' ')
    .replace(/([A-Z])/gu, ' $1')
    .toLowerCase();

const contacts = { common: 'com', no: 'make', nc: 'break' } as const;

/** What a terminal is there for, by its kind. */
function byKind(
  terminal: Profile['terminals'][string],
  device: InstalledDevice,
  relayNames: Names,
): string {
  switch (terminal.kind) {
    case 'enableInput':
      return `enable ${terminal.channel}`;
    case 'supply24':
      return '+24 V';
    case 'zeroVolt':
      return '0 V';
    case 'inputCommon':
    case 'analogueCommon':
      return 'common';
    case 'reference10':
      return 'dial +';
    case 'analogueInput':
      return 'speed';
    case 'analogueOutput':
      return 'output';
    case 'relay': {
      const task = device.relays.find((r) => r.id === terminal.relay)?.task ?? '';
      return `${relayNames[task] ?? inWords(task)} ${contacts[terminal.part]}`;
    }
    default:
      return '';
  }
}

/**
 * What each terminal of the device does in this job: its task where the plan gives it one, else what it is by its kind.
 *
 * @example tasksOf(job, profile, installation.device, relayNames)['D1'] // 'stop'
 */
export function tasksOf(
  job: Job,
  profile: Profile,
  device: InstalledDevice,
  relayNames: Names,
): Readonly<Record<string, string>> {
  const given = new Map(
    Object.entries(job.adopted?.assignments ?? {}).map(([id, a]) => [a.at, id] as const),
  );
  return Object.fromEntries(
    Object.entries(profile.terminals).map(([terminal, spec]) => {
      const id = given.get(`${device.id}:${terminal}`);
      return [terminal, id === undefined ? byKind(spec, device, relayNames) : inWords(id)];
    }),
  );
}
