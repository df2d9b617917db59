import {
  calculation,
  choice,
  positive,
  result,
  upTo,
  type ArgumentSpec,
} from '../calculation/index.js';
import { imageTau, REST_FACTOR, tripClasses, TRIP_HEAT, type TripClass } from './thermal.js';

/** Heat up to which a repeating start may come, share of what trips. */
const SHARE = 0.95;
/** More starts than this are no starts any more. */
const MOST = 3600;

interface Duty {
  readonly kind: 'AC-53a' | 'AC-53b';
  readonly ratedA: number;
  readonly times: number;
  readonly seconds: number;
  readonly offS?: number;
  readonly onPct?: number;
  readonly startsPerHour?: number;
}

interface StartRun {
  readonly startS: number;
  readonly rmsA: number;
  readonly runA: number;
  readonly ratedA: number;
  readonly peakA?: number;
}

/** Highest heat of a cycle that repeats: one start, then rest. */
function peak(run: StartRun, tauS: number, restFactor: number, perHour: number): number {
  const restS = 3600 / perHour - run.startS;
  if (restS < 0) return Infinity;
  const toward = (run.rmsA / run.ratedA) ** 2;
  const heated = Math.exp(-run.startS / tauS);
  const cooled = Math.exp(-restS / (restFactor * tauS));
  return (toward * (1 - heated)) / (1 - heated * cooled);
}

/** Starts an hour that a device's utilisation index allows; 0 where one start is too much already. */
function dutyPerHour(run: StartRun, d: Duty): { perHour: number; countdownS: number } {
  const energy = (run.rmsA / d.ratedA) ** 2 * run.startS;
  const rated = d.times ** 2 * d.seconds;
  if ((run.peakA ?? run.rmsA) > d.times * d.ratedA || energy > rated)
    return { perHour: 0, countdownS: 0 };
  if (d.kind === 'AC-53b') {
    const offS = ((d.offS ?? 0) * energy) / rated;
    const over = (2 * energy) / rated - 1;
    return { perHour: 3600 / (run.startS + offS), countdownS: Math.max(0, over) * (d.offS ?? 0) };
  }
  const running = 36 * (d.onPct ?? 0);
  const share = (run.runA / d.ratedA) ** 2;
  const counted = d.startsPerHour ?? 1;
  const budget = rated * counted + (running - d.seconds * counted) - running * share;
  const each = energy - run.startS * share;
  return { perHour: each <= 0 ? MOST : Math.max(0, budget / each), countdownS: 0 };
}

const dutyArgument: ArgumentSpec = {
  title: 'utilisation index of the device',
  unit: '',
  kind: 'record',
  optional: true,
  fields: {
    kind: choice('kind', ['AC-53a', 'AC-53b']),
    ratedA: positive('rating', 'A', 1e5),
    times: positive('X, times its rating', '', 20),
    seconds: positive('Tx', 's', 600),
    offS: positive('OFF', 's', 36_000, { optional: true }),
    onPct: upTo('F, running', '%', 100, { optional: true }),
    startsPerHour: positive('S', '1/h', 1000, { optional: true }),
  },
};

/** How often a motor and its starter can be started. */
export const startsPerHour = calculation<
  { run: StartRun; tripClass: TripClass; restFactor: number; duty?: Duty },
  { motorPerHour: number; starterPerHour: number | null; perHour: number; countdownS: number }
>({
  name: 'startsPerHour',
  title: 'Starts an hour',
  args: {
    run: {
      title: 'the start',
      unit: '',
      kind: 'record',
      fields: {
        startS: positive('takes', 's', 3600),
        rmsA: positive('current, root mean square', 'A', 1e5),
        runA: positive('running current', 'A', 1e5),
        ratedA: positive('setting of the overload', 'A', 1e5),
        peakA: positive('largest current', 'A', 1e5, { optional: true }),
      },
    },
    tripClass: choice('class', tripClasses),
    restFactor: positive('cooling at rest, in time constants', '', 20, { fallback: REST_FACTOR }),
    duty: dutyArgument,
  },
  results: {
    motorPerHour: result('motor', '1/h'),
    starterPerHour: result('device', '1/h'),
    perHour: result('starts', '1/h'),
    countdownS: result('wait after a cold start', 's'),
  },
  formula:
    'largest N whose repeating cycle of start and rest peaks at θ ≤ 0.95·1.15²; device: E = ∫(I/I_e)²dt ≤ X²·T_x',
  source: 'thermal image of IEC 60947-4-1; utilisation index of IEC 60947-4-2',
  confirm: 'The maker’s table of starts prevails, and so does the plate of the motor.',
  example: {
    run: { startS: 11.5, rmsA: 220, runA: 55, ratedA: 66.8 },
    tripClass: '20',
    duty: { kind: 'AC-53b', ratedA: 75, times: 3.5, seconds: 30, offS: 330 },
  },
  run: ({ run, tripClass, restFactor, duty }) => {
    const tauS = imageTau(tripClass);
    const limit = SHARE * TRIP_HEAT;
    let motorPerHour = 0;
    while (motorPerHour < MOST && peak(run, tauS, restFactor, motorPerHour + 1) <= limit)
      motorPerHour++;
    const toward = (run.rmsA / run.ratedA) ** 2;
    const heated = Math.exp(-run.startS / tauS);
    const after = toward * (1 - heated);
    const before = toward - (toward - limit) / heated;
    const motorWait =
      before > 0 && after > before ? restFactor * tauS * Math.log(after / before) : 0;
    const device = duty && dutyPerHour(run, duty);
    const starterPerHour = device ? Math.floor(device.perHour + 1e-9) : null;
    return {
      motorPerHour,
      starterPerHour,
      perHour: Math.min(motorPerHour, starterPerHour ?? Infinity),
      countdownS: Math.max(motorWait, device?.countdownS ?? 0),
    };
  },
});
