import { imageTau } from '../motor/index.js';
import { us, type StarterCore } from './core.js';
import { runPoint } from './plan-run.js';
import type { Heat, StarterState } from './state.js';

/** Heat of the thermal image at t. */
export function heatAt({ control, machine }: StarterCore, s: StarterState, t: number): number {
  const m = s.motion;
  if (m.kind === 'off' || m.kind === 'coast') return heatOf(s.heat, t);
  const p = runPoint(m.run, t);
  if (t <= m.run.settledUs) return p.heat;
  const toward = (p.amps / machine.motorA) ** 2;
  const tauS = imageTau(control.tripClass);
  return heatOf({ value: p.heat, atUs: m.run.settledUs, toward, tauS }, t);
}

/** Marks of the image in a time constant, between which it is shown as a straight line within 0.1 % of its trip. */
const MARKS = 16;
/** Distance from where it goes below which it is taken to have come there. */
const HEAT_REST = 0.002;

/** The two marks of the image around t; the later one Infinity where it no longer changes. */
export function heatMarks(
  { control, machine }: StarterCore,
  s: StarterState,
  t: number,
): { fromUs: number; toUs: number } {
  const m = s.motion;
  let image = s.heat;
  if (m.kind !== 'off' && m.kind !== 'coast') {
    if (t < m.run.settledUs) return { fromUs: t, toUs: m.run.settledUs };
    const p = m.run.points[m.run.points.length - 1];
    const toward = (p.amps / machine.motorA) ** 2;
    image = { value: p.heat, atUs: m.run.settledUs, toward, tauS: imageTau(control.tripClass) };
  }
  if (Math.abs(heatOf(image, t) - image.toward) < HEAT_REST) return { fromUs: t, toUs: Infinity };
  const piece = us(image.tauS / MARKS);
  const fromUs = image.atUs + Math.floor((t - image.atUs) / piece) * piece;
  return { fromUs, toUs: fromUs + piece };
}

const heatOf = ({ value, atUs, toward, tauS }: Heat, t: number): number =>
  toward + (value - toward) * Math.exp(-(t - atUs) / 1e6 / tauS);

/** Moment at which an image that cools is below a value; Infinity where it does not come there. */
export function coolUs({ value, atUs, toward, tauS }: Heat, below: number): number {
  if (value < below) return atUs;
  if (toward >= below) return Infinity;
  return atUs + us(tauS * Math.log((value - toward) / (below - toward))) + 1;
}
