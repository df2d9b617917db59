import { linkTerminals } from '../../catalogue/index.js';
import { netsOf } from '../../installation/index.js';
import { UNIT_LINK } from '../../parts/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A separate braking unit at the DC link: with its poles exchanged it is destroyed, with one of them open it does nothing. */
export const brakingUnitPoles: HazardRule = {
  finds: { 'damage.linkReversed': 'protects', 'brakingUnit.open': 'protects' },
  stage: 'land',
  look(c, find) {
    const { panel } = c.trials;
    const unit = Object.keys(panel.devices).find((id) => panel.devices[id].kind === 'brakingUnit');
    const [plus, minus] = linkTerminals(c.profile).map((t) => `${panel.device}:${t}`);
    if (unit === undefined || plus === undefined || minus === undefined) return [];
    const nets = netsOf(panel);
    const [unitPlus, unitMinus] = UNIT_LINK.map((t) => `${unit}:${t}`);
    const told = {
      severity: 'stop' as const,
      where: atPart(unit),
      args: { unit: tagOf(c, unit), device: tagOf(c, panel.device) },
      rests: [panel.wires, panel.open],
    };
    if (nets.joined(plus, unitMinus) || nets.joined(minus, unitPlus))
      return [find('damage.linkReversed', { ...told, source: 'nets of this wiring' })];
    if (!nets.joined(plus, unitPlus) || !nets.joined(minus, unitMinus))
      return [find('brakingUnit.open', { ...told, source: 'nets of this wiring' })];
    return [];
  },
};
