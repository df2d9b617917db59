import { roleSetting, type Profile } from '../catalogue/index.js';
import { scaleAnalogue, type AnalogueScale } from '../drive/index.js';
import type { EvidenceBody, Job } from '../job/index.js';
import { calibrate } from '../sums/index.js';
import { stepContext, tagOf, type StepContext } from './context.js';
import { marked } from './marks.js';

/** Shares of the signal at which a loop is read: up, and down again. */
export const LOOP_PCT = [0, 25, 50, 75, 100, 75, 50, 25, 0] as const;
/** What a loop may be off, % of its span. */
const MOST = { errorPct: 1, hysteresisPct: 0.5, sourcePct: 1 } as const;

/** An analogue reference of a job: where it is read, and what frequency each signal is to give. */
export interface LoopPlan {
  /** Input terminal of the device. */
  readonly input: string;
  /** Landings of the two leads, as they are marked. */
  readonly at: readonly [string, string];
  readonly unit: 'V' | 'mA';
  /** Ends of the range its input is set to: 0 and 10 V, 4 and 20 mA. */
  readonly range: readonly [number, number];
  readonly scale: AnalogueScale;
  /** Tag of what gives the signal, and whether it is a controller with an output of its own to set. */
  readonly source: string;
  readonly controller: boolean;
  /** Settings of the device at which its ends are put right. */
  readonly codes: { readonly low?: string; readonly high?: string };
}

/** One row of the sheet: what was asked of the source, the signal at the input, the frequency shown. */
export type LoopPoint = EvidenceBody<'calibration'>['points'][number];

/** What has to be turned or keyed. */
export type LoopRemedy =
  | { readonly do: 'sourceZero' | 'sourceSpan'; readonly is: number; readonly wanted: number }
  | {
      readonly do: 'setting';
      readonly code: string;
      readonly end: 'low' | 'high';
      readonly to: number;
    };

/** How a loop was found. */
export interface LoopResult {
  /** Hz for one V or mA, and Hz at none. */
  readonly gain: number;
  readonly offset: number;
  /** Worst error of the frequency against the signal that was there, % of the span. */
  readonly errorPct: number;
  /** Worst difference between going up and coming down, % of the span. */
  readonly hysteresisPct: number;
  /** Worst error of the source against what was asked of it, % of its span; undefined where nothing was asked in per cent. */
  readonly sourcePct: number | undefined;
  readonly verdict: 'pass' | 'fail';
  readonly remedies: readonly LoopRemedy[];
}

/** Tag of what feeds the input: a dial, or a controller. */
function sourceOf(
  c: StepContext,
): { readonly id: string; readonly controller: boolean } | undefined {
  const parts = Object.entries(c.job.adopted?.devices ?? {});
  const source =
    parts.find(([, { kind }]) => /^(?:voltage|current)Source$/u.test(kind)) ??
    parts.find(([, { kind }]) => kind === 'potentiometer');
  return source && { id: source[0], controller: source[1].kind !== 'potentiometer' };
}

/**
 * The analogue reference of a job; undefined where it has none, or no plan.
 *
 * @example loopPlan(job, profile)?.scale.hzAtHigh // 50
 */
export function loopPlan(job: Job, profile: Profile): LoopPlan | undefined {
  if (!job.adopted || profile.kind !== 'drive') return undefined;
  const c = stepContext(job, profile);
  const { spec, analogue, id } = c.device;
  const reference = spec.kind === 'drive' ? spec.reference : undefined;
  const input = reference && analogue[reference.input];
  const source = sourceOf(c);
  if (!reference || !input || !source) return undefined;
  const { landings } = c.installation;
  const name =
    c.device.facts.referenceInput === input.terminal ? inputName(profile, input.terminal) : '';
  const [low, high] = ['lowPct', 'highPct'].map((end) => roleSetting(profile, `${name}.${end}`));
  return {
    input: `${id}:${input.terminal}`,
    at: [marked(c, landings[input.plus]), marked(c, landings[input.minus])],
    // Above ten volts nothing is scaled: a full scale of twenty is a current.
    unit: input.fullScale > 10 ? 'mA' : 'V',
    range: [reference.liveZero ? 4 : 0, input.fullScale],
    scale: reference.scale,
    source: tagOf(c, source.id),
    controller: source.controller,
    codes: { ...(low ? { low } : {}), ...(high ? { high } : {}) },
  };
}

/** Name of an analogue input in the roles of a profile: the first is ai1. */
function inputName(profile: Profile, terminal: string): string {
  const inputs = Object.entries(profile.terminals).filter(([, t]) => t.kind === 'analogueInput');
  return `ai${inputs.findIndex(([id]) => id === terminal) + 1}`;
}

/** Frequency a signal is to give, Hz. */
export const loopHz = ({ scale }: Pick<LoopPlan, 'scale'>, signal: number): number =>
  Math.max(0, scaleAnalogue(signal, scale).hz);

/** Signal that belongs to a share of it, %. */
export const loopSignal = ({ scale }: Pick<LoopPlan, 'scale'>, pct: number): number =>
  scale.xLow + (pct / 100) * (scale.xHigh - scale.xLow);

/** Rounded as a display of the device takes it. */
const tenth = (x: number): number => Math.round(10 * x) / 10;

/**
 * Judges a loop sheet: the line through its points against the wanted one, what differs between up and down, what the source
 * gave against what was asked of it; and what puts it right.
 *
 * @param points at least two with different signals; frequencies in Hz
 * @throws CalculationError where the points give no line
 * @example loopResult(plan, points).verdict // 'pass'
 */
export function loopResult(plan: LoopPlan, points: readonly LoopPoint[]): LoopResult {
  const { scale, codes } = plan;
  const spanHz = Math.abs(scale.hzAtHigh - scale.hzAtLow);
  const spanX = Math.abs(scale.xHigh - scale.xLow);
  // Beyond its ends the device holds the frequency: such a point lies on no line.
  const inside = points.filter(
    ({ signal }) =>
      signal >= Math.min(scale.xLow, scale.xHigh) && signal <= Math.max(scale.xLow, scale.xHigh),
  );
  const line = calibrate.run({
    points: (inside.length >= 2 ? inside : points).map(({ signal, reads }) => ({
      x: signal,
      y: reads,
    })),
    idealGain: (scale.hzAtHigh - scale.hzAtLow) / (scale.xHigh - scale.xLow),
    idealOffset:
      scale.hzAtLow - (scale.xLow * (scale.hzAtHigh - scale.hzAtLow)) / (scale.xHigh - scale.xLow),
    span: spanHz,
  });
  const worst = (list: readonly number[]): number => Math.max(0, ...list.map(Math.abs));
  const errorPct =
    (100 * worst(points.map(({ signal, reads }) => reads - loopHz(plan, signal)))) / spanHz;
  const hysteresisPct = (100 * worst(pairs(points, plan))) / spanHz;
  const asked = points.filter((p) => p.askedPct !== undefined);
  const sourcePct =
    asked.length > 0
      ? (100 * worst(asked.map((p) => p.signal - loopSignal(plan, p.askedPct ?? 0)))) / spanX
      : undefined;
  const remedies: LoopRemedy[] = [];
  if (plan.controller && (sourcePct ?? 0) > MOST.sourcePct) remedies.push(...ofSource(plan, asked));
  if (errorPct > MOST.errorPct && line.gain !== 0) {
    // Signal at which the device as it is gives each end of its frequency.
    const at = (hz: number): number => (hz - line.offset) / line.gain;
    const [least, most] = plan.range;
    const pct = (x: number): number => tenth((100 * (x - least)) / (most - least));
    const shift = (end: 'low' | 'high'): number => {
      const [want, hz] =
        end === 'low' ? [scale.xLow, scale.hzAtLow] : [scale.xHigh, scale.hzAtHigh];
      return pct(2 * want - at(hz));
    };
    if (codes.low) remedies.push({ do: 'setting', code: codes.low, end: 'low', to: shift('low') });
    if (codes.high)
      remedies.push({ do: 'setting', code: codes.high, end: 'high', to: shift('high') });
  }
  const sound =
    errorPct <= MOST.errorPct &&
    hysteresisPct <= MOST.hysteresisPct &&
    (!plan.controller || (sourcePct ?? 0) <= MOST.sourcePct);
  return {
    gain: line.gain,
    offset: line.offset,
    errorPct,
    hysteresisPct,
    sourcePct: plan.controller ? sourcePct : undefined,
    verdict: sound ? 'pass' : 'fail',
    remedies,
  };
}

/** Differences of the frequency between up and down at the same asked share, the slope between the two signals taken out. */
function pairs(points: readonly LoopPoint[], { scale }: LoopPlan): number[] {
  const slope = (scale.hzAtHigh - scale.hzAtLow) / (scale.xHigh - scale.xLow);
  return points.flatMap((up, i) => {
    const down = points.slice(i + 1).find((p) => p.askedPct === up.askedPct);
    if (up.askedPct === undefined || !down) return [];
    return [up.reads - down.reads - slope * (up.signal - down.signal)];
  });
}

/** What is turned at the source: its zero first, then its full scale. */
function ofSource(plan: LoopPlan, asked: readonly LoopPoint[]): LoopRemedy[] {
  const at = (pct: number): number | undefined => asked.find((p) => p.askedPct === pct)?.signal;
  const span = Math.abs(plan.scale.xHigh - plan.scale.xLow);
  const one = (does: 'sourceZero' | 'sourceSpan', pct: number): LoopRemedy[] => {
    const [is, wanted] = [at(pct), loopSignal(plan, pct)];
    return is !== undefined && Math.abs(is - wanted) > (MOST.sourcePct / 100) * span
      ? [{ do: does, is, wanted }]
      : [];
  };
  return [...one('sourceZero', 0), ...one('sourceSpan', 100)];
}
