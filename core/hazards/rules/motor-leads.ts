import { motorLeads } from '../../installation/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** Leads of the motor that are exchanged, missing or joined. */
export const leadsOfTheMotor: HazardRule = {
  finds: { 'motor.leadsExchanged': 'moves', 'motor.leadMissing': 'moves' },
  stage: 'land',
  look(c, find) {
    const { trials, profile, installation, job, arrangement } = c;
    const { id, turns } = installation.shaft;
    const { missing } = motorLeads(trials.panel, profile, id);
    if (turns === 1 || !arrangement.starts.forward) return [];
    const common = {
      severity: 'stop' as const,
      where: atPart(id),
      source: 'parity of the leads between device and motor',
      rests: [trials.panel.wires, job.plate.motor.leadsExchanged],
      proof: trials.tried('direction.forward')?.proof('start'),
    };
    const args = {
      motor: tagOf(c, id),
      leads: missing.join(', '),
      ...(arrangement.insideDelta ? { six: true } : {}),
    };
    return turns === 0
      ? [find('motor.leadMissing', { ...common, args })]
      : [
          find('motor.leadsExchanged', {
            ...common,
            args: { ...args, stated: job.plate.motor.leadsExchanged === true },
          }),
        ];
  },
};
