import {
  toleranceNames,
  tolerancesOf,
  toleranceUnit,
  usualTolerances,
  type OwnTolerances,
  type ToleranceName,
} from '../job/index.js';
import { formatNumber, type DecimalMark } from '../units/index.js';

/** What a tolerance is of, in words. */
export const toleranceWords: Readonly<Record<ToleranceName, string>> = {
  supplyShare: 'volts of the supply',
  supplyUnbalancePct: 'unbalance of the supply',
  linkShare: 'volts of the DC link, motor stopped',
  controlShare: 'control volts',
  analogueShare: 'analogue signals, of their span',
  dialShare: 'a dial put to a place by eye, of its travel',
  hz: 'output frequency',
  hzShare: 'output frequency, of the highest',
  rpmShare: 'speed of the shaft',
  rampS: 'ramps and warnings',
  rampShare: 'ramps and warnings, of their time',
  restShare: 'time to rest, of its time',
  currentUnbalancePct: 'unbalance of the motor’s current, unloaded',
  protectiveShare: 'protective conductor above its copper',
  protectiveOhm: 'protective conductor, beside that',
  wireShare: 'control wire or loop above its copper',
  wireOhm: 'control wire or loop, beside that',
};

/** Those that bound only above: an unbalance, copper that reads too much. */
const oneSided: ReadonlySet<ToleranceName> = new Set([
  'supplyUnbalancePct',
  'currentUnbalancePct',
  'protectiveShare',
  'protectiveOhm',
  'wireShare',
  'wireOhm',
]);

/**
 * A tolerance as it is read: shares in per cent.
 *
 * @example toleranceText('hz', 0.1) // '±0.1 Hz'
 */
export function toleranceText(name: ToleranceName, value: number, mark: DecimalMark = '.'): string {
  const unit = toleranceUnit(name);
  const [shown, of] = unit === 'share' ? [value * 100, '%'] : [value, unit];
  return `${oneSided.has(name) ? '≤ ' : '±'}${formatNumber(shown, 3, mark)} ${of}`;
}

/**
 * Where two sets of tolerances differ, in words.
 *
 * @returns what each is of, the first's value and the second's; empty where they settle the same
 * @example tolerancesApart({ hz: 0.2 }, undefined) // [{ name: 'hz', what: 'output frequency', one: '±0.2 Hz', other: '±0.1 Hz' }]
 */
export function tolerancesApart(
  one: OwnTolerances | undefined,
  other: OwnTolerances | undefined,
  mark: DecimalMark = '.',
): { name: ToleranceName; what: string; one: string; other: string }[] {
  const [a, b] = [tolerancesOf({ tolerances: one }), tolerancesOf({ tolerances: other })];
  return toleranceNames
    .filter((name) => a[name] !== b[name])
    .map((name) => ({
      name,
      what: toleranceWords[name],
      one: toleranceText(name, a[name], mark),
      other: toleranceText(name, b[name], mark),
    }));
}

/** What a job's readings are judged by, where it is not the usual. */
export const ownTolerances = (own: OwnTolerances | undefined, mark: DecimalMark = '.'): string =>
  tolerancesApart(own, usualTolerances, mark)
    .map(({ what, one, other }) => `${what} ${one} (usual ${other})`)
    .join('; ');
