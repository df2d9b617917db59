import type { Job } from '../job/index.js';
import { dialMarks, labelsOf } from './labels.js';

const wire = (number: string, from: string, to: string) => ({ number, from, to });
const job = {
  id: 'j',
  tag: 'FM-1',
  machine: 'Drum',
  asUsed: { w2: { number: '7a' } },
  adopted: {
    devices: {
      device: { tag: 'T1', kind: 'drive' },
      'button.stop': { tag: 'S2', kind: 'stopButton' },
    },
    wires: {
      w1: wire('12', 'button.stop:12', 'device:D1'),
      w2: wire('7', 'device:24E', 'button.stop:11'),
    },
  },
} as unknown as Job;
const named = (id: string): string => (id === 'device' ? 'Drive' : 'Stop button');

describe('labels', () => {
  it('of wires come twice each, as marked, with the other end', () => {
    expect(labelsOf('wires', job, named, 'c')).toEqual([
      { large: '7a', small: 'to S2:11' },
      { large: '7a', small: 'to T1:24E' },
      { large: '12', small: 'to T1:D1' },
      { large: '12', small: 'to S2:12' },
    ]);
  });

  it('of terminals name each landing once with its wires, of devices each part with the code of the job', () => {
    expect(labelsOf('terminals', job, named, 'c').map((l) => l.large)).toEqual([
      'S2:11',
      'S2:12',
      'T1:24E',
      'T1:D1',
    ]);
    expect(labelsOf('devices', job, named, 'c')).toEqual([
      { large: 'S2', small: 'Stop button', code: 'c' },
      { large: 'T1', small: 'Drive', code: 'c' },
    ]);
    expect(labelsOf('panel', job, named, 'c')).toEqual([
      { large: 'FM-1', small: 'Drum', code: 'c' },
    ]);
  });

  it('of a dial tell what was read where it passed, else what is expected', () => {
    const step = (pct: number, state: string, value?: number) => ({
      step: { key: `dial.${pct}.hz`, expect: { kind: 'range', nominal: pct / 2 } },
      state,
      reading: value === undefined ? undefined : { body: { version: 2, values: [{ value }] } },
    });
    const steps = [step(0, 'open'), step(50, 'pass', 25.2), step(100, 'fail', 31)] as never;
    expect(dialMarks(steps, ',')).toEqual([
      { pct: 0, text: '0' },
      { pct: 50, text: '25,2' },
      { pct: 100, text: '50' },
    ]);
  });
});
