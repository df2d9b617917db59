import { OUTPUT_CONTACTOR } from '../../scheme/index.js';
import { signalAt } from '../../trace/index.js';
import { atPart, tagOf, type HazardRule } from '../rule.js';

/** A contactor between device and motor whose coil goes with the supply while the device still drives on its link. */
export const outputContactorDip: HazardRule = {
  finds: { 'output.opensInDip': 'moves' },
  stage: 'scheme',
  look(c, find) {
    if (!c.job.adopted?.devices[OUTPUT_CONTACTOR]) return [];
    const run = c.trials.tried('power.return');
    if (!run) return [];
    const { trace } = run;
    const signal = trace.signals.findIndex((s) => s.id === `${OUTPUT_CONTACTOR}.on`);
    const opened = signal < 0 ? undefined : trace.segments[signal];
    const at = opened?.t.find((t, i) => opened.y[i] === 0 && signalAt(trace, 'device.hz', t) !== 0);
    if (at === undefined) return [];
    return [
      find('output.opensInDip', {
        severity: 'advise',
        where: atPart(OUTPUT_CONTACTOR),
        args: { contactor: tagOf(c, OUTPUT_CONTACTOR), device: tagOf(c, c.device.id) },
        source: 'rehearsal of a power cut under way',
        proof: { script: 'power.return', atUs: at },
      }),
    ];
  },
};
