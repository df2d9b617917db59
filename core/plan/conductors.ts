import type { Job, Size, WireSpec } from '../job/index.js';
import { ampacityTables, peSize as peSizeOf, type AmpacityTable } from '../line/index.js';

type Practice = Job['practice'];
type WireClass = WireSpec['class'];

/** Smallest power conductor for a current: in conduit or trunking (B2, 30 °C), or copper at 75 °C. The person confirms the local code. */
export function powerSize(practice: Practice, amps: number): Size {
  const table = ampacityTables.find(
    (t) => t.name === (practice === 'IEC' ? 'iecB2' : 'nec75'),
  ) as AmpacityTable;
  const [size] = table.amps.find(([, a]) => a >= amps) ?? table.amps[table.amps.length - 1];
  return typeof size === 'number' ? { mm2: size } : { awg: size };
}

/** Conductor for a control or signal wire of the practice. */
export function controlSize(practice: Practice, wireClass: WireClass): Size {
  if (practice === 'NFPA') return { awg: wireClass === 'analogue' ? '20' : '16' };
  return { mm2: wireClass === 'analogue' ? 0.5 : 0.75 };
}

/**
 * Protective conductor for a phase conductor (IEC 60364-5-54 table 54.2: as phase to 16 mm², 16 to 35, half above).
 *
 * @param reinforced leakage above 3.5 mA goes through it: at least 10 mm² (IEC 61800-5-1:2007 §4.3.5.5.2)
 */
export function peSize(phase: Size, reinforced = false): Size {
  if ('awg' in phase) return phase;
  return { mm2: peSizeOf.run({ phaseMm2: phase.mm2, reinforced }).peMm2 };
}

/**
 * Colour of a conductor: IEC 60204-1 §13.2 with IEC 60445 for phases, or NFPA 79 §13.2.
 *
 * @param staysLive the circuit is tapped ahead of the supply disconnecting device
 * @example colourOf('IEC', 'controlAc', 0, true) // 'orange'
 */
export function colourOf(
  practice: Practice,
  wireClass: WireClass,
  line = 0,
  staysLive = false,
): string {
  if (staysLive && wireClass === 'controlAc') return 'orange';
  const iec: Record<WireClass, readonly string[]> = {
    mains: ['brown', 'black', 'grey'],
    motor: ['brown', 'black', 'grey'],
    controlAc: ['red'],
    controlDc: ['blue'],
    analogue: ['white', 'brown', 'green'],
    safety: ['blue'],
    pe: ['green-yellow'],
    neutral: ['light blue'],
    screen: ['bare'],
  };
  const nfpa: Record<WireClass, readonly string[]> = {
    mains: ['black'],
    motor: ['black'],
    controlAc: ['red'],
    controlDc: ['blue'],
    analogue: ['white', 'black', 'clear'],
    safety: ['blue'],
    pe: ['green'],
    neutral: ['white'],
    screen: ['bare'],
  };
  const list = (practice === 'IEC' ? iec : nfpa)[wireClass];
  return list[line % list.length];
}
