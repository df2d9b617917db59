import { keepsLineFrequency, roleValue } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { ampacityOf, ampacityTables, areaOf, sizeKey } from '../conductors.js';
import { dcLinkVoltage } from '../dc-link-voltage.js';
import { singlePhaseInputCurrent, startDip, unbalanceDerating } from '../feed.js';
import { currentDistortion, prospectiveCurrent } from '../place.js';
import { unbalance } from '../unbalance.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';
import { blockFindings, leakageFindings, leakageOf } from './block-findings.js';
import { threePhaseInputCurrent } from './input-current.js';

/** Efficiency and true power factor assumed of a drive without more data; said in the working. */
const DRIVE_EFFICIENCY = 0.96;
const SINGLE_PHASE_POWER_FACTOR = 0.62;

/** Reactance ahead of the bridge without a reactor, %. */
const SOURCE_REACTANCE_PCT = 1;

const measured = ({ plate }: PlateContext): number[] | undefined => {
  const m = plate.supply.measured;
  const values = [m?.l12, m?.l23, m?.l31].map((q) => base(q, 'voltage'));
  return values.every((v) => v !== undefined) ? values : undefined;
};

const source = ({ plate, line }: PlateContext) => ({
  sourceKVA:
    base(line.transformer?.rating, 'apparentPower') ??
    base(plate.supply.transformer, 'apparentPower'),
  sourceZPct: line.transformer?.rating ? line.transformer.impedancePct : plate.supply.impedancePct,
});

const inputCurrentArgs = ({ n }: PlateContext) => ({
  outputKw: n.powerKw,
  supplyV: n.supplyV,
  motorEfficiency: n.efficiency,
  driveEfficiency: DRIVE_EFFICIENCY,
});

/** What the device takes from the supply at the motor's rated load, A. */
export function inputCurrentOf(c: PlateContext): number | undefined {
  return keepsLineFrequency(c.profile)
    ? c.n.rated?.amps
    : (inputFacts(c).find((f) => f.id === 'inputCurrent')?.value as number | undefined);
}

const truePowerFactor = (c: PlateContext): number | undefined =>
  tryRun(currentDistortion, {
    reactancePct: Math.min(10, SOURCE_REACTANCE_PCT + (c.line.reactor?.pct ?? 0)),
  })?.result['truePowerFactor'] as number | undefined;

function inputFacts(c: PlateContext): PlateFact[] {
  if (keepsLineFrequency(c.profile)) return [];
  if (c.n.phases === 1)
    return facts(
      'supply',
      singlePhaseInputCurrent,
      { ...inputCurrentArgs(c), truePowerFactor: SINGLE_PHASE_POWER_FACTOR },
      { currentA: 'inputCurrent' },
    );
  return facts(
    'supply',
    threePhaseInputCurrent,
    { ...inputCurrentArgs(c), truePowerFactor: truePowerFactor(c) },
    { currentA: 'inputCurrent' },
  );
}

const prospective = (c: PlateContext) => ({
  ...source(c),
  volts: c.n.supplyV,
  lengthM: base(c.line.protection?.feedLength, 'length') ?? 0,
  areaMm2: c.line.protection?.feedSize ? areaOf(c.line.protection.feedSize) : 50,
});

/** Facts of supply, protection, residual-current device and reactor. */
export function supplyFacts(c: PlateContext): PlateFact[] {
  const { n, plate, line } = c;
  const values = measured(c);
  const unbalanced = values
    ? facts('supply', unbalance, { values }, { unbalancePct: 'unbalance' })
    : [];
  const direct = {
    ...source(c),
    motorKw: n.powerKw,
    efficiency: n.efficiency,
    powerFactor: n.powerFactor,
  };
  const feed = feedAmpacity(c);
  return [
    ...(keepsLineFrequency(c.profile)
      ? []
      : facts(
          'supply',
          dcLinkVoltage,
          { supplyV: n.supplyV, phases: n.phases },
          { unloadedV: 'dcLinkStopped', loadedV: 'dcLinkLoaded' },
        )),
    ...inputFacts(c),
    ...unbalanced,
    ...facts(
      'supply',
      unbalanceDerating,
      { unbalancePct: unbalanced[0]?.value },
      { factor: 'unbalanceFactor' },
    ),
    ...facts('supply', prospectiveCurrent, prospective(c), { kiloA: 'shortCircuit' }),
    ...facts(
      'supply',
      startDip,
      { ...direct, startMultiple: plate.motor.lockedCurrentRatio },
      { dipPhasorPct: 'dipDirect' },
    ),
    ...(keepsLineFrequency(c.profile)
      ? limitDip(c, direct)
      : facts(
          'supply',
          startDip,
          { ...direct, startMultiple: 1.5, startPowerFactor: 0.95 },
          { dipPhasorPct: 'dipDrive' },
        )),
    ...(feed ? [feed] : []),
    ...(line.reactor
      ? facts(
          'reactor',
          currentDistortion,
          { reactancePct: Math.min(10, SOURCE_REACTANCE_PCT + (line.reactor.pct ?? 0)) },
          { thdPct: 'distortion', truePowerFactor: 'inputPowerFactor' },
        )
      : []),
  ];
}

/** Dip of the supply at the current limit that is planned, or else wished; nothing without a limit. */
function limitDip(c: PlateContext, direct: Readonly<Record<string, unknown>>): PlateFact[] {
  const { job, profile, model } = c;
  if (!profile || !model) return [];
  const planned = Object.fromEntries(
    Object.entries(job.adopted?.settings ?? {}).map(([code, { value }]) => [code, value]),
  );
  const keyed = job.adopted && roleValue(profile, planned, 'limitPct');
  const pct = typeof keyed === 'number' ? keyed : job.scheme.limitPct;
  if (!pct) return [];
  return facts(
    'supply',
    startDip,
    { ...direct, startMultiple: pct / 100 },
    { dipPhasorPct: 'dipLimit' },
  );
}

function feedAmpacity({ line, job }: PlateContext): PlateFact | undefined {
  const size = line.protection?.feedSize;
  const table = ampacityTables.find((t) => t.name === (job.practice === 'IEC' ? 'iecC' : 'nec75'));
  if (!size || !table || !table.amps.some(([s]) => s === sizeKey(size))) return undefined;
  const { usableA } = ampacityOf(table, sizeKey(size), 30, 1);
  return {
    id: 'feedAmpacity',
    block: 'protection',
    value: usableA,
    unit: 'A',
    working: {
      name: 'ampacity',
      title: 'fact.whatTheFeedMayCarry',
      formula: 'I = I_table at 30 °C, alone',
      source: table.source,
      confirm: 'Table, method and factors of the local code.',
      inputs: [
        {
          name: 'size',
          title: 'fact.conductor',
          value: sizeKey(size),
          unit: 'mm2' in size ? 'mm²' : 'AWG',
        },
      ],
      results: [{ name: 'usableA', title: 'fact.mayCarry', value: usableA, unit: 'A' }],
    },
  };
}

/** What is wrong between the supply and the device. */
export function supplySideFindings(c: PlateContext): Finding[] {
  return [
    ...voltageFindings(c),
    ...faultLevelFindings(c),
    ...protectionFindings(c),
    ...leakageFindings(c),
    ...blockFindings(c),
  ];
}

function voltageFindings(c: PlateContext): Finding[] {
  const { n, profile, model } = c;
  const found: Finding[] = [];
  const values = measured(c);
  const unbalancePct = values && (tryRun(unbalance, { values })?.result['unbalancePct'] as number);
  if (unbalancePct !== undefined && unbalancePct > 1)
    found.push(
      finding(
        'supply.unbalance',
        unbalancePct > 5 ? 'stop' : 'warn',
        'supply.measured',
        { unbalancePct },
        'NEMA MG 1 §12.45, §14.36',
      ),
    );
  if (!profile || !n.supplyV) return found;
  const [low, high] = profile.supply.volts;
  if (n.supplyV < low * 0.9 || n.supplyV > high * 1.1)
    found.push(
      finding(
        'plate.supplyOutsideDevice',
        'stop',
        'supply.volts',
        { supplyV: n.supplyV, low, high, device: model?.name ?? profile.title },
        'device profile, ±10 %',
      ),
    );
  if (n.phases === 1 && profile.supply.phases === 3)
    found.push(
      finding(
        'plate.singlePhaseFeed',
        profile.singlePhaseFactor === undefined ? 'stop' : 'warn',
        'supply.phases',
        { device: profile.title, sharePct: 100 * (profile.singlePhaseFactor ?? 0) },
        'device profile',
      ),
    );
  return found;
}

function faultLevelFindings(c: PlateContext): Finding[] {
  const kiloA = tryRun(prospectiveCurrent, prospective(c))?.result['kiloA'] as number | undefined;
  if (kiloA === undefined) return [];
  const found: Finding[] = [];
  const breakingKA = (base(c.line.protection?.breaking, 'current') ?? Infinity) / 1000;
  if (kiloA > breakingKA)
    found.push(
      finding(
        'protection.breaking',
        'stop',
        'protection.breaking',
        { kiloA, breakingKA },
        'IEC 60364-4-43 §434; NEC 110.9',
      ),
    );
  const rated = c.model?.shortCircuitKA;
  if (rated !== undefined && kiloA > rated)
    found.push(
      finding(
        'device.shortCircuit',
        'stop',
        'device',
        { kiloA, rated, model: c.model?.name ?? '' },
        'device profile with its protective device',
      ),
    );
  return found;
}

function protectionFindings(c: PlateContext): Finding[] {
  const { line, job } = c;
  const found: Finding[] = [];
  const ratedA = base(line.protection?.ratedA, 'current');
  const inputA = inputCurrentOf(c);
  if (
    ratedA !== undefined &&
    inputA !== undefined &&
    ratedA < inputA * (job.practice === 'NFPA' ? 1.25 : 1)
  )
    found.push(
      finding(
        'protection.belowInput',
        'warn',
        'protection.ratedA',
        { ratedA, inputA, factor: job.practice === 'NFPA' ? 1.25 : 1 },
        job.practice === 'NFPA' ? 'NEC 430.122: 125 % of the drive’s input' : 'IEC 60364-4-43 §433',
      ),
    );
  const feed = feedAmpacity(c);
  if (feed && ratedA !== undefined && ratedA > (feed.value as number))
    found.push(
      finding(
        'protection.aboveFeed',
        'stop',
        'protection.ratedA',
        { ratedA, usableA: feed.value },
        feed.working.source,
      ),
    );
  const isolatorA = base(line.isolator?.ratedA, 'current');
  if (isolatorA !== undefined && inputA !== undefined && isolatorA < inputA)
    found.push(
      finding(
        'isolator.belowInput',
        'stop',
        'isolator.ratedA',
        { isolatorA, inputA, plug: line.isolator?.plug !== undefined },
        'IEC 60204-1 §5.3.3',
      ),
    );
  return [...found, ...plugFindings(c, inputA)];
}

/** Leakage above which a plug is one for industry, with a protective conductor of its own size, mA and mm² (IEC 61800-5-1:2007 §4.3.5.5.2). */
const PLUG = { leakMA: 3.5, peMm2: 2.5 } as const;

/** A plug as the disconnecting device: its fuse against the input and the branch behind it, its protective contact against what leaks. */
function plugFindings(c: PlateContext, inputA: number | undefined): Finding[] {
  const { isolator, protection } = c.line;
  if (!isolator?.plug) return [];
  const found: Finding[] = [];
  const fuseA = base(isolator.fuse, 'current');
  if (fuseA !== undefined && inputA !== undefined && fuseA < inputA)
    found.push(
      finding(
        'plug.fuseBelowInput',
        'stop',
        'isolator.fuse',
        { fuseA, inputA },
        'IEC 60364-4-43 §433',
      ),
    );
  const usable = feedAmpacity(c)?.value;
  // Behind a smaller protective device the branch is protected by that.
  const behind = base(protection?.ratedA, 'current') ?? Infinity;
  if (fuseA !== undefined && typeof usable === 'number' && Math.min(fuseA, behind) > usable)
    found.push(
      finding(
        'plug.fuseAboveFeed',
        'stop',
        'isolator.fuse',
        { fuseA, usableA: usable },
        'IEC 60364-4-43 §433: the branch behind the fuse of the plug',
      ),
    );
  const leakMA = leakageOf(c);
  const pe = Object.values(c.job.adopted?.wires ?? {}).find((w) => w.function === 'feed.PE');
  const thin = pe !== undefined && areaOf(pe.size) < PLUG.peMm2;
  if (leakMA > PLUG.leakMA && (isolator.plug === 'household' || thin))
    found.push(
      finding(
        'plug.leakage',
        'stop',
        'isolator.plug',
        { leakMA, household: isolator.plug === 'household', peMm2: PLUG.peMm2 },
        'IEC 61800-5-1:2007 §4.3.5.5.2: industrial plug (IEC 60309), protective conductor of 2.5 mm² or more',
      ),
    );
  return found;
}
