import { arrange, READY_MS, shippedArrangements } from '../scheme/index.js';
import { bareJob } from '../testing/jobs.js';
import { showTrial } from './composite.js';
import type { Pace } from './lay.js';

const pace = (id: string): Pace => {
  const scheme = shippedArrangements.find((a) => a.id === id)?.scheme ?? {};
  const arrangement = arrange({ scheme, practice: 'IEC', plate: bareJob().plate });
  return {
    arrangement,
    travelMs: 3500,
    warningMs: arrangement.warningMs,
    orders: () => [],
    channels: () => [],
    phases: [],
    cutNeedsReset: false,
    relayLags: [],
  };
};

describe('the trial that the cards show', () => {
  it('go through every part the station can do, in order of time, contactor first', () => {
    const script = (id: string) => showTrial(pace(id));
    expect(
      script('threeWireSeparate')
        .phases.slice(1)
        .map((p) => p.mark),
    ).toEqual([
      'start',
      'stop',
      'startHeld',
      'stopPressed',
      'stopReleased',
      'startReleased',
      'stop',
      'start',
      'powerOff',
      'powerReturns',
    ]);
    expect(
      script('twoWireTwoContacts')
        .phases.slice(1)
        .map((p) => p.mark),
    ).toEqual([
      'start',
      'stop',
      'start',
      'both',
      'firstReleased',
      'stop',
      'start',
      'powerOff',
      'powerReturns',
    ]);
    expect(
      script('threeWireDirection')
        .phases.slice(1)
        .map((p) => p.mark),
    ).toContain('flip');
    expect(script('estopContactor').acts[2]).toEqual({
      do: 'press',
      atMs: 200,
      device: 'button.powerOn',
    });
    for (const { id } of shippedArrangements) {
      const { phases, endMs } = script(id);
      const marks = phases.slice(1);
      marks.forEach((m, i) =>
        expect(m.fromMs)
          .withContext(id)
          .toBeGreaterThan(i ? marks[i - 1].fromMs : READY_MS - 1),
      );
      if (marks.length) expect(endMs).toBeGreaterThan(marks[marks.length - 1].fromMs);
    }
  });
});
