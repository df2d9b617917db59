import { harmable, MOST_MA, PICK_UP_V, type Withstood } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { DESTROYED } from '../../rehearsal/index.js';
import type { Run } from '../../trials/index.js';
import { atTerminal, type HazardContext, type HazardRule } from '../rule.js';

interface Stress {
  readonly terminal: string;
  readonly rule:
    'damage.mainsAtOutput' | 'damage.mainsAtControl' | 'damage.overvoltage' | 'damage.overcurrent';
  readonly volts: number;
  readonly amps?: number;
}

/** What a terminal of the device has to bear at a moment, where that is more than it withstands. */
function stressAt(
  { device }: HazardContext,
  run: Run,
  ms: number,
  { terminal, landing, output, mostDc }: Withstood,
): Stress | undefined {
  const references = [device.reference, device.earth].filter((i) => i !== undefined);
  const ac = Math.max(0, ...references.map((i) => run.volts(landing, i, ms)?.ac ?? 0));
  const dc = Math.abs(run.volts(landing, device.reference, ms)?.dc ?? 0);
  if (ac > PICK_UP_V)
    return {
      terminal,
      rule: output ? 'damage.mainsAtOutput' : 'damage.mainsAtControl',
      volts: ac,
    };
  if (output) return undefined;
  if (dc > mostDc) return { terminal, rule: 'damage.overvoltage', volts: dc };
  const input = device.analogue.find((a) => a.terminal === terminal);
  const asCurrent = device.links.some((l) => {
    const at = l.positions[l.position]?.analogue;
    return at?.terminal === terminal && at.current;
  });
  if (!input || !asCurrent) return undefined;
  const milliamps = (1000 * dc) / input.currentOhm;
  return milliamps > MOST_MA
    ? { terminal, rule: 'damage.overcurrent', volts: dc, amps: milliamps }
    : undefined;
}

/** Moment at which the device is destroyed in a trial, ms; −1 where it stays whole. */
function brokenMs({ trace }: Run): number {
  const i = trace.signals.findIndex((s) => s.id === 'device.state');
  const at = trace.signals[i]?.states?.indexOf(DESTROYED) ?? -1;
  const k = trace.segments[i].y.indexOf(at);
  return k < 0 ? -1 : trace.segments[i].t[k] / 1000;
}

/**
 * What the terminals of the device have to bear in this wiring: mains at its outputs, mains or too much at its control
 * terminals. Sensed in the simulated circuit, listed by no name.
 */
export const damage: HazardRule = {
  finds: {
    'damage.mainsAtOutput': 'protects',
    'damage.mainsAtControl': 'protects',
    'damage.overvoltage': 'protects',
    'damage.overcurrent': 'protects',
  },
  stage: 'land',
  look(c, find) {
    const { device, trials, job } = c;
    // Nothing that could harm it is anywhere near.
    if (harmable(trials.installation).length === 0) return [];
    // With everything set as high as it goes it has to bear most; then whatever else destroys it.
    const ids = ['supply.on', 'dial.100', ...trials.list.map(({ id }) => id)];
    const broken = ids.flatMap((id) => trials.tried(id) ?? []).find((run) => brokenMs(run) >= 0);
    if (!broken) return [];
    const run = trials.unbroken(broken.trial.id);
    const worst = new Map<string, { stress: Stress; ms: number }>();
    for (const ms of [brokenMs(broken) + 1, run.trial.endMs - 100])
      for (const at of device.withstand) {
        const stress = stressAt(c, run, ms, at);
        if (!stress) continue;
        const known = worst.get(stress.rule);
        if (!known || known.stress.volts < stress.volts) worst.set(stress.rule, { stress, ms });
      }
    return [...worst.values()].map(({ stress, ms }): Finding =>
      find(stress.rule, {
        severity: 'stop',
        where: atTerminal(c, stress.terminal),
        args: {
          terminal: stress.terminal,
          volts: Math.round(stress.volts),
          ...(stress.amps === undefined ? {} : { amps: Math.round(stress.amps) }),
        },
        source: 'rehearsal of this wiring against what the terminal withstands',
        rests: [job.adopted?.wires, job.adopted?.links],
        proof: { script: run.trial.id, atUs: Math.round(ms * 1000) },
      }),
    );
  },
};
