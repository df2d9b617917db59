import type { LinkBraking } from './link-rise.js';
import type { Control, Levels } from './vocabulary.js';
import type { Power } from './state.js';

/**
 * Energy of the DC link and what draws on it, for a drive inside a rehearsal. Without it (`tactron drive`) the ride-
 * through of the vocabulary holds and the logic dies with its supply.
 */
export interface DcLink {
  /** Energy between the usual link voltage and the undervoltage threshold, J. */
  readonly toThresholdJ: number;
  /** Energy between the usual link voltage and the voltage at which the logic goes dark, J. */
  readonly toDarkJ: number;
  /** Draw of the drive itself, W. */
  readonly idleW: number;
  /** Draw of the motor at a frequency: c1·|f| + c2·f² + c3·|f|³, W. */
  readonly load: readonly [number, number, number];
  /** What a slowing load does to it; undefined where the mass or the voltage of the trip is not known. */
  readonly braking?: LinkBraking;
}

/** Time from loss of supply to the undervoltage threshold, µs; t = C·(U0² − Umin²)/(2·P). */
export function rideThroughUs(control: Control, link: DcLink | undefined, hz: number): number {
  if (!link) return Math.round(control.rideThroughMs * 1000);
  const f = Math.abs(hz);
  const watts = link.idleW + link.load[0] * f + link.load[1] * f * f + link.load[2] * f * f * f;
  return Math.max(1, Math.round((link.toThresholdJ / watts) * 1e6));
}

/** Power state after a change of supplies at t; `hz` is what the output gives now. */
export function stepPower(
  control: Control,
  link: DcLink | undefined,
  power: Power,
  was: Levels,
  now: Levels,
  hz: number,
  t: number,
): Power {
  let p = power;
  const fedBySeparate = control.controlSupplySeparate && now.controlSupply === 1;
  if (was.mains === 1 && now.mains === 0)
    p = { ...p, linkLowUs: t + rideThroughUs(control, link, hz) };
  if (was.mains === 0 && now.mains === 1) {
    const through = p.linkUp && p.logic === 'on';
    p = { ...p, linkLowUs: Infinity, logicDiesUs: Infinity };
    if (!through)
      p = {
        ...p,
        linkUp: true,
        logic: 'poweringUp',
        readyUs: t + Math.round(control.powerUpDelayMs * 1000),
      };
  }
  const darkUs = link ? Math.round(((link.toDarkJ - link.toThresholdJ) / link.idleW) * 1e6) : 0;
  if (p.linkUp && t >= p.linkLowUs) p = { ...p, linkUp: false, logicDiesUs: t + darkUs };
  if (now.mains === 1 || fedBySeparate)
    p = p.logicDiesUs === Infinity ? p : { ...p, logicDiesUs: Infinity };
  else if (!p.linkUp && p.logicDiesUs === Infinity) p = { ...p, logicDiesUs: t };
  if (p.logic === 'off' && fedBySeparate && now.mains === 0) {
    p = { ...p, logic: 'poweringUp', readyUs: t + Math.round(control.powerUpDelayMs * 1000) };
  }
  if (p.logic !== 'off' && t >= p.logicDiesUs) p = { ...p, logic: 'off', logicDiesUs: Infinity };
  if (p.logic === 'poweringUp' && t >= p.readyUs) p = { ...p, logic: 'on' };
  return p;
}
