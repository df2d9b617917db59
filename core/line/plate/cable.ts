import { keepsLineFrequency } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { sizeText } from '../../job/index.js';
import {
  ampacityOf,
  ampacityTables,
  areaOf,
  groundingSize,
  peSize,
  sizeKey,
  type AmpacityTable,
} from '../conductors.js';
import { cableCharging } from '../leakage.js';
import { longestCable } from '../longest-cable.js';
import { reflectedWave } from '../reflected-wave.js';
import { voltageDrop } from '../voltage-drop.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';

/** Largest drop on the motor cable that raises no finding, %. */
const DROP_LIMIT_PCT = 4;

/** Capacitance of one core of a screened and of a plain motor cable, pF/m. */
const CORE_PF_PER_M = { screened: 300, plain: 150 };

/** Rise time of a drive's output where its profile does not say, ns. */
const USUAL_RISE_NS = 200;

const cableArgs = ({ plate, n }: PlateContext) => ({
  system: 'three',
  currentA: n.rated?.amps,
  lengthM: base(plate.cable.length, 'length'),
  areaMm2: plate.cable.size && areaOf(plate.cable.size),
  conductorC: 70,
  powerFactor: n.powerFactor,
  nominalV: n.outputV,
});

/** The table the cable's current is read from: the person's choice, else the usual one of the practice. */
export function tableOf({ plate, job }: PlateContext): AmpacityTable {
  const usual = job.practice === 'IEC' ? 'iecC' : 'nec75';
  return (
    ampacityTables.find((t) => t.name === plate.cable.table) ??
    (ampacityTables.find((t) => t.name === usual) as AmpacityTable)
  );
}

/** What the person's own table says of this size. */
function ownAmpacity({ plate }: PlateContext): PlateFact | undefined {
  const { ownTable, size } = plate.cable;
  const name = sizeText(size);
  const usableA = name === undefined ? undefined : ownTable?.amps[name];
  if (!ownTable || name === undefined || usableA === undefined) return undefined;
  return {
    id: 'cableAmpacity',
    block: 'cable',
    value: usableA,
    unit: 'A',
    working: {
      name: 'ampacity',
      title: 'fact.whatTheCableMayCarry',
      formula: 'from the table as it stands',
      source: `${ownTable.title}${ownTable.source ? `: ${ownTable.source}` : ''}`,
      confirm: 'Your own table, with every factor in it.',
      inputs: [{ name: 'size', title: 'fact.conductor', value: name, unit: '' }],
      results: [{ name: 'usableA', title: 'fact.mayCarry', value: usableA, unit: 'A' }],
    },
  };
}

function ampacityFact(c: PlateContext): PlateFact | undefined {
  if (c.plate.cable.table === 'own') return ownAmpacity(c);
  const { size, ambient, grouped = 1 } = c.plate.cable;
  const table = tableOf(c);
  if (!size || 'mm2' in size !== (table.practice === 'IEC')) return undefined;
  const ambientC = base(ambient, 'temperature') ?? 30;
  try {
    const a = ampacityOf(table, sizeKey(size), ambientC, grouped);
    return {
      id: 'cableAmpacity',
      block: 'cable',
      value: a.usableA,
      unit: 'A',
      working: {
        name: 'ampacity',
        title: 'fact.whatTheCableMayCarry',
        formula: 'I = I_table·k_air·k_group',
        source: table.source,
        confirm: 'Table, method and factors of the local code.',
        inputs: [
          {
            name: 'size',
            title: `fact.conductor:${table.title}`,
            value: sizeKey(size),
            unit: 'mm2' in size ? 'mm²' : 'AWG',
          },
          { name: 'tableA', title: 'fact.inTheTable', value: a.tableA, unit: 'A' },
          { name: 'ambientC', title: 'fact.air', value: ambientC, unit: '°C' },
          {
            name: 'ambientFactor',
            title: 'fact.factorForTheAir',
            value: a.ambientFactor,
            unit: '',
          },
          { name: 'groupFactor', title: 'fact.factorForGrouping', value: a.groupFactor, unit: '' },
        ],
        results: [{ name: 'usableA', title: 'fact.mayCarry', value: a.usableA, unit: 'A' }],
      },
    };
  } catch {
    return undefined;
  }
}

/** Why what the cable may carry cannot be told; undefined where it can, or where no size is entered. */
export function ampacityRefusal(c: PlateContext): string | undefined {
  const { size, ambient, grouped = 1, table: chosen } = c.plate.cable;
  if (!size || ampacityFact(c)) return undefined;
  if (chosen === 'own') return `your own table has no ${sizeText(size) ?? ''}`;
  const table = tableOf(c);
  if ('mm2' in size !== (table.practice === 'IEC'))
    return `${table.title} does not know ${sizeText(size) ?? 'this size'}`;
  try {
    ampacityOf(table, sizeKey(size), base(ambient, 'temperature') ?? 30, grouped);
    return undefined;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}

/** A filter of a kind that limits the slope or the peak; a choke does not by itself. */
const limitsEdges = ({ outputFilter }: PlateContext['line']): boolean =>
  outputFilter?.kind === 'dvdt' || outputFilter?.kind === 'sine';

const waveArgs = ({ plate, n, profile, line }: PlateContext) => ({
  linkV: n.supplyV && Math.SQRT2 * n.supplyV,
  riseNs: limitsEdges(line) ? undefined : (profile?.riseNs ?? USUAL_RISE_NS),
  lengthM: base(plate.cable.length, 'length'),
});

const isDrive = ({ profile }: PlateContext): boolean => !keepsLineFrequency(profile);

/** Facts of the motor cable. */
export function cableFacts(c: PlateContext): PlateFact[] {
  const { plate, n, job } = c;
  const args = cableArgs(c);
  const capacitance = plate.cable.screened ? CORE_PF_PER_M.screened : CORE_PF_PER_M.plain;
  const ampacity = ampacityFact(c);
  const protectionA = base(c.line.protection?.ratedA, 'current');
  return [
    ...facts('cable', voltageDrop, args, { dropV: 'cableDrop', dropPct: 'cableDropPct' }),
    ...facts(
      'cable',
      longestCable,
      { ...args, limitPct: DROP_LIMIT_PCT },
      { maxLengthM: 'cableLongest' },
    ),
    ...(ampacity ? [ampacity] : []),
    ...(isDrive(c)
      ? facts('cable', reflectedWave, waveArgs(c), {
          criticalLengthM: 'criticalLength',
          linearRulePeakV: 'motorPeak',
        })
      : []),
    ...(isDrive(c)
      ? facts(
          'cable',
          cableCharging,
          {
            capacitancePFPerM: capacitance,
            lengthM: args.lengthM,
            linkV: n.supplyV && Math.SQRT2 * n.supplyV,
            switchingKHz: plate.place?.carrierKHz ?? 4,
          },
          { averageA: 'chargingCurrent' },
        )
      : []),
    ...(job.practice === 'IEC'
      ? facts('cable', peSize, { phaseMm2: args.areaMm2, reinforced: false }, { peMm2: 'cablePe' })
      : facts('cable', groundingSize, { deviceA: protectionA }, { awg: 'cableGround' })),
  ];
}

/** A length that was typed in feet is told in feet. */
const inFeet = ({ plate }: PlateContext): { feet?: true } =>
  plate.cable.length?.u === 'ft' ? { feet: true } : {};

/** What is wrong with the motor cable. */
export function cableFindings(c: PlateContext): Finding[] {
  return [...conductorFindings(c), ...waveFindings(c)];
}

/** What the cable takes of the voltage of the motor. */
function dropFindings(c: PlateContext, args: ReturnType<typeof cableArgs>): Finding[] {
  const dropPct = tryRun(voltageDrop, args)?.result['dropPct'] as number | undefined;
  if (dropPct === undefined || dropPct <= DROP_LIMIT_PCT) return [];
  const better = tryRun(longestCable, { ...args, limitPct: DROP_LIMIT_PCT })?.result;
  return [
    finding(
      'cable.drop',
      'warn',
      'cable.length',
      {
        dropPct,
        limitPct: DROP_LIMIT_PCT,
        ...inFeet(c),
        longest: better?.['maxLengthM'] as number,
        area: (better?.['minAreaMm2'] as number | null) ?? 0,
      },
      'IEC 60364-5-52 annex G',
    ),
  ];
}

function conductorFindings(c: PlateContext): Finding[] {
  const { plate, profile, n, job } = c;
  const args = cableArgs(c);
  const found: Finding[] = dropFindings(c, args);
  const amps = n.rated?.amps;
  const may = ampacityFact(c);
  if (
    may &&
    amps !== undefined &&
    amps * (job.practice === 'NFPA' ? 1.25 : 1) > (may.value as number)
  )
    found.push(
      finding(
        'cable.ampacity',
        'stop',
        'cable.size',
        { amps, usableA: may.value, factor: job.practice === 'NFPA' ? 1.25 : 1 },
        may.working.source,
      ),
    );
  if (
    args.lengthM !== undefined &&
    profile?.maxMotorCableM !== undefined &&
    args.lengthM > profile.maxMotorCableM
  )
    found.push(
      finding(
        'cable.tooLong',
        'stop',
        'cable.length',
        {
          ...inFeet(c),
          lengthM: args.lengthM,
          most: profile.maxMotorCableM,
          device: profile.title,
        },
        'device profile',
      ),
    );
  const pe = plate.cable.pe && areaOf(plate.cable.pe);
  const wanted =
    args.areaMm2 !== undefined
      ? (tryRun(peSize, { phaseMm2: args.areaMm2, reinforced: false })?.result['peMm2'] as number)
      : undefined;
  if (
    pe !== undefined &&
    wanted !== undefined &&
    job.practice === 'IEC' &&
    pe < wanted &&
    !plate.cable.doublePe
  )
    found.push(
      finding('cable.pe', 'stop', 'cable.pe', { pe, wanted }, 'IEC 60364-5-54 table 54.2'),
    );
  return found;
}

function waveFindings(c: PlateContext): Finding[] {
  const { plate, line, n } = c;
  if (!isDrive(c) || limitsEdges(line) || plate.motor.insulation === 'inverterDuty') return [];
  const wave = tryRun(reflectedWave, waveArgs(c))?.result;
  const lengthM = base(plate.cable.length, 'length');
  if (!wave || lengthM === undefined) return [];
  const criticalM = wave['criticalLengthM'] as number;
  if (lengthM <= criticalM) return [];
  return [
    finding(
      'cable.reflectedWave',
      'warn',
      'cable.length',
      {
        ...inFeet(c),
        lengthM,
        criticalM,
        peakV: wave['linearRulePeakV'] as number,
        linkV: Math.SQRT2 * (n.supplyV ?? 0),
      },
      'IEC TS 60034-25; NEMA MG 1 part 30 (1000 V, 2 µs) and part 31',
    ),
  ];
}
