import { CONTACT_OHM } from '../../circuit/index.js';
import { coilKinds } from '../../parts/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import { inputLogics } from '../../plan/index.js';
import { rehearse, voltsAt } from '../../rehearsal/index.js';
import { actsOf, powerUp, READY_MS, startActs } from '../../scheme/index.js';
import { deviceOf, make, tagOf, type HazardContext, type Rule } from './context.js';

const runningTrace = ({ installation, arrangement }: HazardContext) => ({
  trace: rehearse(
    installation,
    actsOf(...powerUp(arrangement, 1), ...startActs(arrangement, 'forward', READY_MS)),
    READY_MS + 3000 + arrangement.warningMs,
  ),
  atUs: (READY_MS + 2900 + arrangement.warningMs) * 1000,
});

/** Contacts of relays that carry more than they may while the machine runs: of the device, and of relays beside it. */
export const contactsBear: Rule = (c) => {
  const { installation, drive, profile, job } = c;
  const { trace, atUs } = runningTrace(c);
  const contacts = [
    ...drive.relays.flatMap((relay) => {
      const rated = Object.values(profile.terminals).find(
        (t) => t.kind === 'relay' && t.relay === relay.id,
      );
      return rated?.kind === 'relay'
        ? relay.no.map((edge) => ({ edge, rated: rated.amps, id: 'drive' }))
        : [];
    }),
    ...installation.devices.flatMap((d) => {
      const rated =
        d.kind === 'coil' ? (coilKinds[job.adopted?.devices[d.id]?.kind ?? '']?.contactA ?? 0) : 0;
      return d.kind === 'coil' && rated > 0
        ? d.makes.map((edge) => ({ edge, rated, id: d.id }))
        : [];
    }),
  ];
  return contacts.flatMap(({ edge, rated, id }): Finding[] => {
    const [a, b] = [installation.edgeA[edge], installation.edgeB[edge]];
    const across = voltsAt(trace, a, b, atUs);
    // The voltage across a closed contact tells its current.
    const amps = across ? Math.max(Math.abs(across.dc), across.ac) / CONTACT_OHM : 0;
    // An open contact has its whole voltage across it: only what could be a current is one.
    if (amps <= rated || !across || Math.max(Math.abs(across.dc), across.ac) > 1) return [];
    const terminal = installation.landings[a].split(':')[1];
    return [
      make(
        'contact.overload',
        `${id}.${terminal}`,
        'stop',
        deviceOf(id),
        { device: tagOf(job, id), terminal, amps: Math.round(amps * 10) / 10, rated },
        'rating of the contact',
        [job.adopted?.devices],
      ),
    ];
  });
};

/** Alternating voltage where only direct voltage belongs: at a control terminal of the device. */
export const alternatingAtControl: Rule = (c) => {
  const { installation, profile, job } = c;
  const { trace, atUs } = runningTrace(c);
  const kinds = [
    'digitalInput',
    'enableInput',
    'analogueInput',
    'inputCommon',
    'supply24',
    'reference10',
  ];
  return installation.landings.flatMap((landing, i): Finding[] => {
    const { device, terminal } = landingParts(landing);
    if (device !== 'drive' || !kinds.includes(profile.terminals[terminal]?.kind ?? '')) return [];
    const ac = voltsAt(trace, i, installation.reference, atUs)?.ac ?? 0;
    if (ac < 1) return [];
    return [
      make(
        'circuit.mixed',
        terminal,
        'stop',
        [{ kind: 'landing', id: landing }],
        { terminal, volts: Math.round(ac) },
        'rehearsal of this wiring',
        [job.adopted?.wires],
      ),
    ];
  });
};

/** A protective conductor that lands on a contact: it must never be switched. */
export const protectiveConductorWhole: Rule = ({ job }) =>
  Object.entries(job.adopted?.wires ?? {}).flatMap(([id, wire]): Finding[] => {
    if (wire.class !== 'pe') return [];
    const end = [wire.from, wire.to].find(
      (at) => !['supply', 'drive', 'motor'].includes(landingParts(at).device),
    );
    return end
      ? [
          make(
            'pe.switched',
            id,
            'stop',
            [{ kind: 'wire', id }],
            { wire: wire.number, device: tagOf(job, landingParts(end).device) },
            'IEC 60204-1 §8.2.3',
            [wire],
          ),
        ]
      : [];
  });

/** Contacts on the 0 V side: where 0 V is earthed, one earth fault does what a contact does. */
export const contactsOnZeroSide: Rule = ({ job, profile, arrangement, exposed }) => {
  const logics = inputLogics(profile);
  const chosen = logics.find((l) => l.contactsSwitch === job.scheme.contactsSwitch) ?? logics[0];
  if (chosen.contactsSwitch !== 'zeroVolt' || arrangement.inputs.length === 0) return [];
  const choice = logics.some((l) => l.contactsSwitch === 'plus24');
  return [
    make(
      'input.zeroSide',
      '',
      choice && exposed !== 'nobody' ? 'warn' : 'advise',
      deviceOf('drive'),
      { choice },
      'IEC 60204-1 §9.4.3',
    ),
  ];
};
