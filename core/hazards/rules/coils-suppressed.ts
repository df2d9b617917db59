import { relaysOf } from '../../catalogue/index.js';
import { netsOverStrips } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { parts } from '../../parts/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Coils that a contact of the device switches and across which nothing takes up what they give back. */
export const coilsSuppressed: HazardRule = {
  finds: { 'coil.unsuppressed': 'tells' },
  stage: 'land',
  look(c, find) {
    const { panel } = c.trials;
    const nets = netsOverStrips(panel);
    const contacts = relaysOf(c.profile).flatMap(({ no, nc }) =>
      [...no, ...nc].map((t) => `${panel.device}:${t}`),
    );
    return Object.entries(panel.devices).flatMap(([id, { kind, params }]): Finding[] => {
      const coil = parts[kind]?.coil?.coil;
      if (!coil || params['suppressor'] !== undefined) return [];
      const switched = coil.some((end) => contacts.some((at) => nets.joined(at, `${id}:${end}`)));
      if (!switched) return [];
      return [
        find('coil.unsuppressed', {
          subject: id,
          severity: 'advise',
          where: atPart(id),
          args: { coil: tagOf(c, id), ac: params['ac'] === true },
          source: 'IEC 60204-1 §4.4.2; makers of relays and drives',
          rests: [params['suppressor'] ?? null],
        }),
      ];
    });
  },
};
