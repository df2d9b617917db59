import {
  factorySettings,
  hasKeys,
  identified,
  isInput,
  modelOf,
  readyMades,
  roleSetting,
  roleValue,
  settingForRole,
  type Profile,
  type ReadyMade,
  type SettingValues,
} from '../catalogue/index.js';
import { sortedEntries, type Job } from '../job/index.js';
import { keyInputs } from './key-inputs.js';
import { keyingParts, KeySheet, type KeyingPart, type KeyLine } from './key-sheet.js';
import { countPresses } from './keystrokes.js';
import type { PlannedSettings } from './settings.js';

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
    'ai2.mode',
    'ai2.lowPct',
    'ai2.highPct',
    'ai2.hzAtLow',
    'ai2.hzAtHigh',
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

/** What of a session is chosen, beside the values. */
export interface KeyingChoice {
  /** Values the device leaves the factory with: what is wiped goes back to them. */
  readonly factory?: SettingValues;
  /** The station has an emergency stop, which is pressed in meanwhile. */
  readonly estop?: boolean;
  /** Ready-made arrangement of the device that is keyed first, where it brings about something of the plan. */
  readonly readyMade?: string | undefined;
}

/** Key presses of lines. */
const pressesOf = (lines: readonly KeyLine[]): number =>
  lines.reduce((sum, { presses }) => sum + countPresses(presses), 0);

/**
 * The settings to change, in an order in which the motor cannot move until command is handed over last: keypad command
 * first, motor plate, limits and ramps, the identification run where the device has one, input tasks (occupied ones freed
 * first, pairs together), reference, outputs, protection and restart, command to the terminals, read back.
 *
 * What was found is noted before anything is changed, the source of command first. Where nothing that is to be keyed can make
 * the motor start, turn round or let go, one hold at rest is enough.
 *
 * @param found values in the device now
 */
export function keyingOrder(
  profile: Profile,
  found: SettingValues,
  planned: PlannedSettings,
  choice: KeyingChoice = {},
): KeyLine[] {
  const made = readyMades(profile).find((m) => m.key === choice.readyMade);
  return linesOf(
    profile,
    found,
    planned,
    choice,
    made && helps(profile, made, found, planned) ? made : undefined,
  );
}

/** Whether a ready-made arrangement brings about something that is planned and not held yet, beside who commands. */
function helps(
  profile: Profile,
  { sets }: ReadyMade,
  found: SettingValues,
  planned: PlannedSettings,
): boolean {
  const command = roleSetting(profile, 'commandSource');
  return Object.entries(sets).some(
    ([code, value]) => code !== command && planned[code]?.value === value && found[code] !== value,
  );
}

function linesOf(
  profile: Profile,
  found: SettingValues,
  planned: PlannedSettings,
  { factory = found, estop = false }: KeyingChoice,
  made: ReadyMade | undefined,
): KeyLine[] {
  const sheet = new KeySheet(profile, found, factory);
  const codes = sortedEntries(profile.settings).flatMap(([code]) =>
    planned[code] === undefined ? [] : [code],
  );
  const isDue = (code: string): boolean => sheet.now[code] !== planned[code].value;
  const due = codes.filter(isDue);
  const measured = measures(profile, planned, made ? [...due, ...made.wipes] : due, sheet, factory);
  const moving = measured || due.some((code) => mayMove(profile, code));
  // Dials and switches are set with everything off, and read when the power comes.
  if (due.length > 0 && !hasKeys(profile)) {
    sheet.hold('makeSafe', 'dialsDead');
    sheet.hold('makeSafe', 'noteAsFound');
  } else if (due.length > 0 && !moving) sheet.hold('makeSafe', 'atRest');
  else if (moving) {
    if (estop) sheet.hold('makeSafe', 'estopIn');
    sheet.hold('makeSafe', 'openRunContacts');
    sheet.hold('makeSafe', 'noteAsFound');
    takeCommand(sheet, 'makeSafe');
    if (made) takeReadyMade(sheet, made);
  }
  for (const part of keyingParts) {
    const here = codes.filter((code) => partOf(profile, code) === part);
    if (part === 'handOver' && here.some(isDue)) sheet.hold('handOver', 'contactsStillOpen');
    if (part === 'identify' && measured) {
      sheet.hold('identify', 'identify');
      sheet.hold('identify', 'stillAgain');
    }
    if (part === 'inputs') keyInputs(sheet, planned, here);
    else for (const code of here) sheet.change(part, code, planned[code].value, planned[code].why);
  }
  sheet.hold('readBack', 'readBack');
  return sheet.lines;
}

/** Whether the device has to measure its motor: its data are planned, and it has not, or some of them are keyed anew. */
function measures(
  profile: Profile,
  planned: PlannedSettings,
  keyed: readonly string[],
  { now }: KeySheet,
  factory: SettingValues,
): boolean {
  const { voids = [] } = profile.identification ?? {};
  return (
    voids.some((code) => planned[code] !== undefined) &&
    (!identified(profile, now, factory) || keyed.some((code) => voids.includes(code)))
  );
}

/** A ready-made arrangement first of all; it may hand command to the terminals, so everything is made still again after it. */
function takeReadyMade(sheet: KeySheet, made: ReadyMade): void {
  const { code, value, name, wipes } = made;
  const why = { code: 'readyMade', args: { name, wipes: wipes.join(', ') } };
  sheet.change('makeSafe', code, value, why);
  sheet.hold('makeSafe', 'afterReadyMade');
  takeCommand(sheet, 'again');
}

/**
 * What is keyed into a device for the plan that was adopted: a plan that waits for its adoption is not keyed.
 *
 * @param held values in the device now
 * @returns nothing without an adopted plan
 * @example keyingLines(job, profile, held).map((line) => line.code ?? line.hold)
 */
export const keyingLines = (
  { adopted, decisions, profile: { model } }: Pick<Job, 'adopted' | 'decisions' | 'profile'>,
  profile: Profile,
  held: SettingValues,
): KeyLine[] => {
  const known = modelOf(profile, model);
  return adopted
    ? keyingOrder(profile, held, adopted.settings, {
        ...(known ? { factory: factorySettings(profile, known) } : {}),
        estop: adopted.devices['estop'] !== undefined,
        readyMade: decisions.readyMade,
      })
    : [];
};

/** One way of keying: setting by setting, or beginning with an arrangement that the device has ready. */
export interface KeyingWay {
  /** Absent for setting by setting. */
  readonly readyMade?: string;
  readonly name: string;
  /** Values to key. */
  readonly settings: number;
  readonly presses: number;
  /** Settings of the plan that it sets back to the factory's values, and that are keyed again after it. */
  readonly again: readonly string[];
}

/**
 * The ways of keying what the device does not hold yet, setting by setting first; of the ready-made arrangements those that
 * bring about something of the plan.
 *
 * @example keyingWays(job, profile, held).map((w) => w.presses) // [412, 398]
 */
export function keyingWays(
  job: Pick<Job, 'adopted' | 'decisions' | 'profile'>,
  profile: Profile,
  held: SettingValues,
): KeyingWay[] {
  const lines = (readyMade: string | undefined): KeyLine[] =>
    keyingLines({ ...job, decisions: { ...job.decisions, readyMade } }, profile, held);
  const told = (of: readonly KeyLine[]) => ({
    settings: of.filter((l) => l.code !== undefined).length,
    presses: pressesOf(of),
  });
  const singly = lines(undefined);
  return [
    { name: '', ...told(singly), again: [] },
    ...readyMades(profile).flatMap(({ key, name, code, wipes }): KeyingWay[] => {
      const of = lines(key);
      if (!of.some((l) => l.code === code)) return [];
      const again = wipes.filter((w) => of.some((l) => l.code === w));
      return [{ readyMade: key, name, ...told(of), again }];
    }),
  ];
}

/** Command to the keypad, where the terminals have it. */
function takeCommand(sheet: KeySheet, line: 'makeSafe' | 'again'): void {
  const { profile, now } = sheet;
  const keypad = settingForRole(profile, 'commandSource', 'keypad');
  if (!keypad || roleValue(profile, now, 'commandSource') === 'keypad') return;
  const { code, value } = keypad;
  sheet.change('makeSafe', code, value, { code: 'makeSafe', args: {} }, { key: `${code}.${line}` });
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
