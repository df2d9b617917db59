import { type Profile } from '../catalogue/index.js';
import { netsOf, type Installation, type Nets, type Panel } from '../installation/index.js';
import { landingParts } from '../job/index.js';
import {
  MAIN_POLES,
  parts,
  PROTECTIVE,
  RESISTOR_ENDS,
  terminalsOf,
  UNIT_LINK,
  UNIT_RESISTOR,
} from '../parts/index.js';
import type { Edge } from '../circuit/index.js';
import type { ElementShape } from './drawing.js';

/** An element before it is placed: its ends with the side on which they lie. */
export interface Element {
  readonly id: string;
  readonly of: string;
  readonly shape: ElementShape;
  readonly ends: readonly { readonly landing: string; readonly side: 'start' | 'end' }[];
  readonly ways: readonly (readonly [string, string])[];
  /** Protective terminals of the same device, told here. */
  readonly earths: readonly string[];
  /** A source of alternating voltage. */
  readonly alternating?: true;
  /** Wires it stands for, where that is not all that land at its end. */
  readonly only?: readonly string[];
}

export interface Elements {
  readonly elements: readonly Element[];
  /** Links of the device by which a net is one: as the common of its inputs with its 0 V. */
  readonly joined: readonly { readonly link: string; readonly a: string; readonly b: string }[];
  /** What wires, the inside of the device and such links join, protective conductors left out. */
  readonly nets: Nets;
  /** Wires that land at each landing. */
  readonly wiresAt: ReadonlyMap<string, readonly string[]>;
}

/** Devices and wires of the panel, its network, and what the device has for terminals. */
export interface Drawn {
  readonly panel: Panel;
  readonly installation: Installation;
  readonly profile: Profile;
}

const PE = 'pe';

/** Whether a terminal of the device is one for a protective conductor. */
const protects = ({ terminals }: Profile, name: string): boolean => {
  const spec = terminals[name];
  return (spec?.kind === 'mains' || spec?.kind === 'motor') && spec.phase === PROTECTIVE;
};

/** Tells landings at which protective conductors belong. */
const protectiveOf =
  ({ panel, profile }: Drawn) =>
  (landing: string): boolean => {
    const { device, terminal } = landingParts(landing);
    return device === panel.device ? protects(profile, terminal) : terminal === PROTECTIVE;
  };

/**
 * The elements of a circuit: contacts, coils, loads, inputs, sources, as far as something is wired to them, each by itself
 * where it acts; poles of the power and windings together.
 */
export function elementsOf(drawn: Drawn): Elements {
  const { panel, installation } = drawn;
  const wiresAt = landingsOf(panel);
  const isProtective = protectiveOf(drawn);
  const wired = (landing: string): boolean => wiresAt.has(landing);
  const live = Object.fromEntries(Object.entries(panel.wires).filter(([, w]) => w.class !== PE));
  const netsWith = (joined: readonly (readonly [string, string])[]): Nets =>
    netsOf({ wires: live, open: [], bridges: [] }, joined);
  const inner = installation.edges.flatMap((e) => (e.role === 'join' ? [[e.a, e.b] as const] : []));
  const elements = [...blocks(drawn, wired), ...single(drawn, wired)];
  const has = new Set(elements.flatMap((e) => e.ends.map((x) => x.landing)));
  for (const landing of wiresAt.keys())
    if (!has.has(landing) && !isProtective(landing))
      elements.push(oneEnd(landing, landingParts(landing).device, 'end'));
  const standing = standingLinks(installation);
  const common = standing.filter((link) =>
    keepsApart(elements, netsWith([...inner, [link.ends[0].landing, link.ends[1].landing]])),
  );
  const nets = netsWith([
    ...inner,
    ...common.map(({ ends: [a, b] }) => [a.landing, b.landing] as const),
  ]);
  const used = new Set(elements.flatMap((e) => e.ends.map((x) => nets.of(x.landing))));
  for (const link of [...standing, ...foundBridges(installation)]) {
    const [x, y] = link.ends.map((e) => nets.of(e.landing));
    if (x !== y && used.has(x) && used.has(y)) elements.push(link);
  }
  const joined = common.flatMap(({ of, ends: [a, b] }) =>
    used.has(nets.of(a.landing)) ? [{ link: of, a: a.landing, b: b.landing }] : [],
  );
  return {
    joined,
    elements: withEarths(panel, elements, wiresAt, isProtective),
    nets,
    wiresAt,
  };
}

function landingsOf({ wires }: Panel): ReadonlyMap<string, readonly string[]> {
  const at = new Map<string, string[]>();
  for (const [id, { from, to }] of Object.entries(wires))
    for (const end of [from, to]) at.set(end, [...(at.get(end) ?? []), id]);
  const number = (id: string): string => wires[id].number;
  for (const ids of at.values())
    ids.sort((x, y) => number(x).localeCompare(number(y), 'en', { numeric: true }));
  return at;
}

const oneEnd = (landing: string, of: string, shape: ElementShape): Element => ({
  id: landing,
  of,
  shape,
  ends: [{ landing, side: 'start' }],
  ways: [],
  earths: [],
});

const block = (
  id: string,
  shape: ElementShape,
  start: readonly string[],
  end: readonly string[],
  ways: readonly (readonly [string, string])[] = [],
): Element => {
  const at = (terminal: string): string => `${id}:${terminal}`;
  return {
    id,
    of: id,
    shape,
    ends: [
      ...start.map((t) => ({ landing: at(t), side: 'start' as const })),
      ...end.map((t) => ({ landing: at(t), side: 'end' as const })),
    ],
    ways: ways.map(([a, b]) => [at(a), at(b)] as const),
    earths: [],
  };
};

/** Poles, windings and the power side of the device: one element for all their conductors. */
function blocks({ panel, profile }: Drawn, wired: (landing: string) => boolean): Element[] {
  return Object.entries(panel.devices).flatMap(([id, device]): Element[] => {
    const found = id === panel.device ? deviceBlock(id, profile) : partBlock(id, device, wired);
    return found?.ends.some((e) => wired(e.landing)) ? [withoutIdle(found, wired)] : [];
  });
}

/** A supply or the device without what nothing is wired to: a neutral, terminals of a braking resistor. */
const withoutIdle = (element: Element, wired: (landing: string) => boolean): Element =>
  element.shape === 'supply' || element.shape === 'device'
    ? { ...element, ends: element.ends.filter((e) => wired(e.landing)) }
    : element;

function deviceBlock(id: string, profile: Profile): Element {
  const of = (...kinds: string[]): string[] =>
    Object.keys(profile.terminals).filter(
      (t) => kinds.includes(profile.terminals[t].kind) && !protects(profile, t),
    );
  return block(id, 'device', of('mains'), of('motor', 'power'));
}

function partBlock(
  id: string,
  device: Panel['devices'][string],
  wired: (landing: string) => boolean,
): Element | undefined {
  const part = parts[device.kind];
  const terminals = terminalsOf(device).filter((t) => t !== PROTECTIVE);
  if (!part) return undefined;
  if (part.turns) return block(id, 'motor', terminals, []);
  if (device.kind.startsWith('supply') && part.power) return block(id, 'supply', [], terminals);
  if (device.kind === 'brakingUnit') return block(id, 'device', [...UNIT_LINK], [...UNIT_RESISTOR]);
  if (device.kind === 'brakingResistor') return block(id, 'resistor', [...RESISTOR_ENDS], []);
  if (device.kind === 'potentiometer') return block(id, 'dial', ['3'], ['2', '1']);
  const pairs = poles(device, id, wired);
  if (pairs.length < 2) return undefined;
  return block(
    id,
    part.through ? 'filter' : 'poles',
    pairs.map(([a]) => a),
    pairs.map(([, b]) => b),
    pairs,
  );
}

/** Pairs of terminals that are poles of one switch: of a breaker, of an isolator, of a contactor with wires on them. */
function poles(
  device: Panel['devices'][string],
  id: string,
  wired: (landing: string) => boolean,
): (readonly [string, string])[] {
  const part = parts[device.kind];
  if (part?.through && part.power) return [...part.through(device)];
  if (part?.symbol === 'pole')
    return (part.contacts?.(device).contacts ?? [])
      .filter((c) => c.a.length === 1)
      .map(({ a, b }) => [a, b] as const);
  const main = (part?.coil?.makes ?? []).filter(([a]) => MAIN_POLES.some((p) => p === a));
  return main.some(([a, b]) => wired(`${id}:${a}`) || wired(`${id}:${b}`)) ? main : [];
}

const shapes: Partial<Record<Edge['role'], ElementShape>> = {
  primary: 'primary',
  fuse: 'fuse',
  coil: 'coil',
  load: 'load',
  input: 'input',
  source: 'source',
  track: 'source',
};

/** Elements between two landings, as far as they are wired. */
function single({ panel, installation, profile }: Drawn, wired: (at: string) => boolean) {
  const grouped = new Set(
    Object.entries(panel.devices).flatMap(([id, device]) =>
      id === panel.device ? [] : (partBlock(id, device, wired)?.ends.map((e) => e.landing) ?? []),
    ),
  );
  const own = panel.device;
  const isThermistor = (at: string): boolean =>
    profile.terminals[landingParts(at).terminal]?.kind === 'thermistor';
  const all = installation.edges.filter(
    (e) =>
      panel.devices[e.of] !== undefined &&
      !(grouped.has(e.a) && grouped.has(e.b)) &&
      (e.of === own && e.role === 'probe' ? isThermistor(e.a) : e.role !== 'probe'),
  );
  const contacts = all.filter((e) => e.role === 'contact');
  const whole = new Set(
    contacts.filter((e) => wired(e.a) && wired(e.b)).flatMap((e) => [e.a, e.b]),
  );
  const isShown = (e: Edge): boolean => {
    if (e.role === 'contact') {
      if (wired(e.a) && wired(e.b)) return true;
      return (wired(e.a) && !whole.has(e.a)) || (wired(e.b) && !whole.has(e.b));
    }
    return e.of === own && e.role !== 'source' ? wired(e.a) : wired(e.a) || wired(e.b);
  };
  const seen = new Set<string>();
  return all.flatMap((e): Element[] => {
    const shape = e.role === 'contact' ? contactShape(e, panel) : shapeOf(e, panel);
    const id = `${e.a}|${e.b}`;
    if (!shape || seen.has(id) || !isShown(e)) return [];
    seen.add(id);
    // What is fed by two phases lies below both.
    const below = shape === 'primary' && e.of !== own ? ('start' as const) : ('end' as const);
    const ends = [
      { landing: e.a, side: 'start' as const },
      { landing: e.b, side: below },
    ];
    const alternating = e.gives === 'alternating' ? ({ alternating: true } as const) : {};
    return [{ id, of: e.of, shape, ends, ways: [[e.a, e.b]], earths: [], ...alternating }];
  });
}

function shapeOf({ of, role }: Edge, panel: Panel): ElementShape | undefined {
  if (role === 'probe') return 'input';
  const symbol = of === panel.device ? undefined : parts[panel.devices[of].kind]?.symbol;
  if (symbol === 'lamp' || symbol === 'sounder' || symbol === 'meter') return symbol;
  return shapes[role];
}

/** A contact as it stands at rest: open, closed, or joined for good. */
function contactShape({ of, a }: Edge, panel: Panel): ElementShape {
  const terminal = landingParts(a).terminal;
  const device = panel.devices[of];
  if (of === panel.device) return 'make';
  const part = parts[device.kind];
  if (part?.symbol === 'transistor') return 'transistor';
  if (part?.through) return 'through';
  if (part?.coil) {
    const rests = part.coil.breaks.some((pair) => pair.includes(terminal));
    const works = part.coil.makes.some((pair) => pair[0] === terminal);
    return rests && !works ? 'break' : 'make';
  }
  const set = part?.contacts?.(device);
  const contact = set?.contacts.find((c) => c.a === terminal);
  return set && contact?.closedIn.includes(set.rest) ? 'break' : 'make';
}

const between = (id: string, of: string, a: string, b: string): Element => ({
  id,
  of,
  shape: 'link',
  ends: [
    { landing: a, side: 'start' },
    { landing: b, side: 'end' },
  ],
  ways: [[a, b]],
  earths: [],
});

/** Links and slide switches of the device as they stand. */
const standingLinks = ({ device, edges }: Installation): Element[] =>
  device.links.flatMap((l) =>
    (l.positions[l.position]?.edges ?? []).map((i) => {
      const { a, b, of } = edges[i];
      return between(`${of}|${a}|${b}`, of, a, b);
    }),
  );

/** Bridges that were found in the panel. */
const foundBridges = ({ edges }: Installation): Element[] =>
  edges.flatMap(({ role, of, a, b }) => (role === 'fault' ? [between(`${a}|${b}`, of, a, b)] : []));

/** Whether no element would have both its ends on one net. */
const keepsApart = (elements: readonly Element[], nets: Nets): boolean =>
  elements.every(({ ways }) => ways.every(([a, b]) => !nets.joined(a, b)));

/**
 * Protective conductors. A protective terminal is told at an element of its device; a protective conductor that begins at
 * another terminal, as that of an earthed control circuit, ends in an earth of its own.
 */
function withEarths(
  panel: Panel,
  elements: readonly Element[],
  wiresAt: Elements['wiresAt'],
  isProtective: (landing: string) => boolean,
): Element[] {
  const earths = new Map<string, string[]>();
  const hosts = new Set<string>();
  const alone: Element[] = [];
  for (const landing of [...wiresAt.keys()].filter(isProtective)) {
    const { device } = landingParts(landing);
    const host = elements.find((e) => e.of === device);
    if (!host) alone.push(oneEnd(landing, device, 'earth'));
    else earths.set(host.id, [...(earths.get(host.id) ?? []), landing]);
    hosts.add(landing);
  }
  for (const [id, { class: kind, from, to }] of Object.entries(panel.wires))
    for (const landing of kind === PE ? [from, to] : [])
      if (!hosts.has(landing))
        alone.push({
          ...oneEnd(landing, landingParts(landing).device, 'earth'),
          id: `earth.${id}`,
          only: [id],
        });
  return [...elements.map((e) => ({ ...e, earths: earths.get(e.id) ?? [] })), ...alone];
}
