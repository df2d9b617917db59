import type { Profile } from '../catalogue/index.js';
import { contactsOf, parts } from '../parts/index.js';
import { netsOf } from './nets.js';
import type { Panel } from './panel.js';

/** How the outputs of the device reach the motor. */
export interface MotorLeads {
  /** 1 in order, −1 with two exchanged, 0 where one is missing or two are joined. */
  readonly order: 1 | -1 | 0;
  /** Terminals of the motor that no single output reaches. */
  readonly missing: readonly string[];
}

const phases = ['U', 'V', 'W'] as const;
/**
 * Leads of a motor by name, those of its second winding ends left out.
 *
 * @example leadsOf(panel.devices['motor']) // ['U', 'V', 'W']
 */
export const leadsOf = (motor: Panel['devices'][string] | undefined): string[] =>
  phases.map((phase) => (motor?.params['leads'] === 6 ? `${phase}1` : phase));

const asPlannedLeads: MotorLeads = { order: 1, missing: [] };

/**
 * Order in which the outputs reach the motor. The output stage and the motor's leads are no part of the network of the mains
 * frequency: the direction follows from the parity of the closed edges.
 *
 * @param motor id of the motor
 * @example motorLeads(panel, profile, 'motor').order // −1 when V and W are exchanged
 */
export function motorLeads(panel: Panel, profile: Profile, motor: string): MotorLeads {
  const part = panel.devices[motor];
  if (!part) return asPlannedLeads;
  const nets = netsOf(panel, polesOf(panel));
  const ends = (kind: 'motor' | 'mains', names: readonly string[]): string[] =>
    names.flatMap((phase) =>
      Object.entries(profile.terminals).flatMap(([id, t]) =>
        t.kind === kind && t.phase === phase ? [`${panel.device}:${id}`] : [],
      ),
    );
  const outputs = ends('motor', phases);
  if (outputs.length !== 3) return asPlannedLeads;
  const reach = (at: readonly string[], terminal: string): number[] =>
    at.flatMap((end, i) => (nets.joined(end, `${motor}:${terminal}`) ? [i] : []));
  const six = part.params['leads'] === 6;
  const first = leadsOf(part);
  const reached = first.map((terminal) => reach(outputs, terminal));
  const missing = first.filter((_, i) => reached[i].length !== 1);
  const order = reached.map(([i]) => i);
  if (six) missing.push(...unclosed(order, (t) => reach(ends('mains', ['L1', 'L2', 'L3']), t)));
  if (missing.length > 0 || new Set(order).size < 3) return { order: 0, missing };
  const even = (order[1] - order[0] + 3) % 3 === 1;
  return { order: even ? 1 : -1, missing: [] };
}

/**
 * Second ends of windings that do not lie at the phase after that of their pole: the delta is not closed as its poles fire, and
 * a winding whose both ends lie at one phase is a short through its pole.
 */
function unclosed(order: readonly number[], reach: (terminal: string) => number[]): string[] {
  return phases
    .map((phase) => `${phase}2`)
    .filter((terminal, i) => {
      const at = reach(terminal);
      return at.length !== 1 || at[0] !== (order[i] + 1) % 3;
    });
}

/** Poles of contactors, isolators and filters that motor leads land on: closed they are part of the way. */
function polesOf({ devices, wires }: Panel): (readonly [string, string])[] {
  const landed = new Set(
    Object.values(wires).flatMap((w) => (w.class === 'motor' ? [w.from, w.to] : [])),
  );
  return Object.entries(devices).flatMap(([id, part]) =>
    [
      ...(parts[part.kind]?.coil?.makes ?? []),
      ...(parts[part.kind]?.through?.(part) ?? []),
      ...(contactsOf(part)?.contacts.map(({ a, b }) => [a, b] as const) ?? []),
    ].flatMap(([a, b]) =>
      landed.has(`${id}:${a}`) && landed.has(`${id}:${b}`)
        ? [[`${id}:${a}`, `${id}:${b}`] as const]
        : [],
    ),
  );
}
