import { keepsLineFrequency, linkTerminals } from '../../catalogue/index.js';
import type { Finding, Plate } from '../../job/index.js';
import { braking, LOSS_TORQUE_SHARE } from '../braking.js';
import type { BrakingFacts } from '../../motor/index.js';
import {
  base,
  finding,
  tryRun,
  type PlateContext,
  type PlateFact,
  type PlateNumbers,
} from './context.js';

/** Speed at the highest frequency wished for, rpm. */
export const topRpm = ({ job, n }: PlateContext): number | undefined =>
  n.rpm && n.hz ? (n.rpm * (job.scheme.maxHz ?? n.hz)) / n.hz : undefined;

/**
 * Torque of the load that helps a stop at every speed, Nm: only a constant one does so down to standstill, and none that
 * drives itself.
 */
const steadyHelp = ({ plate, n }: PlateContext): number =>
  plate.load.overhauls || (plate.load.kind ?? 'constant') !== 'constant'
    ? 0
    : ((plate.load.torquePct ?? 0) / 100) * (n.torqueNm ?? 0);

/**
 * What the plates tell of a load that is slowed down, for the energy of the DC link.
 *
 * @returns undefined where inertia, torque or speed are not known
 * @example brakingFacts(job.plate, plateNumbers(job.plate))?.lossNm // 7.4
 */
export function brakingFacts(plate: Plate, n: PlateNumbers): BrakingFacts | undefined {
  const { inertiaKgm2, torqueNm, rpm, hz } = n;
  if (inertiaKgm2 === undefined || !torqueNm || !rpm || !hz) return undefined;
  const { overhauls, torquePct = 0 } = plate.load;
  return {
    inertiaKgm2,
    radPerHz: (2 * Math.PI * rpm) / 60 / hz,
    lossNm: LOSS_TORQUE_SHARE * torqueNm,
    helpNm: overhauls ? 0 : (torquePct / 100) * torqueNm,
    resistorOhm: base(plate.line?.resistor?.ohm, 'resistance'),
    unitV: base(plate.line?.brakingUnit?.switchesAt, 'voltage'),
  };
}

/** Chopper that feeds a braking resistor: the device's own, or a separate unit at its DC link; undefined where there is none. */
function chopperOf({
  profile,
  model,
  line,
}: PlateContext): { volts: number; mostA: number } | undefined {
  if (profile?.chopperV) return { volts: profile.chopperV, mostA: model?.chopperMaxA ?? 1 };
  if (!profile || !line.brakingUnit || linkTerminals(profile).length === 0) return undefined;
  const { switchesAt, mostA } = line.brakingUnit;
  const volts = base(switchesAt, 'voltage') ?? (profile.linkTripV ?? 0) * UNIT_SHARE;
  return { volts, mostA: base(mostA, 'current') ?? Infinity };
}

/** Voltage at which a braking unit switches where its plate does not tell it, as a share of that of the trip. */
const UNIT_SHARE = 0.94;

/** Everything a stop asks of a braking resistor; the deceleration wished for. */
export function brakingArgs(c: PlateContext) {
  const { n, job, plate, profile, model } = c;
  const chopper = chopperOf(c);
  const helping = steadyHelp(c);
  const cycleS = plate.load.stopsPerHour ? 3600 / plate.load.stopsPerHour : 600;
  return {
    inertiaKgm2: n.inertiaKgm2,
    fromRpm: topRpm(c),
    toRpm: 0,
    decelS: job.scheme.decelS,
    loadTorqueNm: helping,
    efficiency: n.efficiency ?? 0.85,
    chopperV: chopper?.volts ?? (profile?.linkTripV ? profile.linkTripV * UNIT_SHARE : undefined),
    chopperMaxA:
      chopper && Number.isFinite(chopper.mostA) ? chopper.mostA : (model?.chopperMaxA ?? 1),
    cycleS,
    ratedTorqueNm: n.torqueNm,
  };
}

/** Shortest stop that the losses alone allow, s. */
export function shortestStop(c: PlateContext): number | undefined {
  const { inertiaKgm2, fromRpm, loadTorqueNm } = brakingArgs(c);
  const { torqueNm } = c.n;
  if (inertiaKgm2 === undefined || fromRpm === undefined || !torqueNm) return undefined;
  return (inertiaKgm2 * 2 * Math.PI * fromRpm) / 60 / (LOSS_TORQUE_SHARE * torqueNm + loadTorqueNm);
}

export function stopFact(c: PlateContext): PlateFact[] {
  const value = keepsLineFrequency(c.profile) ? undefined : shortestStop(c);
  if (value === undefined) return [];
  const a = brakingArgs(c);
  return [
    {
      id: 'shortestStop',
      block: 'device',
      value,
      unit: 's',
      working: {
        name: 'shortestStop',
        title: 'fact.shortestStopWithoutAResistor',
        formula: `t = J·ω/(${LOSS_TORQUE_SHARE}·T_N + T_L)`,
        source:
          'losses of motor and drive take 15 to 20 % of rated torque; a steady load helps, an overhauling one does not',
        confirm: 'Try it loaded and unloaded: the DC link must stay below its trip.',
        inputs: [
          {
            name: 'inertia',
            title: 'fact.inertiaAtTheMotor',
            value: a.inertiaKgm2 ?? 0,
            unit: 'kg·m²',
          },
          { name: 'fromRpm', title: 'fact.from', value: a.fromRpm ?? 0, unit: 'rpm' },
          { name: 'load', title: 'fact.loadTorqueWhichHelps', value: a.loadTorqueNm, unit: 'Nm' },
        ],
        results: [{ name: 'timeS', title: 'fact.shortestStop', value, unit: 's' }],
      },
    },
  ];
}

/** A braking unit switches above the highest voltage of a supply that is 10 % too high, and below the trip of the device. */
const SUPPLY_HIGH = 1.1;

/** What is wrong with a separate braking unit. */
function unitFindings({ line, profile, n }: PlateContext): Finding[] {
  const { brakingUnit: unit, resistor } = line;
  if (!unit || !profile) return [];
  const device = profile.title;
  const at = (rule: string, severity: Finding['severity'], args: Finding['args'], source: string) =>
    finding(`brakingUnit.${rule}`, severity, 'brakingUnit.switchesAt', { device, ...args }, source);
  if (profile.chopperV)
    return [at('ownChopper', 'stop', { volts: profile.chopperV }, 'device profile')];
  if (linkTerminals(profile).length === 0) return [at('noLink', 'stop', {}, 'device profile')];
  const found = resistor
    ? []
    : [at('noResistor', 'stop', {}, 'a chopper only switches a resistor')];
  const volts = base(unit.switchesAt, 'voltage');
  if (volts === undefined) return found;
  const tripV = profile.linkTripV ?? Infinity;
  if (volts >= tripV) found.push(at('aboveTrip', 'stop', { volts, tripV }, 'device profile'));
  const restV = Math.SQRT2 * (n.supplyV ?? 0) * SUPPLY_HIGH;
  if (volts <= restV)
    found.push(at('belowSupply', 'stop', { volts, restV }, 'U_link = √2·U of a supply 10 % high'));
  return found;
}

/** What is wrong with the braking resistor, for the stop that is wished. */
export function resistorFindings(c: PlateContext): Finding[] {
  const { line, profile } = c;
  const unit = unitFindings(c);
  if (!line.resistor) return unit;
  if (!chopperOf(c))
    return [
      ...unit,
      finding(
        'resistor.noChopper',
        'stop',
        'resistor.ohm',
        { device: profile?.title ?? '' },
        'device profile',
      ),
    ];
  const found: Finding[] = [...unit];
  const done = tryRun(braking, brakingArgs(c))?.result;
  const ohm = base(line.resistor.ohm, 'resistance');
  const watts = (base(line.resistor.power, 'power') ?? Infinity) * 1000;
  if (done && ohm !== undefined) {
    const [minOhm, maxOhm] = [
      done['minOhm'] as number,
      (done['maxOhm'] as number | null) ?? Infinity,
    ];
    if (ohm < minOhm)
      found.push(
        finding(
          'resistor.tooSmall',
          'stop',
          'resistor.ohm',
          { ohm, minOhm },
          'R_min = U_chopper/I_max',
        ),
      );
    else if (ohm > maxOhm)
      found.push(
        finding('resistor.tooLarge', 'warn', 'resistor.ohm', { ohm, maxOhm }, 'R_max = U²/P_peak'),
      );
    const mean = done['averageCyclePowerW'] as number;
    if (mean > watts)
      found.push(
        finding(
          'resistor.power',
          'stop',
          'resistor.power',
          { mean, watts },
          'energy of one stop over the cycle',
        ),
      );
  }
  if (!line.resistor.thermalContact)
    found.push(
      finding(
        'resistor.thermalContact',
        'stop',
        'resistor.thermalContact',
        {},
        'IEC 61800-5-1; a shorted chopper heats the resistor for ever',
      ),
    );
  return found;
}
