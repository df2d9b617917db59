import { plateNumbers } from '../../line/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** What the windings' voltage may differ from that of the supply, as a share (IEC 60034-1, ±10 %). */
const VOLTS_SHARE = 0.1;

/** Poles in series with the windings: these lie at the supply whether the device conducts or not, and at its full voltage. */
export const insideDelta: HazardRule = {
  finds: { 'delta.staysLive': 'protects', 'delta.volts': 'moves' },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, job, profile, installation } = c;
    if (!arrangement.insideDelta) return [];
    const motor = installation.shaft.id;
    const args = { device: tagOf(c, c.device.id), motor: tagOf(c, motor) };
    const { supplyV, rated } = plateNumbers(job.plate, profile);
    const off = supplyV && rated?.volts ? Math.abs(supplyV / rated.volts - 1) : 0;
    const inDelta = job.plate.motor.link === undefined || job.plate.motor.link === 'delta';
    return [
      ...(arrangement.contactor === undefined
        ? [
            find('delta.staysLive', {
              severity: 'stop',
              where: atPart(motor),
              args: { ...args, volts: supplyV ?? 0 },
              source: 'windings in series with the poles; IEC 60947-4-2',
            }),
          ]
        : []),
      ...(!inDelta || off > VOLTS_SHARE
        ? [
            find('delta.volts', {
              severity: 'stop',
              where: atPart(motor),
              args: {
                ...args,
                supplyV: supplyV ?? 0,
                windingV: (rated?.volts ?? 0) / (inDelta ? 1 : Math.sqrt(3)),
              },
              source: 'IEC 60034-1 §7.3; each winding lies between two phases',
            }),
          ]
        : []),
    ];
  },
};
