import { handLine, tickOf, type Adopted, type Evidence, type Job } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { handWords } from '../words/index.js';
import { handGroups, handTasks, terminalRows, type HandTask } from './index.js';

const tick = (lines: readonly string[], act: 'landed' | 'torque', atClient: string): Evidence =>
  ({
    id: `e${atClient}`,
    kind: 'handTick',
    subject: 'hand',
    atClient,
    author: { name: 'A. Hollis', role: 'electrician' },
    body: tickOf(lines, act, 'line'),
  }) as unknown as Evidence;

describe('everything that hands do', () => {
  const cases = everyArrangement();
  const idsOf = (tasks: readonly HandTask[], group: string): string[] =>
    tasks.filter((t) => t.group === group).map((t) => t.id);

  it('has every wire, link, part and cable of every plan once, in the order of the work, each in words', () => {
    for (const { name, job, profile } of cases) {
      const adopted = job.adopted as Adopted;
      const tasks = handTasks(job, profile, []);
      const ids = tasks.map((t) => t.id);
      expect(new Set(ids).size).withContext(name).toBe(ids.length);
      expect(ids.filter((id) => id in adopted.wires).sort())
        .withContext(name)
        .toEqual(Object.keys(adopted.wires).sort());
      expect(idsOf(tasks, 'links').sort())
        .withContext(name)
        .toEqual(
          Object.keys(profile.links)
            .map((id) => `link:${id}`)
            .sort(),
        );
      for (const [id, { kind }] of Object.entries(adopted.devices))
        expect(ids.includes(`mount:${id}`))
          .withContext(`${name} ${id}`)
          .toBe(!/^supply(?!24)/u.test(kind));
      const cables = new Set(Object.values(adopted.wires).flatMap((w) => w.cable ?? []));
      for (const cable of cables) expect(ids).withContext(name).toContain(`label:${cable}`);
      const order = tasks.map((t) => handGroups.indexOf(t.group));
      expect(order)
        .withContext(name)
        .toEqual([...order].sort((x, y) => x - y));
      const words = handWords(job, profile);
      for (const { id, does } of tasks) {
        const said = does ? words.does(does) : words.wire(adopted.wires[id]);
        expect(said)
          .withContext(`${name} ${id}`)
          .not.toMatch(/^hand\.|undefined|^$/u);
      }
    }
  });

  it('has at the terminals of the device the same wires as the terminal view', () => {
    for (const { name, job, profile } of cases.filter((_, i) => i % 5 === 0)) {
      const { wires, device } = job.adopted as Adopted;
      const seen = new Set(terminalRows(job, profile).flatMap((r) => r.ends.map((e) => e.wire)));
      const listed = handTasks(job, profile, [])
        .map((t) => t.id)
        .filter((id) =>
          [wires[id]?.from, wires[id]?.to].some((at) => at?.startsWith(`${device}:`)),
        );
      expect([...seen].sort())
        .withContext(name)
        .toEqual(listed.sort());
    }
  });

  it('keeps torque apart from landed, and asks again for a link that is planned otherwise since', () => {
    const found = cases.find(({ job, profile }) => {
      const [id] = Object.keys(profile.links);
      return id !== undefined && Object.keys(profile.links[id].positions).length > 1 && job.adopted;
    });
    if (!found) throw new Error('no job with a link');
    const { job, profile } = found;
    const all = handTasks(job, profile, []);
    const wire = all.find((t) => t.torqueNm.length > 0) as HandTask;
    const link = all.find((t) => t.group === 'links') as HandTask;
    const done = [
      tick([wire.line, link.line], 'landed', '2026-11-02T08:00:00.000Z'),
      tick([wire.line], 'torque', '2026-11-02T08:01:00.000Z'),
    ];
    const at = (of: Job, id: string): unknown[] => {
      const t = handTasks(of, profile, done).find((x) => x.id === id);
      return [t?.landed !== undefined, t?.torqued !== undefined, t?.stale];
    };
    expect(wire.line).toBe(handLine(wire.id, job));
    expect(at(job, wire.id)).toEqual([true, true, false]);
    expect(at(job, link.id)).toEqual([true, false, false]);
    const id = link.id.slice('link:'.length);
    const stands = job.adopted?.links[id]?.position ?? profile.links[id].factory;
    const other = Object.keys(profile.links[id].positions).find((p) => p !== stands) as string;
    const moved = structuredClone(job);
    (moved.adopted as Adopted).links[id] = {
      ...moved.adopted?.links[id],
      position: other,
    } as Adopted['links'][string];
    expect(at(moved, link.id)).toEqual([false, false, true]);
  });
});
