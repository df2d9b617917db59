import { keepsLineFrequency } from '../../catalogue/index.js';
import type { Finding } from '../../job/index.js';
import { linkFor, motorCurrent, plateSpeed, type RatedPoint } from '../../motor/index.js';
import { inertiaAtMotor } from '../inertia.js';
import { lowSpeedTorque } from '../place.js';
import { base, facts, finding, tryRun, type PlateContext, type PlateFact } from './context.js';

function linkFact(point: RatedPoint, outputV: number): PlateFact {
  return {
    id: 'motorLink',
    block: 'motor',
    value: point.link,
    unit: '',
    working: {
      name: 'motorLink',
      title: 'fact.motorLinkForThisSupply',
      formula: 'the plate voltage within 6 % of the output decides the link',
      source: 'NEMA MG 1 §12.44 for 460 V plates on 480 V; IEC 60034-1 zone A',
      inputs: [
        { name: 'outputV', title: 'fact.outputVoltage', value: outputV, unit: 'V' },
        {
          name: 'plateV',
          title: 'fact.plateVoltageThatSuitsIt',
          value: point.volts ?? 0,
          unit: 'V',
        },
      ],
      results: [{ name: 'link', title: 'fact.link', value: point.link, unit: '' }],
    },
  };
}

/** Facts of the motor and its load. */
export function motorFacts(c: PlateContext): PlateFact[] {
  const { plate, n, job } = c;
  const wanted = n.outputV === undefined ? undefined : linkFor(plate.motor, n.outputV);
  return [
    ...facts(
      'motor',
      plateSpeed,
      { hz: n.hz, rpm: n.rpm, powerKw: n.powerKw },
      {
        polePairs: 'polePairs',
        synchronousRpm: 'synchronousRpm',
        slipPct: 'slip',
        torqueNm: 'ratedTorque',
      },
    ),
    ...facts(
      'motor',
      motorCurrent,
      {
        powerKw: n.powerKw,
        voltageV: n.rated?.volts,
        efficiency: n.efficiency,
        powerFactor: n.powerFactor,
      },
      { currentA: 'reckonedCurrent' },
    ),
    ...(wanted && n.outputV !== undefined ? [linkFact(wanted, n.outputV)] : []),
    ...overloadFact(c),
    ...(!keepsLineFrequency(c.profile)
      ? facts(
          'motor',
          lowSpeedTorque,
          { hz: job.scheme.minHz ?? 0, ratedHz: n.hz, cooling: plate.motor.cooling ?? 'self' },
          { limitPct: 'lowSpeedLimit' },
        )
      : []),
    ...facts(
      'load',
      inertiaAtMotor,
      {
        motorKgm2: base(plate.motor.inertia, 'inertia'),
        loadKgm2: base(plate.load.inertia, 'inertia'),
        gearRatio: plate.load.gearRatio,
      },
      { totalKgm2: 'totalInertia' },
    ),
  ];
}

function overloadFact({ n, plate, job }: PlateContext): PlateFact[] {
  const amps = n.rated?.amps;
  if (amps === undefined) return [];
  return [
    {
      id: 'overloadSetting',
      block: 'motor',
      value: amps,
      unit: 'A',
      working: {
        name: 'overloadSetting',
        title: 'fact.overloadSetting',
        formula: 'I_r = plate current in this link',
        source:
          job.practice === 'NFPA'
            ? 'NEC 430.32 gives the largest trip: 125 % of the plate with a service factor of 1.15 or more, else 115 %'
            : 'IEC 60947-4-1: never trips at 1.05, trips at 1.2 times the setting',
        confirm: 'The local code; never the rating of the device.',
        inputs: [
          { name: 'amps', title: 'fact.plateCurrent', value: amps, unit: 'A' },
          ...(plate.motor.serviceFactor
            ? [
                {
                  name: 'sf',
                  title: 'fact.serviceFactor',
                  value: plate.motor.serviceFactor,
                  unit: '',
                },
              ]
            : []),
        ],
        results: [{ name: 'setting', title: 'fact.setTo', value: amps, unit: 'A' }],
      },
    },
  ];
}

/** What is wrong with motor isolator, brake and load. */
export function loadFindings(c: PlateContext): Finding[] {
  const { plate, line, job, n } = c;
  const found: Finding[] = [];
  if (line.motorIsolator && !line.motorIsolator.earlyBreak && !keepsLineFrequency(c.profile))
    found.push(
      finding(
        'motorIsolator.earlyBreak',
        'warn',
        'motorIsolator.earlyBreak',
        {},
        'opening the poles of a running drive',
      ),
    );
  if (line.brake?.supply === 'driveOutput')
    found.push(
      finding(
        'brake.driveOutput',
        'stop',
        'brake.supply',
        {},
        'a brake coil needs steady voltage; the output gives pulses of changing height',
      ),
    );
  if (plate.load.overhauls && !line.brake)
    found.push(
      finding('load.overhaulsNoBrake', 'warn', 'load.overhauls', {}, 'IEC 60204-1 §9.3.4'),
    );
  const limit = tryRun(lowSpeedTorque, {
    hz: job.scheme.minHz ?? 0,
    ratedHz: n.hz,
    cooling: plate.motor.cooling ?? 'self',
  })?.result['limitPct'] as number | undefined;
  const steady = plate.load.kind === 'constant' ? plate.load.torquePct : undefined;
  if (
    !keepsLineFrequency(c.profile) &&
    limit !== undefined &&
    steady !== undefined &&
    job.scheme.minHz !== undefined &&
    job.scheme.minHz > 0 &&
    steady > limit
  )
    found.push(
      finding(
        'motor.lowSpeed',
        'warn',
        'motor.cooling',
        { minHz: job.scheme.minHz, steady, limit },
        'IEC TS 60034-25, self-ventilated motors; the maker’s curve prevails',
      ),
    );
  return found;
}
