/**
 * The value a person most likely meant: two digits the wrong way round, one digit wrong, or the decimal mark moved.
 *
 * @param typed what stands there
 * @param fits whether a candidate agrees with the rest of the plate
 * @returns the first candidate that fits, or undefined
 * @example likelyTyping(4140, (rpm) => rpm === 1440) // 1440
 */
export function likelyTyping(
  typed: number,
  fits: (candidate: number) => boolean,
): number | undefined {
  const text = String(typed);
  const candidates: number[] = [];
  for (let i = 0; i + 1 < text.length; i++) {
    if (/\d\d/u.test(text.slice(i, i + 2)))
      candidates.push(Number(text.slice(0, i) + text[i + 1] + text[i] + text.slice(i + 2)));
  }
  candidates.push(typed / 10, typed * 10, typed / 100, typed * 100);
  for (let i = 0; i < text.length; i++) {
    if (!/\d/u.test(text[i])) continue;
    for (let digit = 0; digit <= 9; digit++)
      candidates.push(Number(text.slice(0, i) + String(digit) + text.slice(i + 1)));
  }
  const plausible = candidates.filter((x) => x !== typed && x > 0 && fits(x));
  return plausible[0];
}
