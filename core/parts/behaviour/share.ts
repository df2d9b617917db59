import { inert, type Device } from '../../circuit/index.js';
import { steady } from '../../numeric/index.js';

/** A signal set by an act as a share of its span, 0 to 1: a dial, or the output of a controller. */
export function setShare(
  id: string,
  stamp: Device<{ readonly at: number }>['stamp'],
): Device<{ readonly at: number }> {
  return {
    ...inert,
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
