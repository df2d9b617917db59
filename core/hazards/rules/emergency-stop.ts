import { changesSpeed } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { phaseOf } from '../../trials/index.js';
import { atPart, firstThat, partOf, tagOf, type HazardRule } from '../rule.js';

/** Moments after the press at which a fault is looked for, ms: while the link empties. */
const AFTER_MS = [20, 50, 100, 200, 400, 800, 1500] as const;

/** An emergency stop that cuts the supply of a running drive, that hangs on too little, or that lets a load go. */
export const emergencyStop: HazardRule = {
  finds: {
    'estop.undervoltage': 'moves',
    'estop.trips': 'tells',
    'estop.ordinaryInput': 'protects',
    'estop.oneChannel': 'protects',
    'estop.overhauls': 'protects',
  },
  stage: 'scheme',
  look(c, find) {
    const { arrangement, job } = c;
    const part = partOf(c, arrangement.estop);
    if (!part || !arrangement.starts.forward) return [];
    const where = atPart(part);
    const device = tagOf(c, part);
    const findings: Finding[] = [];
    const tripped = firstThat(c, 'estop.full', (run) => {
      const { fromMs } = phaseOf(run.trial, 'opens');
      return AFTER_MS.some((ms) => run.state(fromMs + ms) === 'faulted');
    });
    if (tripped)
      findings.push(
        find(changesSpeed(c.profile) ? 'estop.undervoltage' : 'estop.trips', {
          severity: 'warn',
          where,
          args: { device, contactor: tagOf(c, arrangement.contactor) },
          source: 'rehearsal of this wiring',
          proof: tripped.proof('opens'),
        }),
      );
    const kind = job.scheme.estop;
    if (kind === 'outputInhibit')
      findings.push(
        find('estop.ordinaryInput', {
          severity: 'stop',
          where,
          args: { device },
          source: 'ISO 13849-1; IEC 61800-5-2',
        }),
      );
    if (kind === 'safeTorqueOffOneContact')
      findings.push(
        find('estop.oneChannel', {
          severity: 'warn',
          where,
          args: { device },
          source: 'IEC 61800-5-2; ISO 13849-1 category',
        }),
      );
    if (arrangement.usesEnables && job.plate.load.overhauls === true)
      findings.push(
        find('estop.overhauls', {
          severity: 'warn',
          where,
          args: { brake: job.scheme.brakeRelease === true },
          source: 'IEC 61800-5-2 §4.2.2.2: torque off does not hold a load',
        }),
      );
    return findings;
  },
};
