import { atPart, tagOf, type HazardRule } from '../rule.js';

/** What a lamp seems to say and does not: the stop is released, not that anything runs. */
export const lampSaysLess: HazardRule = {
  finds: { 'lamp.saysLess': 'tells' },
  stage: 'scheme',
  look(c, find) {
    const lamp = 'lamp.stopReleased';
    if (!c.job.adopted?.devices[lamp]) return [];
    return [
      find('lamp.saysLess', {
        severity: 'advise',
        where: atPart(lamp),
        args: { lamp: tagOf(c, lamp) },
        source: 'IEC 60204-1 §10.3',
      }),
    ];
  },
};
