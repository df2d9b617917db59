import { firstOfKind } from '../../catalogue/index.js';
import { landingParts, type Finding } from '../../job/index.js';
import type { InstalledInput } from '../../installation/index.js';
import type { InputFunction } from '../../scheme/index.js';
import { atTerminal, tagOf, type Find, type HazardContext, type HazardRule } from '../rule.js';

/** A contact that is closed and switches no input: common link missing or wrong, wire missing, voltage uncertain. */
export const inputsSwitch: HazardRule = {
  finds: {
    'input.doesNotSwitch': 'moves',
    'input.uncertain': 'moves',
    'input.commonMissing': 'moves',
  },
  stage: 'land',
  look(c, find) {
    const { arrangement, job, device, trials, profile } = c;
    const found: Finding[] = [];
    let dead = 0;
    for (const f of arrangement.inputs) {
      const at = job.adopted?.assignments[f.id]?.at;
      const terminal = at && landingParts(at).terminal;
      const input = device.inputs.find((i) => i.terminal === terminal);
      if (!terminal || !input) continue;
      const tries = trials.list.filter((t) => t.id.startsWith(`input.${f.id}.`));
      const signal = `device.${terminal}`;
      const switches = tries.some(({ id }) => {
        const run = trials.run(id);
        return run.at('given', signal) !== run.at('ready', signal);
      });
      if (switches) {
        found.push(...uncertain(c, find, f, input));
        continue;
      }
      dead++;
      const proof = tries[0] && trials.run(tries[0].id).proof('given');
      found.push(
        find('input.doesNotSwitch', {
          subject: f.id,
          severity: 'stop',
          where: atTerminal(c, terminal),
          args: { terminal, device: tagOf(c, f.device) },
          source: 'rehearsal of this wiring',
          rests: [job.adopted?.wires, job.adopted?.links],
          proof,
        }),
      );
    }
    const common = firstOfKind(profile, 'inputCommon');
    if (dead === 0 || dead < arrangement.inputs.length || !common || isJoined(c, common))
      return found;
    const link = device.links.find((l) =>
      Object.values(l.positions).some((p) => p.edges.length > 0),
    );
    return [
      find('input.commonMissing', {
        severity: 'stop',
        where: atTerminal(c, common),
        args: { common, link: link?.id ?? '', position: link?.position ?? '' },
        source: 'rehearsal of this wiring',
        rests: [job.adopted?.wires, job.adopted?.links],
      }),
    ];
  },
};

/** Whether the input common lies on one of the poles of the device's own supply. */
function isJoined({ trials, installation, device }: HazardContext, common: string): boolean {
  const { supply24 } = device;
  if (!supply24) return false;
  const run = trials.run('supply.on');
  const at = installation.landings.indexOf(`${device.id}:${common}`);
  return [installation.edgeA, installation.edgeB].some((ends) => {
    const v = run.volts(at, ends[supply24.edge], run.lookMs('ready'));
    return v !== null && Math.abs(v.dc) < 0.5;
  });
}

/** A voltage between the thresholds while the contact is open: leakage, or two supplies against each other. */
function uncertain(
  c: HazardContext,
  find: Find,
  f: InputFunction,
  input: InstalledInput,
): Finding[] {
  const run = c.trials.run('supply.on');
  const across = run.volts(input.plus, input.minus, run.lookMs('ready'));
  const volts = Math.abs((input.ac ? across?.ac : across?.dc) ?? 0);
  if (volts * 1e6 <= input.offUv || volts * 1e6 >= input.onUv) return [];
  const { terminal } = input;
  return [
    find('input.uncertain', {
      subject: f.id,
      severity: 'warn',
      where: atTerminal(c, terminal),
      args: { terminal, device: tagOf(c, f.device), volts: Math.round(volts * 10) / 10 },
      source: 'IEC 61131-2 type 1',
      rests: [c.job.adopted?.wires],
      proof: run.proof('ready'),
    }),
  ];
}
