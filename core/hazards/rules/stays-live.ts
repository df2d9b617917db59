import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Control supplies tapped ahead of everything that can be opened here: no disconnecting device is entered. */
export const staysLive: HazardRule = {
  finds: { 'supply.staysLive': 'protects' },
  stage: 'plate',
  look(c, find) {
    const { isolator, ownBreakers, mainBreaker } = c.arrangement;
    if (isolator || ownBreakers.length === 0) return [];
    return [
      find('supply.staysLive', {
        severity: 'warn',
        where: atPart(ownBreakers[0]),
        args: {
          breaker: tagOf(c, mainBreaker),
          taps: ownBreakers.map((id) => tagOf(c, id)).join(', '),
        },
        source: 'IEC 60204-1 §5.3',
        rests: [ownBreakers, isolator],
      }),
    ];
  },
};
