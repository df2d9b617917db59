import { between, calculation, choice, positive, result, upTo } from '../calculation/index.js';

export const tripClasses = ['10A', '10', '20', '30'] as const;
export type TripClass = (typeof tripClasses)[number];

/** Window of tripping times from cold at 7.2 times the setting, s. */
const windows: Readonly<Record<TripClass, readonly [number, number]>> = {
  '10A': [2, 10],
  '10': [4, 10],
  '20': [6, 20],
  '30': [9, 30],
};

/** Multiple of the setting at which the class is defined. */
const CLASS_MULTIPLE = 7.2;

/** Threshold of the image in currents of the setting, and the heat at which it trips. */
export const TRIP_THRESHOLD = 1.15;
export const TRIP_HEAT = TRIP_THRESHOLD ** 2;

/** Cooling of a motor at rest, in time constants of the running one (usual figure). */
export const REST_FACTOR = 3;

/** Time constant of the image whose class time from cold at 7.2 times the setting is `classS`, s. */
export const tauOf = (classS: number, threshold = TRIP_THRESHOLD): number =>
  classS / Math.log(CLASS_MULTIPLE ** 2 / (CLASS_MULTIPLE ** 2 - threshold ** 2));

/** Time of a class from cold at 7.2 times the setting, at the upper end of its window, s. */
export const classTime = (tripClass: TripClass): number => windows[tripClass][1];

/**
 * Time constant of the image of a class, taken at the upper end of its window, s.
 *
 * @example imageTau('10') // 386.5
 */
export const imageTau = (tripClass: TripClass): number => tauOf(classTime(tripClass));

/**
 * Time in which a thermal image trips: θ' = ((I/I_r)² − θ)/τ, trip at θ = threshold².
 *
 * @param classS time from cold at 7.2 times the setting, s
 * @param from heat at the start: 0 cold, 1 after long running at the setting
 * @returns null where it never trips
 */
export function imageTripTime(
  ratio: number,
  classS: number,
  from: number,
  threshold = TRIP_THRESHOLD,
): number | null {
  const limit = threshold ** 2;
  const k2 = ratio ** 2;
  if (from >= limit) return 0;
  if (k2 <= limit) return null;
  return tauOf(classS, threshold) * Math.log((k2 - from) / (k2 - limit));
}

const tripClass = choice('class', tripClasses);

/**
 * Tripping time of a motor overload.
 *
 * @example tripTime.run({ tripClass: '10', currentRatio: 7.2, from: 'cold', threshold: 1.15 }).timeS // 10
 */
export const tripTime = calculation<
  { tripClass: TripClass; currentRatio: number; from: string; threshold: number },
  { timeS: number | null; windowMinS: number; windowMaxS: number }
>({
  name: 'tripTime',
  title: 'Tripping time of an overload',
  args: {
    tripClass,
    currentRatio: upTo('current in settings', '', 20),
    from: choice('before', ['cold', 'hot']),
    threshold: between('trips above this multiple, in the long run', '', 1.05, 1.2, {
      fallback: 1.15,
    }),
  },
  results: {
    timeS: result('trips after', 's'),
    windowMinS: result('class, from', 's'),
    windowMaxS: result('class, to', 's'),
  },
  formula: 't = τ·ln((k² − θ0)/(k² − θ_trip²));  τ = t_p/ln(7.2²/(7.2² − θ_trip²))',
  source: 'IEC 60947-4-1: never at 1.05, trips at 1.2 times the setting; windows at 7.2 times',
  confirm:
    'Set to the motor’s plate current, or what the local code says, never to the device’s rating.',
  example: { tripClass: '10', currentRatio: 3.5, from: 'cold' },
  run: ({ tripClass: name, currentRatio, from, threshold }) => {
    const [windowMinS, windowMaxS] = windows[name];
    return {
      timeS: imageTripTime(currentRatio, windowMaxS, from === 'hot' ? 1 : 0, threshold),
      windowMinS,
      windowMaxS,
    };
  },
});

/** Whether a start gets past an overload of a class: its earliest and latest tripping time at the start current. */
export const startAgainstClass = calculation<
  { startRatio: number; startS: number; tripClass: TripClass },
  { verdict: string; earliestS: number | null; latestS: number | null }
>({
  name: 'startAgainstClass',
  title: 'Start against the overload class',
  args: {
    startRatio: positive('start current in settings', '', 20),
    startS: positive('start time', 's', 600),
    tripClass,
  },
  results: {
    verdict: result('verdict'),
    earliestS: result('may trip after', 's'),
    latestS: result('must trip by', 's'),
  },
  formula: 'thermal image from cold with the least and the greatest class time',
  source:
    'IEC 60947-4-1, windows at 7.2 times the setting carried to other currents by the thermal image',
  confirm: 'A second start soon after the first begins hot.',
  example: { startRatio: 3.5, startS: 13, tripClass: '20' },
  run: ({ startRatio, startS, tripClass: name }) => {
    const [earliestS, latestS] = windows[name].map((classS) =>
      imageTripTime(startRatio, classS, 0),
    );
    const verdict =
      earliestS === null || startS < earliestS
        ? 'clear'
        : latestS !== null && startS > latestS
          ? 'trips'
          : 'doubtful';
    return { verdict, earliestS, latestS };
  },
});
