import type { Control, DriveCase } from '../drive/index.js';

/**
 * Second opinion on `levelForwardReverse` and `levelRunDirection`: a fixed 1 ms step and the plainest code that follows
 * the document, without filters, faults or S-shape. Slow and separate on purpose.
 */
export function naiveHz(input: DriveCase, sampleMs: readonly number[]): number[] {
  const c: Control = input.control;
  const level: Record<string, number> = {
    forward: 0,
    reverse: 0,
    run: 0,
    direction: 0,
    enableA: 1,
    enableB: 1,
    referenceHz: c.referenceHz,
    ...(input.inputs as Record<string, number>),
  };
  const up = (c.rampReferenceHz ?? c.maxHz) / c.accelS / 1000;
  const down = (c.rampReferenceHz ?? c.maxHz) / c.decelS / 1000;
  let hz = 0;
  let pause = 0;
  let first = 0;
  let blocked = false;
  const out: number[] = [];
  const last = Math.max(...sampleMs);
  for (let ms = 0; ms <= last; ms++) {
    for (const e of input.events) if (e.atMs === ms) level[e.input] = e.level;
    const enabled = level['enableA'] === 1 && level['enableB'] === 1;
    if (c.startMethod === 'levelForwardReverse') {
      if (level['forward'] && !level['reverse']) first = 1;
      else if (level['reverse'] && !level['forward']) first = -1;
      else if (!level['forward'] && !level['reverse']) first = 0;
    }
    const demand =
      c.startMethod === 'levelForwardReverse' ? level['forward'] || level['reverse'] : level['run'];
    let want = 0;
    if (c.startMethod === 'levelRunDirection')
      want = level['run'] ? (level['direction'] ? -1 : 1) : 0;
    else if (level['forward'] && level['reverse'])
      want = c.onBothDirections === 'firstWins' ? first : 0;
    else want = level['forward'] ? 1 : level['reverse'] ? -1 : 0;
    if (!enabled) {
      hz = 0;
      pause = 0;
      if (demand && c.onEnableReturn === 'needFreshEdge') blocked = true;
    }
    if (!demand) blocked = false;
    if (want < 0 && c.noReverse) want = 0;
    if (!enabled || blocked) want = 0;
    if (sampleMs.includes(ms)) out.push(hz);
    const goal = want * Math.min(Math.max(level['referenceHz'], c.minHz), c.maxHz);
    if (!enabled) continue;
    if (pause > 0 && want !== 0) {
      pause--;
      continue;
    }
    pause = 0;
    const before = hz;
    if (goal !== 0 && hz !== 0 && Math.sign(goal) !== Math.sign(hz))
      hz = Math.sign(hz) * Math.max(0, Math.abs(hz) - down);
    else if (Math.abs(goal) > Math.abs(hz))
      hz = Math.sign(goal) * Math.min(Math.abs(goal), Math.abs(hz) + up);
    else hz = (Math.sign(goal) || Math.sign(hz)) * Math.max(Math.abs(goal), Math.abs(hz) - down);
    if (before !== 0 && hz === 0 && goal !== 0) pause = Math.round(c.reverseDeadMs);
  }
  return out;
}
