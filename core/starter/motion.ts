import { findsShort, firing } from './broken.js';
import { askedOf, barredBy, levelAsked, supplySeen, waitsUntil } from './command.js';
import { us, type StarterCore, type StarterInputs } from './core.js';
import { heatAt } from './heat.js';
import { fail, interrupted, off, unfed } from './let-go.js';
import { asRad, planBrake, planStart, planStop, runPoint, wayOf } from './plan-run.js';
import type { Direction, Motion, StarterState } from './state.js';
import type { StarterControl } from './vocabulary.js';

/** Unfed: waits for what it has to wait for, then begins. */
export function standing(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  const rests: Motion['kind'] = turns && s.motion.kind === 'coast' ? 'coast' : 'off';
  if (s.motion.kind !== rests) s = { ...s, motion: rests === 'off' ? off : { kind: 'coast' } };
  const { direction } = askedOf(control, s);
  if (direction === 0 || s.fault || barredBy(s)) {
    // A run that was asked without mains is withdrawn by its stop or its level.
    const pending = s.missingUs !== Infinity && stillAsked(control, s) && !s.fault;
    if (pending) return missing(core, s, inputs, t);
    return s.missingUs === Infinity && s.lineAskedUs === Infinity
      ? s
      : { ...s, missingUs: Infinity, lineAskedUs: Infinity };
  }
  if (t < waitsUntil(control, s, direction))
    return control.onRunInInhibit === 'waits' ? s : lost(control, s);
  if (turns && control.onStartWhileCoasting !== 'rampFromBegin' && s.motion.kind === 'coast')
    return control.onStartWhileCoasting === 'afterRest' ? s : lost(control, s);
  if (supplySeen(s.levels) === 0) return missing(core, s, inputs, t);
  return begin(core, s, direction, inputs, t);
}

/** The run that is asked is forgotten: a level must be opened and closed again, a pulse given anew. */
const lost = (control: StarterControl, s: StarterState): StarterState => ({
  ...s,
  latch: 0,
  needFresh: s.needFresh || levelAsked(control, s.levels),
});

/** Somebody still asks for the run that found no mains. */
const stillAsked = (control: StarterControl, s: StarterState): boolean =>
  s.levels.stop === 1 && (control.startMethod === 'threeWire' || levelAsked(control, s.levels));

/** Asked without mains or contactor: waits for its own contactor, then is refused or trips. */
function missing(
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  if (s.lineAskedUs === Infinity) s = { ...s, lineAskedUs: t };
  if (t < s.lineAskedUs + us(control.contactorMs / 1000)) return s;
  if (supplySeen(s.levels) !== 0) return { ...s, missingUs: Infinity };
  if (s.missingUs === Infinity) {
    const follow = control.onMainsReturn === 'followLevel';
    s = { ...interrupted(control, s, follow), missingUs: t };
  }
  const dueUs = s.missingUs + us(control.mainsMissingS);
  return control.onRunWithoutMains === 'faultAfter' && t >= dueUs
    ? fail(core, s, 'mainsMissing', inputs, t)
    : s;
}

/** Speed of the shaft in the direction that is asked, rad/s: against it while it still runs down from the other. */
function turning(
  { machine }: StarterCore,
  { lastDirection, motion }: StarterState,
  direction: Direction,
  { shaftHz }: StarterInputs,
): number {
  const of = motion.kind === 'off' || motion.kind === 'coast' ? lastDirection : motion.direction;
  const against = of !== 0 && of !== direction;
  return asRad(machine, Math.abs(shaftHz)) * (against ? -1 : 1);
}

function begin(
  core: StarterCore,
  s: StarterState,
  direction: Direction,
  inputs: StarterInputs,
  t: number,
  fraction = 0,
): StarterState {
  const { control, machine } = core;
  if (findsShort(core)) return fail(core, s, 'shortedPole', inputs, t);
  const rad = turning(core, s, direction, inputs);
  const phases = firing(core, s);
  const plain = core.broken?.bypass ? ({ kind: 'direct' } as const) : wayOf(control);
  const way =
    fraction > 0 && !core.broken?.bypass
      ? { ...plain, kickS: 0, fraction: Math.max(fraction, plain.fraction ?? 0) }
      : plain;
  const run = planStart(control, machine, { rad, heat: heatAt(core, s, t), t, phases, way });
  const limitUs = t + us(control.startLimitS);
  return {
    ...s,
    motion: { kind: 'start', direction, run, limitUs },
    missingUs: Infinity,
    lineAskedUs: Infinity,
  };
}

/** Poles that conduct feed the motor already when a run is asked: it is the starter's from here on. */
export const goesOn = (
  core: StarterCore,
  s: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState => begin(core, s, askedOf(core.control, s).direction, inputs, t);

/** Fed: mains, stop, direction, and what the run itself comes to. */
export function starting(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  if (supplySeen(s.levels) === 0) {
    if (control.onMainsLostRunning === 'fault') return fail(core, s, 'mainsLost', inputs, t);
    const follow = control.onMainsReturn === 'followLevel';
    return interrupted(control, unfed(core, s, turns, t), follow);
  }
  const { direction } = askedOf(control, s);
  const barred = barredBy(s);
  if (barred) return interrupted(control, unfed(core, s, turns, t), false);
  if (direction === 0) return stopping(core, s, m, inputs, t);
  if (direction !== m.direction) {
    const coasts = unfed(core, s, turns, t);
    if (control.onOppositeEnable === 'fault') return fail(core, s, 'bothDirections', inputs, t);
    return control.onOppositeEnable === 'ignored' ? lost(control, coasts) : coasts;
  }
  if (t >= m.run.tripUs) return fail(core, s, 'overload', inputs, t);
  if (t >= m.limitUs && m.run.bypassUs > m.limitUs) {
    if (control.onStartLimit === 'fault') return fail(core, s, 'startTooLong', inputs, t);
    return { ...s, motion: { ...m, ...direct(core, s, m, inputs, t) } };
  }
  return s;
}

/** The start goes on at full voltage from where it is. */
function direct(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): Pick<Extract<Motion, { kind: 'start' }>, 'run' | 'limitUs'> {
  const rad = turning(core, s, m.direction, inputs);
  const from = { rad, heat: heatAt(core, s, t), t, phases: 3, way: { kind: 'direct' } } as const;
  return { run: planStart(core.control, core.machine, from), limitUs: Infinity };
}

/** A stop while fed: by its kind, or as a stop during the start is handled. */
function stopping(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'start' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control, machine } = core;
  const turns = inputs.shaftTurns || inputs.shaftHz !== 0;
  const ramping = t < m.run.bypassUs;
  const kind = ramping && control.onStopWhileRamping === 'coast' ? 'coast' : control.stopKind;
  if (kind === 'coast' || (kind === 'softStop' && control.softStopS === 0))
    return unfed(core, s, turns, t);
  const p = runPoint(m.run, t);
  const from = { rad: p.rad, heat: heatAt(core, s, t), t, share: p.share };
  const planned =
    kind === 'brake' ? planBrake(control, machine, from) : planStop(control, machine, from);
  return {
    ...s,
    motion: { kind: kind === 'brake' ? 'brake' : 'softStop', direction: m.direction, ...planned },
  };
}

/** A soft stop or a brake under way. */
export function slowing(
  core: StarterCore,
  s: StarterState,
  m: Extract<Motion, { kind: 'softStop' | 'brake' }>,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const { control } = core;
  const turns = runPoint(m.run, t).rad > 0;
  if (supplySeen(s.levels) === 0)
    return control.onCutWhileSoftStopping === 'fault'
      ? fail(core, s, 'mainsLost', inputs, t)
      : unfed(core, s, turns, t);
  if (barredBy(s) === 'enableOpen' || barredBy(s) === 'inhibited') return unfed(core, s, turns, t);
  if (t >= m.endUs) return unfed(core, s, turns, t);
  const { direction } = askedOf(control, s);
  if (direction === 0 || barredBy(s)) return s;
  if (direction !== m.direction) return unfed(core, s, turns, t);
  if (m.kind === 'brake' || control.onStartWhileSoftStopping === 'afterRest') return s;
  if (control.onStartWhileSoftStopping === 'lost') return lost(control, s);
  return begin(core, s, direction, inputs, t, runPoint(m.run, t).share);
}

/** A phase lost or back while fed: the run goes on from where it is, with what it now has. */
export function phases(
  core: StarterCore,
  s: StarterState,
  before: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const m = s.motion;
  if (m.kind !== 'start') return s;
  const [was, now] = [supplySeen(before.levels), supplySeen(s.levels)];
  if (was === now || was === 0 || now === 0) return s;
  const p = runPoint(m.run, t);
  const rad = turning(core, s, m.direction, inputs);
  const from = { rad, heat: heatAt(core, s, t), t, phases: now === 2 ? 3 : 2 } as const;
  const way = { kind: 'fixedVoltage', fraction: p.share } as const;
  const run = planStart(core.control, core.machine, now === 2 ? from : { ...from, way });
  return { ...s, motion: { ...m, run } };
}
