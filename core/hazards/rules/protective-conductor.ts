import { landingParts, type Finding } from '../../job/index.js';
import { contactsOf, parts } from '../../parts/index.js';
import { tagOf, type HazardRule } from '../rule.js';

/** A protective conductor that lands on a contact: it must never be switched. */
export const protectiveConductor: HazardRule = {
  finds: { 'pe.switched': 'protects' },
  stage: 'land',
  look(c, find) {
    const { devices = {}, wires = {} } = c.job.adopted ?? {};
    const switches = (at: string): boolean => {
      const part = devices[landingParts(at).device];
      return part && (contactsOf(part) !== undefined || parts[part.kind]?.coil !== undefined);
    };
    return Object.entries(wires).flatMap(([id, wire]): Finding[] => {
      const end = wire.class === 'pe' ? [wire.from, wire.to].find(switches) : undefined;
      if (!end) return [];
      return [
        find('pe.switched', {
          subject: id,
          severity: 'stop',
          where: [{ kind: 'wire', id }],
          args: { wire: wire.number, device: tagOf(c, landingParts(end).device) },
          source: 'IEC 60204-1 §8.2.3',
          rests: [wire],
        }),
      ];
    });
  },
};
