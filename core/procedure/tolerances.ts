/** Tolerances of live readings; each reading keeps the limits it was judged by. */
export const tolerances = {
  /** Control volts, share of nominal. */
  controlShare: 0.05,
  /** Supply volts, share of nominal (IEC 60038). */
  supplyShare: 0.1,
  /** Furthest pole of a supply from the mean of them, % (compatibility level of class 3, IEC 61000-2-4). */
  supplyUnbalancePct: 3,
  /** Furthest lead of a motor from the mean of them, unloaded, %. */
  currentUnbalancePct: 10,
  /** DC link with the motor stopped, share of √2·U. */
  linkShare: 0.03,
  /** Output frequency: the larger of 0.1 Hz and half a per cent of the highest. */
  hz: 0.1,
  hzShare: 0.005,
  /** Ramp times: the larger of 0.3 s and five per cent. */
  rampS: 0.3,
  rampShare: 0.05,
  /** Time to rest of a free machine, share. */
  restShare: 0.25,
  /** Share of the highest speed at which stops are tried. */
  bumpShare: 0.2,
  /** Analogue signals, share of span. */
  analogueSpan: 0.01,
} as const;

/** Tolerance of a timed ramp, s. */
export const seconds = (s: number): number => Math.max(tolerances.rampS, s * tolerances.rampShare);
