import { atPart, tagOf, type HazardRule } from '../rule.js';

const loads = [
  ['workLight', 'light.work'],
  ['panelFan', 'fan.panel'],
] as const;

/** A work light that must stay on, or a fan that must go: as the circuit really does it when the contactor drops. */
export const loadsOnTheirSide: HazardRule = {
  finds: { 'load.wrongSide': 'tells' },
  stage: 'land',
  look(c, find) {
    const { job, arrangement, trials } = c;
    const run = trials.tried('power.off');
    if (!run) return [];
    return loads.flatMap(([wish, id]) => {
      const side = job.scheme[wish];
      if (!side || side === 'none' || !job.adopted?.devices[id]) return [];
      const stays = side === 'stays';
      if ((run.at('powerOffPressed', `${id}.lit`) === 1) === stays) return [];
      return [
        find('load.wrongSide', {
          subject: id,
          severity: 'warn',
          where: atPart(id),
          args: { device: tagOf(c, id), stays, contactor: tagOf(c, arrangement.contactor) },
          source: 'rehearsal of this wiring',
          rests: [job.adopted.wires],
          proof: run.proof('powerOffPressed'),
        }),
      ];
    });
  },
};
