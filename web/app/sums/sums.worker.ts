import { expose } from 'comlink';
import {
  CalculationError,
  runCalculation,
  type Calculation,
  type Working,
} from '@tactron/core/calculation';
import { calculationGroups, calculations } from '@tactron/core/sums';

/** A calculation without its function, as it can be sent to the page. */
export type SumSpec = Omit<Calculation, 'run'>;

export type SumOutcome =
  | { readonly ok: true; readonly working: Working }
  | { readonly ok: false; readonly argument: string; readonly message: string };

const worker = {
  list(): { id: string; title: string; calculations: SumSpec[] }[] {
    return calculationGroups.map((g) => ({
      ...g,
      calculations: g.calculations.map(({ run: _run, ...spec }) => spec),
    }));
  },

  run(name: string, args: Readonly<Record<string, unknown>>): SumOutcome {
    const calculation = calculations[name];
    try {
      return { ok: true, working: runCalculation(calculation, args).working };
    } catch (error) {
      if (error instanceof CalculationError)
        return { ok: false, argument: error.argument, message: error.message };
      if (error instanceof RangeError) return { ok: false, argument: '', message: error.message };
      throw error;
    }
  },
};

export type SumsWorker = typeof worker;

expose(worker);
