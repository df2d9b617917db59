import { sealInRelays } from '../../parts/index.js';
import { atPart, firstThat, tagOf, type HazardRule } from '../rule.js';

/** A latch beside the device that stays in when only the device's supply goes: a held level is there when it returns. */
export const latchOutlivesPower: HazardRule = {
  finds: { 'latch.outlivesPower': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const found = firstThat(c, 'breaker.return', (run) => run.runs('powerReturns'));
    if (!found) return [];
    const kinds = Object.values(sealInRelays).map(({ kind }) => kind);
    const latch = c.arrangement.devices.find((d) => kinds.includes(d.kind));
    return [
      find('latch.outlivesPower', {
        severity: c.exposed === 'nobody' ? 'warn' : 'stop',
        where: atPart(latch?.id),
        args: { breaker: tagOf(c, c.arrangement.mainBreaker), relay: tagOf(c, latch?.id) },
        source: 'IEC 60204-1 §7.5',
        proof: found.proof('powerReturns'),
      }),
    ];
  },
};
