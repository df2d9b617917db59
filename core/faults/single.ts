import { insideFailures, type Profile } from '../catalogue/index.js';
import type { Installation, Panel } from '../installation/index.js';
import { sortedEntries, type AdoptedWire, type Fault } from '../job/index.js';
import { contactsOf, MAIN_POLES, parts } from '../parts/index.js';
import { alternatingPotentials } from '../scheme/index.js';
import type { SwitchedFault } from './switches.js';

/** Landings of the potentials to which wires of a kind are shorted. */
export interface Potentials {
  readonly to24: string | undefined;
  readonly to0: string | undefined;
  readonly toLine: string | undefined;
  readonly toNeutral: string | undefined;
}

/** Something inside a part: the poles of a contactor, or what of the device itself fails. */
export type InsidePart = Extract<Fault, { kind: 'part' }>;

/** A fault that is swept, with what it is about. */
export interface SweptFault {
  /** The same from run to run: kind and wire, or kind and contact. */
  readonly key: string;
  /** What it is, as a code for words. */
  readonly kind: 'open' | 'loose' | 'welded' | keyof Potentials | InsidePart['what'];
  /** Wire id, or device id of a contact or a part. */
  readonly subject: string;
  readonly fault: SwitchedFault | InsidePart | LooseJoint;
  /** Wire it is about; undefined for a contact or a part. */
  readonly wire?: string;
}

/** A terminal that does not hold its conductors. */
export type LooseJoint = Extract<Fault, { kind: 'loose' }>;

/** A fault that a switch of one edge brings about. */
export type SweptEdge = SweptFault & { readonly fault: SwitchedFault };

/** Classes of wire that carry a signal, a stop or a command: what is swept. */
const sweptClasses: readonly AdoptedWire['class'][] = [
  'controlDc',
  'analogue',
  'safety',
  'controlAc',
];

/**
 * Every single fault of the safety-relevant kinds: control, safety and signal wires open and shorted to the potentials of
 * their circuit, contacts of the station and of relays stuck closed, protective conductors open. A wire that lies on a
 * potential anyway is still named: that it has no effect is an answer.
 */
export function singleFaults(panel: Panel, potentials: Potentials): SweptEdge[] {
  const wires = sortedEntries(panel.wires).flatMap(([id, wire]): SweptEdge[] => {
    const about = (kind: SweptEdge['kind']) => ({
      key: `${kind}:${id}`,
      kind,
      subject: id,
      wire: id,
    });
    const open: SweptEdge = { ...about('open'), fault: { kind: 'open', wire: id } };
    if (wire.class === 'pe') return [open];
    if (!sweptClasses.includes(wire.class)) return [];
    const to: readonly (keyof Potentials)[] =
      wire.class === 'controlAc' ? ['toLine', 'toNeutral'] : ['to24', 'to0'];
    return [
      open,
      ...to.flatMap((name): SweptEdge[] => {
        const b = potentials[name];
        return b ? [{ ...about(name), fault: { kind: 'short', a: wire.to, b } }] : [];
      }),
    ];
  });
  const all = Object.values(panel.wires);
  const wired = new Set(all.flatMap((w) => [w.from, w.to]));
  // What a hand works matters by its contacts in the control: its poles are no part of what is swept.
  const swept = all.filter((w) => sweptClasses.includes(w.class));
  const inControl = new Set(swept.flatMap((w) => [w.from, w.to]));
  const contacts = sortedEntries(panel.devices).flatMap(([id, device]): SweptEdge[] => {
    const set = contactsOf(device);
    const pairs: readonly (readonly [string, string])[] =
      set && set.workedBy !== 'supply'
        ? set.contacts.map(({ a, b }) => [a, b] as const)
        : (parts[device.kind]?.coil?.makes ?? []);
    const landed = set ? inControl : wired;
    return pairs.flatMap(([a, b]): SweptEdge[] =>
      landed.has(`${id}:${a}`) && landed.has(`${id}:${b}`)
        ? [
            {
              key: `welded:${id}:${a}`,
              kind: 'welded',
              subject: id,
              fault: { kind: 'stuck', device: id, contact: a, is: 'closed' },
            },
          ]
        : [],
    );
  });
  return [...wires, ...contacts];
}

/**
 * Terminals at which several conductors lie under one screw or in one clamp, protective ones left out: when it comes loose all
 * of them open at once, and what was fed over the terminal is fed no more.
 *
 * @param counts which conductors are looked at
 */
export function jointsOf(
  { wires }: Pick<Panel, 'wires'>,
  counts: (wire: AdoptedWire) => boolean,
): string[] {
  const at = new Map<string, number>();
  for (const [, wire] of sortedEntries(wires))
    if (wire.class !== 'pe' && counts(wire))
      for (const end of [wire.from, wire.to]) at.set(end, (at.get(end) ?? 0) + 1);
  return [...at].flatMap(([landing, count]) => (count > 1 ? [landing] : []));
}

/** Joints of several control, safety or signal conductors, each come loose. */
export function looseJoints(panel: Panel): SweptFault[] {
  return jointsOf(panel, (wire) => sweptClasses.includes(wire.class)).map((at) => ({
    key: `loose:${at}`,
    kind: 'loose',
    subject: at.slice(0, at.lastIndexOf(':')),
    fault: { kind: 'loose', at },
  }));
}

/**
 * What inside a device that feeds the motor with the voltage of the supply can fail, and a contactor ahead of it whose poles
 * have all welded.
 */
export function insideFaults(profile: Profile, { device, devices, wires }: Panel): SweptFault[] {
  const inside = insideFailures(profile);
  if (inside.length === 0) return [];
  const ends = Object.values(wires).flatMap((w) => (w.class === 'mains' ? [w.from, w.to] : []));
  const ahead = sortedEntries(devices).filter(
    ([id, { kind }]) => parts[kind]?.coil && ends.includes(`${id}:${MAIN_POLES[0]}`),
  );
  const of = (subject: string, what: InsidePart['what']): SweptFault => ({
    key: `${what}:${subject}`,
    kind: what,
    subject,
    fault: { kind: 'part', device: subject, what },
  });
  return [...inside.map((what) => of(device, what)), ...ahead.map(([id]) => of(id, 'contacts'))];
}

/** Net of every landing that a wire reaches: landings joined by wires alone share one. */
export function wireNets(panel: Panel): ReadonlyMap<string, string> {
  const root = new Map<string, string>();
  const find = (at: string): string => {
    const up = root.get(at) ?? at;
    return up === at ? at : find(up);
  };
  for (const { from, to } of Object.values(panel.wires)) {
    for (const end of [from, to]) if (!root.has(end)) root.set(end, end);
    root.set(find(from), find(to));
  }
  return new Map([...root.keys()].map((at) => [at, find(at)]));
}

/** Potentials of a job's wires: the device's own 24 V, and the alternating control supply behind its protection. */
export function potentialsOf({
  device,
  landings,
  edgeA,
  edgeB,
  devices,
}: Installation): Potentials {
  const supply = device.supply24?.edge;
  const wires = devices.find((d) => d.kind === 'wires');
  const onWire = (potential: string): string | undefined => {
    const wire = wires?.kind === 'wires' && wires.wires.find((w) => w.potential === potential);
    return wire ? landings[edgeA[wire.edge]] : undefined;
  };
  return {
    to24: supply === undefined ? undefined : landings[edgeA[supply]],
    to0: supply === undefined ? undefined : landings[edgeB[supply]],
    toLine: onWire(alternatingPotentials.line),
    toNeutral: onWire(alternatingPotentials.neutral),
  };
}
