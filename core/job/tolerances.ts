import * as v from 'valibot';

/**
 * By how much a reading may differ where nobody settled otherwise. What ends in `Share` is a share of the value or of the
 * span, the others are in the unit of the reading; where a kind has both, the larger counts.
 */
export const usualTolerances = {
  /** Supply volts (IEC 60038). */
  supplyShare: 0.1,
  /** Furthest pole of a supply from the mean of them, % (compatibility level of class 3, IEC 61000-2-4). */
  supplyUnbalancePct: 3,
  /** DC link with the motor stopped, of √2·U. */
  linkShare: 0.03,
  /** Control volts. */
  controlShare: 0.05,
  /** Analogue signals, of their span. */
  analogueShare: 0.01,
  /** A dial put to a place by eye, of its travel; its ends are stops. */
  dialShare: 0.1,
  /** Output frequency, Hz and share of the highest. */
  hz: 0.1,
  hzShare: 0.005,
  /** Speed of the shaft. */
  rpmShare: 0.01,
  /** Ramps and warnings, s and share. */
  rampS: 0.3,
  rampShare: 0.05,
  /** Time to rest of a free machine. */
  restShare: 0.25,
  /** Furthest lead of a motor from the mean of them, unloaded, %. */
  currentUnbalancePct: 10,
  /** A protective conductor above its copper, share and Ω (IEC 60204-1 §18.2.2). */
  protectiveShare: 0.1,
  protectiveOhm: 0.05,
  /** A control wire or a loop above its copper: two landings, two lead tips. */
  wireShare: 0.1,
  wireOhm: 0.3,
} as const;

export type ToleranceName = keyof typeof usualTolerances;
export type Tolerances = Readonly<Record<ToleranceName, number>>;

export const toleranceNames = Object.keys(usualTolerances) as readonly ToleranceName[];

/** What a tolerance is given in. */
export type ToleranceUnit = 'share' | '%' | 'Hz' | 's' | 'Ω';

/**
 * Unit of a tolerance, from its name.
 *
 * @example toleranceUnit('rampS') // 's'
 */
export const toleranceUnit = (name: ToleranceName): ToleranceUnit =>
  name.endsWith('Share')
    ? 'share'
    : name.endsWith('Pct')
      ? '%'
      : name.endsWith('Ohm')
        ? 'Ω'
        : name === 'hz'
          ? 'Hz'
          : 's';

/** Largest that is taken: beyond it a reading would prove nothing. */
export const mostTolerance: Readonly<Record<ToleranceUnit, number>> = {
  share: 0.5,
  '%': 30,
  Hz: 5,
  s: 10,
  Ω: 5,
};

const limit = (name: ToleranceName) => {
  const unit = toleranceUnit(name);
  const most = mostTolerance[unit];
  const said = unit === 'share' ? `${most * 100} %` : `${most} ${unit}`;
  return v.optional(
    v.pipe(
      v.number(),
      v.finite(),
      v.gtValue(0, 'more than nothing'),
      v.maxValue(most, `at most ${said}: beyond it a reading proves nothing`),
    ),
  );
};

type Entries = Record<ToleranceName, ReturnType<typeof limit>>;

/** Tolerances that somebody settled otherwise than usual, by name. */
export const tolerancesSchema = v.strictObject(
  Object.fromEntries(toleranceNames.map((name) => [name, limit(name)])) as Entries,
);
export type OwnTolerances = v.InferOutput<typeof tolerancesSchema>;

/**
 * The tolerances that count: the usual ones, and in their place what a job took over from its site.
 *
 * @example tolerancesOf({ tolerances: { hz: 0.2 } }).hz // 0.2
 */
export const tolerancesOf = ({
  tolerances,
}: {
  readonly tolerances?: OwnTolerances;
}): Tolerances => ({
  ...usualTolerances,
  ...tolerances,
});

/**
 * Whether two sets settle the same.
 *
 * @example sameTolerances({ hz: 0.1 }, undefined) // true: it is the usual one
 */
export function sameTolerances(
  x: OwnTolerances | undefined,
  y: OwnTolerances | undefined,
): boolean {
  const [a, b] = [tolerancesOf({ tolerances: x }), tolerancesOf({ tolerances: y })];
  return toleranceNames.every((name) => a[name] === b[name]);
}
