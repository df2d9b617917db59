import { everyArrangement } from '../testing/matrix.js';
import { say } from '../words/index.js';
import { signalList } from './index.js';

describe('the signal list of an outside controller', () => {
  const cases = everyArrangement();

  it('is there wherever a controller gives something, tells every wire of it with both ends, and has words for all', () => {
    let lists = 0;
    for (const { name, job, profile } of cases) {
      const list = signalList(job, profile);
      const given = Object.values(job.adopted?.devices ?? {}).some((d) =>
        /^(?:controllerContact|transistorOutput|voltageSource|currentSource)$/u.test(d.kind),
      );
      expect(list.length > 0)
        .withContext(name)
        .toBe(given);
      if (!given) continue;
      lists++;
      const told = new Set(list.flatMap((s) => s.ends.map((e) => e.wire)));
      const parts = new Set(list.map((s) => s.part));
      for (const w of Object.values(job.adopted?.wires ?? {}))
        if ([w.from, w.to].some((end) => parts.has(end.slice(0, end.lastIndexOf(':')))))
          expect(told.has(w.number)).withContext(`${name} ${w.number}`).toBeTrue();
      for (const s of list) {
        expect(s.ends.length).withContext(`${name} ${s.part}`).toBeGreaterThan(1);
        for (const p of [s.does, s.kind, s.closed, s.open, s.unpowered])
          expect(say(p))
            .withContext(`${name} ${p.code}`)
            .not.toMatch(/undefined|NaN|^signal\./u);
      }
    }
    expect(lists).toBeGreaterThan(10);
  });

  it('tells a handshake in its order: command, answer, speed', () => {
    const handshakes = cases.filter(({ name }) => name.endsWith('controllerHandshake'));
    expect(handshakes.length).toBeGreaterThan(1);
    for (const { name, job, profile } of handshakes)
      expect(
        signalList(job, profile)
          .filter((s) => s.order > 0)
          .map((s) => `${s.order} ${s.does.code}`),
      )
        .withContext(name)
        .toEqual(['1 signal.run', '2 signal.runs', '3 signal.speed']);
  });

  it('says of a current that is gone what the device really does then', () => {
    for (const { name, job, profile } of cases.filter((c) =>
      c.name.endsWith('controllerCurrent'),
    )) {
      const speed = signalList(job, profile).find((s) => s.does.code === 'signal.speed');
      expect(String(speed?.unpowered.args['does'] ?? ''))
        .withContext(name)
        .toMatch(/^(?:stop|preset|holdLast|fault|unknown)$/u);
    }
  });
});
