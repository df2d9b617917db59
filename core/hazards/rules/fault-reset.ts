import { atPart, firstThat, partOf, policyIn, tagOfOperation, type HazardRule } from '../rule.js';

/** A fault reset with the run still given starts the motor: the person at the keypad starts the machine. */
export const faultReset: HazardRule = {
  finds: { 'reset.starts': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const start = c.arrangement.starts.forward;
    if (!start) return [];
    const dips = c.trials.list.filter((t) => t.id.startsWith('fault.reset.'));
    for (const { id } of dips) {
      const found = firstThat(
        c,
        id,
        (run) => run.state(run.lookMs('dip')) === 'faulted' && run.runs('reset'),
      );
      if (found)
        return [
          find('reset.starts', {
            severity: c.exposed === 'nobody' ? 'advise' : 'warn',
            where: atPart(partOf(c, start)),
            args: { run: tagOfOperation(c, start) },
            source: 'IEC 60204-1 §9.2.3.2',
            rests: policyIn(c, 'onFaultReset'),
            proof: found.proof('reset'),
          }),
        ];
    }
    return [];
  },
};
