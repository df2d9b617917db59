import type { Value } from '../../catalogue/index.js';
import {
  expectedAt,
  verdictOfStep,
  type Expectation,
  type ProcedureStep,
} from '../../job/index.js';

/** What a given panel shows at a step of the procedure, and whether that is what was expected. */
export interface PanelReading {
  readonly step: ProcedureStep;
  readonly values: readonly {
    readonly where?: string;
    readonly value?: Value;
    readonly unit?: string;
    /** The meter shows no way. */
    readonly over?: boolean;
  }[];
  readonly verdict: 'pass' | 'fail';
}

/** Share of the room to the nearer limit that a sound panel takes at most. */
const MOST_OFF = 0.6;

/** What is read: a number, a word, or no way at all. */
export type Read = { readonly value: Value } | 'over';

export const as = (value: Value): Read => ({ value });

/** An answer in the form in which the step asks for it: ohms that are no way, and a way where none was expected. */
function asAsked(read: Read, expect: Expectation | undefined): Read {
  if (expect?.kind === 'state' && expect.is === 'openLoop')
    return as(read === 'over' || read.value === 'openLoop' ? 'openLoop' : 'through');
  if (expect?.kind === 'range' && read !== 'over' && typeof read.value !== 'number') return 'over';
  return read;
}

/** The value of a sound panel a little off, as instruments, copper and springs are; within what is accepted. */
function off(value: number, expect: Expectation | undefined, by: number, each: number): number {
  if (expect?.kind !== 'range' || value < expect.lo || value > expect.hi) return value;
  const room = by < 0 ? value - expect.lo : expect.hi - value;
  const shifted = value + by * MOST_OFF * Math.min(room, Math.max(0.02 * Math.abs(value), 0.01));
  const told = Math.min(expect.hi, Math.max(expect.lo, shifted * each));
  const digits = Math.max(0, 3 - Math.floor(Math.log10(Math.max(1e-3, Math.abs(told)))));
  return Number(told.toFixed(Math.min(4, digits)));
}

/** A step with what is read at each of its places, as it is asked for, and the verdict; a little off where `random` is given. */
export function judged(
  step: ProcedureStep,
  raw: readonly Read[],
  random?: () => number,
): PanelReading {
  const { fields = [''], unbalancePct } = step;
  const reads = raw.map((read, place) => asAsked(read, expectedAt(step, place)));
  // The places of one reading lie off together, and from each other by a part of what may be.
  const [by, apart] = random ? [2 * random() - 1, (unbalancePct ?? 0) * 0.003] : [0, 0];
  const values = fields.map((where, i) => {
    const expect = expectedAt(step, i);
    const unit = expect?.kind === 'range' ? { unit: expect.unit } : {};
    const at = where ? { where } : {};
    const read = reads[i] ?? reads[0];
    if (read === 'over') return { ...at, ...unit, over: true };
    const { value } = read;
    if (typeof value !== 'number') return { ...at, value };
    if (!random) return { ...at, ...unit, value };
    const each = fields.length > 1 ? 1 + apart * (2 * random() - 1) : 1;
    return { ...at, ...unit, value: off(value, expect, by, each) };
  });
  const given = values.map((v) => ('over' in v ? Infinity : v.value));
  return { step, values, verdict: verdictOfStep(step, ...given) };
}
