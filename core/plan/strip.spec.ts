import type { Profile } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import { landingParts, type Job } from '../job/index.js';
import { liveSteps } from '../procedure/index.js';
import { judged } from '../requirements/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { trialsOf } from '../trials/index.js';
import { adoption, planJob } from './plan.js';

const isOfStrip = (end: string): boolean => landingParts(end).device === 'strip.control';

describe('field wires over a terminal strip', () => {
  it('do on every arrangement what they do without it: the same functions met, the same said, one landing a side', () => {
    let [stripped, lifted] = [0, 0];
    for (const { name, job, profile } of everyArrangement()) {
      const wished: Job = { ...job, scheme: { ...job.scheme, fieldWires: 'strip' } };
      const plan = planJob(wished, profile);
      if (!plan.ok) throw new Error(`${name} cannot be planned`);
      const built = { ...wished, adopted: adoption(plan) };
      const wires = Object.values(built.adopted.wires);
      const states = (j: Job): string[] =>
        judged(trialsOf(j, profile)).map((x) => `${x.requirement.id} ${x.state}`);
      expect(states(built)).withContext(name).toEqual(states(job));
      const graves = (j: Job): string[] =>
        checkJob(j, profile)
          .filter((f) => f.severity === 'stop')
          .map((f) => f.rule);
      expect(graves(built)).withContext(name).toEqual(graves(job));
      const ends = wires.flatMap((w) => [w.from, w.to]).filter(isOfStrip);
      expect(new Set(ends).size).withContext(name).toBe(ends.length);
      // Every control cable of the field begins at the strip, but where it goes from place to place.
      const field = wires.filter((w) => w.cable && w.class !== 'motor' && w.class !== 'pe');
      for (const w of field)
        expect([w.from, w.to].filter(isOfStrip).length)
          .withContext(`${name} ${w.number} ${w.from} ${w.to}`)
          .toBeLessThanOrEqual(1);
      const count = Number(built.adopted.devices['strip.control']?.params['count'] ?? 0);
      expect(ends.length)
        .withContext(name)
        .toBe(2 * count);
      if (count === 0) continue;
      stripped++;
      // A clamp that is open is as a wire that is open: it can be found by the one place.
      const stop = wires.find(
        (w) => w.function === 'stop.1.strip' || w.function === 'feed.stop.strip',
      );
      if (job.scheme.startStop !== 'threeWire') continue;
      const clamp = stop && [stop.from, stop.to].find(isOfStrip);
      if (!clamp) continue;
      const contact = `${parseInt(landingParts(clamp).terminal, 10)}.i`;
      const actual = { kind: 'stuck', device: 'strip.control', contact, is: 'open' } as const;
      const found: Job = {
        ...built,
        deviations: {
          d1: {
            ord: 1,
            where: { kind: 'device', id: 'strip.control' },
            actual,
            why: 'clamp not tightened',
          },
        },
      };
      const run = trialsOf(found, profile).run('direction.forward');
      expect(run.runs('start')).withContext(`${name} ${clamp}`).toBeFalse();
      lifted++;
    }
    expect(stripped).toBeGreaterThan(80);
    expect(lifted).toBeGreaterThan(3);
  });

  it('are named by their landing in the tests', () => {
    const one = everyArrangement().find((c) => c.name === 'ondulet-n threeWireSeparate');
    if (!one) throw new Error('the arrangement is shipped');
    const wished: Job = { ...one.job, scheme: { ...one.job.scheme, fieldWires: 'strip' } };
    const plan = planJob(wished, one.profile);
    if (!plan.ok) throw new Error('it can be planned');
    const steps = liveSteps({ ...wished, adopted: adoption(plan) }, one.profile);
    const without = liveSteps(one.job, one.profile);
    expect(steps.map((s) => s.key)).toEqual(without.map((s) => s.key));
  });
});

describe('field wires over plugs', () => {
  const onPlug = (end: string): boolean => landingParts(end).device.startsWith('plug.');
  const built = (job: Job, profile: Profile): Job & { adopted: NonNullable<Job['adopted']> } => {
    const wished: Job = { ...job, scheme: { ...job.scheme, fieldWires: 'plug' } };
    const plan = planJob(wished, profile);
    if (!plan.ok) throw new Error(`${job.tag} cannot be planned`);
    return { ...wished, adopted: adoption(plan) };
  };

  it('do what they do without them, one plug a cable, one landing a side', () => {
    let [plugged, named] = [0, 0];
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 3 === 0)) {
      const over = built(job, profile);
      const states = (j: Job): string[] =>
        judged(trialsOf(j, profile)).map((x) => `${x.requirement.id} ${x.state}`);
      expect(states(over)).withContext(name).toEqual(states(job));
      const graves = (j: Job): string[] =>
        checkJob(j, profile)
          .filter((f) => f.severity === 'stop')
          .map((f) => f.rule);
      expect(graves(over)).withContext(name).toEqual(graves(job));
      const wires = Object.values(over.adopted.wires);
      const ends = wires.flatMap((w) => [w.from, w.to]).filter(onPlug);
      expect(new Set(ends).size).withContext(name).toBe(ends.length);
      const plugs = Object.entries(over.adopted.devices).filter(
        ([, d]) => d.kind === 'plugConnector',
      );
      expect(ends.length)
        .withContext(name)
        .toBeLessThanOrEqual(plugs.reduce((n, [, d]) => n + 2 * Number(d.params['count']), 0));
      // Everything behind a plug is of its one cable.
      for (const [id] of plugs)
        expect(
          new Set(
            wires
              .filter((w) => w.cable && [w.from, w.to].some((e) => landingParts(e).device === id))
              .map((w) => `plug.${w.cable ?? ''}`),
          ),
        )
          .withContext(`${name} ${id}`)
          .toEqual(new Set([id]));
      // None fits where another belongs, until somebody takes others.
      const alike = (j: Job) => checkJob(j, profile).filter((f) => f.rule === 'plugs.exchangeable');
      const counts = plugs.map(([, d]) => d.params['count']);
      expect([alike(over).length, new Set(counts).size])
        .withContext(name)
        .toEqual([0, counts.length]);
      const [one, other] = plugs;
      if (other) {
        const devices = structuredClone(over.adopted.devices);
        devices[one[0]].params['count'] = devices[other[0]].params['count'];
        const bought = { ...over, adopted: { ...over.adopted, devices } };
        expect(alike(bought).length).withContext(name).toBe(1);
        named++;
      }
      plugged += plugs.length;
    }
    expect(plugged).toBeGreaterThan(40);
    expect(named).toBeGreaterThan(20);
  });
});
