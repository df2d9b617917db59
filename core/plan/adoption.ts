import type { Profile } from '../catalogue/index.js';
import {
  hashOf,
  landingName,
  landingParts,
  sizeText,
  sortedEntries,
  type Evidence,
  type Job,
  type Phrase,
  type Wiring,
} from '../job/index.js';

/**
 * Whether a changed plan is adopted by itself: until somebody has landed, keyed, read or measured something of it. A picture
 * or a note stops nothing.
 *
 * @example adoptsByItself([]) // true
 */
export function adoptsByItself(evidence: readonly Evidence[]): boolean {
  return !evidence.some(
    (e) =>
      e.kind === 'handTick' ||
      e.kind === 'keyed' ||
      e.kind === 'readBack' ||
      e.kind === 'reading' ||
      e.kind === 'signature' ||
      (e.kind === 'snapshot' && e.body.which === 'asLeft'),
  );
}

/** One thing that a plan changes in a wiring. */
export interface WiringChange {
  readonly of: 'wire' | 'device' | 'assignment' | 'link' | 'setting';
  readonly id: string;
  readonly change: 'added' | 'removed' | 'changed';
  /** What is said of it: which, what it was, what it becomes. */
  readonly said: Phrase;
}

type Bodies = {
  readonly [K in WiringChange['of']]: (wiring: Wiring, id: string) => readonly [string, unknown];
};

/** Text of each kind of thing, and what of it counts: origin and reasons do not. */
const bodies: Bodies = {
  wire: (w, id) => {
    const { origin: _o, ...wire } = w.wires[id];
    const ends = `${landingName(w.devices, wire.from)} – ${landingName(w.devices, wire.to)}`;
    const core = wire.cable ? `, ${wire.cable} · ${wire.core ?? ''}` : '';
    return [`${ends}, ${sizeText(wire.size)} ${wire.colour}${core}, ${wire.lengthM} m`, wire];
  },
  device: (w, id) => [w.devices[id].kind, w.devices[id]],
  assignment: (w, id) => {
    const { at, task } = w.assignments[id];
    return [landingName(w.devices, at), { at, task }];
  },
  link: (w, id) => [w.links[id].position, w.links[id].position],
  setting: (w, id) => [String(w.settings[id].value), w.settings[id].value],
};

const tables = {
  wire: 'wires',
  device: 'devices',
  assignment: 'assignments',
  link: 'links',
  setting: 'settings',
} as const satisfies Record<WiringChange['of'], keyof Wiring>;

/** Name by which a person knows a thing: number of a wire, tag of a device. */
function nameOf(of: WiringChange['of'], id: string, wiring: Wiring): string {
  if (of === 'wire') return wiring.wires[id].number;
  if (of === 'device') return wiring.devices[id].tag;
  return of === 'assignment' ? wiring.assignments[id].task : id;
}

/**
 * What a proposal changes in the wiring that is there, by value: neither the order of keys nor the release that made it
 * matters.
 *
 * @returns nothing where both are built and keyed the same
 * @example wiringDifference(job.adopted, plan.wiring).map((c) => c.change) // ['added', 'changed']
 */
export function wiringDifference(before: Wiring | undefined, after: Wiring): WiringChange[] {
  return (Object.keys(tables) as WiringChange['of'][]).flatMap((of) => {
    const [old, now] = [before?.[tables[of]] ?? {}, after[tables[of]]];
    const ids = sortedEntries<unknown>({ ...old, ...now }).map(([id]) => id);
    return ids.flatMap((id): WiringChange[] => {
      const was = before && id in old ? bodies[of](before, id) : undefined;
      const is = id in now ? bodies[of](after, id) : undefined;
      if (was && is && hashOf(was[1]) === hashOf(is[1])) return [];
      const change = !was ? 'added' : !is ? 'removed' : 'changed';
      const name = nameOf(of, id, is ? after : (before as Wiring));
      const args = { name, was: was?.[0] ?? '', is: is?.[0] ?? '' };
      return [{ of, id, change, said: { code: `difference.${of}.${change}`, args } }];
    });
  });
}

/** Whether a proposal would build or key anything otherwise than is adopted. */
export const differs = (before: Wiring | undefined, after: Wiring): boolean =>
  before === undefined || wiringDifference(before, after).length > 0;

/** What becomes of a wire's end that a person puts elsewhere. */
export type MovedEnd =
  | { readonly ok: false; readonly said: Phrase }
  /** The function moves with its wire: it is pinned to the terminal. */
  | { readonly ok: true; readonly pin: string; readonly at: string }
  /** Only this wire lands elsewhere. */
  | { readonly ok: true; readonly wire: string; readonly end: 'from' | 'to'; readonly at: string };

/**
 * The decision that moving one end of a wire makes: an input function that moves to another input is pinned there, anything
 * else is a decision about the wire alone.
 *
 * @example movedEnd(job, profile, 'w12', 'to', 'device:3')
 */
export function movedEnd(
  job: Job,
  profile: Profile,
  wireId: string,
  end: 'from' | 'to',
  landing: string,
): MovedEnd {
  const { adopted } = job;
  const wire = adopted?.wires[wireId];
  if (!adopted || !wire) return { ok: false, said: { code: 'move.noWire', args: {} } };
  if (wire[end === 'from' ? 'to' : 'from'] === landing)
    return { ok: false, said: { code: 'move.bothEnds', args: {} } };
  const { device, terminal } = landingParts(landing);
  const functions = Object.entries(adopted.assignments);
  const moving = functions.find(([, a]) => a.at === wire[end]);
  const taken = functions.find(([fn, a]) => a.at === landing && fn !== moving?.[0]);
  if (moving && taken) {
    const args = { landing: landingName(adopted.devices, landing), task: taken[1].task };
    return { ok: false, said: { code: 'move.taken', args } };
  }
  const kind = device === adopted.device ? profile.terminals[terminal]?.kind : undefined;
  if (moving && kind === 'digitalInput') return { ok: true, pin: moving[0], at: landing };
  return { ok: true, wire: wireId, end, at: landing };
}
