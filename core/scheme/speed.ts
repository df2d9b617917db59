import type { Scheme } from '../job/index.js';
import { toBase } from '../units/index.js';
import type { Arrangement, OperationId } from './arrangement.js';
import { STAGE_SUPPLY } from '../parts/index.js';
import type { Sketch } from './sketch.js';
import type { Supplies } from './supplies.js';

/** How a device codes its presets. */
export type PresetCoding = 'binary' | 'priority';

const DIAL_OHM = 5000;

/** Presets that have a switch each, and so can be chosen together. */
export const chosenApart = ({
  presets,
  operations,
}: Pick<Arrangement, 'presets' | 'operations'>): boolean =>
  new Set(presets.map((id) => operations[id]?.device)).size > 1;

/** What gives the reference, and the presets beside it. */
export function speedGiver(
  sketch: Sketch,
  supplies: Supplies,
  s: Scheme,
  { coding, device: deviceId }: { readonly coding: PresetCoding; readonly device: string },
): Pick<Arrangement, 'dial' | 'presets'> {
  const dial = baseReference(sketch, supplies, s, deviceId);
  const presets = s.presetsBy === 'switches' ? presetSwitches : presetSelector;
  return { dial, presets: presets(sketch, s, coding) };
}

/** The speed output of a controller, with the supply that its stage may need. */
function speedSignal(sketch: Sketch, supplies: Supplies, s: Scheme): string {
  const source = sketch.device(
    'controller.speed',
    s.speed === 'voltage' ? 'voltageSource' : 'currentSource',
    'machine',
    s.stageSupply ? { supplied: true } : {},
  );
  if (!s.stageSupply) return source;
  const { plus, minus } = supplies.controller();
  sketch.join(plus, `${source}:${STAGE_SUPPLY[0]}`, 'stage.plus');
  sketch.join(minus, `${source}:${STAGE_SUPPLY[1]}`, 'stage.minus');
  return source;
}

function baseReference(
  sketch: Sketch,
  supplies: Supplies,
  s: Scheme,
  deviceId: string,
): string | undefined {
  const maxHz = s.maxHz ?? 50;
  const input = s.analogueInput === 'second' ? 'ai2' : 'ai1';
  const wish = input === 'ai2' ? 'analogueInput' : 'speed';
  const analogue = (mode: string): void => {
    sketch.mean('referenceSource', input, wish);
    sketch.mean(`${input}.mode`, mode, wish);
    sketch.mean(`${input}.lowPct`, 0, 'speed');
    sketch.mean(`${input}.highPct`, 100, 'speed');
    sketch.mean(`${input}.hzAtLow`, 0, 'speed');
    sketch.mean(`${input}.hzAtHigh`, maxHz, 'maxHz');
  };
  switch (s.speed) {
    case 'dial': {
      const dial = sketch.device('dial.speed', 'potentiometer', 'station', {
        ohm: s.dialOhm ? toBase(s.dialOhm, 'resistance') : DIAL_OHM,
      });
      sketch.join('reference10', '@reference10', 'dial.high', 'analogue');
      sketch.join('reference10', `${dial}:3`, 'dial.high', 'analogue');
      sketch.join('wiper', `${dial}:2`, 'dial.wiper', 'analogue');
      sketch.join('wiper', `@${input}`, 'dial.wiper', 'analogue');
      sketch.join('analogueCommon', '@analogueCommon', 'dial.low', 'analogue');
      sketch.join('analogueCommon', `${dial}:1`, 'dial.low', 'analogue');
      analogue('0-10V');
      return dial;
    }
    case 'voltage':
    case 'current': {
      const source = speedSignal(sketch, supplies, s);
      sketch.join('signal', `${source}:+`, 'signal.plus', 'analogue');
      sketch.join('signal', `@${input}`, 'signal.plus', 'analogue');
      sketch.join('analogueCommon', '@analogueCommon', 'signal.minus', 'analogue');
      sketch.join('analogueCommon', `${source}:-`, 'signal.minus', 'analogue');
      analogue(s.speed === 'voltage' ? '0-10V' : '4-20mA');
      return source;
    }
    case 'panelDial':
      sketch.mean('referenceSource', 'panelDial', 'speed');
      return deviceId;
    case 'upDown':
      sketch.mean('referenceSource', 'motorPot', 'speed');
      for (const way of ['up', 'down'] as const) {
        const button = sketch.device(`button.${way}`, 'startButton');
        sketch.series('feed', [[button, '13', '14']], way, way);
        sketch.input(way, way, button, 'speed', way);
        sketch.operation(way, button);
      }
      return undefined;
    case 'presets':
      sketch.mean('referenceSource', 'preset', 'speed');
      return undefined;
    case 'keypad':
    default:
      // Until somebody says where the speed comes from, the keypad gives it: a circuit that never turns would hide its hazards.
      sketch.mean('referenceSource', 'keypad', 'speed');
      return undefined;
  }
}

/**
 * Combination of preset inputs for a choice. Where presets are the only reference the first one is the base (no input
 * closed); beside another reference combination 0 is that reference.
 *
 * @param preset 1 … n
 * @returns which bits are closed
 */
export function presetBits(preset: number, coding: PresetCoding, base: boolean): number[] {
  if (base && preset === 1) return [];
  if (coding === 'priority') return [preset - 1];
  return [0, 1, 2, 3, 4].filter((bit) => (preset >> bit) & 1);
}

/**
 * A switch for each preset, beside another speed. Each closes one input, so a device that counts its inputs in powers of two
 * can have two of them; both together choose the third preset there, which then holds the lower of the two.
 */
function presetSwitches(sketch: Sketch, s: Scheme, coding: PresetCoding): OperationId[] {
  const presets = s.presetsHz ?? [];
  if (s.speed === 'presets') sketch.conflict(['presetsBy', 'speed'], 'switchesBesideSpeed');
  const bits = presets.map((_, i) => presetBits(i + 1, coding, false));
  if (bits.some((closed) => closed.length > 1)) {
    sketch.conflict(['presetsBy', 'presetsHz'], 'switchesNeedOneInput');
    return [];
  }
  presets.forEach((hz, i) => sketch.mean(`preset.${i + 1}`, hz, 'presetsHz'));
  if (coding === 'binary' && presets.length === 2)
    sketch.mean('preset.3', Math.min(...presets), 'presetsHz');
  return bits.map(([bit], i) => {
    const id = `preset.bit${bit as 0 | 1 | 2 | 3 | 4}` as const;
    const device = sketch.device(`switch.preset.${i + 1}`, 'selectorOffOn');
    sketch.series('feed', [[device, '13', '14']], id, id);
    sketch.input(id, `presetBit${bit as 0 | 1 | 2 | 3 | 4}`, device, 'presetsHz', id);
    return sketch.operation(`preset.${i + 1}` as const, device);
  });
}

function presetSelector(sketch: Sketch, s: Scheme, coding: PresetCoding): OperationId[] {
  const presets = s.presetsHz ?? [];
  if (presets.length === 0) {
    if (s.speed === 'presets') sketch.conflict(['speed', 'presetsHz'], 'presetsNeedValues');
    return [];
  }
  const base = s.speed === 'presets';
  const positions = presets.map((_, i) => String(i + 1));
  const choices = base ? positions : ['0', ...positions];
  const bits = ([0, 1, 2, 3, 4] as const).filter((bit) =>
    positions.some((p) => presetBits(Number(p), coding, base).includes(bit)),
  );
  const contacts = bits.map((bit, i) => ({
    a: `${i + 1}3`,
    b: `${i + 1}4`,
    closedIn: choices.filter((p) => p !== '0' && presetBits(Number(p), coding, base).includes(bit)),
  }));
  const more = { positions: choices, contacts };
  const device = sketch.device('select.preset', 'presetSelector', 'station', {}, more);
  bits.forEach((bit, i) => {
    const id = `preset.bit${bit}`;
    sketch.series('feed', [[device, `${i + 1}3`, `${i + 1}4`]], id, id);
    sketch.input(id, `presetBit${bit}`, device, 'presetsHz', id);
  });
  presets.forEach((hz, i) => sketch.mean(`preset.${i + 1}`, hz, 'presetsHz'));
  return positions.map((p) => sketch.operation(`preset.${p}` as const, device, p));
}
