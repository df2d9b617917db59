import type { Expectation, ProcedureStep } from '../../job/index.js';

/** A dead check before what it waits for and what it rests on are added. */
export type Draft = Pick<ProcedureStep, 'key' | 'do' | 'must' | 'act'> &
  Partial<
    Pick<ProcedureStep, 'instrument' | 'cautions' | 'hold' | 'from' | 'fields' | 'unbalancePct'>
  > & {
    readonly expect: Expectation;
  };

/** Rounded to so many digits after the point. */
export const round = (x: number, digits = 2): number => Math.round(x * 10 ** digits) / 10 ** digits;
