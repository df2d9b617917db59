import type { Device } from '../device.js';

/** A value that rests, as a stretch. */
export const steady = (y: number, t: number) => ({ t0: t, y, dy: 0, ddy: 0 });

const none: readonly never[] = [];

/** What a device that neither senses nor times anything answers. */
export const nothing = {
  moves: false,
  sense: () => none,
  wake: () => Infinity,
  thresholds: () => none,
};

/** A signal set by an act as a share of its span, 0 to 1: a dial, or the output of a controller. */
export function setShare(
  id: string,
  stamp: Device<{ readonly at: number }>['stamp'],
): Device<{ readonly at: number }> {
  return {
    ...nothing,
    id,
    signals: [{ id: `${id}.dial`, of: { kind: 'device', id }, unit: '%', kind: 'value' }],
    init: () => ({ at: 0 }),
    act: (s, act) =>
      act.do === 'dial' && act.device === id && act.to !== s.at ? { at: act.to } : s,
    stamp,
    step: (s) => s,
    observe: (s, t) => [steady(s.at * 100, t)],
  };
}
