import { atPart, firstThat, partOf, policyIn, tagOfOperation, type HazardRule } from '../rule.js';

/** A start given while the machine still runs down trips the device: the person at the station does not know why. */
export const startWhileCoasting: HazardRule = {
  finds: { 'coast.startTrips': 'moves' },
  stage: 'scheme',
  look(c, find) {
    const { starts, estop } = c.arrangement;
    const start = starts.forward ?? starts.reverse;
    const found = firstThat(
      c,
      'coast.start',
      (run) =>
        run.state(run.lookMs('opens')) !== 'faulted' &&
        run.state(run.lookMs('startAgain')) === 'faulted',
    );
    if (!start || !found) return [];
    return [
      find('coast.startTrips', {
        severity: 'advise',
        where: atPart(partOf(c, start)),
        args: { start: tagOfOperation(c, start), estop: estop ? tagOfOperation(c, estop) : '' },
        source: 'rehearsal: a start given while the shaft still turns',
        rests: policyIn(c, 'startWhileCoasting'),
        proof: found.proof('startAgain'),
      }),
    ];
  },
};
