import { everyArrangement } from '../testing/matrix.js';
import { planned } from '../testing/station.js';
import { nightCard, Sweep } from './index.js';

describe('the night card', () => {
  it('tells at most ten faults that somebody would notice, the likeliest first, each as the sweep has it', () => {
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 23 === 5)) {
      const card = nightCard(job, profile);
      expect(card.length).withContext(name).toBeGreaterThan(1);
      expect(card.length).toBeLessThanOrEqual(10);
      const weights = card.map((c) => c.weight);
      expect(weights)
        .withContext(name)
        .toEqual([...weights].sort((x, y) => y - x));
      expect(card.some((c) => c.is === 'noEffect' || c.is === 'hidden')).toBeFalse();
      const sweep = new Sweep(job, profile);
      const rows = new Map(sweep.faults.map((f) => [JSON.stringify(f.fault), f]));
      for (const { faults, is } of card)
        for (const fault of faults) {
          const swept = rows.get(JSON.stringify(fault));
          if (!swept) throw new Error(`${name}: ${JSON.stringify(fault)} is not swept`);
          expect(sweep.judge(swept).worst).withContext(name).toBe(is);
        }
    }
  });

  it('puts what lies at one contact together, and what is worked before what only lies there', () => {
    const { job, profile } = planned('marrowick-f', 'threeWireDirection');
    const card = nightCard(job, profile);
    const tags = card.map(({ part }) => job.adopted?.devices[part ?? '']?.tag);
    expect(tags[0]).toBe('S1');
    expect(card[0].faults.map((f) => f.kind).sort()).toEqual(['loose', 'open', 'open']);
    expect(tags.indexOf('R1')).toBeGreaterThan(0);
    expect(tags).toContain('S2');
  });
});
