import { say } from '../words/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import { partsList, toolsList } from './parts.js';

describe('parts and tools', () => {
  const job = adopted(bareJob());
  const profile = marrowick();
  const said = (j = job) =>
    partsList(j, profile).map((p) => `${p.quantity}${p.unit} ${say(p.what)}`);

  it('counts two ferrules and two markers for every wire, and every metre of it once', () => {
    const wires = Object.values(job.adopted?.wires ?? {});
    const parts = partsList(job, profile);
    const sum = (code: string) =>
      parts.filter((p) => p.what.code === code).reduce((n, p) => n + p.quantity, 0);
    expect(sum('part.ferrules')).toBe(2 * wires.length);
    expect(sum('part.markers')).toBe(2 * wires.length);
    const loose = wires
      .filter((w) => !w.cable && w.class !== 'motor')
      .reduce((m, w) => m + w.lengthM, 0);
    expect(sum('part.wire')).toBeGreaterThanOrEqual(loose);
    expect(sum('part.motorCable')).toBe(48);
    const cables = new Set(
      wires.flatMap((w) => (w.cable && w.class !== 'motor' && w.class !== 'pe' ? [w.cable] : [])),
    );
    expect(
      parts
        .filter((p) => p.what.code === 'part.controlCable')
        .map((p) => p.tag)
        .sort(),
    ).toEqual([...cables].sort());
  });

  it('names the station by tag and kind, and every block of the line', () => {
    const more = structuredClone(job);
    more.plate.line = {
      protection: { kind: 'breaker', ratedA: { v: 10, u: 'A' } },
      resistor: { ohm: { v: 100, u: 'Ω' } },
      motorIsolator: {},
    };
    more.plate.control = { supply24: { v: 2.5, u: 'A' } };
    expect(said(more).filter((s) => !said().includes(s))).toEqual([
      '1 Protective device, breaker, 10 A',
      '1 Braking resistor, 100 Ω',
      '1 Isolator at the motor, with early-break contact',
      '1 24 V supply, 2.5 A',
    ]);
    for (const p of [
      ...partsList(more, profile).map((x) => x.what),
      ...toolsList(more, profile).flatMap((t) => [t.what, t.why]),
    ]) {
      expect(say(p))
        .withContext(p.code)
        .not.toMatch(/^(part|tool)\.|undefined|[a-z][A-Z]/u);
    }
  });

  it('brings what this job measures: no rotation tester on one phase, torque of these terminals', () => {
    const codes = (j = job) => toolsList(j, profile).map((t) => t.what.code);
    expect(codes()).toContain('tool.rotation');
    const one = structuredClone(job);
    one.plate.supply.phases = 1;
    expect(codes(one)).not.toContain('tool.rotation');
    expect(toolsList(job, profile).find((t) => t.what.code === 'tool.torque')?.what.args).toEqual({
      from: 0.5,
      to: 1.8,
    });
  });
});
