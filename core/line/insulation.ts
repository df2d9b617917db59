import { between, calculation, choice, positive, result } from '../calculation/index.js';

const reading = (title: string) => positive(title, 'MΩ', 1e7);

/** Least insulation resistance at 40 °C, by the old rule and by today's practice. */
export const minimumInsulation = calculation<
  { ratedKv: number; winding: string },
  { classicMOhm: number; modernMOhm: number }
>({
  name: 'minimumInsulation',
  title: 'Least insulation resistance',
  args: {
    ratedKv: positive('rated voltage', 'kV', 36),
    winding: choice('what is measured', ['random', 'form', 'machine']),
  },
  results: { classicMOhm: result('old rule', 'MΩ'), modernMOhm: result('today', 'MΩ') },
  formula: 'old: U_kV + 1 MΩ;  today: 5 MΩ random-wound, 100 MΩ form-wound, 1 MΩ machine wiring',
  source: 'IEEE Std 43-2013 table 3; IEC 60204-1 §18.3 for machine wiring',
  confirm: 'With the device disconnected: never an insulation tester on electronics.',
  example: { ratedKv: 0.4, winding: 'random' },
  run: ({ ratedKv, winding }) => ({
    classicMOhm: ratedKv + 1,
    modernMOhm: winding === 'random' ? 5 : winding === 'form' ? 100 : 1,
  }),
});

/**
 * Insulation reading brought to 40 °C: it halves for every 10 K more.
 *
 * @example insulationAt40.run({ readingMOhm: 100, windingC: 20 }).at40MOhm // 25
 */
export const insulationAt40 = calculation<
  { readingMOhm: number; windingC: number },
  { at40MOhm: number }
>({
  name: 'insulationAt40',
  title: 'Insulation at 40 °C',
  args: { readingMOhm: reading('reading'), windingC: between('winding', '°C', -10, 120) },
  results: { at40MOhm: result('at 40 °C', 'MΩ') },
  formula: 'R40 = R·0.5^((40 − θ)/10)',
  source: 'IEEE Std 43-2013, halving rule',
  example: { readingMOhm: 100, windingC: 20 },
  run: ({ readingMOhm, windingC }) => ({ at40MOhm: readingMOhm * 0.5 ** ((40 - windingC) / 10) }),
});

/** Polarisation index: the reading after ten minutes against that after one. */
export const polarizationIndex = calculation<
  { at1MinMOhm: number; at10MinMOhm: number },
  { index: number }
>({
  name: 'polarizationIndex',
  title: 'Polarisation index',
  args: { at1MinMOhm: reading('after 1 minute'), at10MinMOhm: reading('after 10 minutes') },
  results: { index: result('index') },
  formula: 'R_10/R_1',
  source: 'IEEE Std 43-2013',
  confirm: 'Says little above 5000 MΩ after one minute.',
  example: { at1MinMOhm: 200, at10MinMOhm: 500 },
  run: ({ at1MinMOhm, at10MinMOhm }) => ({ index: at10MinMOhm / at1MinMOhm }),
});
