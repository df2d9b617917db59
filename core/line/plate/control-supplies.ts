import { sizeText, type Finding } from '../../job/index.js';
import { ampacityOf, ampacityTables, sizeKey } from '../conductors.js';
import { controlTransformer, supplyBudget } from '../control-supply.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';

function transformerArgs({ plate }: PlateContext) {
  const { transformer, loads } = plate.control ?? {};
  const on = Object.values(loads ?? {}).filter((l) => l.on === 'transformer' && l.holdingVA);
  const va = (q: (typeof on)[number]['holdingVA']): number =>
    (base(q, 'apparentPower') ?? 0) * 1000;
  return {
    holdingVA: on.length ? on.map((l) => va(l.holdingVA)) : undefined,
    inrushVA: on.length ? on.map((l) => va(l.inrushVA ?? l.holdingVA)) : undefined,
    ratingVA: transformer && va(transformer),
    rule: 'sumPlusLargest',
  };
}

function budgetArgs({ plate }: PlateContext) {
  const { supply24, reservePct = 20, loads } = plate.control ?? {};
  const on = Object.values(loads ?? {}).filter((l) => l.on === 'supply24' && l.amps);
  return {
    loadsA: on.length ? on.map((l) => base(l.amps, 'current') as number) : undefined,
    largestInrushA: Math.max(
      0,
      ...on.map((l) => (base(l.inrush, 'current') ?? 0) - (base(l.amps, 'current') ?? 0)),
    ),
    ratingA: base(supply24, 'current'),
    reservePct,
  };
}

/** Facts of control transformer and 24 V supply. */
export function controlFacts(c: PlateContext): PlateFact[] {
  return [
    ...facts('control', controlTransformer, transformerArgs(c), {
      holdingPct: 'transformerLoad',
      neededVA: 'transformerNeeded',
    }),
    ...facts('control', supplyBudget, budgetArgs(c), {
      totalA: 'supply24Load',
      loadPct: 'supply24Share',
    }),
  ];
}

/** What is wrong with the control supplies. */
export function controlFindings(c: PlateContext): Finding[] {
  const found: Finding[] = [];
  const t = tryRun(controlTransformer, transformerArgs(c))?.result;
  const ratingVA = transformerArgs(c).ratingVA;
  if (t && ratingVA !== undefined && (t['continuousOk'] === false || t['peakOk'] === false))
    found.push(
      finding(
        'control.transformerShort',
        'stop',
        'control.transformer',
        { ratingVA, neededVA: Math.max(t['neededVA'] as number, t['holdingVA'] as number) },
        'rating ≥ 0.8·(ΣH + I_max)',
      ),
    );
  const s = tryRun(supplyBudget, budgetArgs(c))?.result;
  if (s && s['ok'] === false)
    found.push(
      finding(
        'control.supplyShort',
        'stop',
        'control.supply24',
        {
          totalA: s['totalA'] as number,
          withInrushA: s['withInrushA'] as number,
          ratingA: budgetArgs(c).ratingA ?? 0,
          reservePct: budgetArgs(c).reservePct,
        },
        'IEC 60204-1 §9.1',
      ),
    );
  return [...found, ...smallWire(c)];
}

/** A thin wire tapped from a power circuit behind its large fuse. */
function smallWire({ plate, job }: PlateContext): Finding[] {
  const { fuse, wire } = plate.control ?? {};
  const fuseA = base(fuse, 'current');
  if (fuseA === undefined || !wire) return [];
  const table = ampacityTables.find((t) => t.name === (job.practice === 'IEC' ? 'iecB2' : 'nec75'));
  const least = table?.amps[0];
  if (!table || !least || 'mm2' in wire !== (table.practice === 'IEC')) return [];
  const known = table.amps.some(([s]) => s === sizeKey(wire));
  // Below the table the smallest conductor's current falls with the area, so its value is an upper limit.
  const usableA = known
    ? ampacityOf(table, sizeKey(wire), 30, 1).usableA
    : 'mm2' in wire && wire.mm2 < Number(least[0])
      ? (least[1] * wire.mm2) / Number(least[0])
      : undefined;
  if (usableA === undefined || fuseA <= usableA) return [];
  return [
    finding(
      'control.fuseWire',
      'stop',
      'control.fuse',
      { fuseA, usableA, size: sizeText(wire) },
      table.source,
    ),
  ];
}
