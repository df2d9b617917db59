import type { Finding } from '../../job/index.js';
import { atTerminal, partOf, tagOf, type HazardRule } from '../rule.js';

/** A torque-off channel that stays on while the emergency stop is pressed: the other one stops alone. */
export const channelsOpen: HazardRule = {
  finds: { 'estop.channelStays': 'protects' },
  stage: 'land',
  look(c, find) {
    const { arrangement, device, trials } = c;
    const part = partOf(c, arrangement.estop);
    const run = trials.tried('estop');
    if (!part || !run || !arrangement.usesEnables) return [];
    const stays = device.enables.filter((e) => run.at('opens', `device.${e.terminal}`) === 1);
    if (stays.length === 0 || stays.length === device.enables.length) return [];
    return stays.map((e): Finding =>
      find('estop.channelStays', {
        subject: e.terminal,
        severity: 'stop',
        where: atTerminal(c, e.terminal),
        args: { terminal: e.terminal, device: tagOf(c, part) },
        source: 'IEC 61800-5-2; rehearsal of this wiring',
        rests: [trials.panel.wires],
        proof: run.proof('opens'),
      }),
    );
  },
};
