import { asPlanned, install } from '../installation/index.js';
import { faultKey, type Fault, type Job } from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { everyArrangement } from '../testing/matrix.js';
import { potentialsOf, singleFaults, switchFault, wireNets } from './index.js';

const faultsOf = (job: Job, profile = marrowick()) =>
  singleFaults(asPlanned(job, profile), potentialsOf(install(job, profile)));

describe('single faults', () => {
  const job = adopted(bareJob({ estop: 'contactor', interlocks: ['guard'] }));

  it('name every control, safety and signal wire once a kind, and every stuck contact', () => {
    const faults = faultsOf(job);
    const keys = faults.map((f) => f.key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const [id, wire] of Object.entries(job.adopted?.wires ?? {})) {
      const kinds = faults.filter((f) => f.wire === id).map((f) => f.kind);
      const wanted =
        wire.class === 'pe'
          ? ['open']
          : ['controlDc', 'analogue', 'safety'].includes(wire.class)
            ? ['open', 'to24', 'to0']
            : wire.class === 'controlAc'
              ? ['open', 'toLine', 'toNeutral']
              : [];
      expect(kinds)
        .withContext(`${id} ${wire.class}`)
        .toEqual(wanted as never);
    }
    expect(faults.filter((f) => f.kind === 'welded').map((f) => f.subject)).toContain('estop');
  });

  it('have the same keys for the same plan, and a switch each on every arrangement and family', () => {
    for (const { name, job: built, profile } of everyArrangement().filter((_, i) => i % 4 === 0)) {
      const faults = faultsOf(built, profile);
      const again = faultsOf(JSON.parse(JSON.stringify(built)) as Job, profile);
      expect(again.map((f) => f.key))
        .withContext(name)
        .toEqual(faults.map((f) => f.key));
      const { switchOf, installation } = switchFault(
        install(built, profile),
        faults.map((f) => f.fault),
      );
      const numbers = faults.map((f) => switchOf(f.fault));
      expect(numbers.every((n) => n !== undefined))
        .withContext(name)
        .toBeTrue();
      // Each short is an edge of its own in the one network; nothing else is added to it.
      const shorts = new Set(
        faults.filter((f) => f.fault.kind === 'short').map((f) => faultKey(f.fault)),
      );
      expect(installation.edges.length - install(built, profile).edges.length)
        .withContext(name)
        .toBeGreaterThanOrEqual(shorts.size);
    }
  });

  it('have no switch where what they name is not there', () => {
    const there = install(job, marrowick());
    const missing: Fault[] = [
      { kind: 'open', wire: 'none' },
      { kind: 'short', a: 'device:IN1', b: 'nothing:1' },
      { kind: 'stuck', device: 'none', contact: '13', is: 'closed' },
    ];
    const made = switchFault(there, missing as never);
    expect(missing.map((f) => made.switchOf(f as never))).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
  });

  it('know the potentials of their circuit: the device’s own supply, and the alternating one behind its protection', () => {
    const at = potentialsOf(install(job, marrowick()));
    expect([at.to24, at.to0]).toEqual(['device:P24', 'device:P0']);
    expect(at.toLine).toBeDefined();
    const none = potentialsOf(install(adopted(bareJob()), marrowick()));
    expect([none.toLine, none.toNeutral]).toEqual([undefined, undefined]);
  });

  it('share a net where wires alone lie between them', () => {
    const panel = asPlanned(job, marrowick());
    const nets = wireNets(panel);
    for (const { from, to } of Object.values(panel.wires))
      expect(nets.get(from)).toBe(nets.get(to));
    expect(nets.get('device:P24')).not.toBe(nets.get('device:P0'));
  });
});
