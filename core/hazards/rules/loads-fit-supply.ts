import { installedOf } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { voltsAt } from '../../trace/index.js';
import { atPart, type HazardRule } from '../rule.js';

/** What a coil or lamp bears above its own voltage (IEC 60947-4-1 §8.2.1.2: 110 %, with the usual rise of an unloaded transformer). */
const MOST_SHARE = 1.2;
/** Below this share a coil that is fed never pulls in. */
const LEAST_SHARE = 0.7;
/** Below this share nothing is fed: a contact is open, or only a leakage current is seen. */
const FED_SHARE = 0.2;

interface Load {
  readonly id: string;
  readonly tag: string;
  readonly volts: number;
  readonly ac: boolean;
  readonly across: { readonly a: number; readonly b: number };
}

/** Coils, lamps, fans and other loads whose own voltage is not that of the supply they hang on. */
export const loadsFitSupply: HazardRule = {
  finds: { 'load.overVoltage': 'moves', 'load.underVoltage': 'moves' },
  stage: 'land',
  look(c, find) {
    const { installation, trials, job } = c;
    const loads: Load[] = [
      ...installedOf(installation, 'coil').map((d) => ({ ...d, across: d.coil })),
      ...installedOf(installation, 'load'),
    ];
    const runs = ['supply.on', 'direction.forward', 'stop.held', 'estop'].flatMap(
      (id) => trials.tried(id) ?? [],
    );
    return loads.flatMap((load): Finding[] => {
      let most = 0;
      let proof: Finding['proof'];
      for (const run of runs)
        for (const t of run.trace.instants.t) {
          // Also while a button is pressed: a coil that is too weak never holds itself.
          const v = voltsAt(run.trace, load.across.a, load.across.b, t);
          const volts = Math.max(v?.ac ?? 0, Math.abs(v?.dc ?? 0));
          if (volts <= most) continue;
          most = volts;
          proof = { script: run.trial.id, atUs: t };
        }
      const share = most / load.volts;
      const over = share > MOST_SHARE;
      if (!over && (share > LEAST_SHARE || share < FED_SHARE)) return [];
      return [
        find(over ? 'load.overVoltage' : 'load.underVoltage', {
          subject: load.id,
          severity: 'stop',
          where: atPart(load.id),
          args: { device: load.tag, volts: Math.round(most), ratedV: load.volts },
          source: 'IEC 60947-4-1 §8.2.1.2; rehearsal of this wiring',
          rests: [job.adopted?.devices[load.id]],
          proof,
        }),
      ];
    });
  },
};
