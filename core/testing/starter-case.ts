import * as v from 'valibot';
import {
  runStarterCase,
  starterCaseSchema,
  type StarterCase,
  type StarterSample,
} from '../starter/index.js';

/** A motor of 2.2 kW with a light load: direct it is at speed within half a second. */
export const smallShaft: StarterCase['shaft'] = {
  circuit: {
    lineV: 400,
    hz: 50,
    poles: 4,
    statorOhm: 1.55,
    statorLeakageOhm: 4.72,
    magnetisingOhm: 117,
    rotorLeakageOhm: 4.29,
    rotorOhm: 2.36,
  },
  inertiaKgm2: 0.02,
  load: { kind: 'constant', torqueNm: 4 },
  ratedA: 4.1,
  ratedTorqueNm: 14.6,
};

type Inside = Parameters<typeof runStarterCase>[1];

export type StarterEvents = readonly (readonly [
  atMs: number,
  input: StarterCase['events'][number]['input'],
  level: 0 | 1,
])[];

/** Samples of a case with the small motor and a ramp from 50 % in 4 s, unless said otherwise. */
export function starterSamples(
  control: Readonly<Record<string, unknown>>,
  events: StarterEvents,
  sampleMs: readonly number[],
  more: {
    inputs?: Readonly<Record<string, 0 | 1>>;
    shaft?: Partial<StarterCase['shaft']>;
    inside?: Inside;
  } = {},
): StarterSample[] {
  const input = v.parse(starterCaseSchema, {
    shaft: { ...smallShaft, ...more.shaft },
    control: {
      startMethod: 'twoWire',
      start: { kind: 'voltageRamp', fraction: 0.5, rampS: 4 },
      ...control,
    },
    inputs: more.inputs ?? {},
    events: events.map(([atMs, name, level]) => ({ atMs, input: name, level })),
    sampleMs,
  });
  return runStarterCase(input, more.inside);
}

/** State of each sample, with its fault, refusal and direction where it has one. */
export function starterRun(...args: Parameters<typeof starterSamples>): string[] {
  return starterSamples(...args).map(({ state, fault, blockedBy, direction }) =>
    [state, fault, blockedBy, direction === 'reverse' ? direction : null]
      .filter((word) => word !== null)
      .join(' '),
  );
}
