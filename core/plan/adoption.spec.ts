import type { Evidence, Job } from '../job/index.js';
import { adopted, bareJob, marrowick, planned } from '../testing/jobs.js';
import { say } from '../words/index.js';
import { adoptsByItself, differs, movedEnd, wiringDifference } from './adoption.js';
import { adoption, planJob } from './plan.js';

const profile = marrowick();
const job = adopted(bareJob());
const evidence = (kind: string, body: object = {}): Evidence =>
  ({ kind, body }) as unknown as Evidence;

describe('a plan is adopted by itself', () => {
  it('until somebody has landed, keyed, read back or measured something of it', () => {
    for (const harmless of [
      evidence('isolation', { state: 'DEAD' }),
      evidence('attachment'),
      evidence('acceptance'),
      evidence('punch'),
      evidence('snapshot', { which: 'asFound' }),
    ])
      expect(adoptsByItself([harmless]))
        .withContext(harmless.kind)
        .toBeTrue();
    for (const work of [
      evidence('handTick'),
      evidence('keyed'),
      evidence('readBack'),
      evidence('reading'),
      evidence('signature'),
      evidence('snapshot', { which: 'asLeft' }),
    ])
      expect(adoptsByItself([evidence('isolation'), work]))
        .withContext(work.kind)
        .toBeFalse();
  });
});

describe('what a plan changes', () => {
  const changed = (scheme: Partial<Job['scheme']>): Job => ({
    ...job,
    scheme: { ...job.scheme, ...scheme },
  });
  const difference = (after: Job): string[] => {
    const plan = planned(after);
    if (!plan.ok) throw new Error('no plan');
    return wiringDifference(job.adopted, plan.wiring).map((c) => say(c.said));
  };

  it('is said of each thing: what it was and what it becomes, and nothing of what stays', () => {
    expect(difference(job)).toEqual([]);
    expect(difference(changed({ accelS: 9 }))).toEqual(['setting 212: 5 → 9']);
    const jog = wiringDifference(
      job.adopted,
      (planned(changed({ jog: 'forward' })) as never as { wiring: never }).wiring,
    );
    expect(jog.some((c) => c.of === 'device' && c.change === 'added')).toBeTrue();
    expect(jog.some((c) => c.of === 'wire' && c.change === 'added')).toBeTrue();
    expect(jog.filter((c) => c.change === 'removed')).toEqual([]);
    for (const { said } of jog) expect(say(said)).not.toBe(said.code);
  });

  it('goes the other way round when the two are exchanged', () => {
    const plan = planned(changed({ jog: 'forward' }));
    if (!plan.ok || !job.adopted) throw new Error('no plan');
    const there = wiringDifference(job.adopted, plan.wiring);
    const back = wiringDifference(plan.wiring, job.adopted);
    const turned = { added: 'removed', removed: 'added', changed: 'changed' } as const;
    expect(back.map((c) => `${c.of} ${c.id} ${c.change}`).sort()).toEqual(
      there.map((c) => `${c.of} ${c.id} ${turned[c.change]}`).sort(),
    );
  });

  it('is everything where nothing was adopted, and nothing of who decided it', () => {
    expect(differs(undefined, job.adopted as never)).toBeTrue();
    const person = structuredClone(job.adopted) as NonNullable<Job['adopted']>;
    for (const w of Object.values(person.wires)) (w as { origin: string }).origin = 'person';
    expect(differs(job.adopted, person)).toBeFalse();
    person.wires[Object.keys(person.wires)[0]] = {
      ...Object.values(person.wires)[0],
      colour: 'violet',
    };
    expect(wiringDifference(job.adopted, person).map((c) => c.change)).toEqual(['changed']);
  });
});

describe('a wire end that is put elsewhere', () => {
  const [fn, { at }] = Object.entries(job.adopted?.assignments ?? {})[0];
  const [wire, spec] = Object.entries(job.adopted?.wires ?? {}).find(
    ([, w]) => w.from === at || w.to === at,
  ) as [string, { from: string; to: string }];
  const end = spec.to === at ? 'to' : 'from';
  const move = (to: string, which: 'from' | 'to' = end) => movedEnd(job, profile, wire, which, to);
  const taken = new Set(Object.values(job.adopted?.assignments ?? {}).map((a) => a.at));
  const free = Object.keys(profile.terminals).find(
    (t) => profile.terminals[t].kind === 'digitalInput' && !taken.has(`device:${t}`),
  );

  it('takes its function along to a free input, and the next plan keeps it there', () => {
    const moved = move(`device:${free}`);
    expect(moved).toEqual({ ok: true, pin: fn, at: `device:${free}` });
    const pinned: Job = {
      ...job,
      decisions: { ...job.decisions, pins: { [fn]: { at: `device:${free}`, why: 'moved' } } },
    };
    const plan = planJob(pinned, profile);
    if (!plan.ok) throw new Error('no plan');
    expect(plan.wiring.assignments[fn]).toEqual(
      jasmine.objectContaining({ at: `device:${free}`, origin: 'person' }),
    );
    expect(adoption(plan).planHash).not.toBe(job.adopted?.planHash as string);
  });

  it('is a decision of the wire alone where no function moves or no input is there', () => {
    const other = end === 'to' ? 'from' : 'to';
    const elsewhere = Object.values(job.adopted?.wires ?? {})
      .flatMap((w) => [w.from, w.to])
      .find((l) => l !== spec.from && l !== spec.to && !l.startsWith('device:')) as string;
    expect(move(elsewhere, other)).toEqual({ ok: true, wire, end: other, at: elsewhere });
  });

  it('is refused with its reason: no such wire, both ends together, a terminal that is taken', () => {
    const codes = [
      movedEnd(job, profile, 'none', 'to', at),
      move(spec[end === 'to' ? 'from' : 'to']),
      move([...taken].find((l) => l !== at) as string),
    ].map((m) => (m.ok ? '' : m.said.code));
    expect(codes).toEqual(['move.noWire', 'move.bothEnds', 'move.taken']);
  });
});
