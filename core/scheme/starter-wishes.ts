import type { Scheme } from '../job/index.js';
import type { Sketch } from './sketch.js';

/** Wishes that only a device which changes the speed can meet. */
const speedWishes = ['speed', 'presetsHz', 'jogHz', 'accel2S', 'decel2S', 'minHz'] as const;

/** How long a boost lasts that somebody wishes for, s. */
const KICK_S = 0.3;

/** Wishes of a soft starter that ask for a drive, each as a conflict with its name. */
export function speedConflicts(sketch: Sketch, s: Scheme): void {
  for (const wish of speedWishes) if (s[wish] !== undefined) sketch.conflict([wish], 'noSpeed');
  if (s.jog !== undefined && s.jog !== 'none') sketch.conflict(['jog'], 'noSpeed');
  if (s.secondRamp) sketch.conflict(['secondRamp'], 'noSpeed');
  if (s.brakeRelease) sketch.conflict(['brakeRelease'], 'noSpeed');
}

/** What the settings of a soft starter must mean. What nobody asks for is recommended by the plates and comes from there. */
export function starterMeanings(
  sketch: Sketch,
  s: Scheme,
  startMethod: string,
  facts: { readonly both: boolean; readonly enables: boolean },
): void {
  const methods: Readonly<Record<string, string>> = {
    levelForwardReverse: facts.enables ? 'twoEnables' : 'twoWire',
    pulseStartStopDirection: 'threeWire',
  };
  if (startMethod) sketch.mean('startMethod', methods[startMethod] ?? startMethod, 'startStop');
  if (facts.both && !facts.enables) sketch.conflict(['direction'], 'oneDirection');
  if (facts.enables) sketch.mean('noReverse', !facts.both, 'direction');
  sketch.mean('stopKind', s.stopMode === 'ramp' ? 'softStop' : 'coast', 'stopMode');
  sketch.mean('softStopS', s.stopMode === 'ramp' ? (s.decelS ?? 5) : 0, 'decelS');
  sketch.mean('endTorquePct', s.stopMode === 'ramp' ? s.endTorquePct : undefined, 'endTorquePct');
  sketch.mean('connectionKind', s.starterConnection, 'starterConnection');
  sketch.mean('rampKind', s.startKind, 'startKind');
  sketch.mean('rampS', s.accelS, 'accelS');
  sketch.mean('beginPct', s.beginPct, 'beginPct');
  sketch.mean('limitPct', s.limitPct, 'limitPct');
  if (s.kick !== undefined) sketch.mean('kickS', s.kick ? KICK_S : 0, 'kick');
  sketch.mean('tripClass', s.tripClass, 'tripClass');
  sketch.mean('inhibitS', s.inhibitS, 'inhibitS');
  sketch.mean('reversePauseS', facts.both ? s.reversePauseS : undefined, 'reversePauseS');
  const restarts = s.powerReturn === 'restart' ? 'followLevel' : 'needFreshEdge';
  sketch.mean('onControlReturn', restarts, 'powerReturn');
  sketch.mean('onMainsReturn', restarts, 'powerReturn');
  sketch.mean('onFaultReset', 'needFreshEdge', 'powerReturn');
  sketch.mean('commandSource', s.startStop === 'keypad' ? 'keypad' : 'terminals', 'startStop');
}
