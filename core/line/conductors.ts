import {
  between,
  calculation,
  CalculationError,
  choice,
  positive,
  result,
} from '../calculation/index.js';

/** Current-carrying capacity by conductor, as a named table that a site may replace with its own. */
export interface AmpacityTable {
  readonly name: string;
  readonly title: string;
  readonly source: string;
  readonly practice: 'IEC' | 'NFPA';
  /** Conductor (mm², or AWG as text) → A, smallest first. */
  readonly amps: readonly (readonly [number | string, number])[];
  /** Ambient °C up to which each factor holds. */
  readonly ambient: readonly (readonly [number, number])[];
  /** Loaded circuits or conductors together up to which each factor holds. */
  readonly grouping: readonly (readonly [number, number])[];
}

const pvcAmbient = [[10, 1.22], [15, 1.17], [20, 1.12], [25, 1.06], [30, 1], [35, 0.94], [40, 0.87], [45, 0.79], [50, 0.71], [55, 0.61], [60, 0.5]] as const; // prettier-ignore
const iecGrouping = [[1, 1], [2, 0.8], [3, 0.7], [4, 0.65], [5, 0.6], [6, 0.57], [7, 0.54], [8, 0.52], [9, 0.5]] as const; // prettier-ignore
const iec = (name: string, title: string, amps: readonly number[], source: string): AmpacityTable => ({
  name, title, source, practice: 'IEC', ambient: pvcAmbient, grouping: iecGrouping,
  amps: [1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120].map((mm2, i) => [mm2, amps[i]] as const),
}); // prettier-ignore

/** Copper, PVC 70 °C, three loaded conductors, 30 °C air; and 75 °C copper of the American table. */
export const ampacityTables: readonly AmpacityTable[] = [
  iec('iecB2', 'cable in conduit or trunking (B2)', [15, 20, 27, 34, 46, 62, 80, 99, 118, 149, 179, 206], 'IEC 60364-5-52 table B.52.4, B2'),
  iec('iecC', 'cable on a wall (C)', [17.5, 24, 32, 41, 57, 76, 96, 119, 144, 184, 223, 259], 'IEC 60364-5-52 table B.52.4, C'),
  iec('iecE', 'cable on a tray, free air (E)', [18.5, 25, 34, 43, 60, 80, 101, 126, 153, 196, 238, 276], 'IEC 60364-5-52 table B.52.10, E'),
  {
    name: 'nec75', title: 'raceway or cable, copper 75 °C', source: 'NEC table 310.16, 310.15(B) and (C); small conductors 240.4(D) are for the protective device', practice: 'NFPA',
    amps: [['14', 20], ['12', 25], ['10', 35], ['8', 50], ['6', 65], ['4', 85], ['3', 100], ['2', 115], ['1', 130], ['1/0', 150], ['2/0', 175], ['3/0', 200], ['4/0', 230]],
    ambient: [[25, 1.05], [30, 1], [35, 0.94], [40, 0.88], [45, 0.82], [50, 0.75], [55, 0.67], [60, 0.58]],
    grouping: [[3, 1], [6, 0.8], [9, 0.7], [20, 0.5]],
  },
]; // prettier-ignore

/** Conductor size as a table shows it. */
export const sizeKey = (size: { mm2: number } | { awg: string }): number | string =>
  'mm2' in size ? size.mm2 : size.awg;

/**
 * Cross-section of an AWG size: d = 0.127 mm · 92^((36 − n)/39), with 1/0 … 4/0 as n = 0 … −3.
 *
 * @throws RangeError when the size is no AWG size
 * @example awgAreaMm2('10') // 5.26
 */
export function awgAreaMm2(awg: string): number {
  const zeros = /^([1-4])\/0$/u.exec(awg);
  const n = zeros ? 1 - Number(zeros[1]) : /^\d{1,2}$/u.test(awg) ? Number(awg) : NaN;
  if (!(n >= -3 && n <= 40)) throw new RangeError(`${awg} is no AWG size`);
  return (Math.PI / 4) * (0.127 * 92 ** ((36 - n) / 39)) ** 2;
}

/** Cross-section in mm² of a size given either way. */
export const areaOf = (size: { mm2: number } | { awg: string }): number =>
  'mm2' in size ? size.mm2 : awgAreaMm2(size.awg);

const factorOf = (table: readonly (readonly [number, number])[], x: number): number | undefined =>
  table.find(([limit]) => x <= limit)?.[1];

/**
 * What a conductor may carry, from a table with its ambient and grouping factors.
 *
 * @param tables the tables known; a site's own stand beside those shipped
 * @throws CalculationError outside the table
 * @example ampacityOf(ampacityTables[1], 2.5, 40, 2).usableA // 24 · 0.87 · 0.8 = 16.7
 */
export function ampacityOf(
  table: AmpacityTable,
  size: number | string,
  ambientC: number,
  grouped: number,
): { tableA: number; ambientFactor: number; groupFactor: number; usableA: number } {
  const tableA = table.amps.find(([s]) => s === size)?.[1];
  if (tableA === undefined)
    throw new CalculationError(
      'size',
      `size must be one of ${table.amps.map(([s]) => s).join(', ')} in the table ${table.name}`,
    );
  const ambientFactor = factorOf(table.ambient, ambientC);
  const last = table.ambient[table.ambient.length - 1][0];
  if (ambientFactor === undefined)
    throw new CalculationError(
      'ambientC',
      `ambientC must be at most ${last} °C, where the table ${table.name} ends`,
    );
  const groupFactor = factorOf(table.grouping, grouped);
  const most = table.grouping[table.grouping.length - 1][0];
  if (groupFactor === undefined)
    throw new CalculationError(
      'grouped',
      `grouped must be at most ${most}, where the table ${table.name} ends`,
    );
  return { tableA, ambientFactor, groupFactor, usableA: tableA * ambientFactor * groupFactor };
}

/** What a conductor may carry. */
export const ampacity = calculation<
  { table: string; areaMm2?: number; awg?: string; ambientC: number; grouped: number },
  { tableA: number; ambientFactor: number; groupFactor: number; usableA: number }
>({
  name: 'ampacity',
  title: 'What a conductor may carry',
  args: {
    table: choice('table', ampacityTables.map((t) => t.name)),
    areaMm2: positive('conductor', 'mm²', 1000, { optional: true }),
    awg: { ...choice('conductor, AWG', ampacityTables[3].amps.map(([s]) => String(s))), optional: true },
    ambientC: between('air around it', '°C', -20, 60, { fallback: 30 }),
    grouped: between('circuits together (IEC), loaded conductors (NEC)', '', 1, 20, { whole: true, fallback: 1 }),
  },
  results: { tableA: result('in the table', 'A'), ambientFactor: result('for the air'), groupFactor: result('for grouping'), usableA: result('may carry', 'A') },
  formula: 'I = I_table·k_air·k_group',
  source: ampacityTables.map((t) => `${t.name}: ${t.source}`).join('; '),
  confirm: 'The table, method and factors of the local code.',
  example: { table: 'iecC', areaMm2: 2.5, ambientC: 40, grouped: 2 },
  run: ({ table: name, areaMm2, awg, ambientC, grouped }) => {
    const table = ampacityTables.find((t) => t.name === name) as AmpacityTable;
    const size = table.practice === 'IEC' ? areaMm2 : awg;
    if (size === undefined) throw new CalculationError(table.practice === 'IEC' ? 'areaMm2' : 'awg', `${table.practice === 'IEC' ? 'areaMm2' : 'awg'} is missing: the table ${name} goes by it`);
    return ampacityOf(table, size, ambientC, grouped);
  },
}); // prettier-ignore

/**
 * Smallest protective conductor beside a phase conductor: as the phase to 16 mm², 16 up to 35, half above.
 *
 * @example peSize.run({ phaseMm2: 25, reinforced: false }).peMm2 // 16
 */
export const peSize = calculation<{ phaseMm2: number; reinforced: boolean }, { peMm2: number }>({
  name: 'peSize',
  title: 'Size of the protective conductor',
  args: {
    phaseMm2: positive('phase conductor', 'mm²', 1000),
    reinforced: {
      unit: '',
      title: 'leakage above 3.5 mA: a drive with filter',
      kind: 'flag',
      fallback: false,
    },
  },
  results: { peMm2: result('protective conductor', 'mm²') },
  formula:
    'as the phase to 16 mm², 16 mm² up to 35, half above; with leakage above 3.5 mA at least 10 mm², or two conductors',
  source: 'IEC 60364-5-54 table 54.2; IEC 61800-5-1',
  confirm: 'Two separate protective conductors of the size in the cable serve as well.',
  example: { phaseMm2: 2.5, reinforced: true },
  run: ({ phaseMm2, reinforced }) => {
    const plain = phaseMm2 <= 16 ? phaseMm2 : phaseMm2 <= 35 ? 16 : phaseMm2 / 2;
    return { peMm2: reinforced ? Math.max(10, plain) : plain };
  },
});

/** Equipment grounding conductor by the rating of the protective device ahead of it. */
const grounding: readonly (readonly [number, string])[] = [
  [15, '14'], [20, '12'], [60, '10'], [100, '8'], [200, '6'], [300, '4'], [400, '3'], [500, '2'], [600, '1'], [800, '1/0'], [1000, '2/0'],
]; // prettier-ignore

/**
 * Equipment grounding conductor of North American practice.
 *
 * @example groundingSize.run({ deviceA: 40 }).awg // '10'
 */
export const groundingSize = calculation<{ deviceA: number }, { awg: string }>({
  name: 'groundingSize',
  title: 'Equipment grounding conductor',
  args: { deviceA: positive('protective device ahead', 'A', 1000) },
  results: { awg: result('copper', 'AWG') },
  formula: 'by the rating of the protective device, next step up',
  source: 'NEC table 250.122, copper',
  confirm: 'Larger in proportion where the phase conductors are enlarged for voltage drop.',
  example: { deviceA: 40 },
  run: ({ deviceA }) => ({
    awg: (grounding.find(([limit]) => deviceA <= limit) as readonly [number, string])[1],
  }),
});
