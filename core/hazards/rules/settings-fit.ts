import { settingRefuses } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import type { HazardRule } from '../rule.js';

/** Settings of the plan that the device cannot hold: out of its range, no choice of its own, or not there. */
export const settingsFit: HazardRule = {
  finds: { 'setting.impossible': 'moves' },
  stage: 'key',
  look(c, find) {
    return Object.entries(c.job.adopted?.settings ?? {}).flatMap(([code, { value }]): Finding[] => {
      const why = settingRefuses(c.profile, code, value);
      if (!why) return [];
      const { name = code, unit = '', min = '', max = '' } = c.profile.settings[code] ?? {};
      return [
        find('setting.impossible', {
          subject: code,
          severity: 'stop',
          where: [{ kind: 'setting', id: code }],
          args: { code, name, unit, value, why, min, max },
          source: 'device profile',
        }),
      ];
    });
  },
};
