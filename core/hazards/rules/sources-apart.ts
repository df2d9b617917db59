import { installedOf, netsOverStrips } from '../../installation/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import { parts } from '../../parts/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Direct supplies that feed against each other, and coils whose neutral is switched instead of their phase. */
export const sourcesApart: HazardRule = {
  finds: { 'supplies.parallel': 'moves', 'coil.neutralSwitched': 'protects' },
  stage: 'land',
  look(c, find) {
    const { installation, device, trials } = c;
    const { panel } = trials;
    const nets = netsOverStrips(panel);
    const rests = [panel.wires];
    const plusOf = (edge: number): string => installation.landings[installation.edgeA[edge]];
    const direct = [
      ...installedOf(installation, 'power').flatMap((p) =>
        p.output.modal === undefined ? [] : [{ id: p.id, at: plusOf(p.output.edge) }],
      ),
      ...(device.supply24 ? [{ id: device.id, at: plusOf(device.supply24.edge) }] : []),
    ];
    const pairs = direct.flatMap((x, i) => direct.slice(i + 1).map((y) => [x, y] as const));
    const parallel = pairs.flatMap(([x, y]): Finding[] =>
      nets.joined(x.at, y.at)
        ? [
            find('supplies.parallel', {
              subject: `${x.id}+${y.id}`,
              severity: 'stop',
              where: [...atPart(x.id), ...atPart(y.id)],
              args: { one: tagOf(c, x.id), other: tagOf(c, y.id) },
              source: 'nets of this wiring',
              rests,
            }),
          ]
        : [],
    );
    const neutral = Object.entries(panel.devices).flatMap(([id, { kind }]) =>
      kind.startsWith('supply') && kind !== 'supply24'
        ? [`${id}:N`, `${id}:PE`]
        : kind === 'controlTransformer'
          ? [`${id}:S2`]
          : [],
    );
    const onNeutral = (at: string): boolean => neutral.some((n) => nets.joined(n, at));
    const switched = Object.entries(panel.devices).flatMap(([id, { kind, params }]): Finding[] => {
      const coil = parts[kind]?.coil?.coil;
      if (!coil || params['ac'] !== true) return [];
      const [first, second] = coil.map((terminal) => `${id}:${terminal}`);
      return onNeutral(first) && !onNeutral(second)
        ? [
            find('coil.neutralSwitched', {
              subject: id,
              severity: 'stop',
              where: atPart(id),
              args: { coil: tagOf(c, id), terminal: landingParts(second).terminal },
              source: 'IEC 60204-1 §9.4.3.1',
              rests,
            }),
          ]
        : [];
    });
    return [...parallel, ...switched];
  },
};
