import { verdictOfStep, type Job } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { sayAct, sayCaution, say } from '../words/index.js';
import { deadOf } from './index.js';

/** The job with one wire found open. */
const opened = (job: Job, wire: string): Job => ({
  ...job,
  deviations: {
    d1: { ord: 1, where: { kind: 'wire', id: wire }, actual: { kind: 'open', wire }, why: 'found' },
  },
});

describe('dead checks', () => {
  it('of every arrangement begin isolated and proved dead, hold what follows, and have words for all', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const { steps } = deadOf(job, profile);
      const keys = steps.map((s) => s.key);
      expect(new Set(keys).size).withContext(name).toBe(keys.length);
      expect(keys.slice(0, 2))
        .withContext(name)
        .toEqual(['dead.isolate.locked', 'dead.isolate.proved']);
      const isolation = keys.filter((k) => k.startsWith('dead.isolate.'));
      for (const s of steps) {
        const context = `${name} ${s.key}`;
        expect(s.part).withContext(context).toBe('dead');
        if (!isolation.includes(s.key)) expect(s.needs).withContext(context).toEqual(isolation);
        const ohms = s.instrument === 'ohmmeter' || s.instrument === 'low-ohm meter';
        if (s.from.kind === 'formula') expect(ohms).withContext(`${context} by ohms`).toBeTrue();
        for (const p of [s.do, s.must]) expect(say(p)).withContext(context).not.toBe(p.code);
        for (const c of s.cautions) expect(sayCaution(c)).withContext(c).not.toBe(c);
        expect(sayAct(s.act ?? '', s.do.args))
          .withContext(context)
          .not.toBe(s.act ?? '');
      }
    }
  });

  it('of every arrangement measure each protective conductor and each input, or say that a relay hides it', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const { steps, unseen } = deadOf(job, profile);
      const pe = Object.entries(job.adopted?.wires ?? {}).filter(([, w]) => w.class === 'pe');
      for (const [id] of pe)
        expect(steps.some((s) => s.key === `dead.pe.${id}`))
          .withContext(`${name} ${id}`)
          .toBeTrue();
      for (const [id, { at }] of Object.entries(job.adopted?.assignments ?? {}))
        expect(steps.some((s) => s.act === `dead.loop.${id}`) || unseen.includes(at))
          .withContext(`${name} ${id}`)
          .toBeTrue();
    }
  });

  it('find a wire of a loop that is open: what the sound job expects, the job as found does not read', () => {
    let [tried, found] = [0, 0];
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 4 === 0)) {
      const sound = deadOf(job, profile);
      const loops = sound.steps.filter((s) => s.act?.startsWith('dead.loop.'));
      const ends = new Set(
        Object.entries(job.adopted?.assignments ?? {})
          .filter(([id]) => loops.some((s) => s.act === `dead.loop.${id}`))
          .map(([, a]) => a.at),
      );
      const wires = Object.entries(job.adopted?.wires ?? {}).filter(
        ([, w]) => ends.has(w.to) || ends.has(w.from),
      );
      for (const [wire, w] of wires.slice(0, 3)) {
        tried++;
        const asFound = new Map(deadOf(opened(job, wire), profile).steps.map((s) => [s.key, s]));
        // A way that is open has no step any more, or expects to be open: the sound expectation fails there.
        const shows = loops.some((s) => {
          const now = asFound.get(s.key);
          const reads = now?.expect?.kind === 'range' ? now.expect.nominal : null;
          if (s.expect?.kind !== 'range') return false;
          return reads === null || verdictOfStep(s, reads) === 'fail';
        });
        expect(shows).withContext(`${name} ${w.number} ${w.from} ${w.to}`).toBeTrue();
        if (shows) found++;
      }
    }
    expect(tried).toBeGreaterThan(30);
    expect(found).toBe(tried);
  });
});
