import { coilKinds, contactKind, loadKinds } from '../../parts/index.js';
import { landingParts, sortedEntries, type AdoptedWire, type Job } from '../../job/index.js';

/** Single faults of the safety-relevant kinds: a wire open or shorted to a potential, a contact stuck closed. */
export type FaultKind = 'open' | 'to24' | 'to0' | 'toLine' | 'toNeutral' | 'welded';

/** When the fault comes: it may be harmless before power-up and start the motor while it stands. */
export const moments = ['beforePower', 'stopped', 'running', 'stopping'] as const;
export type Moment = (typeof moments)[number];

/** What a fault does, from harmless to gravest. */
export const faultClasses = [
  'noEffect',
  'failsSafe',
  'hidden',
  'losesFunction',
  'wrongDirectionOrSpeed',
  'losesStop',
  'startsByItself',
] as const;
export type FaultClass = (typeof faultClasses)[number];

export interface SweepFault {
  readonly key: string;
  readonly kind: FaultKind;
  /** Wire id, or device id of a contact. */
  readonly subject: string;
  readonly wire?: string;
  /** Landings that the fault joins; none for an open wire. */
  readonly joins?: readonly [string, string];
}

export interface SweepRow {
  readonly fault: SweepFault;
  readonly worst: FaultClass;
  /** The first moment at which the worst shows. */
  readonly moment: Moment;
  readonly at: Readonly<Record<Moment, FaultClass>>;
}

/** Landings of the potentials to which wires of a kind are shorted. */
export interface Potentials {
  readonly to24?: string;
  readonly to0?: string;
  readonly toLine?: string;
  readonly toNeutral?: string;
}

const shorts = (wire: AdoptedWire): readonly (keyof Potentials)[] =>
  wire.class === 'controlAc' ? ['toLine', 'toNeutral'] : ['to24', 'to0'];

/**
 * Every fault that is swept: control, safety and signal wires open and shorted to the potentials of their circuit,
 * contacts of the station and of relays stuck closed, protective conductors open. A wire that lies on a potential anyway
 * is still named: that it has no effect is an answer.
 */
export function sweepFaults(job: Job, potentials: Potentials): SweepFault[] {
  const { adopted } = job;
  if (!adopted) return [];
  const faults: SweepFault[] = [];
  for (const [id, wire] of sortedEntries(adopted.wires)) {
    if (wire.class === 'pe')
      faults.push({ key: `open:${id}`, kind: 'open', subject: id, wire: id });
    if (!['controlDc', 'analogue', 'safety', 'controlAc'].includes(wire.class)) continue;
    faults.push({ key: `open:${id}`, kind: 'open', subject: id, wire: id });
    for (const kind of shorts(wire)) {
      const potential = potentials[kind];
      if (potential)
        faults.push({
          key: `${kind}:${id}`,
          kind,
          subject: id,
          wire: id,
          joins: [wire.to, potential],
        });
    }
  }
  for (const [id, device] of sortedEntries(adopted.devices)) {
    const kind = contactKind(device.kind, device.params);
    const pairs =
      kind && kind.workedBy !== 'supply'
        ? kind.contacts.map(({ a, b }) => [a, b] as const)
        : (coilKinds[device.kind]?.makes ?? []);
    for (const [a, b] of pairs) {
      const joins = [`${id}:${a}`, `${id}:${b}`] as const;
      if (joins.every((end) => isWired(job, end)))
        faults.push({ key: `welded:${id}:${a}`, kind: 'welded', subject: id, joins });
    }
  }
  return faults;
}

function isWired(job: Job, landing: string): boolean {
  return Object.values(job.adopted?.wires ?? {}).some(
    (w) => w.from === landing || w.to === landing,
  );
}

/** A wire that only feeds what shows something or what the device works: no further fault can make it worse for the motor. */
export function feedsOnlyShows(job: Job, fault: SweepFault): boolean {
  const { wires = {}, devices = {} } = job.adopted ?? {};
  const wire = fault.wire ? wires[fault.wire] : undefined;
  const shows = (id: string): boolean =>
    id in devices &&
    (devices[id].kind in loadKinds || devices[id].kind === 'brake' || id === 'contactor.brake');
  return wire
    ? [wire.from, wire.to].some((end) => shows(landingParts(end).device))
    : shows(fault.subject);
}

/** Net of every landing that a wire reaches: landings joined by wires alone share one. */
export function wireNets(job: Job): ReadonlyMap<string, string> {
  const root = new Map<string, string>();
  const find = (at: string): string => {
    const up = root.get(at) ?? at;
    return up === at ? at : find(up);
  };
  for (const { from, to } of Object.values(job.adopted?.wires ?? {})) {
    for (const end of [from, to]) if (!root.has(end)) root.set(end, end);
    root.set(find(from), find(to));
  }
  return new Map([...root.keys()].map((at) => [at, find(at)]));
}

/** Two faults that can act on each other: on one potential, at one device, or both stuck contacts. */
export function areNeighbours(job: Job, x: SweepFault, y: SweepFault): boolean {
  if (x.kind === 'welded' && y.kind === 'welded') return true;
  const wires = job.adopted?.wires ?? {};
  const reach = (
    f: SweepFault,
  ): { potentials: (string | undefined)[]; devices: (string | undefined)[] } => {
    const wire = f.wire ? wires[f.wire] : undefined;
    if (!wire) return { potentials: [], devices: [f.subject] };
    return {
      potentials: [wire.potential],
      devices: [wire.from, wire.to]
        .map((end) => landingParts(end).device)
        .filter((d) => d !== 'drive'),
    };
  };
  const [a, b] = [reach(x), reach(y)];
  return (
    a.potentials.some((p) => b.potentials.includes(p)) ||
    a.devices.some((d) => b.devices.includes(d))
  );
}
