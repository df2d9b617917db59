import { landingParts, type Finding } from '../../job/index.js';
import { atTerminal, type HazardRule } from '../rule.js';

/** Terminals that bear direct voltage only. */
const direct = [
  'digitalInput',
  'enableInput',
  'analogueInput',
  'inputCommon',
  'supply24',
  'reference10',
];

/** Alternating voltage where only direct voltage belongs: at a control terminal of the device. */
export const alternatingAtControl: HazardRule = {
  finds: { 'circuit.mixed': 'protects' },
  stage: 'land',
  look(c, find) {
    const { installation, profile, device, job, trials } = c;
    const run = trials.tried('dial.100') ?? trials.run('supply.on');
    const ms = run.trial.endMs - 100;
    return installation.landings.flatMap((landing, i): Finding[] => {
      const at = landingParts(landing);
      const kind = profile.terminals[at.terminal]?.kind ?? '';
      if (at.device !== device.id || !direct.includes(kind)) return [];
      const ac = run.volts(i, installation.reference, ms)?.ac ?? 0;
      if (ac < 1) return [];
      return [
        find('circuit.mixed', {
          subject: at.terminal,
          severity: 'stop',
          where: atTerminal(c, at.terminal),
          args: { terminal: at.terminal, volts: Math.round(ac) },
          source: 'rehearsal of this wiring',
          rests: [job.adopted?.wires],
          proof: { script: run.trial.id, atUs: ms * 1000 },
        }),
      ];
    });
  },
};
