import { atPart, tagOf, tagOfOperation, type HazardRule } from '../rule.js';

/** A line contactor that only the emergency stop opens, or that closes when it is let go. */
export const contactorLatch: HazardRule = {
  finds: { 'contactor.noOff': 'tells', 'contactor.closesOnRelease': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { contactor, estop, power } = c.arrangement;
    if (!contactor || !estop || power?.off) return [];
    const where = atPart(contactor);
    const args = { contactor: tagOf(c, contactor), estop: tagOfOperation(c, estop) };
    if (power)
      return [
        find('contactor.noOff', {
          severity: 'advise',
          where,
          args,
          source: 'ISO 13850 §4.1.1: an emergency stop is no substitute for other functions',
        }),
      ];
    const shows = c.trials.tried('supply.on');
    // One that a relay of the device closes for a run, or that does not close at all, stays open when the head is let go.
    const signal = `${contactor}.on`;
    if (!shows?.trace.signals.some(({ id }) => id === signal)) return [];
    if (shows.at('ready', signal) !== 1) return [];
    return [
      find('contactor.closesOnRelease', {
        severity: 'warn',
        where,
        args,
        source: 'IEC 60204-1 §9.2.3.4.2: resetting only permits restarting',
      }),
    ];
  },
};
