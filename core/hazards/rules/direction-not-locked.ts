import { atDevice, atTerminal, policyIn, type HazardRule } from '../rule.js';

const reversing = ['reverse', 'direction', 'startReverse', 'jogReverse'];

/** Only forward is wanted and the device would follow a reverse command. */
export const directionNotLocked: HazardRule = {
  finds: { 'direction.notLocked': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { job, device } = c;
    const wanted = job.scheme.direction !== 'forwardOnly' || job.scheme.jog === 'bothWays';
    // A device that has no such policy turns one way only.
    if (wanted || policyIn(c, 'noReverse') !== false) return [];
    const terminal = device.inputs.find((i) => reversing.includes(i.task))?.terminal;
    return [
      find('direction.notLocked', {
        severity: 'warn',
        where: terminal === undefined ? atDevice(c) : atTerminal(c, terminal),
        args: { terminal: terminal ?? '', machine: job.machine },
        source: 'keypad or a stray input may ask for reverse',
      }),
    ];
  },
};
