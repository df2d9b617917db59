import { stateAt } from '../../trace/index.js';
import { phaseOf } from '../../trials/index.js';
import type { HazardRule } from '../rule.js';

/** A stop from full speed that the DC link does not bear: the device trips, and the motor is left to itself. */
export const linkTrips: HazardRule = {
  finds: { 'stop.linkTrips': 'moves' },
  stage: 'scheme',
  look({ trials, device, job }, find) {
    const run = trials.tried('ramps');
    if (!run) return [];
    const stop = phaseOf(run.trial, 'stop');
    if (stateAt(run.trace, 'device.fault', stop.lookMs * 1000) !== 'overvoltage') return [];
    const signal = run.trace.signals.findIndex((s) => s.id === 'device.fault');
    const fromUs = stop.fromMs * 1000;
    const at = run.trace.segments[signal].t.find((t) => t >= fromUs) ?? fromUs;
    const { decelS = 0 } = job.scheme;
    return [
      find('stop.linkTrips', {
        severity: 'stop',
        where: [{ kind: 'plate', id: 'scheme.decelS' }],
        args: { hz: device.facts.maxHz, decelS, afterS: (at - fromUs) / 1e6 },
        source: 'rehearsal: energy of the mass less losses and load, against the DC link',
        rests: [
          job.plate.motor,
          job.plate.load,
          job.plate.line?.resistor,
          job.plate.line?.brakingUnit ?? null,
        ],
        proof: run.proof('stop'),
      }),
    ];
  },
};
