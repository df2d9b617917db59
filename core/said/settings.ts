import { identificationWays, type Profile, type Setting, type Value } from '../catalogue/index.js';
import type { Job } from '../job/index.js';
import type { expectedPhaseOhm } from '../line/index.js';
import { keyPresses, type KeyLine } from '../plan/index.js';
import type { SettingRow } from '../records/index.js';
import { panelSettingNames, say } from '../words/index.js';
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

/** What stands in place of a value that nobody can plan, where it is not the process that decides it. */
const unplanned: Readonly<Record<string, string>> = {
  zeroTrim: 'where the calibration leaves it',
  spanTrim: 'where the calibration leaves it',
  fullScale: 'not entered on the Scheme stage',
};

/** Something that is set elsewhere in the panel, in words. */
function saidPanelRow(row: SettingRow): SaidRow {
  const told = (value: Value | undefined): string =>
    value === undefined || value === '' ? '' : `${String(value)}${row.unit ? ` ${row.unit}` : ''}`;
  return {
    ...row,
    name: panelSettingNames[row.name] ?? row.name,
    group: 'panel',
    protects: false,
    limits: {},
    factoryText: '',
    foundText: told(row.found),
    plannedText: told(row.planned) || (unplanned[row.name] ?? 'by the process: noted as it stands'),
    leftText: told(row.left),
    choices: [],
    reason: '',
  };
}

/** A line of the three sets in words. */
export function saidRow(row: SettingRow, profile: Profile, job: Job): SaidRow {
  if (row.panel) return saidPanelRow(row);
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
    plannedText:
      row.measured && row.planned === row.factory
        ? 'measured by the device'
        : valueText(setting, row.planned),
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
  phaseOhm: ReturnType<typeof expectedPhaseOhm> = undefined,
): SaidLine[] {
  return lines.map((line): SaidLine => {
    const setting = line.code === undefined ? undefined : profile.settings[line.code];
    const isDone = keyed[line.key] === (line.code === undefined ? true : line.to);
    return {
      ...line,
      // Where the device goes by names instead of numbers, once is enough.
      name: setting && setting.name !== line.code ? setting.name : '',
      unit: setting?.unit ?? '',
      fromText: valueText(setting, line.from),
      toText: valueText(setting, line.to),
      reason: say(line.why),
      shape: shapeOf(setting, line.to),
      said: line.note ? say(line.note) : '',
      ...(line.hold === 'identify'
        ? identifyLine(profile, keyed[line.key], phaseOhm)
        : { done: isDone }),
    };
  });
}

/** How the device measures its motor, and whether it has: then its way is what was noted. */
function identifyLine(
  profile: Profile,
  noted: Value | undefined,
  phaseOhm: ReturnType<typeof expectedPhaseOhm>,
): Pick<SaidLine, 'done' | 'identify'> {
  const { identification, settings, keypad } = profile;
  if (!identification) return { done: noted !== undefined };
  const { setting, ways, results, shows, failures } = identification;
  const { factory } = settings[setting];
  return {
    done: identificationWays.some((way) => way === noted),
    identify: {
      ways: identificationWays.flatMap((id) => {
        const way = ways[id];
        if (!way) return [];
        const { value, seconds, uncoupled } = way;
        return [
          {
            id,
            code: setting,
            to: valueText(settings[setting], value),
            seconds,
            uncoupled,
            presses: keyPresses(profile, setting, factory as Value, value),
          },
        ];
      }),
      startKey: keypad.keys.start ?? '',
      during: shows.during,
      done: shows.done,
      results: results.map((code) => ({
        code,
        name: settings[code].name === code ? '' : settings[code].name,
        unit: settings[code].unit,
        min: settings[code].min ?? 0,
        max: settings[code].max ?? Infinity,
        ...(phaseOhm && settings[code].unit === 'Ω' ? { expected: phaseOhm } : {}),
      })),
      failures,
    },
  };
}

/** Where a dial or a switch has to stand; null for what is keyed. */
function shapeOf(setting: Setting | undefined, to: Value | undefined): SaidLine['shape'] {
  if (setting?.type === 'switch') return { kind: 'switch', on: to === true };
  if (setting?.type !== 'dial' || typeof to !== 'number') return null;
  const { min = 0, max = 100, unit = '', note = '' } = setting;
  return { kind: 'dial', min, max, unit, note, at: to };
}
