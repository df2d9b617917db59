import type { Installation } from '../installation/index.js';
import type { Act } from '../job/index.js';
import type { InstalledCoil } from '../parts/index.js';
import { circuitOf } from '../testing/circuits.js';
import { rehearse } from './index.js';
import { signalAt } from '../trace/index.js';

const part = (id: string, kind: string, params = {}) => ({ id, kind, tag: id, params });

/** 24 V, a button, a relay with its coil behind it or behind its own break contact, and a lamp on its make contact. */
function bench(coil: Partial<InstalledCoil>, ownBreakContact = false, volts = 24): Installation {
  const [from, to] = ownBreakContact ? ['relay:31', 'relay:32'] : ['button:13', 'button:14'];
  return circuitOf(
    [
      part('supply', 'loopSupply', { volts, amps: 2 }),
      part('button', 'startButton'),
      part('relay', 'relay', { volts: 24, ohm: 900 }),
      part('lamp', 'lamp', { volts: 24, ohm: 3000 }),
    ],
    [
      ['supply:+', from],
      [to, 'relay:A1'],
      ['relay:A2', 'supply:-'],
      ['supply:+', 'relay:13'],
      ['relay:14', 'lamp:X1'],
      ['lamp:X2', 'supply:-'],
    ],
    (installed) => (installed.kind === 'coil' ? { ...installed, ...coil } : installed),
  );
}
const press: Act[] = [
  { do: 'press', atMs: 100, device: 'button' },
  { do: 'release', atMs: 200, device: 'button' },
];

describe('a relay', () => {
  it('closes its contact after its operate time and opens it within its release time', () => {
    const trace = rehearse(bench({}), press, 400);
    const lit = (ms: number): number => signalAt(trace, 'lamp.lit', ms * 1000);
    expect([114, 116, 199, 204, 211].map(lit)).toEqual([0, 1, 1, 1, 0]);
  });

  it('does not notice a coil that turns back before it has travelled', () => {
    const trace = rehearse(bench({}), [press[0], { ...press[1], atMs: 110 }], 400);
    expect(trace.segments[trace.signals.findIndex((s) => s.id === 'lamp.lit')].y).toEqual([0]);
  });

  it('pulls in at three quarters of its voltage and not below', () => {
    const pulls = (volts: number): number =>
      signalAt(rehearse(bench({}, false, volts), [press[0]], 400), 'relay.on', 300_000);
    expect([17.9, 18.1].map(pulls)).toEqual([0, 1]);
  });

  it('moves its contacts one after the other where that is tried: those behind follow by the lag, both ways', () => {
    const behind = bench({});
    const coil = behind.devices.find((d) => d.kind === 'coil') as InstalledCoil;
    const lagging = bench({ late: [coil.makes[0]], lagUs: 30_000 });
    const trace = rehearse(lagging, press, 400);
    const lit = (ms: number): number => signalAt(trace, 'lamp.lit', ms * 1000);
    // Without a lag it is lit from 115 to some 210 ms.
    expect([116, 144, 146, 211, 234, 245].map(lit)).toEqual([0, 0, 1, 1, 1, 0]);
    expect(signalAt(trace, 'relay.on', 116_000)).toBe(1);
  });

  it('that opens its own coil chatters, is told, and is not let go on for ever', () => {
    const trace = rehearse(bench({}, true), [], 3000);
    expect(signalAt(trace, 'relay.chatters', 2_900_000)).toBe(1);
  });

  it('with a delay passes its contact on late and drops at once', () => {
    const trace = rehearse(
      bench({ operateUs: 5_015_000 }),
      [press[0], { ...press[1], atMs: 7000 }],
      9000,
    );
    expect([5.1, 5.2, 6.9, 7.05].map((s) => signalAt(trace, 'lamp.lit', s * 1e6))).toEqual([
      0, 1, 1, 0,
    ]);
  });
});
