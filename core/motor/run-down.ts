import type { Path, Stretch } from '../numeric/index.js';

/** How a free shaft slows down, in Hz of the output frequency per second. */
export interface RunDown {
  /** Part that stays the same at every speed. */
  readonly baseHzPerS: number;
  /** Parts that grow with the speed and with its square: Hz/s per Hz, and per Hz². */
  readonly linear: number;
  readonly square: number;
  /** With which the load drives the shaft backwards when nothing holds it; 0 where it does not. */
  readonly pullHzPerS: number;
  /** Fall under a closed brake; undefined where its torque is not known. */
  readonly brakeHzPerS: number | undefined;
}

/** A piece of a run-down: from its speed on it lasts so long, with this slope and bend. */
interface Piece {
  readonly fromHz: number;
  readonly toHz: number;
  readonly lastsS: number;
  readonly dy: number;
  readonly ddy: number;
}

const PIECES = 48;

/** Nodes and weights of five-point Gauss–Legendre quadrature on −1 … 1. */
const gauss: readonly (readonly [number, number])[] = [
  [0, 0.5688888888888889],
  [0.5384693101056831, 0.47862867049936647],
  [-0.5384693101056831, 0.47862867049936647],
  [0.906179845938664, 0.23692688505618908],
  [-0.906179845938664, 0.23692688505618908],
];

/**
 * The run-down from a speed to rest as parabolas, within 0.1 % of dω/dt = −(a + b·ω + c·ω²): made once, so that nothing
 * between a state and a threshold needs a logarithm. The time of each piece is ∫dω/(a + b·ω + c·ω²).
 *
 * @param topHz speed from which it begins
 */
export function runDownTable(
  { baseHzPerS, linear, square }: RunDown,
  topHz: number,
): readonly Piece[] {
  const fall = (hz: number): number => baseHzPerS + linear * hz + square * hz * hz;
  if (linear === 0 && square === 0)
    return [{ fromHz: topHz, toHz: 0, lastsS: topHz / baseHzPerS, dy: -baseHzPerS, ddy: 0 }];
  const pieces: Piece[] = [];
  for (let i = 0; i < PIECES; i++) {
    // Closer together near rest, where the slope changes most for its size.
    const share = (k: number): number => ((PIECES - k) / PIECES) ** 2;
    const [fromHz, toHz] = [topHz * share(i), topHz * share(i + 1)];
    const half = (fromHz - toHz) / 2;
    const lastsS = gauss.reduce((sum, [x, w]) => sum + (w * half) / fall(toHz + half * (1 + x)), 0);
    const dy = -fall(fromHz);
    pieces.push({
      fromHz,
      toHz,
      lastsS,
      dy,
      ddy: (2 * (toHz - fromHz - dy * lastsS)) / lastsS ** 2,
    });
  }
  return pieces;
}

/**
 * The way of a free shaft from a speed to rest.
 *
 * @param hz speed at t, negative in reverse
 * @example runDownPath(runDownTable(fall, 100), 50, 0).endUs // 5_000_000 with 10 Hz/s
 */
export function runDownPath(table: readonly Piece[], hz: number, t: number): Path {
  const [size, sign] = [Math.abs(hz), Math.sign(hz)];
  const stretches: Stretch[] = [];
  let at = t;
  for (const piece of table) {
    if (piece.toHz >= size) continue;
    const inside = size < piece.fromHz && stretches.length === 0;
    const spentS = inside ? timeTo(piece, size) : 0;
    const slope = piece.dy + piece.ddy * spentS;
    const y = inside ? size : piece.fromHz;
    stretches.push({ t0: at, y: sign * y, dy: sign * slope, ddy: sign * piece.ddy });
    at += Math.max(1, Math.round((piece.lastsS - spentS) * 1e6));
  }
  return { stretches, endUs: at, rest: 0 };
}

/** Time from the beginning of a piece until it has fallen to a speed, s. */
function timeTo({ fromHz, dy, ddy }: Piece, hz: number): number {
  if (ddy === 0) return (hz - fromHz) / dy;
  const root = dy * dy - 2 * ddy * (fromHz - hz);
  return (-dy - Math.sqrt(Math.max(0, root))) / ddy;
}
