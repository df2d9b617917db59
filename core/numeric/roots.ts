/**
 * Root of f between a and b by bisection with the secant's help (Brent's conditions in their simplest form: Ridders).
 *
 * Source: Ridders, IEEE Trans. Circuits Syst. 26 (1979) 979–980.
 *
 * @throws RangeError when f has the same sign at both ends
 * @example rootBetween((x) => x * x - 2, 0, 2) // 1.414213562373095
 */
export function rootBetween(
  f: (x: number) => number,
  a: number,
  b: number,
  tolerance = 1e-13,
): number {
  let [low, high] = [a, b];
  let [fLow, fHigh] = [f(low), f(high)];
  if (fLow === 0) return low;
  if (fHigh === 0) return high;
  if (Math.sign(fLow) === Math.sign(fHigh))
    throw new RangeError('the function has the same sign at both ends');
  for (
    let i = 0;
    i < 200 && Math.abs(high - low) > tolerance * Math.max(1, Math.abs(low) + Math.abs(high));
    i++
  ) {
    const mid = (low + high) / 2;
    const fMid = f(mid);
    const root = Math.sqrt(fMid * fMid - fLow * fHigh);
    if (root === 0) return mid;
    const x = mid + ((mid - low) * Math.sign(fLow - fHigh) * fMid) / root;
    const fx = f(x);
    if (fx === 0) return x;
    if (Math.sign(fMid) !== Math.sign(fx))
      [low, fLow, high, fHigh] = mid < x ? [mid, fMid, x, fx] : [x, fx, mid, fMid];
    else if (Math.sign(fLow) !== Math.sign(fx)) [high, fHigh] = [x, fx];
    else [low, fLow] = [x, fx];
  }
  return (low + high) / 2;
}

/**
 * Largest value of f between a and b, where it rises once and falls once: golden section.
 *
 * @example largestBetween((x) => -(x - 1) * (x - 1), 0, 3) // 1.0000000
 */
export function largestBetween(
  f: (x: number) => number,
  a: number,
  b: number,
  precision = 1e-12,
): number {
  const share = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [a, b];
  let [p, q] = [high - share * (high - low), low + share * (high - low)];
  let [fp, fq] = [f(p), f(q)];
  for (
    let i = 0;
    i < 120 && Math.abs(high - low) > precision * (Math.abs(low) + Math.abs(high));
    i++
  ) {
    if (fp > fq) {
      [high, q, fq] = [q, p, fp];
      p = high - share * (high - low);
      fp = f(p);
    } else {
      [low, p, fp] = [p, q, fq];
      q = low + share * (high - low);
      fq = f(q);
    }
  }
  return (low + high) / 2;
}
