import { CONTACT_OHM } from '../../circuit/index.js';
import { installedOf } from '../../installation/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import { phaseOf } from '../../trials/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Above this a contact is open: no current that it bears leaves so much across it, V. */
const OPEN_V = 1;

/** Contacts of relays that carry more than they may while the machine runs: of the device, and of relays beside it. */
export const contactsBear: HazardRule = {
  finds: { 'contact.overload': 'moves' },
  stage: 'scheme',
  look(c, find) {
    const { installation, device, trials, job } = c;
    const run = trials.tried('dial.100');
    if (!run) return [];
    const ms = phaseOf(run.trial, 'start').fromMs + 2900 + c.arrangement.warningMs;
    const contacts = [
      ...device.relays.flatMap(({ no, amps }) =>
        no.map((edge) => ({ edge, rated: amps, id: device.id })),
      ),
      ...installedOf(installation, 'coil').flatMap(({ id, contactA, makes }) =>
        contactA > 0 ? makes.map((edge) => ({ edge, rated: contactA, id })) : [],
      ),
    ];
    return contacts.flatMap(({ edge, rated, id }): Finding[] => {
      const [a, b] = [installation.edgeA[edge], installation.edgeB[edge]];
      const across = run.volts(a, b, ms);
      const volts = across ? Math.max(Math.abs(across.dc), across.ac) : 0;
      // The voltage across a closed contact tells its current; an open one has its whole voltage across it.
      const amps = volts / CONTACT_OHM;
      if (amps <= rated || volts > OPEN_V) return [];
      const { terminal } = landingParts(installation.landings[a]);
      return [
        find('contact.overload', {
          subject: `${id}.${terminal}`,
          severity: 'stop',
          where: atPart(id),
          args: { device: tagOf(c, id), terminal, amps: Math.round(amps * 10) / 10, rated },
          source: 'rating of the contact',
          rests: [job.adopted?.devices],
          proof: { script: run.trial.id, atUs: ms * 1000 },
        }),
      ];
    });
  },
};
