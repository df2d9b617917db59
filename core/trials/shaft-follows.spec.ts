import { pieceAt, signalAt, stateAt } from '../trace/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from './trials.js';

/** Every n-th case: the arrangements repeat on every family. */
const cases = everyArrangement().filter((_, i) => i % 3 === 0);

describe('in every trial', () => {
  it('the shaft follows the output while it is driven, and only slows while it is not', () => {
    for (const { name, job, profile } of cases) {
      const trials = trialsOf(job, profile);
      for (const id of ['show', 'ramps', 'estop', 'power.return'].filter((x) => trials.has(x))) {
        const { trace, trial } = trials.run(id);
        const wrong: string[] = [];
        let [before, was] = [0, ''];
        for (let ms = 50; ms < trial.endMs; ms += 137) {
          const us = ms * 1000;
          const state = stateAt(trace, 'shaft.state', us);
          const [shaft, output] = [
            signalAt(trace, 'shaft.hz', us),
            signalAt(trace, 'device.hz', us),
          ];
          if (state === 'driven' && Math.abs(shaft - output) > 1e-3)
            wrong.push(`${ms} ms: shaft ${shaft}, output ${output}`);
          const free = state === 'runsDown' || state === 'runsDownUnknown';
          if (free && was === state && Math.abs(shaft) > Math.abs(before) + 1e-6)
            wrong.push(`${ms} ms: speeds up by itself`);
          if ((state === 'still' || state === 'held') && shaft !== 0)
            wrong.push(`${ms} ms: ${state} at ${shaft} Hz`);
          [before, was] = [shaft, state];
        }
        expect(wrong).withContext(`${name} ${id}`).toEqual([]);
      }
    }
  });

  it('nothing jumps but where something happens: a signal goes on from where it was', () => {
    for (const { name, job, profile } of cases.filter((_, i) => i % 4 === 0)) {
      const { trace } = trialsOf(job, profile).run('show');
      const i = trace.signals.findIndex((s) => s.id === 'shaft.hz');
      const { t, y, dy, ddy } = trace.segments[i];
      for (let k = 1; k < t.length; k++) {
        const tau = (t[k] - t[k - 1]) / 1e6;
        const end = y[k - 1] + (dy[k - 1] + (ddy[k - 1] * tau) / 2) * tau;
        // A shaft has inertia: only a drive that catches it may give it another speed, in one step.
        const state = stateAt(trace, 'shaft.state', t[k]);
        if (state !== 'driven')
          expect(Math.abs(end - y[k]))
            .withContext(`${name} at ${t[k]}`)
            .toBeLessThan(0.02);
      }
      expect(pieceAt(t, trace.endUs)).toBe(t.length - 1);
    }
  });
});
