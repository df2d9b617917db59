import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A hot braking resistor that stops the device and leaves its supply on: a chopper that has failed shorted heats it on. */
export const resistorStaysFed: HazardRule = {
  finds: { 'resistor.staysFed': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, trials } = c;
    const id = arrangement.operations['interlock.resistor']?.device;
    const run = id ? trials.tried('interlock.resistor') : undefined;
    if (!run) return [];
    const { contactor } = arrangement;
    const signal = `${contactor}.on`;
    const has = run.trace.signals.some((s) => s.id === signal);
    if (has && run.at('opens', signal) === 0) return [];
    return [
      find('resistor.staysFed', {
        severity: 'warn',
        where: atPart(id),
        args: { device: tagOf(c, id), contactor: contactor ? tagOf(c, contactor) : '' },
        source: 'IEC 61800-5-1: a shorted chopper is not switched off by the device',
        rests: [trials.panel.wires],
        proof: run.proof('opens'),
      }),
    ];
  },
};
