import type { Expectation, ProcedureStep } from '../../job/index.js';

/** A dead check before what it waits for and what it rests on are added. */
export type Draft = Pick<ProcedureStep, 'key' | 'do' | 'must' | 'act'> &
  Partial<
    Pick<
      ProcedureStep,
      'instrument' | 'cautions' | 'hold' | 'from' | 'fields' | 'each' | 'unbalancePct'
    >
  > & {
    readonly expect: Expectation;
  };

/** From here on a meter shows no way through wires and contacts, Ω; what lies beside them is electronics. */
const OPEN_OHM = 1000;

/** No way: overload, or more than any wire has. */
export const noWay: Expectation = {
  kind: 'range',
  lo: OPEN_OHM,
  hi: OPEN_OHM * 1e8,
  nominal: OPEN_OHM,
  unit: 'Ω',
};

/** Rounded to so many digits after the point. */
export const round = (x: number, digits = 2): number => Math.round(x * 10 ** digits) / 10 ** digits;
