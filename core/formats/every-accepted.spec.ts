import { everyArrangement } from '../testing/matrix.js';
import { mutatedJob, seeded } from '../testing/mutate-job.js';
import { say, sayFinding } from '../words/index.js';
import { reckonAll } from '../testing/reckon-all.js';

const TRIED = 240;

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

  it('is told where a setting is beyond what the device can hold, at that setting', () => {
    for (const family of ['marrowick-f', 'ondulet-n', 'quernstone-t', 'ondulet-micro']) {
      const c = everyArrangement().find((x) => x.name === `${family} twoWire`);
      if (!c) throw new Error(`no two-wire on ${family}`);
      for (const [code, { type, min = 0, max = 1e6, choices }] of Object.entries(
        c.profile.settings,
      )) {
        const impossible = choices
          ? ['no such choice']
          : type === 'number'
            ? [max + 1, min - 1]
            : [];
        for (const value of impossible) {
          const job = structuredClone(c.job);
          const like = Object.values(job.adopted?.settings ?? {})[0];
          if (job.adopted) job.adopted.settings[code] = { ...like, value };
          const { findings } = reckonAll(job, c.profile);
          expect(findings.map((f) => f.key))
            .withContext(`${family} ${code} ${value}`)
            .toContain(`setting.impossible:${code}`);
        }
      }
    }
  });
});
