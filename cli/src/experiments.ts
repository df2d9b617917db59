import { faultClasses, Sweep } from '@tactron/core/hazards';
import { hookPlaces, install, installedOf, type Installation } from '@tactron/core/installation';
import { scriptSchema, type Act, type Job } from '@tactron/core/job';
import { shaftRpm, shaftStates } from '@tactron/core/motor';
import { rehearse } from '@tactron/core/rehearsal';
import { signalAt, stateAt, voltsAt, type Trace } from '@tactron/core/trace';
import { trialsOf, type Trial } from '@tactron/core/trials';
import { BadInput, type Outcome } from './bad-input.js';
import { parse } from './calls.js';
import { jobInput, plannedJob } from './job-input.js';

/** Rehearses a script on the job as it is built: its deviations included. */
export function rehearseJob(
  data: unknown,
  script: unknown,
  sampleMs: readonly number[] | undefined,
): Outcome {
  const input = jobInput(data);
  const job = plannedJob(input);
  const acts = parse(scriptSchema, script);
  const hooks = hookPlaces(acts);
  const installation = install(job, input.profile, { from: 'planned' }, { hooks });
  checkSubjects(acts, job, installation);
  const end = sampleMs?.length ? Math.max(...sampleMs) : undefined;
  const trace = rehearse(installation, acts, end);
  return {
    output: sampleMs
      ? sampleMs.map((ms) => sampleOf(trace, installation, ms))
      : plainTrace(trace, installation.landings),
  };
}

function checkSubjects(acts: readonly Act[], job: Job, installation: Installation): void {
  const wires = installedOf(installation, 'wires').flatMap((w) => w.wires);
  acts.forEach((act, i) => {
    if ('device' in act && act.device && !job.adopted?.devices[act.device])
      throw new BadInput(`script.${i}.device`, `there is no device "${act.device}" in this job`);
    if ('wire' in act && !wires.some((w) => w.id === act.wire || w.number === act.wire))
      throw new BadInput(`script.${i}.wire`, `there is no wire "${act.wire}" in this job`);
  });
}

function sampleOf(trace: Trace, installation: Installation, ms: number): unknown {
  const us = Math.round(ms * 1000);
  const { landings, reference, shaft } = installation;
  const volts = Object.fromEntries(
    landings.map((landing, i) => [landing, voltsAt(trace, i, reference, us)?.dc ?? null]),
  );
  const levels = Object.fromEntries(
    trace.signals.filter((s) => s.kind === 'level').map((s) => [s.id, signalAt(trace, s.id, us)]),
  );
  const turns = signalAt(trace, 'shaft.hz', us);
  const state = shaftStates[signalAt(trace, 'shaft.state', us)] ?? 'still';
  return {
    atMs: ms,
    state: stateAt(trace, 'device.state', us),
    hz: trace.signals.some((s) => s.id === 'device.hz') ? signalAt(trace, 'device.hz', us) : null,
    shaft: {
      rpm: shaftRpm(shaft, state, turns) ?? null,
      direction: turns === 0 ? 'still' : turns > 0 ? 'forward' : 'reverse',
      state,
    },
    levels,
    volts,
  };
}

function plainTrace(trace: Trace, landings: readonly string[]): unknown {
  const solutions = trace.solutions.map((s) => ({
    volts: [...s.volts],
    slope: [...s.slope],
    island: [...s.island],
  }));
  return { ...trace, landings, solutions };
}

/** Every trial of the job with its acts, its end and the moments at which it is looked at. */
export function trials(data: unknown): Outcome {
  const input = jobInput(data);
  return { output: trialsOf(plannedJob(input), input.profile).list.map(told) };
}

const told = ({ id, acts, endMs, phases }: Trial) => ({ id, acts, endMs, phases });

/** One trial run on the job as built: at sample times, or at each of its looks with the whole trace. */
export function trial(data: unknown, id: string, sampleMs?: readonly number[]): Outcome {
  const input = jobInput(data);
  const all = trialsOf(plannedJob(input), input.profile);
  if (!all.has(id)) throw new BadInput('trial', `there is no trial "${id}" in this job`);
  const run = all.run(id);
  if (sampleMs) return { output: sampleMs.map((ms) => sampleOf(run.trace, run.installation, ms)) };
  const looks = run.trial.phases.map(({ mark, lookMs }) => ({
    mark,
    ...(sampleOf(run.trace, run.installation, lookMs) as object),
  }));
  return {
    output: {
      ...told(run.trial),
      looks,
      trace: plainTrace(run.trace, run.installation.landings),
    },
  };
}

/** Every single fault with its class at each moment, and the act after which the worst shows; the gravest first. */
export function sweep(data: unknown): Outcome {
  const input = jobInput(data);
  const made = new Sweep(plannedJob(input), input.profile);
  const first = made.faults.map((f) => made.judge(f));
  const rows = first.map((row) => made.lookBehind(row, first));
  const output = rows
    .map(({ fault: { key, subject }, worst, moment, at, shows }) => ({
      key,
      subject,
      worst,
      moment,
      at,
      shows: shows ?? null,
    }))
    .sort((x, y) => faultClasses.indexOf(y.worst) - faultClasses.indexOf(x.worst));
  return { output };
}
