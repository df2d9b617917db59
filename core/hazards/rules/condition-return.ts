import type { Run } from '../../trials/index.js';
import { atPart, firstThat, partOf, tagOfOperation, type HazardRule } from '../rule.js';

/** A condition or an emergency stop that closes again with the run still given starts the motor. */
export const conditionReturn: HazardRule = {
  finds: { 'condition.returnStarts': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, exposed, job } = c;
    const run = arrangement.starts.forward;
    const opened = [...(arrangement.estop ? [arrangement.estop] : []), ...arrangement.interlocks];
    return opened.flatMap((operation) => {
      // Together, and with each of its contacts before and behind the others: the worse counts.
      const orders = c.trials.list.flatMap(({ id }) =>
        id.startsWith(`${operation}.order.`) ? [id] : [],
      );
      const starts = (r: Run): boolean => !r.runs('opens') && r.runs('closes');
      const together = firstThat(c, operation, starts);
      const found = [operation, ...orders]
        .map((id) => (id === operation ? together : firstThat(c, id, starts)))
        .find((run) => run !== undefined);
      if (!found) return [];
      const estop = operation === arrangement.estop;
      const automatic = job.scheme.powerReturn === 'restart' && exposed !== 'atMachine' && !estop;
      return [
        find('condition.returnStarts', {
          subject: operation,
          severity: automatic ? 'advise' : exposed === 'nobody' ? 'warn' : 'stop',
          where: atPart(partOf(c, operation)),
          args: {
            device: tagOfOperation(c, operation),
            estop,
            apart: together === undefined,
            run: tagOfOperation(c, run),
            reset: estop && arrangement.contactor !== undefined,
          },
          source: estop ? 'ISO 13850 §4.1.4: resetting must not start' : 'IEC 60204-1 §9.2.3.2',
          proof: found.proof('closes'),
        }),
      ];
    });
  },
};
