import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { demo, put, run } from './testing/run.js';

describe('tactron readings', () => {
  it('reads a panel that is not as planned: the same with a seed, wrong where it is otherwise, refused for another job', () => {
    type Rows = { key: string; verdict: string; values: { value?: unknown }[] }[];
    const read = (...args: string[]) => run('readings', demo, ...args);
    const rows = (...args: string[]): Rows => read(...args).json as Rows;
    const sound = rows('--panel', demo, '--seed', '4');
    expect(sound.length).toBeGreaterThan(40);
    expect(sound.every((r) => r.verdict === 'pass')).toBeTrue();
    expect(rows('--panel', demo, '--seed', '4')).toEqual(sound);
    expect(rows('--panel', demo, '--seed', '5')).not.toEqual(sound);
    const file = JSON.parse(readFileSync(demo, 'utf8')) as {
      job: { deviations: object };
    };
    file.job.deviations = {
      one: {
        ord: 1,
        where: { kind: 'device', id: 'device' },
        actual: { kind: 'setting', code: '212', value: 30 },
        why: 'x',
      },
    };
    const wrong = rows('--panel', put(file, 'panel.json')).filter((r) => r.verdict === 'fail');
    expect(wrong.map((r) => r.key)).toContain('ramp.up');
    expect(wrong.length).toBeLessThan(sound.length / 4);
    const other = read('--panel', resolve('demo/fm-dose.tactron.json'));
    expect([other.status, other.stderr]).toEqual([2, jasmine.stringContaining('another job')]);
    expect(read('--panel', demo, '--seed', 'x').status).toBe(2);
  });
});
