import { keepsLineFrequency } from '../../catalogue/index.js';
import type { Finding, Scheme } from '../../job/index.js';
import { braking } from '../braking.js';
import { shortestAcceleration } from '../acceleration.js';
import { derating } from '../derating.js';
import { discharge } from '../discharge.js';
import {
  base,
  facts,
  finding,
  refusalOf,
  tryRun,
  type PlateContext,
  type PlateFact,
} from './context.js';
import { placeFacts, placeFindings } from './place-side.js';
import { brakingArgs, resistorFindings, shortestStop, stopFact, topRpm } from './stop-side.js';

/** Bleeder that brings the link to 60 V in the profile's time, kΩ. */
const bleedOf = (dischargeS: number, capacityUF: number, linkV: number): number =>
  (dischargeS * 1000) / (capacityUF * Math.log(linkV / 60));

const deratingArgs = ({ model, profile, plate: { place = {} } }: PlateContext) => {
  const d = profile?.derating;
  return {
    altitudeM: base(place.altitude, 'length') ?? 0,
    altitudeFromM: d?.altitudeFromM ?? 1000,
    altitudePctPer100M: d?.pctPer100M ?? 1,
    ambientC: base(place.ambient, 'temperature') ?? d?.ambientFromC ?? 40,
    ambientFromC: d?.ambientFromC ?? 40,
    ambientPctPerK: d?.pctPerK ?? 2,
    ratedA: model?.ratedA,
  };
};

/** Why the current that the device may give here cannot be reckoned; undefined where it can. */
export const deratingRefusal = (c: PlateContext): string | undefined =>
  c.model && refusalOf(derating, deratingArgs(c));

/** Current the device may give here: derating for altitude, heat, carrier frequency and single-phase feed. */
export function usableCurrent(c: PlateContext): PlateFact | undefined {
  const { model, profile, plate, n } = c;
  if (!model) return undefined;
  const place = plate.place ?? {};
  const d = profile?.derating;
  const carrier =
    place.carrierKHz !== undefined && d?.carrierFromKHz !== undefined
      ? 1 - ((d.pctPerKHz ?? 0) / 100) * Math.max(0, place.carrierKHz - d.carrierFromKHz)
      : 1;
  const feed =
    n.phases === 1 && profile?.supply.phases === 3 ? (profile.singlePhaseFactor ?? 0.5) : 1;
  const air = facts('device', derating, deratingArgs(c), { usableA: 'usableCurrent' })[0];
  if (!air || (carrier === 1 && feed === 1)) return air;
  const usableA = (air.value as number) * carrier * feed;
  const { working } = air;
  return {
    ...air,
    value: usableA,
    working: {
      ...working,
      inputs: [
        ...working.inputs,
        { name: 'carrierFactor', title: 'fact.forTheCarrierFrequency', value: carrier, unit: '' },
        { name: 'feedFactor', title: 'fact.forSinglephaseFeed', value: feed, unit: '' },
      ],
      results: [{ name: 'usableA', title: 'fact.usableCurrent', value: usableA, unit: 'A' }],
      formula: `${working.formula}; times carrier and feed`,
    },
  };
}

/** Current of the motor that the device carries: inside its delta that of a winding. */
export function carriedAmps(c: PlateContext): number | undefined {
  const amps = c.n.rated?.amps;
  const inside = keepsLineFrequency(c.profile) && c.job.scheme.starterConnection === 'insideDelta';
  return amps === undefined ? undefined : inside ? amps / Math.sqrt(3) : amps;
}

function share(c: PlateContext, usableA: number): PlateFact[] {
  const amps = carriedAmps(c);
  if (amps === undefined) return [];
  const value = (100 * amps) / usableA;
  return [
    {
      id: 'deviceShare',
      block: 'device',
      value,
      unit: '%',
      working: {
        name: 'deviceShare',
        title: 'fact.plateCurrentAgainstTheDevice',
        formula: '100·I_motor/I_usable',
        source: 'device rating from its profile, derated for this place',
        confirm: 'The derating curves in the maker’s manual.',
        inputs: [
          { name: 'amps', title: 'fact.plateCurrentInThisLink', value: amps, unit: 'A' },
          { name: 'usableA', title: 'fact.currentTheDeviceMayGiveHere', value: usableA, unit: 'A' },
        ],
        results: [{ name: 'share', title: 'fact.shareOfTheDevice', value, unit: '%' }],
      },
    },
  ];
}

/** Torque the device lets the motor give for a minute, in rated torque of the motor. */
function overloadTorquePct(c: PlateContext, usableA: number): number | undefined {
  const { model, n } = c;
  return model?.overloadPct !== undefined && n.rated?.amps
    ? (model.overloadPct * usableA) / n.rated.amps
    : undefined;
}

function overloadFact(c: PlateContext, usableA: number): PlateFact[] {
  const pct = overloadTorquePct(c, usableA);
  const { model } = c;
  if (pct === undefined || !model) return [];
  return [
    {
      id: 'overloadTorque',
      block: 'device',
      value: pct,
      unit: '%',
      working: {
        name: 'overloadTorque',
        title: 'fact.torqueForAShortTime',
        formula: 'overload·I_usable/I_motor, torque taken in proportion to current',
        source: 'overload of the device profile',
        confirm: `The time it holds: ${model.overloadS ?? 60} s, and how often.`,
        inputs: [
          {
            name: 'overloadPct',
            title: 'fact.overloadOfTheDevice',
            value: model.overloadPct ?? 0,
            unit: '%',
          },
          { name: 'usableA', title: 'fact.usableCurrent', value: usableA, unit: 'A' },
          { name: 'amps', title: 'fact.plateCurrent', value: c.n.rated?.amps ?? 0, unit: 'A' },
        ],
        results: [{ name: 'pct', title: 'fact.ofRatedTorque', value: pct, unit: '%' }],
      },
    },
  ];
}

function accelerationArgs(c: PlateContext, overloadPct: number | undefined) {
  const { plate, n } = c;
  const { kind = 'constant', torquePct, basePct = 0 } = plate.load;
  const loadTorqueNm =
    torquePct !== undefined && n.torqueNm ? ((torquePct + basePct) / 100) * n.torqueNm : undefined;
  const availableTorqueNm =
    overloadPct !== undefined && n.torqueNm
      ? (Math.min(overloadPct, 100 * (plate.motor.breakdownRatio ?? 2) * 0.9) / 100) * n.torqueNm
      : undefined;
  return {
    inertiaKgm2: n.inertiaKgm2,
    availableTorqueNm,
    loadKind: basePct > 0 ? 'constant' : kind,
    loadTorqueNm,
    loadRatedRpm: n.rpm,
    speedRpm: topRpm(c),
  };
}

/** Facts of the device, its resistor and its place. */
export function deviceFacts(c: PlateContext): PlateFact[] {
  const usable = usableCurrent(c);
  const usableA = usable?.value as number | undefined;
  const { profile, model, n, line } = c;
  const linkV = n.supplyV && Math.SQRT2 * n.supplyV;
  const bleedKOhm =
    profile && model?.capacityUF && linkV
      ? bleedOf(profile.dischargeS, model.capacityUF, linkV)
      : undefined;
  return [
    ...(usable && usableA !== undefined
      ? [...share(c, usableA), usable, ...overloadFact(c, usableA)]
      : []),
    ...(usableA === undefined
      ? []
      : facts('load', shortestAcceleration, accelerationArgs(c, overloadTorquePct(c, usableA)), {
          timeS: 'shortestStart',
        })),
    ...stopFact(c).map((f) => ({ ...f, block: 'load' as const })),
    ...facts(
      'device',
      discharge,
      { capacityUF: model?.capacityUF, bleedKOhm, startV: linkV, limitV: 60 },
      { timeS: 'dischargeTime' },
    ),
    ...(line.resistor
      ? facts('resistor', braking, brakingArgs(c), {
          minOhm: 'resistorMin',
          maxOhm: 'resistorMax',
          peakPowerW: 'resistorPeak',
          averageCyclePowerW: 'resistorMean',
          dutyPct: 'resistorDuty',
        })
      : []),
    ...placeFacts(c),
  ];
}

/** What is wrong with the device's fit, its ramps, its resistor and its place. */
export function deviceFindings(c: PlateContext): Finding[] {
  return [...ratingFindings(c), ...rampFindings(c), ...resistorFindings(c), ...placeFindings(c)];
}

function ratingFindings(c: PlateContext): Finding[] {
  const usableA = usableCurrent(c)?.value as number | undefined;
  const { model, plate } = c;
  if (!model || usableA === undefined) return [];
  const amps = carriedAmps(c);
  const found: Finding[] = [];
  if (amps !== undefined && amps > usableA)
    found.push(
      finding(
        'device.currentShort',
        'stop',
        'device',
        {
          amps,
          usableA,
          ratedA: model.ratedA,
          model: model.name,
          sharePct: (100 * amps) / usableA,
        },
        'continuous output current of the device profile, derated for this place',
      ),
    );
  const demand = Math.max(plate.load.breakawayPct ?? 0, plate.load.torquePct ?? 0);
  const most = overloadTorquePct(c, usableA);
  if (most !== undefined && demand > most)
    found.push(
      finding(
        'device.overloadShort',
        'stop',
        'load.breakawayPct',
        { demand, most, model: model.name },
        'overload of the device profile',
      ),
    );
  const breakdown = plate.motor.breakdownRatio;
  if (breakdown !== undefined && demand > 90 * breakdown)
    found.push(
      finding(
        'motor.breakdownShort',
        'stop',
        'load.breakawayPct',
        { demand, most: 90 * breakdown },
        'breakdown torque of the plate with a tenth in hand',
      ),
    );
  return found;
}

/** A ramp down is ever followed: a stop along it, or a speed that can be lowered under way. */
const slowsDown = ({ stopMode, speed }: Scheme): boolean =>
  stopMode !== 'coast' || speed !== undefined;

function rampFindings(c: PlateContext): Finding[] {
  if (keepsLineFrequency(c.profile)) return [];
  const usableA = usableCurrent(c)?.value as number | undefined;
  const { accelS, decelS } = c.job.scheme;
  const found: Finding[] = [];
  const start =
    usableA === undefined
      ? undefined
      : tryRun(shortestAcceleration, accelerationArgs(c, overloadTorquePct(c, usableA)));
  const shortest = start?.result['timeS'] as number | null | undefined;
  if (shortest === null)
    found.push(
      finding(
        'ramp.cannotStart',
        'stop',
        'load.torquePct',
        {},
        'torque of device and motor against the load',
      ),
    );
  else if (shortest !== undefined && accelS !== undefined && accelS < shortest)
    found.push(
      finding(
        'ramp.accelShort',
        'warn',
        'scheme.accelS',
        { accelS, shortest },
        't = J·Δω/(T − T_L)',
      ),
    );
  const stop = shortestStop(c);
  if (
    stop !== undefined &&
    decelS !== undefined &&
    slowsDown(c.job.scheme) &&
    decelS < stop &&
    !c.line.resistor
  )
    found.push(
      finding(
        'ramp.decelShort',
        'warn',
        'scheme.decelS',
        { decelS, shortest: stop },
        'regenerated power beyond the losses lifts the DC link',
      ),
    );
  return found;
}
