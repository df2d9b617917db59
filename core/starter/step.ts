import { changesBy, shortSeenUs, takesOver, unasked } from './broken.js';
import { levelAsked, waitsUntil } from './command.js';
import { us, type StarterCore, type StarterInputs } from './core.js';
import { coolUs } from './heat.js';
import { off } from './let-go.js';
import { goesOn, phases, slowing, standing, starting } from './motion.js';
import type { Heat, StarterState } from './state.js';
import type { StarterControl, StarterLevels } from './vocabulary.js';
import { edgesOf, watchControl, watchFaults, watchReset, watchTerminals } from './watch.js';

const cold: Heat = { value: 0, atUs: 0, toward: 0, tauS: 1 };

/** State at t = 0 with inputs that have been steady for ever; a run level present then follows `onControlReturn`. */
export function initialStarter(control: StarterControl, levels: StarterLevels): StarterState {
  const fed = levels.controlSupply === 1;
  return {
    levels,
    control: fed ? 'on' : 'off',
    readyUs: 0,
    fault: null,
    needFresh: fed && levelAsked(control, levels) && control.onControlReturn === 'needFreshEdge',
    latch: 0,
    firstDirection: levels.forward === levels.reverse ? 0 : levels.forward ? 1 : -1,
    motion: off,
    unfedUs: -Infinity,
    lastDirection: 0,
    rotation: 1,
    missingUs: Infinity,
    phaseUs: Infinity,
    stopReturnedUs: -Infinity,
    resetsLeft: control.autoResetAttempts,
    autoResetUs: Infinity,
    heat: cold,
    lineAskedUs: Infinity,
    shortUs: Infinity,
  };
}

function same(a: StarterState, b: StarterState): boolean {
  for (const key in b)
    if (a[key as keyof StarterState] !== b[key as keyof StarterState]) return false;
  return true;
}

/** The command logic one moment on; the same object where nothing changed. */
export function stepStarter(
  core: StarterCore,
  before: StarterState,
  inputs: StarterInputs,
  t: number,
): StarterState {
  const edges = edgesOf(before.levels, inputs.levels);
  const { levels, rotation } = inputs;
  let s: StarterState =
    before.levels === levels && before.rotation === rotation
      ? before
      : { ...before, levels, rotation };
  s = watchControl(core, s, inputs, t);
  if (s.control === 'on') {
    s = watchTerminals(core, s, edges, t);
    s = watchFaults(core, s, inputs, t);
    s = watchReset(core, s, edges, inputs, t);
    s = phases(core, s, before, inputs, t);
    const m = s.motion;
    if (m.kind === 'start') s = starting(core, s, m, inputs, t);
    else if (m.kind === 'softStop' || m.kind === 'brake') s = slowing(core, s, m, inputs, t);
    if (s.motion.kind === 'off' || s.motion.kind === 'coast') s = standing(core, s, inputs, t);
    if (takesOver(core, s)) s = goesOn(core, s, inputs, t);
  }
  s = unasked(core, s, inputs, t);
  return same(before, s) ? before : s;
}

/** Next moment at which the logic changes by itself. */
export function wakeStarter(core: StarterCore, s: StarterState, t: number): number {
  const { control } = core;
  const m = s.motion;
  const due: number[] = [];
  if (s.control === 'startingUp') due.push(s.readyUs);
  if (m.kind === 'start')
    due.push(m.run.kickUs, m.run.fullUs, m.run.bypassUs, m.run.tripUs, m.limitUs);
  if (m.kind === 'softStop' || m.kind === 'brake') due.push(m.endUs);
  if (m.kind === 'off' || m.kind === 'coast') {
    due.push(waitsUntil(control, s, 1), waitsUntil(control, s, -1));
    due.push(s.lineAskedUs + us(control.contactorMs / 1000));
  }
  if (control.onRunWithoutMains === 'faultAfter') due.push(s.missingUs + us(control.mainsMissingS));
  due.push(s.phaseUs + us(control.phaseLossMs / 1000), s.autoResetUs);
  if (m.kind === 'unasked') due.push(m.run.tripUs);
  if (changesBy(core, s)) due.push(t + 1);
  due.push(shortSeenUs(s));
  if (s.fault === 'overload') due.push(coolUs(s.heat, 1));
  let next = Infinity;
  for (const at of due) if (at > t && at < next) next = at;
  return next;
}
