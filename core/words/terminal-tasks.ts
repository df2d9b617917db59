import type { Job } from '../job/index.js';
import { kinds } from './parts-english.js';
import { relayNames } from './requirements-english.js';

/** A terminal of a profile, as far as words need it. */
interface TerminalOf {
  readonly kind: string;
  readonly channel?: unknown;
  readonly relay?: unknown;
  readonly part?: unknown;
}

/** The device, as far as words need it. */
interface DeviceOf {
  readonly id: string;
  readonly relays: readonly { readonly id: string; readonly task: string }[];
}

/** Words of a role: `jogForward` → `jog forward`. */
export const inWords = (role: string): string =>
  role
    .replaceAll('.', ' ')
    .replace(/([A-Z])/gu, ' $1')
    .toLowerCase();

const contacts: Readonly<Record<string, string>> = { common: 'com', no: 'make', nc: 'break' };

/** What a relay of the device does. */
const relayTask = ({ relays }: DeviceOf, relay: unknown): string => {
  const task = relays.find((r) => r.id === relay)?.task ?? '';
  return relayNames[task] ?? inWords(task);
};

/** What a terminal is there for, by its kind. */
function byKind(terminal: TerminalOf, device: DeviceOf): string {
  switch (terminal.kind) {
    case 'enableInput':
      return `enable ${String(terminal.channel)}`;
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
    case 'relay':
      return `${relayTask(device, terminal.relay)} ${contacts[String(terminal.part)]}`;
    default:
      return '';
  }
}

/**
 * What each terminal of the device does in this job: its task where the plan gives it one, else what it is by its kind.
 *
 * @example tasksOf(job, profile, installation.device)['D1'] // 'stop'
 */
export function tasksOf(
  job: Pick<Job, 'adopted'>,
  profile: { readonly terminals: Readonly<Record<string, TerminalOf>> },
  device: DeviceOf,
): Readonly<Record<string, string>> {
  const given = new Map(
    Object.entries(job.adopted?.assignments ?? {}).map(([id, a]) => [a.at, id] as const),
  );
  return Object.fromEntries(
    Object.entries(profile.terminals).map(([terminal, spec]) => {
      const id = given.get(`${device.id}:${terminal}`);
      return [terminal, id === undefined ? byKind(spec, device) : inWords(id)];
    }),
  );
}

/** What parts are there for whose role says less than their kind, shorter than the kind itself. */
const short: Readonly<Record<string, string>> = {
  isolator: 'disconnector',
  supplyPlug: 'plug of the supply',
  motorIsolator: 'isolator',
  breakerThreePole: 'breaker',
  breakerTwoPole: 'breaker',
  controlTransformer: 'transformer',
  supplyThreePhase: 'supply',
  supplySinglePhase: 'supply',
  brakingResistor: 'braking',
};

/** Roles that say what a part is there for. */
const telling =
  /^(?:button|select|selector|interlock|lamp|contact|contactor|relay|key|end)\.(.+)$/u;

/** A word in the middle of a sentence; units keep their letters. */
const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

function functionOf(id: string, kind: string): string {
  if (id === 'estop') return 'e-stop';
  const role = telling.exec(id)?.[1];
  return role === undefined ? (short[kind] ?? lowerFirst(kinds[kind] ?? kind)) : inWords(role);
}

/**
 * What each part and each terminal of the device is there for, as it stands beside an element of a circuit: by the id of the
 * part, or by the landing.
 *
 * @example circuitWords(job, profile, installation.device)['button.stop'] // 'stop'
 */
export function circuitWords(
  job: Pick<Job, 'adopted'>,
  profile: { readonly terminals: Readonly<Record<string, TerminalOf>> },
  device: DeviceOf,
): Record<string, string> {
  const named: Record<string, string> = {};
  for (const [id, part] of Object.entries(job.adopted?.devices ?? {}))
    if (id !== device.id) named[id] = functionOf(id, part.kind);
  for (const [terminal, does] of Object.entries(tasksOf(job, profile, device))) {
    const spec = profile.terminals[terminal];
    if (spec.kind === 'relay') named[`${device.id}:${terminal}`] = relayTask(device, spec.relay);
    else if (!inner.includes(spec.kind)) named[`${device.id}:${terminal}`] = does;
  }
  return named;
}

/** Terminals whose place in the circuit tells what they are. */
const inner: readonly string[] = ['supply24', 'zeroVolt', 'inputCommon', 'analogueCommon'];
