import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A treadle with a brake makes every stop a coast: what was wished for the stop is not what happens. */
export const wishOverridden: HazardRule = {
  finds: { 'wish.stopCoasts': 'moves' },
  stage: 'scheme',
  look(c, find) {
    const { scheme } = c.job;
    if (scheme.footStop !== 'withBrake' || scheme.stopMode === 'coast') return [];
    const foot = c.arrangement.operations['foot']?.device;
    return [
      find('wish.stopCoasts', {
        severity: 'advise',
        where: atPart(foot),
        args: { foot: tagOf(c, foot), wished: scheme.stopMode === 'ramp' },
        source: 'plan: the output is off before the brake is applied by foot',
        rests: [scheme.footStop, scheme.stopMode],
      }),
    ];
  },
};
