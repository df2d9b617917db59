import Papa from 'papaparse';

/** A column of a recorder's file: its head, the unit it names, and its numbers; null where a cell holds none. */
export interface RecorderColumn {
  readonly name: string;
  readonly unit: string;
  readonly values: readonly (number | null)[];
}

/** A recorder's file as it was read. */
export interface RecorderFile {
  readonly columns: readonly RecorderColumn[];
  /** Decimal mark that its numbers are written with. */
  readonly decimal: '.' | ',';
}

/** Why a file cannot be laid over anything: what is wrong, and where. */
export class RecorderError extends Error {}

/** Which column is what, by its place in the file; a quantity that was not recorded is absent. */
export interface RecorderMapping {
  readonly time: number;
  readonly amps?: number;
  readonly speed?: number;
}

/** A recording in s, A and rpm, from the moment at which the current begins. */
export interface Recording {
  readonly points: readonly {
    readonly t: number;
    readonly amps: number | null;
    readonly rpm: number | null;
  }[];
  /** Rows in which a mapped number is missing. */
  readonly gaps: number;
}

/** Longest head of a file: lines before its table. */
const MOST_PREAMBLE = 60;
const LEAST_ROWS = 3;
const MOST_ROWS = 200_000;

const headOf = (cell: string): { name: string; unit: string } => {
  const found = /^(.*?)\s*[[(]\s*([^\])]{0,12})\s*[\])]\s*$/u.exec(cell.trim());
  return found ? { name: found[1], unit: found[2] } : { name: cell.trim(), unit: '' };
};

const looksNumeric = (cell: string): boolean =>
  /^\s*[-+−]?\d[\d.,]*(?:e[-+]?\d+)?\s*$/iu.test(cell);

/** A number with its decimal mark; marks of thousands are the other one. */
function numberOf(cell: string, decimal: '.' | ','): number | null {
  const plain = cell.trim().replace('−', '-');
  if (!looksNumeric(plain)) return null;
  const other = decimal === '.' ? ',' : '.';
  const value = Number(plain.replaceAll(other, '').replace(decimal, '.'));
  return Number.isFinite(value) ? value : null;
}

/**
 * Decimal mark of a table: a comma where cells have one comma and no point. A separator that is a comma leaves the point.
 */
function decimalOf(cells: readonly string[], delimiter: string): '.' | ',' {
  if (delimiter === ',') return '.';
  const withComma = cells.filter((c) => /^\s*[-+−]?\d+,\d+\s*$/u.test(c)).length;
  const withPoint = cells.filter((c) => /^\s*[-+−]?\d+\.\d+\s*$/u.test(c)).length;
  return withComma > withPoint ? ',' : '.';
}

/**
 * Reads a recorder's file: any separator, a decimal comma or point, units in the heads in brackets or in a line of their own,
 * lines before the table passed over.
 *
 * @throws RecorderError when there is no table of numbers in it
 * @example readRecorder('t [s];I [A]\n0,0;12,5\n…').columns[1].unit // 'A'
 */
export function readRecorder(text: string): RecorderFile {
  const { data, meta } = Papa.parse<string[]>(text.replace(/^\uFEFF/u, ''), {
    skipEmptyLines: 'greedy',
  });
  const first = data.findIndex((row, i) => {
    const numbers = row.filter(looksNumeric).length;
    return i > 0 && i <= MOST_PREAMBLE && numbers >= 2 && numbers >= row.length / 2;
  });
  if (first < 1)
    throw new RecorderError(
      'No table is found: a line of names, then lines with at least two numbers each.',
    );
  const rows = data.slice(first);
  if (rows.length < LEAST_ROWS)
    throw new RecorderError(`Only ${rows.length} lines of numbers: a curve needs more.`);
  if (rows.length > MOST_ROWS)
    throw new RecorderError(
      `${rows.length} lines are too many: up to ${MOST_ROWS}. Save the part around the start, or with fewer points a second.`,
    );
  const units =
    first >= 2 && data[first - 1].length === data[first - 2].length && isUnits(data[first - 1]);
  const heads = data[units ? first - 2 : first - 1];
  const unitRow = units ? data[first - 1] : [];
  const decimal = decimalOf(rows.slice(0, 200).flat(), meta.delimiter);
  const columns = heads.map((cell, i): RecorderColumn => {
    const head = headOf(cell);
    const own = unitRow[i]?.trim().replace(/[[\]()]/gu, '') ?? '';
    return {
      name: head.name || `column ${i + 1}`,
      unit: head.unit || own,
      values: rows.map((row) => numberOf(row[i] ?? '', decimal)),
    };
  });
  return { columns, decimal };
}

/** A line that only names units: short words, known ones among them. */
const isUnits = (row: readonly string[]): boolean =>
  row.some((c) =>
    /^[[(]?\s*(?:m?s|min|m?A|kA|V|Hz|rpm|1\/min|min-1|%)\s*[\])]?$/iu.test(c.trim()),
  ) && row.every((c) => c.trim().length <= 10);

const timeUnits: Readonly<Record<string, number>> = {
  '': 1,
  s: 1,
  sec: 1,
  ms: 1e-3,
  min: 60,
  us: 1e-6,
  µs: 1e-6,
};
const ampUnits: Readonly<Record<string, number>> = { '': 1, A: 1, mA: 1e-3, kA: 1e3 };
const isSpeed = (unit: string): boolean => /^(?:rpm|1\/min|min-1|u\/min|r\/min)$/iu.test(unit);

/**
 * Which column is most likely what, by unit and name.
 *
 * @returns undefined where no column can be a time
 * @example guessMapping(file) // { time: 0, amps: 2 }
 */
export function guessMapping({ columns }: RecorderFile): RecorderMapping | undefined {
  const find = (is: (c: RecorderColumn) => boolean): number | undefined => {
    const at = columns.findIndex(is);
    return at < 0 ? undefined : at;
  };
  const time =
    find((c) => /^(?:t|time|zeit|temps)\b/iu.test(c.name) && c.unit in timeUnits) ??
    find((c) => ['s', 'ms', 'min'].includes(c.unit));
  if (time === undefined) return undefined;
  const amps =
    find((c) => ['A', 'mA', 'kA'].includes(c.unit)) ??
    find((c) => /^(?:i\d?|current|amps)\b/iu.test(c.name));
  const speed = find((c) => isSpeed(c.unit)) ?? find((c) => /^(?:n|speed|rpm)\b/iu.test(c.name));
  return {
    time,
    ...(amps === undefined ? {} : { amps }),
    ...(speed === undefined ? {} : { speed }),
  };
}

/** Share of its peak from which on a current counts as begun: noise of a clamp lies below. */
const BEGUN = 0.05;

/**
 * A recording in base units, its time counted from where the current begins, or from its first row where none was recorded.
 *
 * @throws RecorderError when a mapped column is not there, its unit is none that is known, or its time does not rise
 */
export function recordingOf(file: RecorderFile, mapping: RecorderMapping): Recording {
  const column = (at: number, units: Readonly<Record<string, number>> | undefined) => {
    const c = file.columns[at];
    if (!c) throw new RecorderError(`There is no column ${at + 1}.`);
    const factor = units ? units[c.unit] : 1;
    if (factor === undefined)
      throw new RecorderError(`“${c.name}” is in “${c.unit}”, which is no unit of this quantity.`);
    return c.values.map((x) => (x === null ? null : x * factor));
  };
  const times = column(mapping.time, timeUnits);
  const amps = mapping.amps === undefined ? undefined : column(mapping.amps, ampUnits);
  const rpm = mapping.speed === undefined ? undefined : column(mapping.speed, undefined);
  if (!amps && !rpm) throw new RecorderError('Say which column is the current, or the speed.');
  let last = -Infinity;
  let gaps = 0;
  const rows = times.flatMap((t, i) => {
    if (t === null || (amps && amps[i] === null) || (rpm && rpm[i] === null)) gaps++;
    if (t === null) return [];
    if (t < last)
      throw new RecorderError(
        `The time falls in line ${i + 1} of the table: from ${last} to ${t}. Is “${file.columns[mapping.time].name}” the time?`,
      );
    last = t;
    const a = amps?.[i];
    return [{ t, amps: a === undefined || a === null ? null : Math.abs(a), rpm: rpm?.[i] ?? null }];
  });
  const peak = Math.max(0, ...rows.map((p) => p.amps ?? 0));
  const begins = rows.find((p) => (p.amps ?? 0) > BEGUN * peak) ?? rows[0];
  const from = peak > 0 ? begins.t : (rows[0]?.t ?? 0);
  return { points: rows.map((p) => ({ ...p, t: p.t - from })), gaps };
}

/** What a recorded start came to. */
export interface RecordedStart {
  readonly peakA: number | null;
  /** Time until the current has fallen below a level for good, s. */
  readonly startS: number | null;
  /** Current afterwards, A. */
  readonly runA: number | null;
}

/**
 * Peak, time and running current of a recorded start.
 *
 * @param belowA current below which the start is over, A: what the bypass goes by
 * @example recordedStart(recording, 80.2).startS // 11.7
 */
export function recordedStart({ points }: Recording, belowA: number): RecordedStart {
  const own = points.filter((p) => p.amps !== null && p.t >= 0) as readonly {
    t: number;
    amps: number;
  }[];
  if (own.length === 0) return { peakA: null, startS: null, runA: null };
  const peakA = Math.max(...own.map((p) => p.amps));
  const highest = own.findIndex((p) => p.amps === peakA);
  const lastAbove = own.findLastIndex((p) => p.amps >= belowA);
  const after = lastAbove >= highest ? own.slice(lastAbove + 1) : [];
  if (after.length < 2) return { peakA, startS: null, runA: null };
  const [a, b] = [own[lastAbove], after[0]];
  const part = (a.amps - belowA) / (a.amps - b.amps);
  return {
    peakA,
    startS: a.t + part * (b.t - a.t),
    runA: after.reduce((sum, p) => sum + p.amps, 0) / after.length,
  };
}
