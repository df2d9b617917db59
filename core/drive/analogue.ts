/** How an analogue signal becomes a frequency: f = fAtLow + (x − xLow)/(xHigh − xLow)·(fAtHigh − fAtLow), clamped. */
export interface AnalogueScale {
  readonly xLow: number;
  readonly xHigh: number;
  readonly hzAtLow: number;
  readonly hzAtHigh: number;
}

/**
 * Frequency for a signal.
 *
 * @returns clamped to the two ends, and as it would be without clamping
 * @throws RangeError when both ends of the signal are the same
 * @example scaleAnalogue(5, { xLow: 0, xHigh: 10, hzAtLow: 0, hzAtHigh: 50 }).hz // 25
 */
export function scaleAnalogue(x: number, s: AnalogueScale): { hz: number; hzUnclamped: number } {
  if (s.xLow === s.xHigh)
    throw new RangeError('the signal has no span: its low and high end are the same');
  const hzUnclamped = s.hzAtLow + ((x - s.xLow) / (s.xHigh - s.xLow)) * (s.hzAtHigh - s.hzAtLow);
  const [low, high] = s.hzAtLow < s.hzAtHigh ? [s.hzAtLow, s.hzAtHigh] : [s.hzAtHigh, s.hzAtLow];
  return { hz: Math.min(Math.max(hzUnclamped, low), high), hzUnclamped };
}
