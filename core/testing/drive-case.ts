import * as v from 'valibot';
import { driveCaseSchema, runDriveCase } from '../drive/index.js';

type DriveSample = ReturnType<typeof runDriveCase>[number];
export type Events = [number, string, number][];

/** Runs a case and writes each sample as "state hz" with one decimal. */
export function run(control: object, inputs: object, events: Events, sampleMs: number[]): string[] {
  return samples(control, inputs, events, sampleMs).map(
    (s) => `${s.state} ${Math.round(s.hz * 10) / 10 || 0}`,
  );
}

/** Samples of a case; what is not said of its control is usual. */
export function samples(
  control: object,
  inputs: object,
  events: Events,
  sampleMs: number[],
): DriveSample[] {
  const base = {
    startMethod: 'levelForwardReverse',
    maxHz: 50,
    accelS: 5,
    decelS: 10,
    referenceHz: 30,
    powerUpDelayMs: 0,
    filterMs: 0,
  };
  return runDriveCase(
    v.parse(driveCaseSchema, {
      control: { ...base, ...control },
      inputs,
      events: events.map(([atMs, input, level]) => ({ atMs, input, level })),
      sampleMs,
    }),
  );
}
