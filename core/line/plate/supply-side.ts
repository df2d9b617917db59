import { keepsLineFrequency } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { ampacityOf, ampacityTables, areaOf, sizeKey } from '../conductors.js';
import { dcLinkVoltage } from '../dc-link-voltage.js';
import { singlePhaseInputCurrent, startDip, unbalanceDerating } from '../feed.js';
import { currentDistortion, prospectiveCurrent } from '../place.js';
import { unbalance } from '../unbalance.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';
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
      ? []
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
        { isolatorA, inputA },
        'IEC 60204-1 §5.3.3',
      ),
    );
  return found;
}

/** Leakage above which a protective conductor is reinforced, mA AC (IEC 61800-5-1:2007 §4.3.5.5.2). */
export const REINFORCED_ABOVE_MA = 3.5;
/** Size from which one protective conductor serves for it, mm². */
const REINFORCED_MM2 = 10;

/** Leakage over the protective conductor of the feed, mA: of the device and of a filter ahead of it. */
export const leakageOf = ({ line, profile }: Pick<PlateContext, 'line' | 'profile'>): number =>
  (base(line.inputFilter?.leakage, 'current') ?? 0) * 1000 + (profile?.leakageMA ?? 0);

/** Whether the wiring as built reinforces it: one conductor of 10 mm², or two. */
function isReinforced({ job: { adopted } }: PlateContext): boolean {
  const own = Object.values(adopted?.wires ?? {}).filter(
    (w) =>
      w.class === 'pe' &&
      [w.from, w.to].some((at) => at.startsWith(`${adopted?.device ?? ''}:`)) &&
      w.function.startsWith('feed.'),
  );
  return own.length > 1 || own.some((w) => areaOf(w.size) >= REINFORCED_MM2);
}

function leakageFindings(c: PlateContext): Finding[] {
  const { line, n } = c;
  const found: Finding[] = [];
  const leakMA = leakageOf(c);
  if (line.rcd) {
    const { type } = line.rcd;
    const ratedMA = (base(line.rcd.rated, 'current') ?? 0) * 1000;
    if (type && n.phases === 3 && type !== 'B')
      found.push(
        finding(
          'rcd.type',
          'stop',
          'rcd.type',
          { type, phases: 3 },
          'IEC 62423; IEC 61800-5-1: smooth DC residual current of a three-phase bridge',
        ),
      );
    if (type && n.phases === 1 && (type === 'AC' || type === 'A'))
      found.push(
        finding(
          'rcd.type',
          'warn',
          'rcd.type',
          { type, phases: 1 },
          'IEC 62423: mixed frequencies behind a single-phase drive',
        ),
      );
    if (leakMA && ratedMA && leakMA > 0.3 * ratedMA)
      found.push(
        finding(
          'rcd.leakage',
          'warn',
          'rcd.rated',
          { leakMA, ratedMA, sharePct: (100 * leakMA) / ratedMA },
          'IEC 60364-5-53 §531.3: at most 30 % of the rating',
        ),
      );
  }
  if (
    leakMA > REINFORCED_ABOVE_MA &&
    line.protection &&
    !line.protection.reinforcedPe &&
    !isReinforced(c)
  )
    found.push(
      finding(
        'supply.reinforcedPe',
        'advise',
        'protection.reinforcedPe',
        { leakMA },
        'IEC 61800-5-1 §4.3.5.5.2',
      ),
    );
  return found;
}

/** What of the device lies against earth on a supply without an earthed star point. */
function earthFindings(plate: PlateContext['plate'], profile: PlateContext['profile']): Finding[] {
  const found: Finding[] = [];
  const earthing = plate.supply.earthing;
  const unearthed = earthing === 'IT' || earthing === 'cornerEarthed';
  if (unearthed && profile && !profile.earthLink && (profile.leakageMA ?? 0) > 0)
    found.push(
      finding(
        'supply.filterToEarth',
        'warn',
        'supply.earthing',
        { earthing, leakMA: profile.leakageMA as number },
        'device profile; IEC 61800-3, filters on supplies without an earthed star point',
      ),
    );
  if (unearthed && profile?.earthLink && !plate.place?.earthLinkOut)
    found.push(
      finding(
        'supply.earthLink',
        'stop',
        'place.earthLinkOut',
        { earthing, link: profile.earthLink as string },
        'device profile; IEC 61800-5-1',
      ),
    );
  return found;
}

function blockFindings({ line, plate, profile }: PlateContext): Finding[] {
  const found: Finding[] = [];
  found.push(...earthFindings(plate, profile));
  if (line.capacitor?.at === 'output')
    found.push(
      finding(
        'capacitor.output',
        'stop',
        'capacitor.at',
        {},
        'charging current of every switching edge',
      ),
    );
  if (line.capacitor?.at === 'supply' && !line.reactor)
    found.push(
      finding(
        'capacitor.supply',
        'warn',
        'capacitor.at',
        {},
        'resonance with the bridge’s harmonics',
      ),
    );
  if (line.inputFilter && !line.inputFilter.sidesChecked)
    found.push(
      finding(
        'filter.sides',
        'warn',
        'inputFilter.sidesChecked',
        {},
        'IEC 61800-3: line and load side, short earth',
      ),
    );
  const perHour = line.contactor?.perHour;
  if (
    perHour !== undefined &&
    profile?.supplyOperationsPerHour !== undefined &&
    perHour > profile.supplyOperationsPerHour
  )
    found.push(
      finding(
        'contactor.rate',
        'stop',
        'contactor.perHour',
        { perHour, most: profile.supplyOperationsPerHour },
        'device profile: the pre-charge resistor',
      ),
    );
  return found;
}
