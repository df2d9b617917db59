import fc from 'fast-check';
import { starterSamples, type StarterEvents } from '../testing/starter-case.js';
import { starterInputs } from './vocabulary.js';

describe('whatever happens at its inputs', () => {
  const scripts = fc.array(
    fc.tuple(
      fc.integer({ min: 0, max: 60_000 }),
      fc.constantFrom(...starterInputs.filter((n) => !n.startsWith('phase'))),
      fc.constantFrom(0, 1),
    ),
    { minLength: 1, maxLength: 14 },
  );
  const controls = fc.record({
    startMethod: fc.constantFrom('twoWire', 'threeWire', 'twoEnables'),
    stopKind: fc.constantFrom('coast', 'softStop'),
    softStopS: fc.constantFrom(0, 3),
    inhibitS: fc.constantFrom(0, 7),
    reversePauseS: fc.constantFrom(0, 4),
    onBothDirections: fc.constantFrom('stop', 'fault', 'firstWins'),
    onMainsReturn: fc.constantFrom('needFreshEdge', 'followLevel'),
    onControlReturn: fc.constantFrom('needFreshEdge', 'followLevel'),
    onMainsLostRunning: fc.constantFrom('fault', 'coast'),
    onStopWhileRamping: fc.constantFrom('coast', 'softStop'),
    lineRelay: fc.constantFrom('runToEndOfStop', 'runOnly'),
  });
  const sampleMs = Array.from({ length: 140 }, (_, i) => 25 + i * 500);
  const levelAt = (events: StarterEvents, input: string, ms: number, initial: 0 | 1): 0 | 1 => {
    let level = initial;
    const sorted = events
      .map((e, i) => [e, i] as const)
      .sort(([a, i], [b, j]) => a[0] - b[0] || i - j);
    for (const [[at, name, to]] of sorted) if (at <= ms && name === input) level = to;
    return level;
  };

  it('an open stop never ramps up, nothing conducts without its supplies, and the inhibit is kept', () => {
    fc.assert(
      fc.property(controls, scripts, (control, raw) => {
        const events = raw as unknown as StarterEvents;
        const samples = starterSamples(control, events, sampleMs);
        let unfedMs = -Infinity;
        for (const [i, s] of samples.entries()) {
          const ms = sampleMs[i];
          const at = (input: string, initial: 0 | 1): 0 | 1 => levelAt(events, input, ms, initial);
          const rising = s.state === 'kick' || s.state === 'ramping' || s.state === 'running';
          if (at('stop', 1) === 0 && rising) return false;
          const dead =
            at('mains', 1) === 0 || at('lineContactor', 1) === 0 || at('controlSupply', 1) === 0;
          if (dead && (s.fed || s.amps > 0)) return false;
          if (at('forward', 0) && at('reverse', 0) && control.startMethod === 'twoEnables')
            if (control.onBothDirections !== 'firstWins' && rising) return false;
          if (s.fed) {
            if (ms - unfedMs < 1000 * control.inhibitS - 500) return false;
            if (unfedMs !== -Infinity && i > 0 && samples[i - 1].fed) unfedMs = -Infinity;
          } else if (i > 0 && samples[i - 1].fed) unfedMs = sampleMs[i - 1];
        }
        return true;
      }),
      { numRuns: 150, seed: 7 },
    );
  });

  it('the same case gives the same samples, however finely they are asked', () => {
    fc.assert(
      fc.property(controls, scripts, (control, raw) => {
        const events = raw as unknown as StarterEvents;
        const coarse = starterSamples(control, events, [10_025, 40_025]);
        const fine = starterSamples(control, events, sampleMs);
        const [a, b] = [10_025, 40_025].map((ms) => fine[sampleMs.indexOf(ms)]);
        expect([a, b]).toEqual(coarse);
      }),
      { numRuns: 40, seed: 11 },
    );
  });
});
