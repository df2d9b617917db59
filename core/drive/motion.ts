import { pathStretch, steady, stretchValue, type Path, type Stretch } from '../numeric/index.js';
import { limitedHz, referenceHz, type Command } from './command.js';
import { planRamp, rampTimes, type RampPair } from './ramp.js';
import type { DriveState, Motion, Purpose } from './state.js';
import type { Control } from './vocabulary.js';

const still: Motion = { kind: 'off' };

/** What the shaft does at the moment of a step: its speed as Hz, and whether it turns at all. */
export interface ShaftNow {
  readonly hz: number;
  readonly turns: boolean;
}

/** Output frequency at t as a stretch; 0 while the output is off. */
export function outputStretch(m: Motion, t: number): Stretch {
  return m.kind === 'ramp' ? pathStretch(m.ramp, t) : steady(0, t);
}

export const outputHz = (m: Motion, t: number): number => stretchValue(outputStretch(m, t), t);

/** Speed at which the output itself holds or brakes the shaft, Hz. */
const drivenHz = (m: Motion, t: number): number =>
  m.kind === 'dc' ? stretchValue(pathStretch(m.path, t), t) : outputHz(m, t);

/** The output stage is switching. */
export const isModulating = (m: Motion): boolean =>
  m.kind === 'ramp' || m.kind === 'pause' || m.kind === 'dc';

/** Output off; the shaft is left to itself. */
export function coastFrom(m: Motion, t: number): Motion {
  if (m.kind === 'coast') return m;
  return drivenHz(m, t) === 0 ? still : { kind: 'coast' };
}

/** Motion at t under a command; the same object when it goes on as it was. */
export function stepMotion(
  control: Control,
  s: DriveState,
  command: Command,
  shaft: ShaftNow,
  t: number,
): Motion | 'overcurrent' {
  const m = settle(s.motion, shaft, t);
  if (command.direction === 0) return stopMotion(control, s, m, t);
  if (m.kind === 'coast') {
    if (control.startWhileCoasting === 'waitUntilStill') return m;
    if (control.startWhileCoasting === 'fault') return 'overcurrent';
  }
  const reference = command.jog ? control.jogHz : referenceHz(control, s);
  const held =
    s.levels.hold === 1 &&
    !command.jog &&
    m.kind === 'ramp' &&
    m.purpose === 'run' &&
    Math.sign(outputHz(m, t)) === command.direction;
  const size = held
    ? Math.abs(outputHz(m, t))
    : command.jog
      ? Math.min(reference, control.maxHz)
      : limitedHz(control, reference, Math.abs(m.kind === 'coast' ? shaft.hz : drivenHz(m, t)));
  const pair: RampPair = command.jog ? 'jog' : s.levels.rampSelect ? 'second' : 'main';
  const from =
    m.kind === 'coast' && control.startWhileCoasting === 'catch' ? shaft.hz : outputHz(m, t);
  return headFor(control, m, from, command.direction * size, pair, command.jog ? 'jog' : 'run', t);
}

/** A shaft that has come to rest coasts no more; a brake by direct current is over after its time. */
function settle(m: Motion, shaft: ShaftNow, t: number): Motion {
  if (m.kind === 'coast') return shaft.turns ? m : still;
  return m.kind === 'dc' && t >= m.path.endUs ? still : m;
}

function headFor(
  control: Control,
  m: Motion,
  from: number,
  goalHz: number,
  pair: RampPair,
  purpose: Purpose,
  t: number,
): Motion {
  const goal = { goalHz, pair, purpose };
  if (m.kind === 'pause' && t < m.endUs)
    return same(m, goalHz, pair, purpose) ? m : { ...m, ...goal };
  if (
    m.kind === 'ramp' &&
    same(m, goalHz, pair, purpose) &&
    (t < m.ramp.endUs || m.ramp.rest === goalHz)
  )
    return m;
  const reversing = from !== 0 && goalHz !== 0 && Math.sign(from) !== Math.sign(goalHz);
  const arrived =
    m.kind === 'ramp' &&
    t >= m.ramp.endUs &&
    m.ramp.rest === 0 &&
    m.goalHz === goalHz &&
    goalHz !== 0;
  if (arrived && control.reverseDeadMs > 0)
    return { kind: 'pause', endUs: t + Math.round(control.reverseDeadMs * 1000), ...goal };
  const to = reversing ? 0 : goalHz;
  const times = rampTimes(control, pair);
  const rampS = Math.abs(to) > Math.abs(from) ? times.accelS : times.decelS;
  const ramp = planRamp(
    t,
    from,
    to,
    rampS,
    control.rampReferenceHz ?? control.maxHz,
    control.sCurvePct,
  );
  const next: Motion = { kind: 'ramp', ramp, ...goal };
  return reversing && ramp.endUs <= t ? headFor(control, next, 0, goalHz, pair, purpose, t) : next;
}

function same(
  m: { goalHz: number; pair: RampPair; purpose: Purpose },
  goalHz: number,
  pair: RampPair,
  purpose: Purpose,
): boolean {
  return m.goalHz === goalHz && m.pair === pair && m.purpose === purpose;
}

function stopMotion(control: Control, s: DriveState, m: Motion, t: number): Motion {
  if (m.kind === 'off' || m.kind === 'coast' || m.kind === 'dc') return m;
  if (m.kind === 'pause') return still;
  const hz = outputHz(m, t);
  const jogging = m.purpose === 'jog' || (m.purpose === 'stop' && m.pair === 'jog');
  const pair: RampPair = s.levels.quickStop
    ? 'quick'
    : jogging
      ? 'jog'
      : s.levels.rampSelect
        ? 'second'
        : 'main';
  if (!s.levels.quickStop && control.stopMode === 'coast') return coastFrom(m, t);
  const dcFrom =
    control.stopMode === 'dcBrake'
      ? Infinity
      : control.stopMode === 'rampThenDcHold'
        ? (control.dcBrakeFromHz ?? 0)
        : -1;
  const dcUs = Math.round((control.dcBrakeS ?? 0) * 1e6);
  if (Math.abs(hz) <= dcFrom && dcUs > 0) return { kind: 'dc', path: brakePath(hz, t, dcUs) };
  if (hz === 0) return still;
  if (m.purpose === 'stop' && m.pair === pair) return m;
  const stopAt = dcFrom > 0 && dcFrom < Math.abs(hz) ? Math.sign(hz) * dcFrom : 0;
  const { decelS } = rampTimes(control, pair);
  const ramp = planRamp(
    t,
    hz,
    stopAt,
    decelS,
    control.rampReferenceHz ?? control.maxHz,
    control.sCurvePct,
  );
  if (ramp.endUs <= t && stopAt === 0) return still;
  return { kind: 'ramp', ramp, goalHz: 0, pair, purpose: 'stop' };
}

/** Direct current takes the speed away evenly over its time. */
function brakePath(hz: number, t: number, lastsUs: number): Path {
  const stretch = { t0: t, y: hz, dy: (-hz / lastsUs) * 1e6, ddy: 0 };
  return { stretches: [stretch], endUs: t + lastsUs, rest: 0 };
}

/** Next moment at which the motion changes by itself. */
export function motionWake(m: Motion, t: number): number {
  if (m.kind === 'pause') return m.endUs > t ? m.endUs : Infinity;
  if (m.kind === 'dc') return m.path.endUs > t ? m.path.endUs : Infinity;
  if (m.kind !== 'ramp' || t >= m.ramp.endUs) return Infinity;
  const trip = m.tripUs !== undefined && m.tripUs > t ? m.tripUs : Infinity;
  for (const s of m.ramp.stretches) if (s.t0 > t) return Math.min(s.t0, trip);
  return Math.min(m.ramp.endUs, trip);
}
