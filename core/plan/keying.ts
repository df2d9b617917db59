import {
  changesSpeed,
  hasKeys,
  isInput,
  roleSetting,
  roleValue,
  settingForRole,
  taskCode,
  type Profile,
  type SettingValues,
  type Value,
} from '../catalogue/index.js';
import { sortedEntries, type Job } from '../job/index.js';
import { keyPresses, type KeyPress } from './keystrokes.js';
import type { PlannedSettings } from './settings.js';

/** Parts of the keying order; nothing of a later part comes before anything of an earlier one. */
export const keyingParts = [
  'makeSafe',
  'motor',
  'limits',
  'inputs',
  'reference',
  'outputs',
  'protection',
  'handOver',
  'readBack',
] as const;
export type KeyingPart = (typeof keyingParts)[number];

/** One line of the keying sheet: something to do, or a setting to change. */
export interface KeyLine {
  readonly key: string;
  readonly part: KeyingPart;
  /** A hold point in words (`openRunContacts`, `noteAsFound`, `readBack`), or none for a setting. */
  readonly hold?: string;
  readonly code?: string;
  readonly from?: Value;
  readonly to?: Value;
  readonly presses: readonly KeyPress[];
  readonly why: { readonly code: string; readonly args: Readonly<Record<string, Value>> };
}

const partOfGroup: Record<string, KeyingPart> = {
  first: 'motor',
  motor: 'motor',
  limits: 'limits',
  ramps: 'limits',
  inputs: 'inputs',
  reference: 'reference',
  outputs: 'outputs',
  protection: 'protection',
  restart: 'protection',
  command: 'handOver',
};

/** Part of the order in which a setting is keyed: by what it does, otherwise by its group. */
export function partOf(profile: Profile, code: string): KeyingPart {
  if (code === roleSetting(profile, 'commandSource')) return 'handOver';
  const held = Object.keys(profile.taskSettings).filter((id) => profile.taskSettings[id] === code);
  if (held.length) return held.some((id) => isInput(profile, id)) ? 'inputs' : 'outputs';
  for (const [part, roles] of Object.entries(partRoles))
    if (roles.some((role) => roleSetting(profile, role) === code)) return part as KeyingPart;
  return partOfGroup[profile.settings[code].group] ?? 'limits';
}

/** How fast the frequency moves: nothing of it moves a motor that stands. */
const rampRoles = ['accelS', 'decelS', 'accel2S', 'decel2S', 'sCurvePct', 'reverseDeadMs'] as const;

/** How a soft starter starts and stops. */
const startRoles = [
  'rampKind',
  'beginPct',
  'kickPct',
  'kickS',
  'rampS',
  'limitPct',
  'torqueLimitPct',
  'startLimitS',
  'stopKind',
  'softStopS',
  'endTorquePct',
  'inhibitS',
] as const;

const partRoles: Partial<Record<KeyingPart, readonly string[]>> = {
  motor: [
    'motorPowerKw',
    'motorV',
    'motorA',
    'motorHz',
    'motorRpm',
    'motorPowerFactor',
    'overloadA',
    'connectionKind',
    'tripClass',
    'thermistor',
  ],
  limits: ['minHz', 'maxHz', ...rampRoles, 'stopMode', 'noReverse', ...startRoles],
  inputs: ['startMethod', 'filterMs'],
  reference: [
    'referenceSource',
    'ai1.mode',
    'ai1.lowPct',
    'ai1.highPct',
    'ai1.hzAtLow',
    'ai1.hzAtHigh',
    'jogHz',
    'keypadHz',
  ],
  protection: [
    'onPowerReturn',
    'onFaultReset',
    'onReferenceLoss',
    'onControlReturn',
    'onMainsReturn',
    'autoResetAttempts',
  ],
};

/**
 * The settings to change, in an order in which the motor cannot move until command is handed over last: keypad command
 * first, motor plate, limits and ramps, input tasks (occupied ones freed first, pairs together), reference, outputs,
 * protection and restart, command to the terminals, read back.
 *
 * What was found is noted before anything is changed, the source of command first. Where nothing that is to be keyed can make
 * the motor start, turn round or let go, one hold at rest is enough.
 *
 * @param found values in the device now
 * @param estop the station has an emergency stop, which is pressed in meanwhile
 */
export function keyingOrder(
  profile: Profile,
  found: SettingValues,
  planned: PlannedSettings,
  estop = false,
): KeyLine[] {
  const lines: KeyLine[] = [];
  const now: Record<string, Value> = { ...found };
  const hold = (part: KeyingPart, name: string): void =>
    void lines.push({
      key: `hold.${name}`,
      part,
      hold: name,
      presses: [],
      why: { code: `hold.${name}`, args: changesSpeed(profile) ? {} : { fixed: true } },
    });
  const change = (
    part: KeyingPart,
    code: string,
    to: Value,
    why: KeyLine['why'],
    key = code,
  ): void => {
    if (now[code] === to) return;
    lines.push({
      key,
      part,
      code,
      from: now[code],
      to,
      presses: keyPresses(profile, code, now[code], to),
      why,
    });
    now[code] = to;
  };
  const codes = sortedEntries(profile.settings).flatMap(([code]) =>
    planned[code] === undefined ? [] : [code],
  );
  const due = codes.filter((code) => now[code] !== planned[code].value);
  const moving = due.some((code) => mayMove(profile, code));
  // Dials and switches are set with everything off, and read when the power comes.
  const dead = !hasKeys(profile);
  if (due.length > 0 && dead) {
    hold('makeSafe', 'dialsDead');
    hold('makeSafe', 'noteAsFound');
  } else if (due.length > 0 && !moving) hold('makeSafe', 'atRest');
  else if (moving) {
    if (estop) hold('makeSafe', 'estopIn');
    hold('makeSafe', 'openRunContacts');
    hold('makeSafe', 'noteAsFound');
    takeCommand(profile, now, change);
  }
  for (const part of keyingParts) {
    const here = codes.filter((code) => partOf(profile, code) === part);
    if (part === 'handOver' && here.some((code) => now[code] !== planned[code].value))
      hold('handOver', 'contactsStillOpen');
    if (part === 'inputs') keyInputs(profile, now, planned, here, change);
    else for (const code of here) change(part, code, planned[code].value, planned[code].why);
  }
  hold('readBack', 'readBack');
  return lines;
}

/**
 * What is keyed into a device for the plan that was adopted: a plan that waits for its adoption is not keyed.
 *
 * @param held values in the device now
 * @returns nothing without an adopted plan
 * @example keyingLines(job, profile, held).map((line) => line.code ?? line.hold)
 */
export const keyingLines = (
  { adopted }: Pick<Job, 'adopted'>,
  profile: Profile,
  held: SettingValues,
): KeyLine[] =>
  adopted
    ? keyingOrder(profile, held, adopted.settings, adopted.devices['estop'] !== undefined)
    : [];

/** Command to the keypad first, where the terminals have it. */
function takeCommand(profile: Profile, now: SettingValues, change: Change): void {
  const keypad = settingForRole(profile, 'commandSource', 'keypad');
  if (!keypad || roleValue(profile, now, 'commandSource') === 'keypad') return;
  const { code, value } = keypad;
  change('makeSafe', code, value, { code: 'makeSafe', args: {} }, `${code}.makeSafe`);
}

/** Settings that change nothing at a motor that stands: its plate, ramps, the highest frequency, speeds that something else must ask for. */
const lightRoles: readonly string[] = [
  ...(partRoles.motor ?? []),
  ...startRoles,
  'maxHz',
  ...rampRoles,
  'jogHz',
];

/** Whether keying a setting may start, reverse or let go the motor under some control that is given just then. */
export const mayMove = (profile: Profile, code: string): boolean =>
  profile.settings[code].wipes !== undefined ||
  !lightRoles.some((role) => roleSetting(profile, role) === code);

type Change = (
  part: KeyingPart,
  code: string,
  to: Value,
  why: KeyLine['why'],
  key?: string,
) => void;

function keyInputs(
  profile: Profile,
  now: Record<string, Value>,
  planned: PlannedSettings,
  codes: readonly string[],
  change: Change,
): void {
  const tasks = new Set(Object.values(profile.taskSettings));
  const none = taskCode(profile, 'none');
  for (const code of codes.filter((c) => !tasks.has(c)))
    change('inputs', code, planned[code].value, planned[code].why);
  const inputs = codes.filter((c) => tasks.has(c));
  const holder = (task: Value, but: string): string | undefined =>
    task === none ? undefined : inputs.find((code) => code !== but && now[code] === task);
  let open = [...inputs]
    .sort((x, y) => pairRank(profile, planned[x].value) - pairRank(profile, planned[y].value))
    .filter((code) => now[code] !== planned[code].value);
  while (open.length > 0) {
    const next = open.find((code) => holder(planned[code].value, code) === undefined);
    if (next !== undefined) change('inputs', next, planned[next].value, planned[next].why);
    else if (none !== undefined) {
      const ring = holder(planned[open[0]].value, open[0]) as string;
      change('inputs', ring, none, { code: 'freeTask', args: { code: open[0] } }, `${ring}.free`);
    } else return;
    open = open.filter((code) => now[code] !== planned[code].value);
  }
}

/** Tasks that belong together come one after the other: the halves of a pair share a rank, `none` goes first. */
function pairRank(profile: Profile, value: Value): number {
  const task = Object.values(profile.inputTasks).find((t) => t.code === value);
  if (!task || task.meaning === 'none') return 0;
  return task.needs || ['start', 'stop', 'startForward', 'startReverse'].includes(task.meaning)
    ? 1
    : 2;
}

/** Holds that keep the motor still while something is keyed. */
const stillHolds: readonly string[] = ['openRunContacts', 'atRest', 'dialsDead'];

/** What is wrong with an order of lines; empty for one in which nothing can move before hand-over. */
export function keyingFaults(
  profile: Profile,
  found: SettingValues,
  lines: readonly KeyLine[],
): { rule: string; line: string }[] {
  const faults: { rule: string; line: string }[] = [];
  const now: Record<string, Value> = { ...found };
  const command = roleSetting(profile, 'commandSource');
  const none = taskCode(profile, 'none');
  let part = 0;
  let held = false;
  const taskCodes = Object.entries(profile.taskSettings)
    .filter(([id]) => isInput(profile, id))
    .map(([, code]) => code);
  lines.forEach((line, i) => {
    const at = keyingParts.indexOf(line.part);
    if (at < part) faults.push({ rule: 'keying.order', line: line.key });
    part = Math.max(part, at);
    if (line.hold && stillHolds.includes(line.hold)) held = true;
    if (line.code === undefined || line.to === undefined) return;
    if (!held) faults.push({ rule: 'keying.contactsNotOpen', line: line.key });
    const light = line.code !== undefined && !mayMove(profile, line.code);
    const commands = hasKeys(profile) && roleValue(profile, now, 'commandSource') === 'terminals';
    if (!light && line.code !== command && commands)
      faults.push({ rule: 'keying.terminalsCommand', line: line.key });
    now[line.code] = line.to;
    if (line.code === command && roleValue(profile, now, 'commandSource') === 'terminals') {
      if (lines.slice(i + 1).some((later) => later.code !== undefined))
        faults.push({ rule: 'keying.handOverEarly', line: line.key });
    }
    const twice =
      taskCodes.includes(line.code) &&
      line.to !== none &&
      taskCodes.some((code) => code !== line.code && now[code] === line.to);
    if (twice && profile.duplicateTask !== 'accepted')
      faults.push({ rule: 'keying.taskStillHeld', line: line.key });
    const macro = profile.settings[line.code].wipes;
    if (
      macro &&
      lines
        .slice(0, i)
        .some((earlier) => earlier.code !== undefined && macro.includes(earlier.code))
    )
      faults.push({ rule: 'keying.macroAfterMotor', line: line.key });
  });
  return faults;
}
