import {
  atPart,
  firstThat,
  partOf,
  policyIn,
  tagOf,
  tagOfOperation,
  type HazardRule,
} from '../rule.js';

/** A motor that starts by itself when the supply comes back; and a wish for it that this circuit cannot meet. */
export const powerReturn: HazardRule = {
  finds: {
    'restart.powerReturn': 'protects',
    'restart.noWarning': 'protects',
    'restart.notPossible': 'moves',
  },
  stage: 'scheme',
  look(c, find) {
    const { job, arrangement, exposed, profile } = c;
    const start = arrangement.starts.forward;
    if (!start) return [];
    const found = firstThat(c, 'power.return', (run) => run.runs('powerReturns'));
    const stated = job.scheme.powerReturn === 'restart';
    const part = partOf(c, start);
    const rests = policyIn(c, 'onPowerReturn');
    if (!found) {
      if (!stated) return [];
      const pulse = arrangement.givenBy === 'pulse' || arrangement.power !== undefined;
      const args = { pulse, device: tagOfOperation(c, arrangement.power?.on ?? start) };
      const source = 'rehearsal of this wiring and these settings';
      return [
        find('restart.notPossible', { severity: 'warn', where: atPart(part), args, source, rests }),
      ];
    }
    const severity =
      exposed === 'nobody' && stated
        ? 'advise'
        : exposed === 'behindGuard' && stated
          ? 'warn'
          : 'stop';
    const afterS = (profile.powerUpDelayMs + arrangement.warningMs) / 1000;
    const device = tagOf(c, part);
    const warned = !stated || exposed === 'nobody' || arrangement.hornMs > 0;
    return [
      find('restart.powerReturn', {
        severity,
        where: atPart(part),
        args: { stated, exposed, device, afterS },
        source: 'IEC 60204-1 §7.5; NFPA 79 §7.5',
        rests,
        proof: found.proof('powerReturns'),
      }),
      ...(warned
        ? []
        : [
            find('restart.noWarning', {
              severity: 'warn',
              where: atPart(part),
              args: { device },
              source: 'IEC 60204-1 §9.2.3.2',
            }),
          ]),
    ];
  },
};
