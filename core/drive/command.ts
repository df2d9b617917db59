import type { Control, InputName, Levels } from './vocabulary.js';
import type { Direction, DriveState } from './state.js';

/** Why a demand is not followed. */
export type Refusal =
  | 'stopOpen'
  | 'needFreshEdge'
  | 'wrongPlace'
  | 'noReverse'
  | 'enableOpen'
  | 'inhibited'
  | 'zeroReference'
  | 'noMains'
  | 'bothDirections'
  | 'startsTogether';

/** What the command logic wants of the output stage. */
export interface Command {
  readonly direction: Direction;
  readonly jog: boolean;
  readonly block: Refusal | null;
}

export type Edges = Readonly<Partial<Record<InputName, 'rise' | 'fall'>>>;

export const isPulse = (control: Control): boolean => control.startMethod.startsWith('pulse');

/** The place that commands: the keypad while local is selected, otherwise the chosen source. */
export function commandPlace(control: Control, levels: Levels): 'keypad' | 'terminals' {
  return levels.local === 1 || control.commandSource === 'keypad' ? 'keypad' : 'terminals';
}

/** Run demands at the terminals: forward, reverse, run, a jog task or a held start; never direction or presets. */
export function terminalDemand(control: Control, l: Levels): boolean {
  if (l.jogForward || l.jogReverse) return true;
  switch (control.startMethod) {
    case 'levelForwardReverse':
      return l.forward === 1 || l.reverse === 1;
    case 'levelRunDirection':
      return l.run === 1;
    case 'pulseStartStopDirection':
      return l.start === 1;
    case 'pulseForwardReverseStop':
      return l.startForward === 1 || l.startReverse === 1;
  }
}

/** Any run demand that the commanding place could follow. */
export function anyDemand(
  control: Control,
  s: Pick<DriveState, 'levels' | 'keypadLatch'>,
): boolean {
  return commandPlace(control, s.levels) === 'keypad'
    ? s.keypadLatch !== 0 || s.levels.keypadStart === 1
    : terminalDemand(control, s.levels);
}

/** Direction that level inputs ask for, and why they ask for none. */
function levelDirection(
  control: Control,
  s: DriveState,
): { direction: Direction; block: Refusal | null } {
  const l = s.levels;
  if (control.startMethod === 'levelRunDirection')
    return { direction: l.run ? (l.direction ? -1 : 1) : 0, block: null };
  if (l.forward && l.reverse) {
    const first = control.onBothDirections === 'firstWins' ? s.firstDirection : 0;
    return { direction: first, block: first === 0 ? 'bothDirections' : null };
  }
  return { direction: l.forward ? 1 : l.reverse ? -1 : 0, block: null };
}

function terminalDirection(
  control: Control,
  s: DriveState,
): { direction: Direction; block: Refusal | null } {
  const l = s.levels;
  if (l.stop === 0) return { direction: 0, block: terminalDemand(control, l) ? 'stopOpen' : null };
  if (s.carried !== 0) return { direction: s.carried, block: null };
  if (!isPulse(control)) return levelDirection(control, s);
  if (s.latch === 0)
    return {
      direction: 0,
      block: s.startsTogether
        ? 'startsTogether'
        : l.startReverse && control.noReverse
          ? 'noReverse'
          : null,
    };
  return {
    direction: control.startMethod === 'pulseStartStopDirection' ? (l.direction ? -1 : 1) : s.latch,
    block: null,
  };
}

function jogDirection(control: Control, s: DriveState, running: boolean): Direction {
  const l = s.levels;
  const asked: Direction = l.jogForward === l.jogReverse ? 0 : l.jogForward ? 1 : -1;
  if (asked === 0 || l.stop === 0 || s.jogRefused) return 0;
  return running && control.jogWhileRunning === 'ignored' ? 0 : asked;
}

/**
 * Resolves who commands and what is wanted. Order of priority: fault > enable and inhibit > stop > jog > run.
 *
 * @param s state with the levels in force
 * @param enabled whether enables, inhibit, link and fault allow an output at all, and why not
 */
export function resolveCommand(control: Control, s: DriveState, enabled: Refusal | null): Command {
  const keypad = commandPlace(control, s.levels) === 'keypad';
  let want: { direction: Direction; block: Refusal | null };
  let jog: Direction = 0;
  if (keypad) {
    const stopped = s.levels.stop === 0 && control.terminalStopUnderKeypad === 'acts';
    want = stopped
      ? { direction: 0, block: s.levels.keypadStart ? 'stopOpen' : null }
      : { direction: s.carried || s.keypadLatch, block: null };
    if (want.direction === 0 && !want.block && terminalDemand(control, s.levels))
      want = { direction: 0, block: 'wrongPlace' };
  } else {
    want = terminalDirection(control, s);
    jog = jogDirection(control, s, want.direction !== 0 && !s.needFresh && isRunning(s));
    if (want.direction === 0 && !want.block && s.levels.keypadStart)
      want = { direction: 0, block: 'wrongPlace' };
  }
  const direction = jog || want.direction;
  const demanded = direction !== 0 || (want.block === null && s.needFresh && anyDemand(control, s));
  if (!demanded) return { direction: 0, jog: false, block: want.block };
  const block =
    enabled ??
    (s.needFresh ? 'needFreshEdge' : direction < 0 && control.noReverse ? 'noReverse' : null);
  return block ? { direction: 0, jog: false, block } : { direction, jog: jog !== 0, block: null };
}

/** The output stage follows a run command now. */
export function isRunning(s: DriveState): boolean {
  const m = s.motion;
  return (m.kind === 'ramp' || m.kind === 'pause') && m.purpose === 'run';
}

/** The reference in force, Hz ≥ 0, before limits: jog select, then preset, then the base reference. */
export function referenceHz(control: Control, s: DriveState): number {
  const l = s.levels;
  if (l.jogReferenceSelect) return control.jogHz;
  const bits = [l.presetBit0, l.presetBit1, l.presetBit2, l.presetBit3, l.presetBit4];
  const number =
    control.presetCoding === 'binary'
      ? bits.reduce<number>((sum, bit, i) => sum + bit * 2 ** i, 0)
      : bits.lastIndexOf(1) + 1;
  const preset = control.presetsHz[number - 1];
  if (preset !== undefined) return preset;
  if (l.local || control.referenceSource === 'keypad')
    return control.keypadHz === undefined ? s.referenceHz : s.keypadHz;
  if (control.referenceSource === 'motorPot') return s.potHz;
  if (control.referenceSource === 'preset') return control.presetsHz[0] ?? 0;
  if (s.referenceLost)
    return control.onReferenceLoss === 'preset'
      ? (control.presetsHz[0] ?? 0)
      : control.onReferenceLoss === 'stop'
        ? 0
        : s.heldHz;
  return s.referenceHz;
}

/**
 * Frequency the output is to rest at: the reference between the limits and outside every skip band. Inside a band the
 * edge it approached from is held until the reference leaves the far edge.
 *
 * @param fromHz size of the frequency it comes from
 */
export function limitedHz(control: Control, reference: number, fromHz: number): number {
  if (control.belowMin === 'sleep' && reference < control.minHz) return 0;
  let hz = Math.min(Math.max(reference, control.minHz), control.maxHz);
  for (const [low, high] of control.skipBandsHz)
    if (hz > low && hz < high) hz = fromHz >= high ? high : low;
  return hz;
}
