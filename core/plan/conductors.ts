import type { Job, Size, WireSpec } from '../job/index.js';

type Practice = Job['practice'];
type WireClass = WireSpec['class'];

/**
 * Copper, three loaded cores in conduit or trunking (method B2, 30 °C, PVC), A by mm²: IEC 60364-5-52 table B.52.4.
 * The person confirms the local code.
 */
const mm2Amps: readonly (readonly [number, number])[] = [[1.5, 15], [2.5, 20], [4, 27], [6, 34], [10, 46], [16, 62], [25, 80], [35, 99], [50, 118]]; // prettier-ignore

/** Copper, 75 °C, A by AWG: NFPA 79 table 12.5.1 column for machine wiring in raceway. */
const awgAmps: readonly (readonly [string, number])[] = [['14', 20], ['12', 25], ['10', 35], ['8', 50], ['6', 65], ['4', 85], ['3', 100], ['2', 115], ['1', 130]]; // prettier-ignore

/** Smallest power conductor of the practice's table for a current. */
export function powerSize(practice: Practice, amps: number): Size {
  if (practice === 'IEC') return { mm2: (mm2Amps.find(([, a]) => a >= amps) ?? mm2Amps[mm2Amps.length - 1])[0] };
  return { awg: (awgAmps.find(([, a]) => a >= amps) ?? awgAmps[awgAmps.length - 1])[0] };
}

/** Conductor for a control or signal wire of the practice. */
export function controlSize(practice: Practice, wireClass: WireClass): Size {
  if (practice === 'NFPA') return { awg: wireClass === 'analogue' ? '20' : '16' };
  return { mm2: wireClass === 'analogue' ? 0.5 : 0.75 };
}

/** Protective conductor for a phase conductor (IEC 60364-5-54 table 54.2: as phase to 16 mm², 16 to 35, half above). */
export function peSize(phase: Size): Size {
  if ('awg' in phase) return phase;
  return { mm2: phase.mm2 <= 16 ? phase.mm2 : phase.mm2 <= 35 ? 16 : phase.mm2 / 2 };
}

/** Colour of a conductor: IEC 60204-1 §13.2 with IEC 60445 for phases, or NFPA 79 §13.2. */
export function colourOf(practice: Practice, wireClass: WireClass, line = 0): string {
  const iec: Record<WireClass, readonly string[]> = {
    mains: ['brown', 'black', 'grey'], motor: ['brown', 'black', 'grey'], controlAc: ['red'], controlDc: ['blue'],
    analogue: ['white', 'brown', 'green'], safety: ['blue'], pe: ['green-yellow'],
  }; // prettier-ignore
  const nfpa: Record<WireClass, readonly string[]> = {
    mains: ['black'], motor: ['black'], controlAc: ['red'], controlDc: ['blue'],
    analogue: ['white', 'black', 'clear'], safety: ['blue'], pe: ['green'],
  }; // prettier-ignore
  const list = (practice === 'IEC' ? iec : nfpa)[wireClass];
  return list[line % list.length];
}

/** Cross-section of a size for its resistance, mm². AWG by ASTM B258. */
export function areaOf(size: Size): number {
  if ('mm2' in size) return size.mm2;
  const aught = /^([1-4])\/0$/u.exec(size.awg);
  const gauge = aught ? 1 - Number(aught[1]) : Number(size.awg);
  const diameter = 0.127 * 92 ** ((36 - gauge) / 39);
  return (Math.PI / 4) * diameter * diameter;
}
