import type { Profile, Setting, Value } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import type { KeyLine } from '../plan/index.js';
import type { SettingRow } from '../records/index.js';
import { say } from '../words/index.js';
import type { SaidLine, SaidRow } from './types.js';

/** A choice as it stands in a list: its key and its meaning, once where both are the same. */
const choiceText = (key: string, name: string): string => (key === name ? key : `${key} · ${name}`);

/** A value as it is read at the device: a switch by where it stands, a choice by its key and its meaning. */
export function valueText(setting: Setting | undefined, value: Value | undefined): string {
  if (value === undefined) return '';
  const choice = setting?.choices?.[String(value)];
  if (setting?.type === 'switch') return `${value === true ? 'up' : 'down'} · ${choice ?? ''}`;
  if (setting?.note && value === setting.min)
    return `${String(value)}${setting.unit ? ` ${setting.unit}` : ''} · ${setting.note}`;
  if (choice) return choiceText(String(value), choice);
  return `${String(value)}${setting?.unit ? ` ${setting.unit}` : ''}`;
}

/** What a setting that somebody relies on decides. */
const reliedOn = {
  roles: ['commandSource', 'overloadA', 'maxHz', 'noReverse', 'motorA', 'stopKind', 'tripClass'],
  policies: [
    'onPowerReturn',
    'onControlReturn',
    'onMainsReturn',
    'stopMode',
    'onFaultReset',
    'noReverse',
    'startMethod',
  ],
} as const;

/** Whether somebody relies on a setting, so that its value is read before the plan is shown. */
function protects(code: string, profile: Profile): boolean {
  const holds = (of: Profile['roles'][string] | undefined): boolean =>
    typeof of === 'object' && 'setting' in of && of.setting === code;
  return (
    reliedOn.roles.some((role) => holds(profile.roles[role])) ||
    reliedOn.policies.some((policy) => holds(profile.policies[policy]))
  );
}

/** A line of the three sets in words. */
export function saidRow(row: SettingRow, profile: Profile, job: Job): SaidRow {
  const setting = profile.settings[row.code];
  const numeric = typeof row.factory === 'number';
  const why = job.adopted?.settings[row.code]?.why;
  return {
    ...row,
    name: row.name === row.code ? '' : row.name,
    group: setting.group,
    protects: protects(row.code, profile),
    limits: {
      ...(setting.min === undefined ? {} : { min: setting.min }),
      ...(setting.max === undefined ? {} : { max: setting.max }),
    },
    factoryText: valueText(setting, row.factory),
    foundText: valueText(setting, row.found),
    plannedText: valueText(setting, row.planned),
    leftText: valueText(setting, row.left),
    choices: Object.entries(setting.choices ?? {}).map(([key, name]) => ({
      value: setting.type === 'switch' ? key === 'true' : numeric ? Number(key) : key,
      name:
        setting.type === 'switch'
          ? `${key === 'true' ? 'up' : 'down'} · ${name}`
          : choiceText(key, name),
    })),
    reason: why ? say(why) : '',
  };
}

/** Lines of the keying sheet in words; a dial or a switch with where it has to stand. */
export function saidLines(
  lines: readonly KeyLine[],
  profile: Profile,
  keyed: Readonly<Record<string, Value>>,
): SaidLine[] {
  return lines.map((line): SaidLine => {
    const setting = line.code === undefined ? undefined : profile.settings[line.code];
    return {
      ...line,
      // Where the device goes by names instead of numbers, once is enough.
      name: setting && setting.name !== line.code ? setting.name : '',
      unit: setting?.unit ?? '',
      fromText: valueText(setting, line.from),
      toText: valueText(setting, line.to),
      reason: say(line.why),
      shape: shapeOf(setting, line.to),
      done: keyed[line.key] === (line.code === undefined ? true : line.to),
    };
  });
}

/** Where a dial or a switch has to stand; null for what is keyed. */
function shapeOf(setting: Setting | undefined, to: Value | undefined): SaidLine['shape'] {
  if (setting?.type === 'switch') return { kind: 'switch', on: to === true };
  if (setting?.type !== 'dial' || typeof to !== 'number') return null;
  const { min = 0, max = 100, unit = '', note = '' } = setting;
  return { kind: 'dial', min, max, unit, note, at: to };
}
