import { calculation, CalculationError, positive, result, upTo } from '../calculation/index.js';

/** Share of rated torque that the losses of motor and drive take up when no resistor is fitted. */
export const LOSS_TORQUE_SHARE = 0.15;

const cycleS = positive('from stop to stop', 's', 1e6);
const chopperV = positive('chopper switches at', 'V', 2000);

/**
 * Braking a rotating mass: torque, power, energy and the window a resistor must lie in.
 *
 * @example
 * braking.run({ inertiaKgm2: 1, fromRpm: 1500, toRpm: 0, decelS: 5, loadTorqueNm: 0, efficiency: 1, chopperV: 750, chopperMaxA: 20, cycleS: 60, ratedTorqueNm: 100 }).energyJ // 12337
 */
export const braking = calculation<
  {
    inertiaKgm2: number;
    fromRpm: number;
    toRpm: number;
    decelS: number;
    loadTorqueNm: number;
    efficiency: number;
    chopperV: number;
    chopperMaxA: number;
    cycleS: number;
    ratedTorqueNm: number;
  },
  {
    inertiaTorqueNm: number;
    brakeTorqueNm: number;
    brakeTorquePct: number;
    peakPowerW: number;
    energyJ: number;
    averageStopPowerW: number;
    averageCyclePowerW: number;
    dutyPct: number;
    minOhm: number;
    maxOhm: number | null;
    windowExists: boolean;
    needed: boolean;
  }
>({
  name: 'braking',
  title: 'Braking resistor',
  args: {
    inertiaKgm2: positive('inertia at the motor', 'kg·m²', 1e5),
    fromRpm: positive('from', 'rpm', 60_000),
    toRpm: upTo('to', 'rpm', 60_000),
    decelS: positive('deceleration time', 's', 36_000),
    loadTorqueNm: upTo('load torque, which helps', 'Nm', 1e6),
    efficiency: positive('share that comes back to the DC link', '', 1),
    chopperV,
    chopperMaxA: positive('largest chopper current', 'A', 10_000),
    cycleS,
    ratedTorqueNm: positive('rated torque of the motor', 'Nm', 1e6),
  },
  results: {
    inertiaTorqueNm: result('torque that stops the mass', 'Nm'),
    brakeTorqueNm: result('of it from the drive', 'Nm'),
    brakeTorquePct: result('in rated torque', '%'),
    peakPowerW: result('peak power', 'W'),
    energyJ: result('energy of one stop', 'J'),
    averageStopPowerW: result('mean over the stop', 'W'),
    averageCyclePowerW: result('mean over the cycle', 'W'),
    dutyPct: result('duty', '%'),
    minOhm: result('smallest resistor', 'Ω'),
    maxOhm: result('largest resistor', 'Ω'),
    windowExists: result('a resistor fits'),
    needed: result('a resistor is needed'),
  },
  formula: 'T = J·Δω/t − T_L;  P = T·ω1·η;  E = T·(ω1+ω2)/2·t·η;  R_min = U/I_max;  R_max = U²/P',
  source: `kinetic energy ½·J·(ω1² − ω2²); without a resistor the losses take about ${LOSS_TORQUE_SHARE * 100} to 20 % of rated torque`,
  confirm:
    'Pulse rating, thermal contact that trips the supply, guarded surface above 100 °C, and the maker’s smallest resistor.',
  example: {
    inertiaKgm2: 0.0626,
    fromRpm: 1460,
    toRpm: 0,
    decelS: 1,
    loadTorqueNm: 0,
    efficiency: 0.85,
    chopperV: 750,
    chopperMaxA: 15,
    cycleS: 60,
    ratedTorqueNm: 49.1,
  },
  run: (a) => {
    if (a.toRpm >= a.fromRpm)
      throw new CalculationError(
        'toRpm',
        `toRpm must be below ${a.fromRpm} rpm, where the stop begins`,
      );
    const rad = (rpm: number): number => (2 * Math.PI * rpm) / 60;
    const inertiaTorqueNm = (a.inertiaKgm2 * (rad(a.fromRpm) - rad(a.toRpm))) / a.decelS;
    const brakeTorqueNm = Math.max(0, inertiaTorqueNm - a.loadTorqueNm);
    const peakPowerW = brakeTorqueNm * rad(a.fromRpm) * a.efficiency;
    const energyJ =
      ((brakeTorqueNm * (rad(a.fromRpm) + rad(a.toRpm))) / 2) * a.decelS * a.efficiency;
    const minOhm = a.chopperV / a.chopperMaxA;
    const maxOhm = peakPowerW > 0 ? a.chopperV ** 2 / peakPowerW : null;
    return {
      inertiaTorqueNm,
      brakeTorqueNm,
      brakeTorquePct: (100 * brakeTorqueNm) / a.ratedTorqueNm,
      peakPowerW,
      energyJ,
      averageStopPowerW: energyJ / a.decelS,
      averageCyclePowerW: energyJ / a.cycleS,
      dutyPct: Math.min(100, (100 * a.decelS) / a.cycleS),
      minOhm,
      maxOhm,
      windowExists: maxOhm === null || maxOhm >= minOhm,
      needed: brakeTorqueNm > LOSS_TORQUE_SHARE * a.ratedTorqueNm,
    };
  },
});

/** Power that a load gives back while it is lowered. */
export const overhaulingBraking = calculation<
  {
    massKg: number;
    speedMPerS: number;
    efficiency: number;
    lowerS: number;
    cycleS: number;
    chopperV: number;
  },
  { powerW: number; energyJ: number; averageCyclePowerW: number; maxOhm: number }
>({
  name: 'overhaulingBraking',
  title: 'Lowering a load',
  args: {
    massKg: positive('mass that is not balanced', 'kg', 1e6),
    speedMPerS: positive('speed', 'm/s', 100),
    efficiency: positive('share that comes back', '', 1),
    lowerS: positive('time of lowering', 's', 36_000),
    cycleS,
    chopperV,
  },
  results: {
    powerW: result('power', 'W'),
    energyJ: result('energy of one lowering', 'J'),
    averageCyclePowerW: result('mean over the cycle', 'W'),
    maxOhm: result('largest resistor', 'Ω'),
  },
  formula: 'P = m·g·v·η;  E = P·t;  R_max = U²/P;  g = 9.80665 m/s²',
  source: 'potential energy',
  confirm: 'A mechanical brake holds the load; the drive alone never does.',
  example: { massKg: 400, speedMPerS: 0.3, efficiency: 0.8, lowerS: 12, cycleS: 60, chopperV: 750 },
  run: ({ massKg, speedMPerS, efficiency, lowerS, cycleS: cycle, chopperV: volts }) => {
    const powerW = massKg * 9.80665 * speedMPerS * efficiency;
    const energyJ = powerW * lowerS;
    return {
      powerW,
      energyJ,
      averageCyclePowerW: energyJ / Math.max(cycle, lowerS),
      maxOhm: volts ** 2 / powerW,
    };
  },
});

/**
 * Rise of the DC link when energy comes back and nothing takes it.
 *
 * @example dcLinkRise.run({ capacityUF: 1000, startV: 600, tripV: 800, energyJ: 140 }).afterV // 800
 */
export const dcLinkRise = calculation<
  { capacityUF: number; startV: number; tripV: number; energyJ: number },
  { afterV: number; energyToTripJ: number; trips: boolean }
>({
  name: 'dcLinkRise',
  title: 'Rise of the DC link',
  args: {
    capacityUF: positive('capacity', 'µF', 1e6),
    startV: positive('before', 'V', 2000),
    tripV: positive('trips at', 'V', 2000),
    energyJ: upTo('energy that comes back', 'J', 1e9),
  },
  results: {
    afterV: result('after', 'V'),
    energyToTripJ: result('energy that would trip it', 'J'),
    trips: result('trips'),
  },
  formula: 'U = √(U0² + 2·E/C);  E_trip = C·(U_trip² − U0²)/2',
  source: 'energy of a capacitor',
  example: { capacityUF: 600, startV: 566, tripV: 800, energyJ: 80 },
  run: ({ capacityUF, startV, tripV, energyJ }) => {
    if (tripV <= startV)
      throw new CalculationError('tripV', `tripV must be above ${startV} V, where the link starts`);
    const c = capacityUF * 1e-6;
    const afterV = Math.sqrt(startV ** 2 + (2 * energyJ) / c);
    const energyToTripJ = (c * (tripV ** 2 - startV ** 2)) / 2;
    return { afterV, energyToTripJ, trips: energyJ >= energyToTripJ };
  },
});
