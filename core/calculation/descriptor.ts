/** One argument of a calculation. Ranges are inclusive unless `above` says otherwise. */
export interface ArgumentSpec {
  readonly unit: string;
  readonly title: string;
  readonly min?: number;
  readonly max?: number;
  /** Must be greater than this. */
  readonly above?: number;
  readonly choices?: readonly string[];
  readonly kind?: 'number' | 'choice' | 'flag' | 'list';
  readonly fallback?: number | string | boolean;
  /** May be left out without a default. */
  readonly optional?: boolean;
}

export type ArgumentValue = number | string | boolean | readonly number[];
export type ResultValue = number | string | boolean | null;

/** A calculation as Sums, the pocket, the command line and the documentation use it. */
export interface Calculation {
  readonly name: string;
  readonly title: string;
  readonly args: Readonly<Record<string, ArgumentSpec>>;
  readonly results: Readonly<Record<string, { readonly unit: string; readonly title: string }>>;
  readonly formula: string;
  readonly source: string;
  readonly run: (args: never) => Record<string, ResultValue>;
}

/** What was reckoned with what, so that it can be checked by hand. */
export interface Working {
  readonly name: string;
  readonly title: string;
  readonly inputs: readonly { readonly name: string; readonly title: string; readonly value: ArgumentValue; readonly unit: string }[];
  readonly results: readonly { readonly name: string; readonly title: string; readonly value: ResultValue; readonly unit: string }[];
  readonly formula: string;
  readonly source: string;
}

/** An argument that is missing, unknown or outside the range in which the formula holds. */
export class CalculationError extends Error {
  constructor(
    readonly argument: string,
    message: string,
  ) {
    super(message);
  }
}

/** Declares a calculation; the arguments of `run` are typed by the caller. */
export function calculation<A, R extends Record<string, ResultValue>>(
  spec: Omit<Calculation, 'run' | 'results'> & { results: { [K in keyof R & string]: { unit: string; title: string } }; run: (args: A) => R },
): Calculation & { run: (args: A) => R } {
  return spec as unknown as Calculation & { run: (args: A) => R };
}

/**
 * Checks the arguments against the descriptor and runs it.
 *
 * @returns the results by name, and the working
 * @throws CalculationError naming the argument and the limit; never an extrapolation or NaN
 */
export function runCalculation(c: Calculation, given: Readonly<Record<string, unknown>>): { result: Record<string, ResultValue>; working: Working } {
  for (const name of Object.keys(given)) if (!c.args[name]) throw new CalculationError(name, `${c.name} has no argument "${name}"`);
  const args: Record<string, ArgumentValue | undefined> = {};
  for (const [name, spec] of Object.entries(c.args)) args[name] = checkArgument(name, spec, given[name]);
  const result = c.run(args as never);
  for (const [name, value] of Object.entries(result)) {
    if (typeof value === 'number' && !Number.isFinite(value)) throw new CalculationError(name, `${c.name} has no finite ${name} for these arguments`);
  }
  return { result, working: workingOf(c, args, result) };
}

function workingOf(c: Calculation, args: Record<string, ArgumentValue | undefined>, result: Record<string, ResultValue>): Working {
  const inputs = Object.entries(c.args).flatMap(([name, spec]) => {
    const value = args[name];
    return value === undefined ? [] : [{ name, title: spec.title, value, unit: spec.unit }];
  });
  const results = Object.entries(c.results).map(([name, spec]) => ({ name, title: spec.title, value: result[name] ?? null, unit: spec.unit }));
  return { name: c.name, title: c.title, inputs, results, formula: c.formula, source: c.source };
}

function checkArgument(name: string, spec: ArgumentSpec, value: unknown): ArgumentValue | undefined {
  if (value === undefined) {
    if (spec.fallback !== undefined) return spec.fallback;
    if (spec.optional) return undefined;
    throw new CalculationError(name, `${name} is missing`);
  }
  if (spec.kind === 'choice') {
    if (typeof value !== 'string' || !spec.choices?.includes(value)) throw new CalculationError(name, `${name} is one of ${spec.choices?.join(', ')}`);
    return value;
  }
  if (spec.kind === 'flag') {
    if (typeof value !== 'boolean') throw new CalculationError(name, `${name} is true or false`);
    return value;
  }
  if (spec.kind === 'list') {
    if (!Array.isArray(value) || value.length === 0) throw new CalculationError(name, `${name} is a list of numbers`);
    return value.map((item) => checkNumber(name, spec, item));
  }
  return checkNumber(name, spec, value);
}

function checkNumber(name: string, spec: ArgumentSpec, value: unknown): number {
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new CalculationError(name, `${name} must be a number`);
  const unit = spec.unit && ` ${spec.unit}`;
  if (spec.above !== undefined && value <= spec.above) throw new CalculationError(name, `${name} must be above ${spec.above}${unit}`);
  if (spec.min !== undefined && value < spec.min) throw new CalculationError(name, `${name} must be at least ${spec.min}${unit}`);
  if (spec.max !== undefined && value > spec.max) throw new CalculationError(name, `${name} must be at most ${spec.max}${unit}`);
  return value;
}
