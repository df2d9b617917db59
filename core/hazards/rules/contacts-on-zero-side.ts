import { inputLogics } from '../../catalogue/index.js';
import { atDevice, type HazardRule } from '../rule.js';

/** Contacts on the 0 V side: where 0 V is earthed, one earth fault does what a contact does. */
export const contactsOnZeroSide: HazardRule = {
  finds: { 'input.zeroSide': 'protects' },
  stage: 'scheme',
  look(c, find) {
    const { job, profile, arrangement, exposed } = c;
    const logics = inputLogics(profile);
    const chosen = logics.find((l) => l.contactsSwitch === job.scheme.contactsSwitch) ?? logics[0];
    if (chosen.contactsSwitch !== 'zeroVolt' || arrangement.inputs.length === 0) return [];
    const choice = logics.some((l) => l.contactsSwitch === 'plus24');
    return [
      find('input.zeroSide', {
        severity: choice && exposed !== 'nobody' ? 'warn' : 'advise',
        where: atDevice(c),
        args: { choice },
        source: 'IEC 60204-1 §9.4.3',
      }),
    ];
  },
};
