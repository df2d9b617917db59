import { installedOf, netsOverStrips } from '../../installation/index.js';
import type { Finding } from '../../job/index.js';
import { atPart, atTerminal, tagOf, type HazardRule } from '../rule.js';

/** A dial that never gives more than this gives nothing, V. */
const DEAD_V = 1;
/** Share of its highest voltage that a whole dial never gives at its low end. */
const OPEN_SHARE = 0.5;

/** Signals that do not fit their input: a slide switch against the source, a dial whose ends are exchanged or open. */
export const signalsFit: HazardRule = {
  finds: {
    'signal.switchAgainst': 'moves',
    'dial.endsExchanged': 'moves',
    'dial.endOpen': 'protects',
  },
  stage: 'land',
  look(c, find) {
    const { installation, device, trials, job } = c;
    const nets = netsOverStrips(trials.panel);
    const rests = [trials.panel.wires, trials.panel.links];
    const input = device.analogue.find((a) => a.terminal === device.facts.referenceInput);
    const findings: Finding[] = [];
    if (!input) return findings;
    const at = `${device.id}:${input.terminal}`;
    const link = device.links.find((l) =>
      Object.values(l.positions).some((p) => p.analogue?.terminal === input.terminal),
    );
    const isCurrent = link?.positions[link.position]?.analogue?.current ?? false;
    for (const source of installedOf(installation, 'source')) {
      const joined = nets.joined(at, `${source.id}:+`);
      if (joined && link && isCurrent !== (source.gives === 'amps'))
        findings.push(
          find('signal.switchAgainst', {
            severity: 'stop',
            where: atTerminal(c, input.terminal),
            args: {
              link: link.id,
              device: tagOf(c, device.id),
              terminal: input.terminal,
              source: tagOf(c, source.id),
              amps: source.gives === 'amps',
            },
            source: 'slide switch of the plan against the kind of source',
            rests,
          }),
        );
    }
    const [dial] = installedOf(installation, 'dial');
    const [low, high] = [0, 100].map((pct) => trials.tried(`dial.${pct}`));
    if (!dial || !low || !high) return findings;
    const [lowV, highV] = [low, high].map((run) =>
      Math.abs(run.volts(input.plus, input.minus, run.lookMs('start'))?.dc ?? 0),
    );
    const common = {
      severity: 'stop' as const,
      where: atPart(dial.id),
      args: {
        dial: tagOf(c, dial.id),
        low: Math.round(Math.abs(low.hz('start'))),
        high: Math.round(Math.abs(high.hz('start'))),
      },
      source: 'rehearsal of this wiring',
      rests: [...rests, job.scheme.speed],
      proof: low.proof('start'),
    };
    if (lowV > highV + DEAD_V) findings.push(find('dial.endsExchanged', common));
    else if (highV < DEAD_V || lowV > OPEN_SHARE * highV)
      findings.push(find('dial.endOpen', common));
    return findings;
  },
};
