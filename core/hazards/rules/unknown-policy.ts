import { atDevice, type HazardRule } from '../rule.js';

/** A device that behaves in an unknown way where it matters: every way was simulated and the worse reported. */
export const unknownPolicy: HazardRule = {
  finds: { 'policy.unknown': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { profile, arrangement } = c;
    const chained = arrangement.chained && arrangement.inputs.some((f) => f.task === 'stop');
    const matters = [
      'onPowerReturn',
      'onBothDirections',
      'onFaultReset',
      ...(arrangement.operations['local'] ? ['onTakeover', 'terminalStopUnderKeypad'] : []),
      ...(chained ? ['startEdgeWithStopReturn'] : []),
      ...(arrangement.usesEnables ? ['onEnableReturn'] : []),
    ];
    return matters
      .filter((name) => profile.policies[name] === 'unknown')
      .map((policy) =>
        find('policy.unknown', {
          subject: policy,
          severity: 'warn',
          where: atDevice(c),
          args: { policy, device: profile.title },
          source: 'device profile',
        }),
      );
  },
};
