import { signalAt } from '../../trace/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A relay that switches itself on and off without end, or a circuit that never settles. */
export const circuitSettles: HazardRule = {
  finds: { 'circuit.chatters': 'moves' },
  stage: 'land',
  look(c, find) {
    const run = c.trials.tried('dial.100') ?? c.trials.run('supply.on');
    const { trace } = run;
    const unsettled = trace.events.some((e) => e.what === 'unsettled') ? ['wires'] : [];
    const chattering = trace.signals
      .filter((s) => s.id.endsWith('.chatters') && signalAt(trace, s.id, trace.endUs) === 1)
      .map((s) => s.of.id);
    return [...unsettled, ...chattering].map((id) =>
      find('circuit.chatters', {
        subject: id,
        severity: 'stop',
        where: atPart(id),
        args: { device: tagOf(c, id) },
        source: 'rehearsal of this wiring',
        rests: [c.job.adopted?.wires],
        proof: { script: run.trial.id, atUs: trace.endUs },
      }),
    );
  },
};
