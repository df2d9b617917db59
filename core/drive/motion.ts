import { limitedHz, referenceHz, type Command } from './command.js';
import { planRamp, rampTimes, stretchAt, valueAt, type RampPair, type Stretch } from './ramp.js';
import type { DriveState, Motion, Purpose } from './state.js';
import type { Control } from './vocabulary.js';

const still: Motion = { kind: 'off' };

/** Output frequency at t as a stretch; 0 while the output is off. */
export function outputStretch(m: Motion, t: number): Stretch {
  return m.kind === 'ramp' ? stretchAt(m.ramp, t) : { t0: t, y: 0, dy: 0, ddy: 0 };
}

/** Speed of the shaft in Hz at t as a stretch: the output's while it drives, falling while it coasts or brakes. */
export function shaftStretch(m: Motion, t: number): Stretch {
  if (m.kind !== 'coast' && m.kind !== 'dc') return outputStretch(m, t);
  if (t >= m.endUs) return { t0: m.endUs, y: 0, dy: 0, ddy: 0 };
  return { t0: m.t0, y: m.fromHz, dy: (-m.fromHz / (m.endUs - m.t0)) * 1e6, ddy: 0 };
}

export const outputHz = (m: Motion, t: number): number => valueAt(outputStretch(m, t), t);
export const shaftHz = (m: Motion, t: number): number => valueAt(shaftStretch(m, t), t);

/** The output stage is switching. */
export const isModulating = (m: Motion): boolean =>
  m.kind === 'ramp' || m.kind === 'pause' || m.kind === 'dc';

/** Output off; the shaft runs down freely from what it has. */
export function coastFrom(control: Control, m: Motion, t: number): Motion {
  if (m.kind === 'coast' && t < m.endUs) return m;
  const hz = shaftHz(m, t);
  const endUs = t + Math.round(control.coastS * (Math.abs(hz) / control.maxHz) * 1e6);
  return hz === 0 || endUs <= t ? still : { kind: 'coast', t0: t, fromHz: hz, endUs };
}

/** Motion at t under a command; the same object when it goes on as it was. */
export function stepMotion(
  control: Control,
  s: DriveState,
  command: Command,
  t: number,
): Motion | 'overcurrent' {
  const m = settle(s.motion, t);
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
      : limitedHz(control, reference, Math.abs(shaftHz(m, t)));
  const pair: RampPair = command.jog ? 'jog' : s.levels.rampSelect ? 'second' : 'main';
  const from =
    m.kind === 'coast' && control.startWhileCoasting === 'catch' ? shaftHz(m, t) : outputHz(m, t);
  return headFor(control, m, from, command.direction * size, pair, command.jog ? 'jog' : 'run', t);
}

function settle(m: Motion, t: number): Motion {
  return (m.kind === 'coast' || m.kind === 'dc') && t >= m.endUs ? still : m;
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
    (t < m.ramp.endUs || m.ramp.endHz === goalHz)
  )
    return m;
  const reversing = from !== 0 && goalHz !== 0 && Math.sign(from) !== Math.sign(goalHz);
  const arrived =
    m.kind === 'ramp' &&
    t >= m.ramp.endUs &&
    m.ramp.endHz === 0 &&
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
  if (!s.levels.quickStop && control.stopMode === 'coast') return coastFrom(control, m, t);
  const dcFrom =
    control.stopMode === 'dcBrake'
      ? Infinity
      : control.stopMode === 'rampThenDcHold'
        ? (control.dcBrakeFromHz ?? 0)
        : -1;
  const dcUs = Math.round((control.dcBrakeS ?? 0) * 1e6);
  if (Math.abs(hz) <= dcFrom && dcUs > 0) return { kind: 'dc', t0: t, fromHz: hz, endUs: t + dcUs };
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

/** Next moment at which the motion changes by itself. */
export function motionWake(m: Motion, t: number): number {
  if (m.kind === 'coast' || m.kind === 'dc' || m.kind === 'pause')
    return m.endUs > t ? m.endUs : Infinity;
  if (m.kind !== 'ramp' || t >= m.ramp.endUs) return Infinity;
  for (const s of m.ramp.stretches) if (s.t0 > t) return s.t0;
  return m.ramp.endUs;
}
