import type { ArgumentSpec, Working } from '@tactron/core/calculation';
import { formatNumber, parseQuantity, type DecimalMark } from '@tactron/core/units';

/** What stands in a form: text by the way to the argument, "circuit.statorOhm", "points.0.x". */
export type Typed = Readonly<Record<string, string | undefined>>;

/** A sum that was done, kept to be looked at again. */
export interface PastSum {
  readonly name: string;
  readonly title: string;
  readonly at: string;
  readonly typed: Typed;
  readonly result: string;
}

/** One line of a form. */
export interface FormLine {
  readonly path: string;
  readonly spec: ArgumentSpec;
  readonly depth: number;
}

/** Rows a list of records shows at first. */
const FIRST_ROWS = 3;

/** Lines of a form for the arguments, records laid out below their title; `rows` says how many a list of records has. */
export function formLines(
  args: Readonly<Record<string, ArgumentSpec>>,
  typed: Typed,
  path = '',
  depth = 0,
): FormLine[] {
  return Object.entries(args).flatMap(([name, spec]) => {
    const own = path + name;
    const line = { path: own, spec, depth };
    if (spec.kind === 'record')
      return [line, ...formLines(spec.fields ?? {}, typed, `${own}.`, depth + 1)];
    if (spec.kind === 'records') {
      return [
        line,
        ...Array.from({ length: rowsOf(typed, own, spec) }, (_, i) =>
          formLines(spec.fields ?? {}, typed, `${own}.${i}.`, depth + 1),
        ).flat(),
      ];
    }
    return [line];
  });
}

/** Number of rows of a list of records: those typed, at least its least number, and none where it may be left out. */
export function rowsOf(typed: Typed, path: string, spec: ArgumentSpec): number {
  const used = Object.keys(typed).flatMap((key) =>
    key.startsWith(`${path}.`) ? [Number(key.slice(path.length + 1).split('.')[0]) + 1] : [],
  );
  return Math.max(0, spec.optional ? 0 : Math.max(FIRST_ROWS, spec.items?.[0] ?? 0), ...used);
}

/** A number as text that reads back as itself: "3.125" alone could mean two numbers, "3.1250" cannot. */
function plainText(value: number, mark: DecimalMark): string {
  const text = formatNumber(value, 9, mark);
  return /^[−-]?[1-9]\d{0,2}[.,]\d{3}$/u.test(text) ? `${text}0` : text;
}

/** An example's values as text. */
export function typedOf(value: unknown, mark: DecimalMark, path = ''): Record<string, string> {
  if (typeof value === 'number') return { [path]: plainText(value, mark) };
  if (typeof value === 'string' || typeof value === 'boolean') return { [path]: String(value) };
  if (Array.isArray(value) && value.every((x) => typeof x === 'number'))
    return { [path]: value.map((x: number) => plainText(x, mark)).join('; ') };
  if (typeof value !== 'object' || value === null) return {};
  return Object.assign(
    {},
    ...Object.entries(value).map(([key, item]) =>
      typedOf(item, mark, path ? `${path}.${key}` : key),
    ),
  ) as Record<string, string>;
}

/** A number as typed: either decimal mark; undefined where it is empty; the text where it is no number. */
export function readNumber(text: string | undefined): number | string | undefined {
  const parsed = parseQuantity(text ?? '', 'number');
  if (parsed.ok) return parsed.quantity.v;
  if (parsed.why === 'empty') return undefined;
  // "1,500" may mean both: it is asked about like any other field that does not read.
  return parsed.why === 'ambiguous'
    ? `${text} can mean ${parsed.readings.join(' or ')}`
    : String(text);
}

/** Arguments of a calculation from what stands in its form. */
export function argumentsOf(
  args: Readonly<Record<string, ArgumentSpec>>,
  typed: Typed,
  path = '',
): Record<string, unknown> {
  const made: Record<string, unknown> = {};
  for (const [name, spec] of Object.entries(args)) {
    const value = argumentOf(spec, typed, path + name);
    if (value !== undefined) made[name] = value;
  }
  return made;
}

function argumentOf(spec: ArgumentSpec, typed: Typed, path: string): unknown {
  const text = typed[path]?.trim();
  switch (spec.kind) {
    case 'record':
      return argumentsOf(spec.fields ?? {}, typed, `${path}.`);
    case 'records': {
      const rows = Array.from({ length: rowsOf(typed, path, spec) }, (_, i) =>
        argumentsOf(spec.fields ?? {}, typed, `${path}.${i}.`),
      );
      const filled = rows.filter((row) => Object.keys(row).length > 0);
      return filled.length || !spec.optional ? filled : undefined;
    }
    case 'list':
      return text
        ? text
            .split(/[;\s]+/u)
            .filter(Boolean)
            .map((item) => readNumber(item))
        : undefined;
    case 'flag':
      return text === undefined || text === '' ? undefined : text === 'true';
    case 'choice':
      return text || undefined;
    default:
      return readNumber(text);
  }
}

/** A value in words: numbers with their digits, lists with semicolons, records by name. */
export function show(value: unknown, unit: string, mark: DecimalMark): string {
  if (value === null || value === undefined) return '–';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') {
    const decimals =
      value === 0 ? 0 : Math.min(9, Math.max(0, 4 - Math.floor(Math.log10(Math.abs(value))) - 1));
    return `${formatNumber(value, decimals, mark)}${unit ? ` ${unit}` : ''}`;
  }
  if (Array.isArray(value))
    return value.map((item) => (typeof item === 'object' ? '…' : show(item, '', mark))).join('; ');
  if (typeof value === 'object')
    return Object.entries(value)
      .map(([key, item]) => `${key} ${show(item, '', mark)}`)
      .join(', ');
  return `${String(value)}${unit ? ` ${unit}` : ''}`;
}

/** The whole working as plain text, for pasting into a report. */
export function asText(working: Working, mark: DecimalMark): string {
  const line = (x: { title: string; value: unknown; unit: string }): string =>
    `  ${x.title}: ${show(x.value, x.unit, mark)}`;
  return [
    working.title,
    'Given',
    ...working.inputs.map(line),
    'Result',
    ...working.results.map(line),
    `Formula: ${working.formula}`,
    `Source: ${working.source}`,
    ...(working.confirm ? [`To confirm: ${working.confirm}`] : []),
  ].join('\n');
}
