import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Power switched on and off at the contactor as the normal way of starting and stopping. */
export const contactorAsStart: HazardRule = {
  finds: { 'contactor.normalStops': 'moves' },
  stage: 'scheme',
  look(c, find) {
    if (c.job.scheme.startStop !== 'lineContactor') return [];
    const { contactor } = c.arrangement;
    const perHour = c.profile.supplyOperationsPerHour ?? 0;
    const wanted = c.job.plate.load.stopsPerHour;
    // Switched more seldom than the device bears, there is nothing to say.
    if (wanted !== undefined && perHour > 0 && wanted <= perHour) return [];
    return [
      find('contactor.normalStops', {
        severity: wanted === undefined ? 'advise' : 'warn',
        where: atPart(contactor),
        args: {
          contactor: tagOf(c, contactor),
          perHour,
          ...(wanted === undefined ? {} : { wanted }),
        },
        source: 'device profile: operations of the supply an hour',
      }),
    ];
  },
};
