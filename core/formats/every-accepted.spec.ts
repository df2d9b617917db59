import type { Profile, Value } from '../catalogue/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { mutatedJob, seeded } from '../testing/mutate-job.js';
import { say, sayFinding } from '../words/index.js';
import { reckonAll } from '../testing/reckon-all.js';

const TRIED = 240;
const allFamilies = [
  'marrowick-f',
  'ondulet-n',
  'quernstone-t',
  'ondulet-micro',
  'pendrift-s',
  'pendrift-c',
  'halewick-r',
  'wendle-s',
];

/** A value that a setting cannot hold. */
function beyond(
  { type, min = 0, max = 1e6, choices }: Profile['settings'][string],
  side: 'above' | 'below',
): Value | undefined {
  if (choices) return 'no such choice';
  if (type !== 'number' && type !== 'dial') return undefined;
  return side === 'above' ? max + 1 : min - 1;
}

describe('whatever an import accepts', () => {
  it('is planned, rehearsed, tested, checked and recorded without a throw, however odd it is', () => {
    const cases = everyArrangement();
    const random = seeded(20260);
    let tried = 0;
    for (let i = 0; i < TRIED; i++) {
      const c = cases[i % cases.length];
      const job = mutatedJob(c.job, random);
      if (!job) continue;
      tried++;
      try {
        const { findings, steps } = reckonAll(job, c.profile);
        for (const f of findings) expect(sayFinding(f).what.length).toBeGreaterThan(5);
        for (const s of steps) expect(say(s.do)).not.toBe(s.do.code);
      } catch (error) {
        const { stack } = error as Error;
        fail(`${i} ${c.name}: ${stack?.split('\n').slice(0, 5).join('\n') ?? String(error)}`);
      }
    }
    expect(tried).toBeGreaterThan(TRIED * 0.8);
  });

  it('is tested where a part that is wished has become another that has no coil', () => {
    for (const id of ['contactor.line', 'lock.guard'])
      for (const { job, profile, name } of everyArrangement()
        .filter((c) => c.job.adopted?.devices[id])
        .slice(-5)) {
        const odd = structuredClone(job);
        if (odd.adopted) odd.adopted.devices[id] = { ...odd.adopted.devices[id], kind: 'plan' };
        expect(() => reckonAll(odd, profile))
          .withContext(`${name} ${id}`)
          .not.toThrow();
      }
  });

  it('is told where a setting is beyond what the device can hold, at that setting', () => {
    for (const family of allFamilies) {
      const c = everyArrangement().find((x) => x.name === `${family} twoWire`);
      if (!c) throw new Error(`no two-wire on ${family}`);
      for (const side of ['above', 'below'] as const) {
        const job = structuredClone(c.job);
        const like = Object.values(job.adopted?.settings ?? {})[0];
        const impossible = Object.entries(c.profile.settings).flatMap(([code, setting]) => {
          const value = beyond(setting, side);
          return value === undefined ? [] : [[code, value] as const];
        });
        if (job.adopted)
          for (const [code, value] of impossible) job.adopted.settings[code] = { ...like, value };
        const keys = new Set(reckonAll(job, c.profile).findings.map((f) => f.key));
        expect(impossible.length).withContext(family).toBeGreaterThan(4);
        for (const [code, value] of impossible)
          expect(keys)
            .withContext(`${family} ${code} ${value}`)
            .toContain(`setting.impossible:${code}`);
      }
    }
  });
});
