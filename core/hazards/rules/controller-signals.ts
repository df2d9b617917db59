import { installedOf, netsOverStrips } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A controller set or fed otherwise than it has to be: its outputs, the supply of its speed output, the joined common. */
export const controllerSignals: HazardRule = {
  finds: {
    'controller.map': 'moves',
    'signal.stageUnfed': 'moves',
    'signal.noCommon': 'moves',
  },
  stage: 'land',
  look(c, find) {
    const { installation, device, trials } = c;
    const { failed, wires, open } = trials.panel;
    const found: Finding[] = failed.flatMap((f) =>
      f.what === 'map'
        ? [
            find('controller.map', {
              subject: `${f.device} ${f.which ?? ''}`,
              severity: 'stop',
              where: atPart(f.device),
              args: { device: tagOf(c, f.device), other: f.which ? tagOf(c, f.which) : '' },
              source: 'outputs of the controller as they were found',
            }),
          ]
        : [],
    );
    const input = device.analogue.find((a) => a.terminal === device.facts.referenceInput);
    const nets = netsOverStrips(trials.panel);
    const ready = trials.tried('supply.on');
    const rests = [wires, open];
    for (const { id, supply } of installedOf(installation, 'source')) {
      const args = { source: tagOf(c, id), device: tagOf(c, device.id) };
      const told = { subject: id, severity: 'stop', where: atPart(id), args, rests } as const;
      if (supply && ready && ready.at('ready', `${id}.fed`) === 0)
        found.push(
          find('signal.stageUnfed', {
            ...told,
            source: 'rehearsal of this wiring',
            proof: ready.proof('ready'),
          }),
        );
      const common = input && installation.landings[input.minus];
      if (common && !nets.joined(common, `${id}:-`))
        found.push(
          find('signal.noCommon', { ...told, source: 'a voltage is read between two terminals' }),
        );
    }
    return found;
  },
};
