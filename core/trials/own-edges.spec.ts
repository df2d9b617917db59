import { installedOf } from '../installation/index.js';
import type { Act } from '../job/index.js';
import { rehearse } from '../rehearsal/index.js';
import { everyArrangement } from '../testing/matrix.js';
import type { Trace } from '../trace/index.js';
import { trialsOf } from './trials.js';

const bits = ({ segments, events, instants, solutions }: Trace): string =>
  JSON.stringify([
    segments,
    events,
    instants,
    solutions.map((s) => [s.volts, s.slope, s.acRe, s.acIm].map((list) => Array.from(list))),
  ]);

describe('what a device writes into the network', () => {
  it('lies on its own edges alone: looking at every edge each time shows nothing else, every arrangement × family', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const trials = trialsOf(job, profile);
      const { acts: shown, endMs: from } = trials.trial('show');
      const { wires } = installedOf(trials.installation, 'wires')[0];
      const broken = wires.flatMap(({ id }, i): Act[] => [
        { do: 'breakWire', atMs: from + 100 * i, wire: id },
        { do: 'mendWire', atMs: from + 100 * i + 50, wire: id },
      ]);
      const acts = [...shown, ...broken];
      const endMs = from + 100 * wires.length;
      const [own, all] = [true, false].map((cached) =>
        bits(rehearse(trials.installation, acts, endMs, { cached })),
      );
      expect(own === all)
        .withContext(name)
        .toBeTrue();
    }
  });
});
