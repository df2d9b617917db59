import type { Terminal } from '../../catalogue/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import type { Run } from '../../trials/index.js';
import { atTerminal, type HazardContext, type HazardRule } from '../rule.js';

/** Alternating voltage at a terminal that is nothing but pick-up, V. */
const PICK_UP_V = 1;
/** What terminals for direct voltage bear beyond their own, V: usual limits of control electronics. */
const bears: Readonly<Partial<Record<Terminal['kind'], number>>> = {
  digitalInput: 33,
  enableInput: 33,
  inputCommon: 33,
  supply24: 33,
  zeroVolt: 33,
  analogueInput: 15,
  analogueOutput: 15,
};
/** Share by which a reference may be above its own voltage before another source is feeding it. */
const FED_SHARE = 1.05;
/** Current into an input switched to milliamperes that its burden bears, mA. */
const MOST_MA = 30;

interface Stress {
  readonly terminal: string;
  readonly rule:
    'damage.mainsAtOutput' | 'damage.mainsAtControl' | 'damage.overvoltage' | 'damage.overcurrent';
  readonly volts: number;
  readonly amps?: number;
}

/** The worst that a terminal of the device has to bear at a moment, against what it withstands. */
function stressAt(c: HazardContext, run: Run, ms: number, landing: number): Stress | undefined {
  const { installation, device, profile } = c;
  const { device: of, terminal } = landingParts(installation.landings[landing]);
  const spec = of === device.id ? profile.terminals[terminal] : undefined;
  if (!spec) return undefined;
  const earth = installation.landings.findIndex(
    (l) => l.endsWith(':PE') && l !== `${device.id}:PE`,
  );
  const references = [installation.reference, earth].filter((i) => i >= 0);
  const across = references.map((i) => run.volts(landing, i, ms));
  const ac = Math.max(0, ...across.map((v) => v?.ac ?? 0));
  const dc = Math.abs(run.volts(landing, installation.reference, ms)?.dc ?? 0);
  if (spec.kind === 'motor')
    return spec.phase !== 'PE' && ac > PICK_UP_V
      ? { terminal, rule: 'damage.mainsAtOutput', volts: ac }
      : undefined;
  const most = bears[spec.kind];
  if (most !== undefined && ac > PICK_UP_V)
    return { terminal, rule: 'damage.mainsAtControl', volts: ac };
  if (spec.kind === 'reference10' && dc > spec.volts * FED_SHARE)
    return { terminal, rule: 'damage.overvoltage', volts: dc };
  if (most !== undefined && dc > most) return { terminal, rule: 'damage.overvoltage', volts: dc };
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
    const { installation, trials, job } = c;
    const moments = (['supply.on', 'dial.100'] as const).flatMap((id) => {
      const run = trials.tried(id);
      return run ? [{ run, ms: run.trial.endMs - 100 }] : [];
    });
    const worst = new Map<string, { stress: Stress; run: Run; ms: number }>();
    for (const { run, ms } of moments)
      for (const i of installation.landings.keys()) {
        const stress = stressAt(c, run, ms, i);
        if (!stress) continue;
        const known = worst.get(stress.rule);
        if (!known || known.stress.volts < stress.volts)
          worst.set(stress.rule, { stress, run, ms });
      }
    return [...worst.values()].map(({ stress, run, ms }): Finding =>
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
        proof: { script: run.trial.id, atUs: ms * 1000 },
      }),
    );
  },
};
