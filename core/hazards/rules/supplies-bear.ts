import { firstOfKind } from '../../catalogue/index.js';
import { installedOf } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { phaseOf } from '../../trials/index.js';
import { atDevice, atPart, type HazardRule } from '../rule.js';

/** Share of its voltage below which a supply is overloaded. */
const SAGGED = 0.85;

/** Supplies of the device loaded beyond what they give: 24 V for coils and lamps, 10 V for a dial. */
export const suppliesBear: HazardRule = {
  finds: { 'supply24.overload': 'moves', 'reference10.overload': 'tells' },
  stage: 'scheme',
  look(c, find) {
    const { installation, device, profile, job, trials } = c;
    const findings: Finding[] = [];
    const run = trials.tried('dial.100');
    const { supply24 } = device;
    if (supply24 && run) {
      const [a, b] = [installation.edgeA[supply24.edge], installation.edgeB[supply24.edge]];
      const { fromMs } = phaseOf(run.trial, 'start');
      // Also while the start is held: a coil that is too heavy never pulls in, and is off again when it is let go.
      const moments = [fromMs - 100, fromMs + 200, fromMs + 2000];
      const volts = Math.min(...moments.map((ms) => run.volts(a, b, ms)?.dc ?? 0));
      // A device without power has no supply that could be overloaded.
      const alive = run.state(fromMs - 100) !== 'off';
      if (alive && volts < supply24.volts * SAGGED)
        findings.push(
          find('supply24.overload', {
            severity: 'stop',
            where: atDevice(c),
            args: { volts: Math.round(volts * 10) / 10, maxMA: supply24.amps * 1000 },
            source: 'device profile',
            rests: [job.adopted?.devices],
            proof: run.proof('start'),
          }),
        );
    }
    const terminal = firstOfKind(profile, 'reference10');
    const ten = terminal === undefined ? undefined : profile.terminals[terminal];
    const [dial] = installedOf(installation, 'dial');
    if (ten?.kind !== 'reference10' || !dial) return findings;
    const leastOhm = ten.volts / ten.maxA;
    if (dial.ohm >= leastOhm) return findings;
    return [
      ...findings,
      find('reference10.overload', {
        severity: 'warn',
        where: atPart(dial.id),
        args: {
          device: dial.tag,
          ohm: dial.ohm,
          leastOhm: Math.ceil(leastOhm),
          maxMA: ten.maxA * 1000,
        },
        source: 'device profile',
      }),
    ];
  },
};
