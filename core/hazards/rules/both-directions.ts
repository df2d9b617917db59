import { firstThat, partOf, policyIn, tagOfOperation, type HazardRule } from '../rule.js';

/** Both directions given together and one released: the motor starts the other way by itself. */
export const bothDirections: HazardRule = {
  finds: { 'directions.releasedToOne': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { forward, reverse } = c.arrangement.starts;
    const found = firstThat(c, 'direction.both', (run) => run.hz('firstReleased') < 0);
    if (!found) return [];
    const where = [forward, reverse].flatMap((operation) => {
      const id = partOf(c, operation);
      return id ? [{ kind: 'device', id } as const] : [];
    });
    return [
      find('directions.releasedToOne', {
        severity: 'warn',
        where,
        args: {
          stands: !found.runs('both'),
          policy: policyIn(c, 'onBothDirections') ?? '',
          forward: tagOfOperation(c, forward),
          reverse: tagOfOperation(c, reverse),
        },
        source: 'IEC 60204-1 §9.2.3.3 interlocking of contradictory functions',
        proof: found.proof('firstReleased'),
      }),
    ];
  },
};
