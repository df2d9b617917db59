import { checkJob } from '../hazards/index.js';
import type { Job } from '../job/index.js';
import { partsList, planJob } from '../plan/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { deadOf } from './dead/index.js';
import { isolationSources } from './dead/sources.js';
import { liveSteps } from './live/index.js';

/** The same document with its keys in another order, as a database or another program gives it back. */
function rekeyed<T>(data: T, order: (a: string, b: string) => number): T {
  if (Array.isArray(data)) return data.map((x: unknown) => rekeyed(x, order)) as T;
  if (typeof data !== 'object' || data === null) return data;
  return Object.fromEntries(
    Object.entries(data)
      .sort(([a], [b]) => order(a, b))
      .map(([key, x]) => [key, rekeyed<unknown>(x, order)]),
  ) as T;
}

const orders = {
  shortestFirst: (a: string, b: string) => a.length - b.length || a.localeCompare(b),
  backwards: (a: string, b: string) => b.localeCompare(a),
};

describe('the order of keys in a document', () => {
  it('changes no step, no finding, no part and no plan', () => {
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 8 === 0)) {
      const all = (j: Job) => ({
        live: liveSteps(j, profile).map((s) => [s.key, s.basis]),
        dead: deadOf(j, profile).steps.map((s) => [s.key, s.basis]),
        sources: isolationSources(j, profile),
        findings: checkJob(j, profile).map((f) => [f.key, f.basis]),
        parts: partsList(j, profile),
        plan: planJob(j, profile),
      });
      const given = all(job);
      for (const [how, order] of Object.entries(orders))
        expect(all(rekeyed(job, order)))
          .withContext(`${name}, ${how}`)
          .toEqual(given);
    }
  });
});
