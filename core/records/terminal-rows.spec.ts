import { landingParts } from '../job/index.js';
import { everyArrangement } from '../testing/matrix.js';
import { terminalRows } from './index.js';

describe('terminals of the device, one by one', () => {
  it('hold every landing of the plan once, with its far end, on every arrangement', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const device = job.adopted?.device ?? '';
      const rows = terminalRows(job, profile);
      const told = rows.flatMap((r) => r.ends.map((e) => `${e.wire} ${r.terminal}`)).sort();
      const planned = Object.entries(job.adopted?.wires ?? {})
        .flatMap(([id, w]) =>
          [w.from, w.to].flatMap((end) => {
            const at = landingParts(end);
            return at.device === device ? [`${id} ${at.terminal}`] : [];
          }),
        )
        .sort();
      expect(told).withContext(name).toEqual(planned);
      const functions = rows.flatMap((r) => r.function ?? []).sort();
      const given = Object.values(job.adopted?.assignments ?? {}).filter(
        (a) => landingParts(a.at).device === device,
      );
      expect(functions.length).withContext(name).toBeLessThanOrEqual(given.length);
    }
  });

  it('tell volts that change with the contact: an input, an enable, the dial at both ends', () => {
    let [inputs, changing] = [0, 0];
    for (const { name, job, profile } of everyArrangement()) {
      for (const r of terminalRows(job, profile)) {
        if (r.function === undefined || r.expects.length < 2) continue;
        inputs++;
        const [rest, ...given] = r.expects;
        expect(given.some((g) => Math.abs(g.volts - rest.volts) > 3))
          .withContext(`${name} ${r.terminal} ${r.function} ${JSON.stringify(r.expects)}`)
          .toBeTrue();
        changing++;
        expect(r.against).withContext(name).toBeDefined();
      }
    }
    expect(inputs).toBeGreaterThan(150);
    expect(changing).toBe(inputs);
    const dial = everyArrangement().find((c) => c.name === 'ondulet-n threeWireSeparate');
    if (!dial) throw new Error('the arrangement is shipped');
    const a1 = terminalRows(dial.job, dial.profile).find((r) => r.terminal === 'A1');
    expect(a1?.expects.map((e) => [e.share, Math.round(e.volts)])).toEqual([
      [0, 0],
      [0.5, 5],
      [1, 10],
    ]);
  });
});
