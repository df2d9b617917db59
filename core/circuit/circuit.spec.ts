import fc from 'fast-check';
import * as v from 'valibot';
import { denseSolve } from '../testing/dense.js';
import networks from '../testing/networks/networks.json' with { type: 'json' };
import { Circuit } from './circuit.js';
import { networkSchema, type CircuitElement, type Network } from './elements.js';
import { solveNetwork } from './solve-network.js';

/** Within 1 mV or 0.1 %, whichever is larger. */
function expectVolts(got: number | null, wanted: number, what: string): void {
  expect(got).withContext(what).not.toBeNull();
  expect(Math.abs((got ?? NaN) - wanted))
    .withContext(`${what}: ${got} against ${wanted}`)
    .toBeLessThanOrEqual(Math.max(1e-3, Math.abs(wanted) * 1e-3));
}

/** Connected networks of 3–14 nodes: a spanning tree of resistors, more resistors, a source with and one without ohms. */
const randomNetwork = fc.integer({ min: 3, max: 14 }).chain((n) =>
  fc
    .record({
      tree: fc.array(
        fc.record({ to: fc.nat(), ohm: fc.double({ min: 0.02, max: 1e6, noNaN: true }) }),
        { minLength: n - 1, maxLength: n - 1 },
      ),
      more: fc.array(
        fc.record({
          a: fc.nat(n - 1),
          b: fc.nat(n - 1),
          ohm: fc.double({ min: 0.02, max: 1e5, noNaN: true }),
        }),
        { maxLength: 20 },
      ),
      volts: fc.double({ min: -48, max: 48, noNaN: true }),
      ohm: fc.double({ min: 0.01, max: 100, noNaN: true }),
      amps: fc.double({ min: -0.02, max: 0.02, noNaN: true }),
      ends: fc.tuple(fc.nat(n - 1), fc.nat(n - 1), fc.nat(n - 1), fc.nat(n - 1)),
    })
    .map(({ tree, more, volts, ohm, amps, ends }): Network => {
      const nodes = Array.from({ length: n }, (_, i) => `n${i}`);
      const elements: CircuitElement[] = tree.map((t, i) => ({
        id: `t${i}`,
        kind: 'resistor',
        a: nodes[i + 1],
        b: nodes[t.to % (i + 1)],
        ohm: t.ohm,
      }));
      more
        .filter((m) => m.a !== m.b)
        .forEach((m, i) =>
          elements.push({
            id: `m${i}`,
            kind: 'resistor',
            a: nodes[m.a],
            b: nodes[m.b],
            ohm: m.ohm,
          }),
        );
      if (ends[0] !== ends[1])
        elements.push({
          id: 'V',
          kind: 'voltageSource',
          a: nodes[ends[0]],
          b: nodes[ends[1]],
          volts,
          ohm,
        });
      if (ends[2] !== ends[3])
        elements.push({
          id: 'I',
          kind: 'currentSource',
          a: nodes[ends[2]],
          b: nodes[ends[3]],
          amps,
        });
      elements.push({ id: 'VI', kind: 'voltageSource', a: nodes[n - 1], b: nodes[0], volts: 24 });
      return { reference: 'n0', nodes, elements };
    }),
);

describe('solveNetwork', () => {
  it('agrees with a dense solver with pivoting on random networks', () => {
    fc.assert(
      fc.property(randomNetwork, (network) => {
        const dense = denseSolve(network);
        const { nodeVolts } = solveNetwork(network);
        for (const node of network.nodes) expectVolts(nodeVolts[node], dense[node], node);
      }),
      { numRuns: 400, seed: 20261 },
    );
  });

  it('balances the currents at every node', () => {
    fc.assert(
      fc.property(randomNetwork, (network) => {
        const { elementAmps } = solveNetwork(network);
        const largest = Math.max(1, ...Object.values(elementAmps).map(Math.abs));
        for (const node of network.nodes) {
          const sum = network.elements.reduce(
            (total, e) =>
              total +
              (e.a === node ? elementAmps[e.id] : 0) -
              (e.b === node ? elementAmps[e.id] : 0),
            0,
          );
          expect(Math.abs(sum) / largest)
            .withContext(node)
            .toBeLessThan(1e-6);
        }
      }),
      { numRuns: 200, seed: 7 },
    );
  });

  for (const { name, network, volts } of networks) {
    it(`agrees with the stored values of a reference circuit simulator: ${name}`, () => {
      const { nodeVolts } = solveNetwork(v.parse(networkSchema, network));
      for (const [node, wanted] of Object.entries(volts as unknown as Record<string, number>))
        expectVolts(nodeVolts[node], wanted, node);
    });
  }

  const supply: CircuitElement = { id: 'PS', kind: 'voltageSource', a: '+24', b: '0V', volts: 24 };
  const contact = (id: string, a: string, b: string, closed: boolean): CircuitElement => ({
    id,
    kind: 'contact',
    a,
    b,
    closed,
  });
  const resistor = (id: string, a: string, b: string, ohm: number): CircuitElement => ({
    id,
    kind: 'resistor',
    a,
    b,
    ohm,
  });

  it('calls a landing floating only when nothing leads to the reference', () => {
    const { nodeVolts } = solveNetwork({
      reference: '0V',
      nodes: ['+24', '0V', 'X', 'Y'],
      elements: [supply, contact('S', '+24', 'X', false), resistor('R', 'X', 'Y', 1e9)],
    });
    expect(nodeVolts['X']).toBeNull();
    expect(nodeVolts['Y']).toBeNull();
    expect(nodeVolts['+24']).toBe(24);
  });

  it('keeps every digit of a supply that floats far from the reference', () => {
    const { nodeVolts } = solveNetwork({
      reference: '0V',
      nodes: ['a', 'b', '0V'],
      elements: [
        { id: 'B', kind: 'voltageSource', a: 'a', b: 'b', volts: 24 },
        resistor('R', 'b', '0V', 1e8),
        resistor('L', 'a', 'b', 1000),
      ],
    });
    expect(Math.abs(nodeVolts['b'] as number)).toBeLessThan(1e-6);
    expect(nodeVolts['a']).toBeCloseTo(24, 6);
  });

  it('conducts through a diode one way only, also where the far side is joined to nothing else', () => {
    const chain = (forward: boolean): Network => ({
      reference: '0V',
      nodes: ['+24', '0V', 'm', 'x'],
      elements: [
        supply,
        { id: 'D1', kind: 'diode', a: forward ? '+24' : 'm', b: forward ? 'm' : '+24' },
        { id: 'D2', kind: 'diode', a: forward ? 'm' : 'x', b: forward ? 'x' : 'm' },
        resistor('R', 'x', '0V', 1000),
      ],
    });
    expect(solveNetwork(chain(true)).nodeVolts['x']).toBeCloseTo(24 - 1.4, 3);
    expect(solveNetwork(chain(false)).nodeVolts['x']).toBeCloseTo(0, 9);
  });

  it('lets a limited supply fall when it is overloaded', () => {
    const network: Network = {
      reference: '0V',
      nodes: ['+24', '0V'],
      elements: [{ ...supply, limitA: 0.1 }, resistor('R', '+24', '0V', 100)],
    };
    const { nodeVolts, elementAmps } = solveNetwork(network);
    expect(nodeVolts['+24']).toBeCloseTo(10, 6);
    expect(elementAmps['PS']).toBeCloseTo(-0.1, 9);
  });

  it('stops a transmitter at the voltage it needs, and a current source at its compliance', () => {
    const loop = (ohm: number) =>
      solveNetwork({
        reference: '0V',
        nodes: ['+24', '0V', 'L'],
        elements: [
          supply,
          { id: 'TX', kind: 'transmitter', a: '+24', b: 'L', amps: 0.02, minVolts: 10 },
          resistor('R', 'L', '0V', ohm),
        ],
      });
    expect(loop(500).elementAmps['TX']).toBeCloseTo(0.02, 9);
    expect(loop(1400).elementAmps['TX']).toBeCloseTo(0.01, 9);
    const active = solveNetwork({
      reference: '0V',
      nodes: ['0V', 'O'],
      elements: [
        { id: 'A', kind: 'currentSource', a: '0V', b: 'O', amps: 0.02, complianceVolts: 12 },
      ],
    });
    expect(active.nodeVolts['O']).toBeCloseTo(12, 6);
  });

  it('refuses a network that names what is not there, with the path', () => {
    const bad = v.safeParse(networkSchema, {
      reference: '0V',
      nodes: ['0V'],
      elements: [{ id: 'R', kind: 'resistor', a: '0V', b: 'nowhere', ohm: 1 }],
    });
    expect(bad.success).toBeFalse();
    expect(bad.issues?.map((i) => v.getDotPath(i))).toEqual(['elements.0.b']);
  });
});

describe('Circuit', () => {
  it('gives the same bits from the cache as without it', () => {
    // Two parts that nothing joins: a chain with a source, and a divider beside it.
    const plan = {
      nodeCount: 7,
      edgeA: [0, 1, 2, 0, 4, 5],
      edgeB: [1, 2, 3, 3, 5, 6],
      modal: [],
      reference: 3,
    };
    const [cached, bare] = [new Circuit(plan), new Circuit(plan, { cached: false })];
    for (let round = 0; round < 300; round++) {
      const stamp = cached.emptyStamp();
      stamp.g.set([
        1 / 0.05,
        round % 3 === 0 ? 0 : 1 / (1 + (round % 7)),
        1 / 4700,
        1e6,
        round % 5 === 0 ? 0 : 1 / 10,
        1 / 30,
      ]);
      stamp.emf[3] = 24;
      const [x, y] = [cached.solve(stamp), bare.solve(stamp)];
      expect(Array.from(x.volts)).toEqual(Array.from(y.volts));
      expect(Array.from(x.island)).toEqual(Array.from(y.island));
      expect([x.island[4] === x.island[6], x.island[0] === x.island[4]]).toEqual([
        round % 5 !== 0,
        false,
      ]);
      const other = Float64Array.of(0, 0, 0, 0, 0, round % 4 === 0 ? 12 : 6);
      expect(Array.from(cached.respond(other, 1))).toEqual(Array.from(bare.respond(other, 1)));
    }
  });
});
