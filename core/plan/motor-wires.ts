import type { Size, WireSpec } from '../job/index.js';
import { PROTECTIVE, THREE_LEADS } from '../parts/index.js';
import { lineIds } from '../scheme/index.js';
import type { RoutedWire } from './route.js';

/** Makes a wire between two landings, by its function and class. */
export type Wire = (
  ends: readonly [string, string],
  name: string,
  wireClass: WireSpec['class'],
  more: { size: Size; lengthM?: number; line?: number; cable?: string; core?: string },
) => RoutedWire;

/** What leads are laid with: the terminals of the device, and the making of a wire. */
export interface LeadsLaid {
  readonly at: (kind: 'mains' | 'motor', phase: string) => string | undefined;
  readonly wire: Wire;
}

interface MotorCable {
  readonly cable: string;
  readonly lengthM: number;
}

/** Short cable from an isolator at the machine to its motor, m. */
const BEHIND_ISOLATOR = { cable: 'W8', lengthM: 3 } as const;

/** What the leads of a motor pass, each where it is there: a filter, a contactor, an isolator at the machine. */
interface MotorWay {
  readonly outputs: string | undefined;
  readonly contactor: string | undefined;
  readonly far: string | undefined;
}

/** The three leads of a motor, over a filter behind the device and an isolator at the machine where they are there. */
export function lineLeads(
  { at, wire }: LeadsLaid,
  size: Size,
  cable: MotorCable,
  { outputs, contactor, far }: MotorWay,
): RoutedWire[] {
  return THREE_LEADS.flatMap((phase, line): RoutedWire[] => {
    const from = at('motor', phase);
    if (!from) return [];
    const [into, out] = [2 * line + 1, 2 * line + 2];
    const end = `${lineIds.motor}:${phase}`;
    const behind = outputs ? `${outputs}:${out}` : from;
    const last = contactor ? `${contactor}:${out}` : behind;
    const more = { size, line, core: String(line + 1), ...cable };
    const filter = outputs
      ? [wire([from, `${outputs}:${into}`], `output.${phase}`, 'motor', { size, line })]
      : [];
    if (contactor)
      filter.push(
        wire([behind, `${contactor}:${into}`], `outputContactor.${phase}`, 'motor', { size, line }),
      );
    if (!far) return [...filter, wire([last, end], `motor.${phase}`, 'motor', more)];
    return [
      ...filter,
      wire([last, `${far}:${into}`], `motorIsolator.${phase}`, 'motor', more),
      wire([`${far}:${out}`, end], `motor.${phase}`, 'motor', { ...more, ...BEHIND_ISOLATOR }),
    ];
  });
}

/** Protective conductor of the motor in its cable, looped through at the isolator beside it. */
export function motorBond(
  wire: Wire,
  [from, to]: readonly [string, string],
  isolator: string | undefined,
  on: { size: Size; cable: string; lengthM: number },
): RoutedWire[] {
  const core = PROTECTIVE;
  if (!isolator) return [wire([from, to], 'motor.PE', 'pe', { ...on, core })];
  const loop = `${isolator}:${PROTECTIVE}`;
  return [
    wire([from, loop], `pe.${isolator}`, 'pe', { ...on, core }),
    wire([loop, to], 'motor.PE', 'pe', { ...on, ...BEHIND_ISOLATOR, core }),
  ];
}

/** Cable of the second ends of the windings. */
const SECOND_ENDS = 'W9';

/**
 * The six leads of a motor whose windings lie in series with the poles: the first end of each behind its pole, the second at
 * the next phase of the supply, so that the delta is closed over the terminals of the device.
 */
export function deltaLeads({ at, wire }: LeadsLaid, size: Size, cable: MotorCable): RoutedWire[] {
  const lines = ['L1', 'L2', 'L3'];
  return THREE_LEADS.flatMap((phase, line) => {
    const pole = at('motor', phase);
    const next = at('mains', lines[(line + 1) % 3]);
    if (!pole || !next) return [];
    const lead = (from: string, end: 1 | 2, of: number): RoutedWire =>
      wire([from, `${lineIds.motor}:${phase}${end}`], `motor.${phase}${end}`, 'motor', {
        size,
        line: of,
        core: String(line + 1),
        ...cable,
        // A cable of three phases has no core for the second ends: they have one of their own.
        ...(end === 2 ? { cable: SECOND_ENDS } : {}),
      });
    return [lead(pole, 1, line), lead(next, 2, (line + 1) % 3)];
  });
}
