import type { BoardEntry } from '../job-state/api';

/** Trail of one row and its next act, from what the board knows of a job without opening it. */
export function boardTrail({ job, evidence }: BoardEntry): {
  marks: readonly { name: string; state: 'done' | 'part' | 'open' }[];
  next: string;
} {
  const motor = [
    job.plate.motor.power,
    job.plate.motor.lowV,
    job.plate.motor.lowA,
    job.plate.motor.hz,
    job.plate.motor.rpm,
    job.plate.supply.volts,
    job.plate.cable.length,
  ];
  const plate = motor.filter((fact) => fact !== undefined).length;
  const wishes = [
    job.scheme.startStop,
    job.scheme.direction,
    job.scheme.speed,
    job.scheme.powerReturn,
    job.scheme.exposed,
  ].filter((w) => w !== undefined).length;
  const grade = (have: number, of: number) => (have === of ? 'done' : have > 0 ? 'part' : 'open');
  const marks = [
    { name: 'Plate', state: grade(plate, motor.length) },
    { name: 'Scheme', state: grade(wishes, 5) },
    { name: 'Land', state: job.adopted ? 'done' : 'open' },
    { name: 'Tests', state: evidence > 0 ? 'part' : 'open' },
  ] as const;
  const next =
    plate < motor.length
      ? 'Enter the plates'
      : wishes < 5
        ? 'Say how it must start and stop'
        : evidence === 0
          ? 'Key and test'
          : 'Go on testing';
  return { marks, next };
}
