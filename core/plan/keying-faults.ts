import {
  hasKeys,
  keyedInto,
  readyMades,
  roleSetting,
  roleValue,
  taskCode,
  type Profile,
  type SettingValues,
  type Value,
} from '../catalogue/index.js';
import { halvesHeld, inputTaskCodes } from './key-inputs.js';
import { keyingParts, type KeyLine } from './key-sheet.js';
import { mayMove } from './keying.js';

/** Holds that keep the motor still while something is keyed. */
const stillHolds: readonly string[] = ['openRunContacts', 'atRest', 'dialsDead'];

/** A mistake in an order of lines, by its rule and the line at which it shows. */
interface KeyingFault {
  readonly rule: string;
  readonly line: string;
}

/**
 * What is wrong with an order of lines; empty for one in which nothing can move before hand-over.
 *
 * @param factory values that what is wiped goes back to
 */
export function keyingFaults(
  profile: Profile,
  found: SettingValues,
  lines: readonly KeyLine[],
  factory: SettingValues = found,
): KeyingFault[] {
  const faults: KeyingFault[] = [];
  let now: Record<string, Value> = { ...found };
  const command = roleSetting(profile, 'commandSource');
  let part = 0;
  let held = false;
  lines.forEach((line, i) => {
    const fault = (rule: string): void => void faults.push({ rule, line: line.key });
    const at = keyingParts.indexOf(line.part);
    if (at < part) fault('keying.order');
    part = Math.max(part, at);
    if (line.hold && stillHolds.includes(line.hold)) held = true;
    if (line.code === undefined || line.to === undefined) return;
    const earlier = lines.slice(0, i);
    if (!held) fault('keying.contactsNotOpen');
    const commands = hasKeys(profile) && roleValue(profile, now, 'commandSource') === 'terminals';
    if (mayMove(profile, line.code) && line.code !== command && commands)
      fault('keying.terminalsCommand');
    const before = now;
    now = keyedInto(profile, factory, now, line.code, line.to);
    if (line.code === command && roleValue(profile, now, 'commandSource') === 'terminals') {
      if (lines.slice(i + 1).some((later) => later.code !== undefined))
        fault('keying.handOverEarly');
    }
    if (heldTwice(profile, now, line)) fault('keying.taskStillHeld');
    if (startsWithoutStop(profile, before, now)) fault('keying.startBeforeStop');
    const wipes = profile.settings[line.code].wipes ?? [];
    if (earlier.some((e) => e.code !== undefined && wipes.includes(e.code)))
      fault('keying.macroAfterMotor');
    if (notStill(profile, earlier)) fault('keying.notStillAgain');
    const voids = profile.identification?.voids ?? [];
    if (voids.includes(line.code) && earlier.some((e) => e.hold === 'identify'))
      fault('keying.identifiedTooEarly');
  });
  return faults;
}

/** A task that another input still holds, on a device that refuses it twice. */
function heldTwice(profile: Profile, now: SettingValues, { code, to }: KeyLine): boolean {
  const tasks = inputTaskCodes(profile);
  return (
    profile.duplicateTask !== 'accepted' &&
    code !== undefined &&
    tasks.includes(code) &&
    to !== taskCode(profile, 'none') &&
    tasks.some((other) => other !== code && now[other] === to)
  );
}

/** A start that comes to an input before any stop, on a device that refuses half a pair. */
function startsWithoutStop(profile: Profile, before: SettingValues, now: SettingValues): boolean {
  if (profile.incompletePair !== 'refused') return false;
  const [was, is] = [halvesHeld(profile, before), halvesHeld(profile, now)];
  return !was.start && is.start && !is.stop;
}

/** After a ready-made arrangement, and after an identification run, everything is made still again before the next value. */
function notStill(profile: Profile, earlier: readonly KeyLine[]): boolean {
  const made = readyMades(profile);
  const last = earlier.findLast(
    (e) => e.hold !== undefined || made.some((m) => m.code === e.code && m.value === e.to),
  );
  return last !== undefined && (last.hold === undefined || last.hold === 'identify');
}
