import { landingParts } from '../job/index.js';
import { lineIds } from '../scheme/index.js';
import { signalAt } from '../trace/index.js';
import { phaseOf, type Policies, type Run, type Trials } from '../trials/index.js';
import { requirementsOf } from './list.js';
import {
  relaySignal,
  type Does,
  type Judged,
  type Look,
  type Must,
  type Requirement,
} from './requirement.js';

/** Output frequency of a motor that a person would see standing, Hz. */
const STANDSTILL_HZ = 0.05;

const standing = (hz: number): boolean => Math.abs(hz) <= STANDSTILL_HZ;

/** A motor that is fed with the voltage of the supply and does not turn. */
const hums = (run: Run, mark: string): boolean =>
  run.trace.signals.some((s) => s.id === 'device.amps') && run.at(mark, 'device.amps') > 0;

/** What the output does, and which way the shaft goes by it: the leads may turn it round. */
function doesAt(run: Run, mark: string): Does {
  if (standing(run.hz(mark))) return hums(run, mark) ? 'hums' : 'stands';
  const shaft = run.at(mark, 'shaft.hz');
  const way = standing(shaft) ? run.hz(mark) : shaft;
  return way > 0 ? 'runsForward' : 'runsReverse';
}

/** The same where the shaft itself is looked at: with a lead missing it stands, whatever the output does. */
const turnsAt = (run: Run, mark: string): Does =>
  standing(run.at(mark, 'shaft.hz')) ? 'stands' : doesAt(run, mark);

/** What any wished frequency may miss, Hz: settings are rounded. */
const ROUNDING_HZ = 0.5;

/** What the frequency must rise by from one look to the next, Hz. */
const RISE_HZ = 0.5;

/** Level of a signal when a phase is looked at; a part that is not there shows nothing. */
function levelAt(run: Run, mark: string, signal: string): number {
  const relay = run.installation.device.relays.find(({ task }) => relaySignal(task) === signal);
  const id = relay ? `device.relay.${relay.id}` : signal;
  return run.trace.signals.some((s) => s.id === id) ? run.at(mark, id) : 0;
}

/** A relay's own times, which a warning may be shorter by, ms. */
const WARNING_SLACK_MS = 200;
/** How long before the motor moves the warning must still stand, ms. */
const STILL_WARNS_MS = 100;

/** Moment in a phase at which the motor is first driven, µs; undefined where it is not. */
function movesAt(run: Run, mark: string): number | undefined {
  const { fromMs } = phaseOf(run.trial, mark);
  const i = run.trace.signals.findIndex((s) => s.id === 'device.hz');
  const { t, y, dy } = run.trace.segments[i];
  return t.find((at, k) => at >= fromMs * 1000 && (y[k] !== 0 || dy[k] !== 0));
}

/** Whether a part of the machine has answered before the motor is driven in a phase, and was waited for. */
function answersFirst(run: Run, mark: string, signal: string, ms: number): boolean {
  const { fromMs } = phaseOf(run.trial, mark);
  const moves = movesAt(run, mark);
  if (moves === undefined || !run.trace.signals.some((s) => s.id === signal)) return false;
  return moves / 1000 - fromMs >= ms - WARNING_SLACK_MS && signalAt(run.trace, signal, moves) === 1;
}

/** Whether a signal stands long enough before the motor is driven in a phase, up to that moment. */
function warns(run: Run, mark: string, signal: string, ms: number): boolean {
  const { fromMs } = phaseOf(run.trial, mark);
  const moves = movesAt(run, mark);
  if (moves === undefined || !run.trace.signals.some((s) => s.id === signal)) return false;
  const before = moves - STILL_WARNS_MS * 1000;
  return (
    moves / 1000 - fromMs >= ms - WARNING_SLACK_MS && signalAt(run.trace, signal, before) === 1
  );
}

/** What a highest frequency may be exceeded by: the resolution of a setting, share. */
const MARGIN = 0.01;

/** The largest size of a signal at any moment of a trial. */
function highest(run: Run, signal: string): number {
  const { t, y } = run.trace.segments[run.trace.signals.findIndex((s) => s.id === signal)];
  const ends = t.slice(1).map((at) => signalAt(run.trace, signal, at - 1));
  return Math.max(0, ...[...y, ...ends].map(Math.abs));
}

/** Whether a shaft runs down of which inertia or load is not entered: no time can be told. */
function runsDownUnknown(run: Run, mark: string): boolean {
  const { fromMs, lookMs } = phaseOf(run.trial, mark);
  const i = run.trace.signals.findIndex((s) => s.id === 'shaft.state');
  const unknown = run.trace.signals[i]?.states?.indexOf('runsDownUnknown') ?? -1;
  const { t, y } = run.trace.segments[i];
  return t.some((at, k) => at >= fromMs * 1000 && at <= lookMs * 1000 && y[k] === unknown);
}

/** Whether the shaft stands after so many seconds, and goes on standing until the phase is over. */
function restsWithin(run: Run, mark: string, seconds: number): boolean {
  const { fromMs, lookMs } = phaseOf(run.trial, mark);
  const { t } = run.trace.segments[run.trace.signals.findIndex((s) => s.id === 'shaft.hz')];
  const due = (fromMs + seconds * 1000) * 1000;
  const moments = [due, ...t.filter((at) => at > due && at <= lookMs * 1000)];
  return moments.every((at) => standing(signalAt(run.trace, 'shaft.hz', at)));
}

/** Whether a signal is off at every moment at which the shaft turns; one that is not there protects nothing. */
function offWhileTurning(run: Run, signal: string): boolean {
  const of = (id: string): number => run.trace.signals.findIndex((s) => s.id === id);
  const [own, shaft] = [of(signal), of('shaft.hz')];
  if (own < 0) return false;
  const moments = [...run.trace.segments[own].t, ...run.trace.segments[shaft].t];
  return moments.every(
    (at) => signalAt(run.trace, signal, at) === 0 || standing(signalAt(run.trace, 'shaft.hz', at)),
  );
}

/** Whether a signal is on at every moment at which the output drives the motor. */
function onWhileDriving(run: Run, signal: string): boolean {
  const of = (id: string): number => run.trace.signals.findIndex((s) => s.id === id);
  const [own, output] = [of(signal), of('device.hz')];
  if (own < 0) return false;
  const moments = [...run.trace.segments[own].t, ...run.trace.segments[output].t];
  return moments.every(
    (at) => signalAt(run.trace, signal, at) === 1 || signalAt(run.trace, 'device.hz', at) === 0,
  );
}

/** Voltage that hurts nobody and that no meter takes for a supply, V. */
const DEAD_V = 1;

/**
 * Landings that have voltage against earth when a phase is looked at.
 *
 * @param but parts that are left out, beside the incoming supply
 */
function liveLandings(run: Run, mark: string, but: readonly string[]): string[] {
  const { landings, devices } = run.installation;
  const earth = landings.indexOf(`${lineIds.supply}:PE`);
  const incoming = devices.filter((d) => d.kind === 'supply').map((d) => d.id);
  const ms = run.lookMs(mark);
  return landings.filter((landing, i) => {
    const { device, terminal } = landingParts(landing);
    const before = device === lineIds.isolator && Number(terminal) % 2 === 1;
    if (before || incoming.includes(device) || but.includes(device)) return false;
    const v = run.volts(i, earth, ms);
    return v !== null && (v.ac > DEAD_V || Math.abs(v.dc) > DEAD_V);
  });
}

/** What is seen at one look, and whether it is what must be; `beforeHz` is the frequency at the look before. */
function seen(
  run: Run,
  { mark }: Look,
  must: Must,
  beforeHz: number,
): { does: Does; met: boolean } {
  const hz = Math.abs(run.hz(mark));
  const does = doesAt(run, mark);
  switch (must.kind) {
    case 'stopped':
    case 'staysStopped':
      return { does, met: does === 'stands' };
    case 'turns': {
      const turns = turnsAt(run, mark);
      return {
        does: turns,
        met: turns === (must.way === 'forward' ? 'runsForward' : 'runsReverse'),
      };
    }
    case 'speed': {
      const met = Math.abs(hz - must.hz) <= Math.max(ROUNDING_HZ, must.share * must.hz);
      return { does: met || does === 'stands' ? does : 'otherSpeed', met };
    }
    case 'atMost': {
      const met = highest(run, 'device.hz') <= must.hz + Math.max(ROUNDING_HZ, MARGIN * must.hz);
      return { does: met ? does : 'tooFast', met };
    }
    case 'dead': {
      const met = liveLandings(run, mark, must.but).length === 0;
      return { does: met ? 'stands' : 'staysLive', met };
    }
    case 'restsWithin': {
      const met = restsWithin(run, mark, must.s);
      return { does: met ? 'stands' : 'turnsLonger', met };
    }
    case 'onWhileDriving': {
      const met = onWhileDriving(run, must.signal);
      return { does: met ? does : 'opensUnderLoad', met };
    }
    case 'offWhileTurning': {
      const met = offWhileTurning(run, must.signal);
      return { does: met ? 'stands' : 'unlocksTurning', met };
    }
    case 'rises': {
      const met = hz >= beforeHz + RISE_HZ;
      return { does: met ? does : 'doesNotRise', met };
    }
    case 'restarts':
      return { does, met: does === 'runsForward' || does === 'runsReverse' };
    case 'noRestart':
      return { does, met: does === 'stands' || doesAt(run, must.since) !== 'stands' };
    case 'warns':
    case 'answersFirst': {
      const waits = must.kind === 'warns' ? warns : answersFirst;
      const otherwise = must.kind === 'warns' ? 'startsUnwarned' : 'startsUnanswered';
      const met = waits(run, mark, must.signal, must.ms);
      return {
        does: met || does === 'stands' ? does : otherwise,
        met: met && does !== 'stands',
      };
    }
    case 'shows': {
      const on = levelAt(run, mark, must.signal) === 1;
      return { does: on ? 'isOn' : 'isOff', met: on === must.on };
    }
  }
}

/** What hangs on how the shaft runs down. */
const timed: readonly Must['kind'][] = ['restsWithin', 'offWhileTurning'];

/** A stop shows nothing where the motor never ran. */
const showsNothing = (run: Run, { after }: Look): boolean =>
  after !== undefined && doesAt(run, after) === 'stands';

/** Holds one requirement against the job: every look, every way an unknown behaviour may turn out; the worst counts. */
function judge(trials: Trials, requirement: Requirement, variants: readonly Policies[]): Judged {
  let shown: Judged | undefined;
  for (const policies of variants) {
    let beforeHz = -RISE_HZ;
    for (const look of requirement.looks) {
      const run = trials.run(look.trial, policies);
      if (showsNothing(run, look)) continue;
      if (timed.includes(requirement.must.kind) && runsDownUnknown(run, look.mark)) {
        const unknown = { does: 'runsDownUnknown', hz: 0, proof: undefined } as const;
        return { requirement, state: 'undecided', ...unknown };
      }
      const { does, met } = seen(run, look, requirement.must, beforeHz);
      const [proof, hz] = [run.proof(look.mark), Math.abs(run.hz(look.mark))];
      beforeHz = hz;
      if (!met) return { requirement, state: 'notMet', does, hz, proof };
      shown ??= { requirement, state: 'met', does, hz, proof };
    }
  }
  return shown ?? { requirement, state: 'undecided', does: 'neverRuns', hz: 0, proof: undefined };
}

const kept = new WeakMap<Trials, Judged[]>();

/**
 * Every required function of a job, held against the job as built; each worked out once.
 *
 * @param variants ways in which behaviour that the profile does not know may turn out
 * @example judged(trialsOf(job, profile)).every((j) => j.state === 'met')
 */
export function judged(trials: Trials, variants: readonly Policies[] = [{}]): readonly Judged[] {
  const known = kept.get(trials);
  if (known) return known;
  const made = requirementsOf(trials).map((r) => judge(trials, r, variants));
  kept.set(trials, made);
  return made;
}
