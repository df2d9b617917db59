import type { Profile } from '../catalogue/index.js';
import { parts } from '../parts/index.js';
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
const asPlannedLeads: MotorLeads = { order: 1, missing: [] };

/**
 * Order in which the outputs reach the motor. The output stage and the motor's leads are no part of the network of the mains
 * frequency: the direction follows from the parity of the closed edges.
 *
 * @param motor id of the motor
 * @example motorLeads(panel, profile, 'motor').order // −1 when V and W are exchanged
 */
export function motorLeads(panel: Panel, profile: Profile, motor: string): MotorLeads {
  if (!panel.devices[motor]) return asPlannedLeads;
  const nets = netsOf(panel, polesOf(panel));
  const outputs = phases.flatMap((phase) =>
    Object.entries(profile.terminals).flatMap(([id, t]) =>
      t.kind === 'motor' && t.phase === phase ? [`${panel.device}:${id}`] : [],
    ),
  );
  if (outputs.length !== 3) return asPlannedLeads;
  const reached = phases.map((phase) =>
    outputs.flatMap((at, i) => (nets.joined(at, `${motor}:${phase}`) ? [i] : [])),
  );
  const missing = phases.filter((_, i) => reached[i].length !== 1);
  const order = reached.map(([i]) => i);
  if (missing.length > 0 || new Set(order).size < 3) return { order: 0, missing };
  const even = (order[1] - order[0] + 3) % 3 === 1;
  return { order: even ? 1 : -1, missing: [] };
}

/** Poles of contactors and filters that motor leads land on: closed they are part of the way. */
function polesOf({ devices, wires }: Panel): (readonly [string, string])[] {
  const landed = new Set(
    Object.values(wires).flatMap((w) => (w.class === 'motor' ? [w.from, w.to] : [])),
  );
  return Object.entries(devices).flatMap(([id, part]) =>
    [
      ...(parts[part.kind]?.coil?.makes ?? []),
      ...(parts[part.kind]?.through?.(part) ?? []),
    ].flatMap(([a, b]) =>
      landed.has(`${id}:${a}`) && landed.has(`${id}:${b}`)
        ? [[`${id}:${a}`, `${id}:${b}`] as const]
        : [],
    ),
  );
}
