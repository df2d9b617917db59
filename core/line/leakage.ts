import { calculation, positive, result, upTo } from '../calculation/index.js';

const phaseToEarthV = positive('phase to earth', 'V', 1000);
const hz = positive('supply frequency', 'Hz', 400);
const rcdMA = positive('rating of the residual-current device', 'mA', 30_000);
const capacitancePFPerM = positive('capacitance of one core to earth', 'pF/m', 10_000);
const lengthM = upTo('length', 'm', 10_000);
const half = result('over half of the rating: may trip');
/** A capacitor's current at a frequency, mA. */
const capacitiveMA = (farad: number, volts: number, frequency: number): number =>
  2 * Math.PI * frequency * farad * volts * 1000;

/** Capacitive earth current of a supply cable; with one phase missing the three no longer cancel. */
export const earthLeakage = calculation<
  { capacitancePFPerM: number; lengthM: number; phaseToEarthV: number; hz: number; rcdMA: number },
  { perPhaseMA: number; onePhaseMissingMA: number; shareOfRcd: number; overHalf: boolean }
>({
  name: 'earthLeakage',
  title: 'Earth leakage of a cable',
  args: { capacitancePFPerM, lengthM, phaseToEarthV, hz, rcdMA },
  results: {
    perPhaseMA: result('of one phase', 'mA'),
    onePhaseMissingMA: result('with one phase missing', 'mA'),
    shareOfRcd: result('share of the rating'),
    overHalf: half,
  },
  formula: 'I = 2π·f·C’·L·U;  two phases left: |I∠0 + I∠120°| = I',
  source: 'phasor sum of a balanced system',
  confirm: 'High-frequency leakage of a running drive comes on top.',
  example: { capacitancePFPerM: 250, lengthM: 60, phaseToEarthV: 230, hz: 50, rcdMA: 30 },
  run: (a) => {
    const perPhaseMA = capacitiveMA(a.capacitancePFPerM * 1e-12 * a.lengthM, a.phaseToEarthV, a.hz);
    const shareOfRcd = perPhaseMA / a.rcdMA;
    return { perPhaseMA, onePhaseMissingMA: perPhaseMA, shareOfRcd, overHalf: shareOfRcd > 0.5 };
  },
});

/** Earth current of filters at the supply side. */
export const filterLeakage = calculation<
  { capacitanceUF: number; count: number; phaseToEarthV: number; hz: number; rcdMA: number },
  { onePhaseMA: number; over3p5mA: boolean; overHalf: boolean }
>({
  name: 'filterLeakage',
  title: 'Earth leakage of filters',
  args: {
    capacitanceUF: positive('capacitor of one phase to earth', 'µF', 100),
    count: upTo('filters on the device', '', 100, { min: 1, whole: true }),
    phaseToEarthV,
    hz,
    rcdMA,
  },
  results: {
    onePhaseMA: result('with one phase alone', 'mA'),
    over3p5mA: result('above 3.5 mA: reinforced protective conductor'),
    overHalf: half,
  },
  formula: 'I = n·2π·f·C·U',
  source: '3.5 mA: IEC 61800-5-1, protective conductor of a drive with leakage',
  confirm: 'Leakage stated by the filter’s maker; 10 mm² copper or a second protective conductor.',
  example: { capacitanceUF: 0.1, count: 1, phaseToEarthV: 230, hz: 50, rcdMA: 300 },
  run: (a) => {
    const onePhaseMA = a.count * capacitiveMA(a.capacitanceUF * 1e-6, a.phaseToEarthV, a.hz);
    return { onePhaseMA, over3p5mA: onePhaseMA > 3.5, overHalf: onePhaseMA > a.rcdMA / 2 };
  },
});

/**
 * Current that charges a motor cable at every switching of the output.
 *
 * @example cableCharging.run({ capacitancePFPerM: 300, lengthM: 100, linkV: 566, switchingKHz: 4 }).chargeUC // 16.98
 */
export const cableCharging = calculation<
  { capacitancePFPerM: number; lengthM: number; linkV: number; switchingKHz: number },
  { chargeUC: number; averageA: number }
>({
  name: 'cableCharging',
  title: 'Charging of a motor cable',
  args: {
    capacitancePFPerM,
    lengthM,
    linkV: positive('DC link', 'V', 2000),
    switchingKHz: positive('carrier frequency', 'kHz', 50),
  },
  results: {
    chargeUC: result('charge of one switching', 'µC'),
    averageA: result('mean current', 'A'),
  },
  formula: 'Q = C’·L·U;  I = Q·f',
  source: 'charge of a capacitor',
  example: { capacitancePFPerM: 300, lengthM: 62, linkV: 566, switchingKHz: 4 },
  run: ({ capacitancePFPerM: c, lengthM: l, linkV, switchingKHz }) => {
    const chargeUC = c * l * linkV * 1e-6;
    return { chargeUC, averageA: chargeUC * switchingKHz * 1e-3 };
  },
});
