import type { Board } from '../circuit/index.js';
import type { LandingVolts } from '../trace/index.js';

const words = new Float64Array(1);
const bits = new Uint32Array(words.buffer);

/**
 * What makes networks the same: conductances and sources, but for what an analogue output shows.
 *
 * @param shown edges of analogue outputs
 * @returns two independent hashes of 32 bits, so that different networks do not meet by chance
 */
export function electricalKey(board: Board, shown: readonly number[]): string {
  let [x, y] = [0x811c9dc5, 0x1000193];
  const mix = (value: number, place: number): void => {
    if (value === 0) return;
    words[0] = value;
    x = Math.imul(x ^ bits[0] ^ place, 0x01000193);
    y = Math.imul(y ^ bits[1] ^ (place << 7), 0x85ebca6b);
  };
  for (let e = 0; e < board.g.length; e++) {
    mix(board.g[e], 4 * e);
    mix(board.acRe[e], 4 * e + 1);
    mix(board.acIm[e], 4 * e + 2);
    if (!shown.includes(e)) mix(board.emf[e], 4 * e + 3);
  }
  board.modal.forEach(({ volts, amps }, i) => {
    mix(volts, -2 * i - 1);
    mix(amps, -2 * i - 2);
  });
  return `${x}.${y}`;
}

export function sameList(x: readonly number[], y: readonly number[]): boolean {
  if (x === y) return true;
  if (x.length !== y.length) return false;
  for (let i = 0; i < x.length; i++) if (x[i] !== y[i]) return false;
  return true;
}

export function isZero(x: Float64Array): boolean {
  for (let i = 0; i < x.length; i++) if (x[i] !== 0) return false;
  return true;
}

export function sameArray(x: Float64Array | Int32Array, y: Float64Array | Int32Array): boolean {
  if (x === y) return true;
  for (let i = 0; i < x.length; i++) if (x[i] !== y[i]) return false;
  return true;
}

export function sameVolts(x: LandingVolts, y: LandingVolts): boolean {
  return (
    sameArray(x.volts, y.volts) &&
    sameArray(x.slope, y.slope) &&
    sameArray(x.acRe, y.acRe) &&
    sameArray(x.acIm, y.acIm) &&
    sameArray(x.island, y.island)
  );
}
