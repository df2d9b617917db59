/** One argument of a calculation. Ranges are inclusive unless `above` says otherwise. */
export interface ArgumentSpec {
  readonly unit: string;
  readonly title: string;
  readonly min?: number;
  readonly max?: number;
  /** Must be greater than this. */
  readonly above?: number;
  readonly choices?: readonly string[];
  /** `record` has `fields`; `records` is a list of such. */
  readonly kind?: 'number' | 'choice' | 'flag' | 'list' | 'record' | 'records';
  readonly fields?: Readonly<Record<string, ArgumentSpec>>;
  /** Least and greatest number of items of a list. */
  readonly items?: readonly [number, number];
  readonly whole?: boolean;
  readonly fallback?: number | string | boolean;
  /** May be left out without a default. */
  readonly optional?: boolean;
}

export type Fields = { readonly [name: string]: ArgumentValue };
export type ArgumentValue =
  number | string | boolean | null | readonly number[] | Fields | readonly Fields[] | undefined;
export type ResultValue =
  | number
  | string
  | boolean
  | null
  | readonly number[]
  | Readonly<Record<string, unknown>>
  | readonly Readonly<Record<string, unknown>>[];

/** A calculation as Sums, the pocket, the command line and the documentation use it. */
export interface Calculation {
  readonly name: string;
  readonly title: string;
  readonly args: Readonly<Record<string, ArgumentSpec>>;
  readonly results: Readonly<Record<string, { readonly unit: string; readonly title: string }>>;
  readonly formula: string;
  readonly source: string;
  /** What the person must still confirm with the local code or the maker. */
  readonly confirm?: string;
  /** A set of arguments that shows the calculation at work. */
  readonly example?: Readonly<Record<string, unknown>>;
  readonly run: (args: never) => Record<string, ResultValue>;
}

/** What was reckoned with what, so that it can be checked by hand. */
export interface Working {
  readonly name: string;
  readonly title: string;
  readonly inputs: readonly {
    readonly name: string;
    readonly title: string;
    readonly value: ArgumentValue;
    readonly unit: string;
  }[];
  readonly results: readonly {
    readonly name: string;
    readonly title: string;
    readonly value: ResultValue;
    readonly unit: string;
  }[];
  readonly formula: string;
  readonly source: string;
  readonly confirm?: string;
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
export function calculation<A, R extends object>(
  spec: Omit<Calculation, 'run' | 'results'> & {
    results: { [K in keyof R & string]: { unit: string; title: string } };
    run: (args: A) => R;
  },
): Calculation & { run: (args: A) => R } {
  return spec as unknown as Calculation & { run: (args: A) => R };
}

/**
 * Checks the arguments against the descriptor and runs it.
 *
 * @returns the results by name, and the working
 * @throws CalculationError naming the argument and the limit; never an extrapolation or NaN
 */
export function runCalculation(
  c: Calculation,
  given: Readonly<Record<string, unknown>>,
): { result: Record<string, ResultValue>; working: Working } {
  for (const name of Object.keys(given))
    if (!c.args[name]) throw new CalculationError(name, `${c.name} has no argument "${name}"`);
  const args = checkFields('', c.args, given);
  const result = c.run(args as never);
  for (const [name, value] of Object.entries(result)) {
    if (typeof value === 'number' && !Number.isFinite(value))
      throw new CalculationError(name, `${c.name} has no finite ${name} for these arguments`);
  }
  return { result, working: workingOf(c, args, result) };
}

function workingOf(c: Calculation, args: Fields, result: Record<string, ResultValue>): Working {
  const inputs = Object.entries(c.args).flatMap(([name, spec]) => {
    const value = args[name];
    return value === undefined ? [] : [{ name, title: spec.title, value, unit: spec.unit }];
  });
  const results = Object.entries(c.results).map(([name, spec]) => ({
    name,
    title: spec.title,
    value: result[name] ?? null,
    unit: spec.unit,
  }));
  return {
    name: c.name,
    title: c.title,
    inputs,
    results,
    formula: c.formula,
    source: c.source,
    confirm: c.confirm,
  };
}

function checkFields(
  path: string,
  specs: Readonly<Record<string, ArgumentSpec>>,
  given: Readonly<Record<string, unknown>>,
): Fields {
  const args: Record<string, ArgumentValue> = {};
  for (const name of Object.keys(given))
    if (!specs[name]) throw new CalculationError(path + name, `there is no ${path}${name}`);
  for (const [name, spec] of Object.entries(specs))
    args[name] = checkArgument(path + name, spec, given[name]);
  return args;
}

function checkArgument(name: string, spec: ArgumentSpec, value: unknown): ArgumentValue {
  if (value === undefined) {
    if (spec.fallback !== undefined) return spec.fallback;
    if (spec.optional) return undefined;
    throw new CalculationError(name, `${name} is missing`);
  }
  switch (spec.kind) {
    case 'choice':
      if (typeof value !== 'string' || !spec.choices?.includes(value))
        throw new CalculationError(name, `${name} is one of ${spec.choices?.join(', ')}`);
      return value;
    case 'flag':
      if (typeof value !== 'boolean') throw new CalculationError(name, `${name} is true or false`);
      return value;
    case 'list':
      return checkList(name, spec, value).map((item, i) => checkNumber(`${name}.${i}`, spec, item));
    case 'record':
      return checkRecord(name, spec, value);
    case 'records':
      return checkList(name, spec, value).map((item, i) => checkRecord(`${name}.${i}`, spec, item));
    default:
      return checkNumber(name, spec, value);
  }
}

function checkRecord(name: string, spec: ArgumentSpec, value: unknown): Fields {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new CalculationError(
      name,
      `${name} is an object of ${Object.keys(spec.fields ?? {}).join(', ')}`,
    );
  return checkFields(`${name}.`, spec.fields ?? {}, value as Record<string, unknown>);
}

function checkList(name: string, spec: ArgumentSpec, value: unknown): unknown[] {
  const [least, most] = spec.items ?? [1, 10_000];
  if (!Array.isArray(value)) throw new CalculationError(name, `${name} is a list`);
  if (value.length < least || value.length > most) {
    const many =
      least === most ? `${least}` : most === 10_000 ? `at least ${least}` : `${least} to ${most}`;
    throw new CalculationError(name, `${name} has ${many} ${most === 1 ? 'item' : 'items'}`);
  }
  return value;
}

function checkNumber(name: string, spec: ArgumentSpec, value: unknown): number {
  if (typeof value !== 'number' || !Number.isFinite(value))
    throw new CalculationError(name, `${name} must be a number`);
  const unit = spec.unit && ` ${spec.unit}`;
  if (spec.whole && !Number.isInteger(value))
    throw new CalculationError(name, `${name} must be a whole number`);
  if (spec.above !== undefined && value <= spec.above)
    throw new CalculationError(name, `${name} must be above ${spec.above}${unit}`);
  if (spec.min !== undefined && value < spec.min)
    throw new CalculationError(name, `${name} must be at least ${spec.min}${unit}`);
  if (spec.max !== undefined && value > spec.max)
    throw new CalculationError(name, `${name} must be at most ${spec.max}${unit}`);
  return value;
}
