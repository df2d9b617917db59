import { calculation, choice, positive, result, upTo } from '../calculation/index.js';

type Kind = 'constant' | 'linear' | 'square';

/**
 * Shortest time to a speed with a given torque: t = ∫ J dω/(T − T_L), in closed form.
 *
 * @example shortestAcceleration.run({ inertiaKgm2: 0.1, availableTorqueNm: 20, loadKind: 'constant', loadTorqueNm: 10, speedRpm: 1500 }).timeS // 1.571
 */
export const shortestAcceleration = calculation<
  {
    inertiaKgm2: number;
    availableTorqueNm: number;
    loadKind: Kind;
    loadTorqueNm: number;
    loadRatedRpm?: number;
    speedRpm: number;
  },
  { possible: boolean; timeS: number | null }
>({
  name: 'shortestAcceleration',
  title: 'Shortest acceleration',
  args: {
    inertiaKgm2: positive('inertia at the motor', 'kg·m²', 1e5),
    availableTorqueNm: positive('torque the motor gives', 'Nm', 1e6),
    loadKind: choice('load torque over speed', ['constant', 'linear', 'square']),
    loadTorqueNm: upTo('load torque', 'Nm', 1e6),
    loadRatedRpm: positive(
      'speed the load torque is given for; left out, the speed reached',
      'rpm',
      60_000,
      { optional: true },
    ),
    speedRpm: positive('speed reached', 'rpm', 60_000),
  },
  results: { possible: result('reaches the speed'), timeS: result('time', 's') },
  formula:
    'constant: J·ω/(T − T_L);  linear: J/c·ln(T/(T − c·ω));  square: J/√(k·T)·artanh(ω·√(k/T))',
  source: 'integral of J·dω = (T − T_L)·dt',
  example: {
    inertiaKgm2: 0.063,
    availableTorqueNm: 73.6,
    loadKind: 'constant',
    loadTorqueNm: 34.4,
    speedRpm: 1460,
  },
  run: ({
    inertiaKgm2: j,
    availableTorqueNm: t,
    loadKind,
    loadTorqueNm,
    loadRatedRpm,
    speedRpm,
  }) => {
    const w = (2 * Math.PI * speedRpm) / 60;
    const rated = (2 * Math.PI * (loadRatedRpm ?? speedRpm)) / 60;
    const power = { constant: 0, linear: 1, square: 2 }[loadKind];
    const atSpeed = loadTorqueNm * (w / rated) ** power;
    if (atSpeed >= t) return { possible: false, timeS: null };
    if (loadKind === 'constant' || loadTorqueNm === 0)
      return {
        possible: true,
        timeS: (j * w) / (t - (loadKind === 'constant' ? loadTorqueNm : 0)),
      };
    if (loadKind === 'linear')
      return { possible: true, timeS: -((j * rated) / loadTorqueNm) * Math.log1p(-atSpeed / t) };
    const k = loadTorqueNm / rated ** 2;
    return { possible: true, timeS: (j / Math.sqrt(k * t)) * Math.atanh(w * Math.sqrt(k / t)) };
  },
});
