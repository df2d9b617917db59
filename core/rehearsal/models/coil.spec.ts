import type {
  Installation,
  InstalledCoil,
  InstalledDevice,
  InstalledPower,
} from '../../installation/index.js';
import type { Act } from '../../job/index.js';
import { rehearse, signalAt } from '../index.js';

/** 24 V, a button, a relay with its coil behind `through`, and a lamp on its make contact. */
function bench(coil: Partial<InstalledCoil>, ownBreakContact = false, volts = 24): Installation {
  const landings = ['plus', 'minus', 'coil', 'lamp'];
  const edges: [number, number][] = [
    [0, 1],
    [0, 2],
    [2, 1],
    [0, 3],
    [3, 1],
  ];
  const power: InstalledPower = {
    kind: 'power',
    id: 'supply',
    tag: 'G1',
    primary: undefined,
    output: { edge: 0, modal: 0, volts, amps: 2, ohm: 0 },
  };
  const devices: InstalledDevice[] = [
    power,
    ...(ownBreakContact
      ? []
      : [
          {
            kind: 'contacts',
            id: 'button',
            tag: 'S1',
            positions: ['out', 'in'],
            rest: 'out',
            momentary: true,
            latching: false,
            contacts: [{ edge: 1, closedIn: ['in'] }],
          } as const,
        ]),
    {
      kind: 'coil',
      id: 'relay',
      tag: 'K1',
      coil: { edge: 2, a: 2, b: 1 },
      ac: false,
      volts: 24,
      ohm: 900,
      operateUs: 15_000,
      releaseUs: 10_000,
      makes: [3],
      breaks: ownBreakContact ? [1] : [],
      ...coil,
    },
    {
      kind: 'load',
      id: 'lamp',
      tag: 'H1',
      across: { edge: 4, a: 3, b: 1 },
      ac: false,
      volts: 24,
      ohm: 3000,
    },
  ];
  return {
    hash: 'bench',
    settingsFrom: 'planned',
    landings,
    reference: 1,
    edgeA: edges.map(([a]) => a),
    edgeB: edges.map(([, b]) => b),
    modal: [{ edge: 0, kind: 'limitedSupply' }],
    wires: [],
    devices,
  };
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
