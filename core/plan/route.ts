import {
  firstOfKind,
  presentTerminals,
  type InputLogic,
  type Model,
  type Profile,
} from '../catalogue/index.js';
import { landingParts, type Job, type WireSpec } from '../job/index.js';
import {
  isSymbol,
  type Arrangement,
  type DeviceSymbol,
  type Mounting,
  type PointRef,
  lineIds,
  plugOf,
} from '../scheme/index.js';
import { toBase } from '../units/index.js';
import { colourOf, controlSize } from './conductors.js';
import { powerWires } from './power-wires.js';

/** A wire to be drawn, before it has an id and a number. */
export type RoutedWire = Omit<WireSpec, 'number'>;

export interface Routing {
  readonly wires: readonly RoutedWire[];
  /** Terminals that would have to hold more conductors than they may. */
  readonly crowded: readonly string[];
  /** Symbols of the arrangement for which this device has no terminal. */
  readonly missing: readonly DeviceSymbol[];
}

/** Terminals chosen for the functions of the arrangement. */
export interface Landed {
  readonly inputs: Readonly<Record<string, string>>;
  readonly outputs: Readonly<
    Record<string, { readonly common?: string; readonly no?: string; readonly nc?: string }>
  >;
}

const STATION_M = 8;
const INSIDE_M = 0.3;

/** What wires are routed for. */
export interface RouteContext {
  readonly job: Job;
  readonly profile: Profile;
  readonly model: Model;
  readonly arrangement: Arrangement;
  readonly logic: InputLogic;
  /** Id of the device in the wiring. */
  readonly device: string;
}

/** All wires of the job: supply, motor, and every potential of the arrangement routed as one chain. */
export function routeWires(context: RouteContext, landed: Landed): Routing {
  const { job, profile, model, arrangement, device } = context;
  const control = controlWires(context, landed);
  const power = powerWires(job, profile, model, arrangement, device);
  return { ...control, wires: [...power, ...control.wires] };
}

interface Chain {
  readonly potential: string;
  readonly class: WireSpec['class'];
  readonly points: readonly {
    readonly at: string;
    readonly wire: string;
    readonly class: WireSpec['class'];
  }[];
}

function controlWires(context: RouteContext, landed: Landed): Routing {
  const { profile, arrangement, logic, device } = context;
  const place = resolver(context, landed);
  const missing = new Set<DeviceSymbol>();
  const nets: Chain[] = arrangement.nets.map((net) => ({
    ...net,
    points: net.points.flatMap(({ at, wire }) => {
      const landing = place(at);
      if (landing) return [{ at: landing, wire, class: net.class }];
      if (isSymbol(at)) missing.add(at);
      return [];
    }),
  }));
  const common = firstOfKind(profile, 'inputCommon');
  if (logic.wireCommonTo && common)
    nets.push(
      link(
        'common',
        'controlDc',
        ['', 'inputCommon'],
        [`${device}:${common}`, `${device}:${logic.wireCommonTo}`],
      ),
    );
  const [plus, a, b] = [place('@supply24'), place('@enableA'), place('@enableB')];
  if (!arrangement.usesEnables && plus && a && b)
    nets.push(link('enables', 'safety', ['', 'enable.A', 'enable.B'], [plus, a, b]));
  return { ...layChains(context, mergeChains(nets)), missing: [...missing] };
}

function link(
  potential: string,
  wireClass: WireSpec['class'],
  names: readonly string[],
  at: readonly string[],
): Chain {
  return {
    potential,
    class: wireClass,
    points: at.map((landing, i) => ({ at: landing, wire: names[i], class: wireClass })),
  };
}

/** Landing of every symbol of an arrangement on this device; undefined where it has no such terminal. */
function resolver(
  { profile, logic, device }: RouteContext,
  landed: Landed,
): (at: PointRef) => string | undefined {
  const zero = firstOfKind(profile, 'zeroVolt');
  const supply = firstOfKind(profile, 'supply24');
  const enable = (channel: string): string | undefined =>
    presentTerminals(profile).find((id) => {
      const t = profile.terminals[id];
      return t.kind === 'enableInput' && t.channel === channel;
    });
  const poles = presentTerminals(profile).filter(
    (id) => profile.terminals[id].kind === 'controlSupply',
  );
  const sensors = presentTerminals(profile).filter(
    (id) => profile.terminals[id].kind === 'thermistor',
  );
  const analogue = presentTerminals(profile).filter(
    (id) => profile.terminals[id].kind === 'analogueInput',
  );
  const fixed: Readonly<Partial<Record<PointRef, string | undefined>>> = {
    '@feed': logic.contactsSwitch === 'plus24' ? supply : zero,
    '@return': logic.contactsSwitch === 'plus24' ? zero : supply,
    '@supply24': supply,
    '@zero': zero,
    '@reference10': firstOfKind(profile, 'reference10'),
    '@ai1': analogue[0],
    '@ai2': analogue[1],
    '@analogueCommon': firstOfKind(profile, 'analogueCommon') ?? zero,
    '@aout': firstOfKind(profile, 'analogueOutput'),
    '@controlA': poles[0],
    '@controlB': poles[1],
    '@thermistorA': sensors[0],
    '@thermistorB': sensors[1],
    '@enableA': enable('A'),
    '@enableB': enable('B'),
  };
  return (at) => {
    if (!isSymbol(at)) return at;
    const [kind, name, part] = at.split(':');
    const relay = landed.outputs[name];
    const terminal =
      kind === '@in'
        ? landed.inputs[name]
        : kind === '@out'
          ? relay?.[part as 'common' | 'no' | 'nc']
          : fixed[at];
    return terminal === undefined ? undefined : `${device}:${terminal}`;
  };
}

/** Potentials that meet on one landing are one chain. */
function mergeChains(nets: readonly Chain[]): Chain[] {
  const merged: {
    potential: string;
    class: WireSpec['class'];
    points: Chain['points'][number][];
  }[] = [];
  for (const net of nets) {
    const meeting = merged.filter((m) =>
      m.points.some((p) => net.points.some((q) => q.at === p.at)),
    );
    if (meeting.length === 0) {
      merged.push({ ...net, points: [...net.points] });
      continue;
    }
    const [into, ...others] = meeting;
    for (const point of [...others.flatMap((o) => o.points), ...net.points])
      if (!into.points.some((p) => p.at === point.at)) into.points.push(point);
    for (const other of others) merged.splice(merged.indexOf(other), 1);
  }
  return merged;
}

const classGroups = { controlDc: 0, safety: 0, analogue: 1, controlAc: 2 } as Readonly<
  Record<string, number>
>;

/** First number of the control cables of a way; W1, W8 and W9 are those of the motor. */
const cableNumbers = { station: 2, machine: 5, between: 10 } as const;

/** Cable between two places, one for each kind of control; none inside a place. */
function cableBetween(one: Mounting, other: Mounting, of: WireSpec['class']): string | undefined {
  if (one === other) return undefined;
  const far = one === 'panel' ? other : one;
  const between = one !== 'panel' && other !== 'panel';
  const first = cableNumbers[between ? 'between' : far === 'machine' ? 'machine' : 'station'];
  return `W${first + (classGroups[of] ?? 0)}`;
}

function layChains(
  { job, profile, arrangement, device }: RouteContext,
  chains: readonly Chain[],
): Omit<Routing, 'missing'> {
  const stationM = job.scheme.stationLength
    ? toBase(job.scheme.stationLength, 'length')
    : STATION_M;
  const placeOf = (at: string): Mounting =>
    arrangement.devices.find((d) => d.id === landingParts(at).device)?.place ?? 'panel';
  const held = new Map<string, number>();
  const wires: RoutedWire[] = [];
  const cores: Record<string, number> = {};
  let analogue = 0;
  const joint = jointsOf(job.scheme.fieldWires);
  const own = ownTerminals(profile, device);
  for (const chain of chains) {
    const points = ordered(chain.points, placeOf, own);
    for (let i = 0; i + 1 < points.length; i++) {
      // A wire is told as leading away from what feeds it.
      const back = own(points[i].at)?.kind === 'enableInput';
      const [from, to] = back ? [points[i + 1], points[i]] : [points[i], points[i + 1]];
      for (const { at } of [from, to]) held.set(at, (held.get(at) ?? 0) + 1);
      const ends = [placeOf(from.at), placeOf(to.at)];
      const cable = cableBetween(ends[0], ends[1], to.class);
      const core = cable ? { cable, core: String((cores[cable] = (cores[cable] ?? 0) + 1)) } : {};
      const common = {
        size: controlSize(job.practice, to.class),
        potential: chain.potential,
        class: to.class,
        colour: colourOf(
          job.practice,
          to.class,
          to.class === 'analogue' ? analogue++ : 0,
          arrangement.isolator === undefined,
        ),
      };
      const outer = { ...common, lengthM: cable ? stationM : INSIDE_M, ...core };
      if (cable && joint && ends.includes('panel')) {
        const terminal = joint.next(cable);
        const [near, far] = ends[0] === 'panel' ? ['i', 'o'] : ['o', 'i'];
        const side = (which: string): string => `${terminal}.${which}`;
        const inner = { ...common, lengthM: INSIDE_M };
        wires.push(
          {
            from: from.at,
            to: side(near),
            function: `${to.wire}.${joint.name}`,
            ...(near === 'i' ? inner : outer),
          },
          { from: side(far), to: to.at, function: to.wire, ...(far === 'i' ? inner : outer) },
        );
      } else wires.push({ from: from.at, to: to.at, function: to.wire, ...outer });
    }
  }
  const crowded = [...held].flatMap(([landing, count]) =>
    count > (own(landing)?.conductors ?? Infinity) ? [landing] : [],
  );
  return { wires, crowded };
}

/** Where the cables of the field begin, and the next terminal there; undefined where they go straight to the device. */
function jointsOf(
  fieldWires: Job['scheme']['fieldWires'],
): { readonly name: string; next(cable: string): string } | undefined {
  if (fieldWires !== 'strip' && fieldWires !== 'plug') return undefined;
  const used: Record<string, number> = {};
  return {
    name: fieldWires,
    next: (cable) => {
      const part = fieldWires === 'strip' ? lineIds.strip : plugOf(cable);
      used[part] = (used[part] ?? 0) + 1;
      return `${part}:${used[part]}`;
    },
  };
}

/** Terminal of the device that a landing is; undefined for a landing of anything else. */
const ownTerminals =
  (profile: Profile, device: string) =>
  (at: string): Profile['terminals'][string] | undefined => {
    const parts = landingParts(at);
    return parts.device === device ? profile.terminals[parts.terminal] : undefined;
  };

/** Landings of one place lie together, so that a chain crosses once; a terminal for one conductor only lies at an end. */
function ordered(
  points: Chain['points'],
  placeOf: (at: string) => Mounting,
  own: ReturnType<typeof ownTerminals>,
): Chain['points'] {
  const places = [...new Set(points.map((p) => placeOf(p.at)))];
  const deviceFirst = own(points[0].at) !== undefined;
  // The enables hang at the end of a chain: nothing else is fed through their terminals.
  const rank = (p: Chain['points'][number]): number => {
    const terminal = own(p.at);
    if (deviceFirst && terminal?.kind === 'enableInput') return -1;
    return (terminal !== undefined) === deviceFirst ? 0 : 1;
  };
  const sorted = places.flatMap((place) =>
    points.filter((p) => placeOf(p.at) === place).sort((x, y) => rank(x) - rank(y)),
  );
  const hanging = sorted.filter((p) => rank(p) < 0);
  const together = [...hanging.reverse(), ...sorted.filter((p) => rank(p) >= 0)];
  const single = (at: string): boolean => own(at)?.conductors === 1;
  const inner = together.filter((p, i) => i > 0 && i < together.length - 1 && single(p.at));
  if (inner.length === 0) return together;
  return [...together.filter((p) => !inner.includes(p)), ...inner];
}
