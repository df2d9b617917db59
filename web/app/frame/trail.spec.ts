import type { Derived } from '@tactron/core/said';
import type { Job } from '@tactron/core/job';
import { hintOf, trailOf } from './trail';

const job = { adopted: { wires: {} }, scripts: {} } as unknown as Job;
const derived = (more: Partial<Derived>): Derived =>
  ({
    facts: [],
    plate: { needed: 9, missing: [] },
    scheme: { needed: 5, missing: [] },
    findings: [],
    lines: [],
    keying: { done: 0, of: 0 },
    steps: [],
    dead: [],
    obstacles: [],
    past: [],
    difference: [],
    rows: [],
    ...more,
  }) as unknown as Derived;
const finding = (rule: string, severity: string, accepted = false) => ({
  finding: {
    rule,
    severity,
    key: rule,
    stage: rule.startsWith('restart') ? 'scheme' : 'plate',
    where: [],
  },
  what: rule,
  accepted: accepted ? {} : null,
});

describe('the next act', () => {
  const stage = (d: Derived): string | undefined => hintOf(job, d)?.stage;

  it('is a dead check until one is tested live, whatever is open there', () => {
    const open = [{ state: 'open', do: 'x' }] as never;
    const passed = [{ state: 'pass', do: 'x' }] as never;
    expect(stage(derived({ dead: open, steps: open }))).toBe('dead');
    expect(stage(derived({ dead: passed, steps: open }))).toBe('live');
    expect(stage(derived({ dead: open, steps: passed }))).toBe('handover');
    const marks = trailOf(job, derived({ dead: [...passed, ...open], steps: open }));
    expect(marks.find((m) => m.name === 'dead')?.mark).toBe('1/2');
  });

  it('goes from plates over wishes and hazards to keys, tests and hand-over', () => {
    expect(stage(derived({ plate: { needed: 9, missing: ['a'] } }))).toBe('plate');
    expect(stage(derived({ findings: [finding('plate.linkWrong', 'stop')] as never }))).toBe(
      'plate',
    );
    expect(stage(derived({ scheme: { needed: 5, missing: ['a'] } }))).toBe('scheme');
    expect(stage(derived({ findings: [finding('restart.powerReturn', 'stop')] as never }))).toBe(
      'scheme',
    );
    expect(
      stage(
        derived({
          findings: [finding('restart.powerReturn', 'stop', true)] as never,
          lines: [{ done: false, code: '212' }] as never,
          keying: { done: 3, of: 4 },
        }),
      ),
    ).toBe('key');
    expect(
      stage(
        derived({
          steps: [
            { state: 'open', do: 'x' },
            { state: 'stale', do: 'y' },
          ] as never,
        }),
      ),
    ).toBe('live');
    expect(
      hintOf(
        job,
        derived({
          steps: [
            { state: 'open', do: 'x' },
            { state: 'stale', do: 'y' },
          ] as never,
        }),
      )?.text,
    ).toContain('y');
    expect(stage(derived({}))).toBe('handover');
  });

  it('asks for what is open where somebody is, before what is open elsewhere', () => {
    const open = derived({
      lines: [{ done: false, code: '212' }] as never,
      keying: { done: 3, of: 4 },
      dead: [
        { state: 'pass', do: 'a' },
        { state: 'open', do: 'b' },
      ] as never,
      steps: [
        { state: 'open', do: 'x' },
        { state: 'fail', do: 'y', title: 'Second act' },
      ] as never,
    });
    expect(hintOf(job, open)?.stage).toBe('key');
    expect(hintOf(job, open, undefined, 'dead')).toEqual({ stage: 'dead', text: 'Next here: b' });
    expect(hintOf(job, open, undefined, 'live')).toEqual({
      stage: 'live',
      text: 'Again here: Second act',
    });
    const done = derived({ steps: [{ state: 'open', do: 'x' }] as never });
    expect(hintOf(job, done, undefined, 'dead')?.stage).toBe('live');
  });

  it('counts what is missing in the walk', () => {
    const marks = Object.fromEntries(
      trailOf(
        job,
        derived({
          plate: { needed: 9, missing: ['a', 'b'] },
          steps: [{ state: 'pass' }, { state: 'stale' }] as never,
        }),
      ).map((m) => [m.name, m.mark]),
    );
    expect([marks['plate'], marks['live'], marks['dead'], marks['key']]).toEqual([
      '7/9',
      '1 to redo',
      '–',
      '–',
    ]);
  });
});
