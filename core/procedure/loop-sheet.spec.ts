import { everyArrangement } from '../testing/matrix.js';
import { seeded } from '../numeric/index.js';
import {
  LOOP_PCT,
  loopHz,
  loopPlan,
  loopResult,
  loopSignal,
  type LoopPlan,
  type LoopPoint,
} from './index.js';

const plans = (): { name: string; plan: LoopPlan }[] =>
  everyArrangement().flatMap(({ name, job, profile }) => {
    const plan = loopPlan(job, profile);
    return plan ? [{ name, plan }] : [];
  });

/** Points of a loop whose source and device are off by a gain and an offset each, as shares of their spans. */
function read(
  plan: LoopPlan,
  source: { gain?: number; offset?: number } = {},
  device: { gain?: number; offset?: number; late?: number } = {},
): LoopPoint[] {
  const { scale } = plan;
  const [spanX, spanHz] = [scale.xHigh - scale.xLow, scale.hzAtHigh - scale.hzAtLow];
  return LOOP_PCT.map((pct, i) => {
    const meant = loopSignal(plan, pct) - scale.xLow;
    const signal = scale.xLow + meant * (source.gain ?? 1) + (source.offset ?? 0) * spanX;
    const hz = scale.hzAtLow + ((signal - scale.xLow) / spanX) * spanHz;
    const shown =
      scale.hzAtLow +
      (hz - scale.hzAtLow) * (device.gain ?? 1) +
      (device.offset ?? 0) * spanHz +
      (i > 4 ? (device.late ?? 0) * spanHz : 0);
    return { signal, reads: Math.max(0, shown), unit: 'Hz', askedPct: pct };
  });
}

describe('a loop sheet', () => {
  const all = plans();

  it('is there for every arrangement with an analogue reference, dial or controller, and passes as planned', () => {
    expect(all.some(({ plan }) => plan.controller && plan.unit === 'mA')).toBeTrue();
    expect(all.some(({ plan }) => plan.controller && plan.unit === 'V')).toBeTrue();
    expect(all.some(({ plan }) => !plan.controller)).toBeTrue();
    for (const { name, plan } of all) {
      expect(plan.at.every((at) => /^T\d+:\S+$/u.test(at)))
        .withContext(`${name} ${plan.at.join()}`)
        .toBeTrue();
      expect(loopHz(plan, plan.scale.xHigh)).withContext(name).toBeCloseTo(plan.scale.hzAtHigh, 6);
      const result = loopResult(plan, read(plan));
      expect(result.verdict).withContext(name).toBe('pass');
      expect([result.errorPct, result.hysteresisPct].every((x) => x < 1e-6))
        .withContext(name)
        .toBeTrue();
      expect(result.remedies).toEqual([]);
    }
  });

  it('fails where going up and coming down differ, and asks for nothing to be turned', () => {
    for (const { name, plan } of all) {
      const result = loopResult(plan, read(plan, {}, { late: 0.008 }));
      expect(result.verdict).withContext(name).toBe('fail');
      expect(result.hysteresisPct).withContext(name).toBeCloseTo(0.8, 3);
      expect(result.remedies).withContext(name).toEqual([]);
    }
  });

  it('names the trimmer of a controller whose full scale is off, and what it has to show', () => {
    for (const { name, plan } of all.filter(({ plan: p }) => p.controller)) {
      const result = loopResult(plan, read(plan, { gain: 0.93 }));
      expect(result.verdict).withContext(name).toBe('fail');
      expect(result.errorPct).withContext(name).toBeLessThan(1e-6);
      const [first, ...more] = result.remedies;
      expect([first.do, more.length]).withContext(name).toEqual(['sourceSpan', 0]);
      if (first.do === 'sourceSpan') expect(first.wanted).toBeCloseTo(plan.scale.xHigh, 9);
    }
  });

  it('gives settings that put a device right which shows the wrong frequency: keyed, the loop passes', () => {
    const random = seeded(9);
    let tried = 0;
    for (const { name, plan } of all) {
      if (!plan.codes.low || !plan.codes.high || plan.scale.xLow === plan.scale.xHigh) continue;
      const device = { gain: 0.9 + 0.08 * random(), offset: 0.02 + 0.02 * random() };
      const result = loopResult(plan, read(plan, {}, device));
      expect(result.verdict).withContext(name).toBe('fail');
      const to = Object.fromEntries(
        result.remedies.flatMap((r) => (r.do === 'setting' ? [[r.end, r.to]] : [])),
      );
      // A device that is off by the same amounts, its ends moved as told.
      const [least, most] = plan.range;
      const x = (pct: number): number => least + (pct / 100) * (most - least);
      const [low, high] = [x(to['low']), x(to['high'])];
      const { scale } = plan;
      const spanHz = scale.hzAtHigh - scale.hzAtLow;
      const again = LOOP_PCT.map((pct): LoopPoint => {
        const signal = loopSignal(plan, pct);
        const own = scale.hzAtLow + ((signal - low) / (high - low)) * spanHz;
        const reads = scale.hzAtLow + (own - scale.hzAtLow) * device.gain + device.offset * spanHz;
        return { signal, reads: Math.max(0, reads), unit: 'Hz', askedPct: pct };
      });
      tried++;
      const second = loopResult(plan, again);
      // Settings take tenths of a per cent, and the first correction is a good one, not a perfect one.
      expect(second.errorPct)
        .withContext(`${name} ${JSON.stringify(to)}`)
        .toBeLessThan(1);
    }
    expect(tried).toBeGreaterThan(3);
  });
});
