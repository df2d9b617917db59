import { install, asPlanned } from '../installation/index.js';
import type { Adopted } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { actuatorBlocks, cableCores, endFacts, freeTerminals } from './hand-facts.js';

describe('what hands need', () => {
  const cases = everyArrangement();

  it('names every contact that a wire lands on once, closed where the simulation has it closed', () => {
    for (const { name, job, profile } of cases) {
      const adopted = job.adopted as Adopted;
      const installation = install(
        job,
        profile,
        { from: 'planned' },
        { panel: asPlanned(job, profile) },
      );
      const blocks = new Map(
        actuatorBlocks(adopted).flatMap((a) => a.blocks.map((b) => [`${a.id}:${b.a}`, b] as const)),
      );
      for (const d of installation.devices) {
        if (d.kind !== 'contacts') continue;
        for (const { terminal, closedIn } of d.contacts) {
          const block = blocks.get(`${d.id}:${terminal}`);
          if (!block) continue;
          expect([...block.closedIn])
            .withContext(name)
            .toEqual([...closedIn]);
          expect(block.makes).withContext(name).toBe(!closedIn.includes(d.rest));
        }
      }
      const landed = Object.values(adopted.wires).flatMap((w) => [w.from, w.to]);
      for (const [at, { wired }] of blocks)
        if (landed.includes(at)) expect(wired).withContext(`${name} ${at}`).toBeTrue();
    }
  });

  it('counts every core of every cable, and never fewer in the cable than are used', () => {
    for (const { name, job } of cases) {
      const { wires } = job.adopted as Adopted;
      const cores = cableCores(job.adopted as Adopted);
      const used = Object.values(wires).filter((w) => w.cable !== undefined).length;
      expect(cores.reduce((sum, c) => sum + c.used, 0))
        .withContext(name)
        .toBe(used);
      for (const c of cores) expect(c.usual).withContext(name).toBeGreaterThanOrEqual(c.used);
    }
  });

  it('calls free what no wire lands on, and gives strip and torque of the device alone', () => {
    for (const { name, job, profile } of cases) {
      const adopted = job.adopted as Adopted;
      const at = new Set(Object.values(adopted.wires).flatMap((w) => [w.from, w.to]));
      for (const t of freeTerminals(adopted, profile))
        expect(at.has(`${adopted.device}:${t}`))
          .withContext(`${name} ${t}`)
          .toBeFalse();
      for (const id of Object.keys(adopted.wires))
        for (const { landing } of endFacts(adopted, profile, id))
          expect(landing.startsWith(`${adopted.device}:`))
            .withContext(name)
            .toBeTrue();
    }
  });
});
