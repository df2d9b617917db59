import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Power switched on and off at the contactor as the normal way of starting and stopping. */
export const contactorAsStart: HazardRule = {
  finds: { 'contactor.normalStops': 'moves' },
  stage: 'scheme',
  look(c, find) {
    if (c.job.scheme.startStop !== 'lineContactor') return [];
    const { contactor } = c.arrangement;
    return [
      find('contactor.normalStops', {
        severity: 'warn',
        where: atPart(contactor),
        args: {
          contactor: tagOf(c, contactor),
          perHour: c.profile.supplyOperationsPerHour ?? 0,
        },
        source: 'device profile: operations of the supply an hour',
      }),
    ];
  },
};
