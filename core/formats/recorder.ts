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
  /** Output frequency. */
  readonly hz?: number;
  /** Volts of the DC link. */
  readonly link?: number;
}

/** A recording in s, A, rpm, Hz and V, from the moment at which it begins to move. */
export interface Recording {
  readonly points: readonly {
    readonly t: number;
    readonly amps: number | null;
    readonly rpm: number | null;
    readonly hz: number | null;
    readonly linkV: number | null;
  }[];
  /** Rows in which a mapped number is missing. */
  readonly gaps: number;
}

/** Longest head of a file: lines before its table. */
const MOST_PREAMBLE = 60;
const LEAST_ROWS = 3;
/** Lines by which a separator is recognised, and the share of them that have it: heads may not. */
const SAMPLE_LINES = 200;
const MOST_LINES = 0.7;
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
 * A separator that is no mark of decimals, where nearly every line has it: a comma between digits is then the decimal one.
 *
 * @returns empty where there is none: then it is guessed
 */
function separatorOf(text: string): string {
  const lines = text.split(/\r?\n/u, SAMPLE_LINES).filter((line) => line.trim() !== '');
  const share = (sign: string): number =>
    lines.filter((line) => line.includes(sign)).length / lines.length;
  return ['\t', ';', '|'].find((sign) => share(sign) >= MOST_LINES) ?? '';
}

/**
 * Reads a recorder's file: any separator, a decimal comma or point, units in the heads in brackets or in a line of their own,
 * lines before the table passed over.
 *
 * @throws RecorderError when there is no table of numbers in it
 * @example readRecorder('t [s];I [A]\n0,0;12,5\n…').columns[1].unit // 'A'
 */
export function readRecorder(text: string): RecorderFile {
  const plain = text.replace(/^\uFEFF/u, '');
  const { data, meta } = Papa.parse<string[]>(plain, {
    skipEmptyLines: 'greedy',
    delimiter: separatorOf(plain),
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
const hzUnits: Readonly<Record<string, number>> = { '': 1, Hz: 1, kHz: 1e3 };
const voltUnits: Readonly<Record<string, number>> = { '': 1, V: 1, mV: 1e-3, kV: 1e3 };
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
  const hz = find((c) => c.unit === 'Hz') ?? find((c) => /^(?:f|freq\w*)\b/iu.test(c.name));
  const link =
    find((c) => c.unit in voltUnits && /link|zwischenkreis|u_?dc|dc|bus/iu.test(c.name)) ??
    find((c) => c.unit === 'V');
  return {
    time,
    ...(amps === undefined ? {} : { amps }),
    ...(speed === undefined ? {} : { speed }),
    ...(hz === undefined ? {} : { hz }),
    ...(link === undefined ? {} : { link }),
  };
}

/** Share of its peak from which on a quantity counts as begun: noise of a clamp lies below the one, of a display below the other. */
const BEGUN = { amps: 0.05, turns: 0.01 } as const;

/**
 * A recording in base units, its time counted from where the output frequency leaves nothing, or the current begins, or the
 * shaft, whichever was recorded; from its first row where none of them moves.
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
  const optional = (at: number | undefined, units?: Readonly<Record<string, number>>) =>
    at === undefined ? undefined : column(at, units);
  const amps = optional(mapping.amps, ampUnits);
  const rpm = optional(mapping.speed);
  const hz = optional(mapping.hz, hzUnits);
  const link = optional(mapping.link, voltUnits);
  if (!amps && !rpm && !hz)
    throw new RecorderError('Say which column is the frequency, the current, or the speed.');
  const mapped = [amps, rpm, hz, link].filter((c) => c !== undefined);
  const size = (c: typeof amps, i: number): number | null => {
    const x = c?.[i];
    return x === undefined || x === null ? null : Math.abs(x);
  };
  let last = -Infinity;
  let gaps = 0;
  const rows = times.flatMap((t, i) => {
    if (t === null || mapped.some((c) => c[i] === null)) gaps++;
    if (t === null) return [];
    if (t < last)
      throw new RecorderError(
        `The time falls in line ${i + 1} of the table: from ${last} to ${t}. Is “${file.columns[mapping.time].name}” the time?`,
      );
    last = t;
    return [
      { t, amps: size(amps, i), rpm: rpm?.[i] ?? null, hz: size(hz, i), linkV: size(link, i) },
    ];
  });
  const from = begin(rows, hz ? 'hz' : amps ? 'amps' : 'rpm');
  return { points: rows.map((p) => ({ ...p, t: p.t - from })), gaps };
}

/** Time at which a quantity begins: the row before it of a frequency, which rises from nothing; the row itself of a current. */
function begin(rows: Recording['points'], of: 'hz' | 'amps' | 'rpm'): number {
  const at = (p: Recording['points'][number]): number => Math.abs(p[of] ?? 0);
  const peak = Math.max(0, ...rows.map(at));
  if (peak === 0) return rows[0]?.t ?? 0;
  const least = peak * (of === 'amps' ? BEGUN.amps : BEGUN.turns);
  const first = rows.findIndex((p) => at(p) > least);
  return rows[of === 'amps' ? first : Math.max(0, first - 1)].t;
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
