import type { Model, Profile } from '../catalogue/index.js';
import { landingParts, type Job, type Size, type WireSpec } from '../job/index.js';
import type { Arrangement, Place } from '../scheme/index.js';
import { plateNumbers } from '../line/index.js';
import { toBase } from '../units/index.js';
import { colourOf, controlSize, peSize, powerSize } from './conductors.js';
import { firstOfKind, presentTerminals, type InputLogic } from './terminals.js';

/** A wire to be drawn, before it has an id and a number. */
export type RoutedWire = Omit<WireSpec, 'number'>;

export interface Routing {
  readonly wires: readonly RoutedWire[];
  /** Terminals that would have to hold more conductors than they may. */
  readonly crowded: readonly string[];
  /** Symbols of the arrangement for which this device has no terminal. */
  readonly missing: readonly string[];
}

/** Terminals chosen for the functions of the arrangement. */
export interface Landed {
  readonly inputs: Readonly<Record<string, string>>;
  readonly outputs: Readonly<Record<string, { readonly common?: string; readonly no?: string }>>;
}

const PANEL_M = 2;
const STATION_M = 8;
const INSIDE_M = 0.3;

/** All wires of the job: supply, motor, and every potential of the arrangement routed as one chain. */
export function routeWires(
  job: Job,
  profile: Profile,
  model: Model,
  arrangement: Arrangement,
  logic: InputLogic,
  landed: Landed,
): Routing {
  const control = controlWires(job, profile, arrangement, logic, landed);
  return { ...control, wires: [...powerWires(job, profile, model, arrangement), ...control.wires] };
}

function powerWires(
  job: Job,
  profile: Profile,
  model: Model,
  arrangement: Arrangement,
): RoutedWire[] {
  const { practice, plate } = job;
  const amps = Math.max(model.ratedA, plateNumbers(plate).rated?.amps ?? 0);
  const feed = powerSize(practice, practice === 'NFPA' ? amps * 1.25 : amps);
  const motorSize: Size = plate.cable.size ?? feed;
  const motorM = plate.cable.length ? toBase(plate.cable.length, 'length') : PANEL_M;
  const wires: RoutedWire[] = [];
  const add = (
    from: string,
    to: string,
    name: string,
    wireClass: WireSpec['class'],
    size: Size,
    lengthM: number,
    line: number,
    cable = {},
  ): void =>
    void wires.push({
      from,
      to,
      function: name,
      size,
      colour: colourOf(practice, wireClass, line),
      lengthM,
      potential: from.replace(':', '.'),
      class: wireClass,
      ...cable,
    });
  const terminals = presentTerminals(profile);
  const find = (kind: string, phase: string): string | undefined =>
    terminals.find(
      (id) => profile.terminals[id].kind === kind && profile.terminals[id].phase === phase,
    );
  feedPhases(profile).forEach((phase, i) => {
    const terminal = find('mains', phase);
    if (!terminal) return;
    const [into, out] = [2 * i + 1, 2 * i + 2];
    add(`supply:${phase}`, `breaker:${into}`, `supply.${phase}`, 'mains', feed, PANEL_M, i);
    const { contactor } = arrangement;
    if (contactor)
      add(`breaker:${out}`, `${contactor}:${into}`, `line.${phase}`, 'mains', feed, PANEL_M, i);
    add(
      `${contactor ?? 'breaker'}:${out}`,
      `drive:${terminal}`,
      `feed.${phase}`,
      'mains',
      feed,
      PANEL_M,
      i,
    );
  });
  const pe = find('mains', 'PE');
  if (pe) add('supply:PE', `drive:${pe}`, 'feed.PE', 'pe', peSize(feed), PANEL_M, 0);
  ['U', 'V', 'W'].forEach((phase, i) => {
    const terminal = find('motor', phase);
    if (terminal)
      add(`drive:${terminal}`, `motor:${phase}`, `motor.${phase}`, 'motor', motorSize, motorM, i, {
        cable: 'W1',
        core: String(i + 1),
      });
  });
  const motorPe = find('motor', 'PE') ?? pe;
  if (motorPe)
    add(`drive:${motorPe}`, 'motor:PE', 'motor.PE', 'pe', peSize(motorSize), motorM, 0, {
      cable: 'W1',
      core: 'PE',
    });
  return wires;
}

/** Conductors of the supply that feed the device, in the order of the breaker's poles. */
export const feedPhases = (profile: Profile): readonly string[] =>
  profile.supply.phases === 1 ? ['L1', 'N'] : ['L1', 'L2', 'L3'];

interface Chain {
  readonly potential: string;
  readonly class: WireSpec['class'];
  readonly points: readonly {
    readonly at: string;
    readonly wire: string;
    readonly class: WireSpec['class'];
  }[];
}

function controlWires(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  logic: InputLogic,
  landed: Landed,
): Routing {
  const place = resolver(profile, logic, landed);
  const missing = new Set<string>();
  const nets: Chain[] = arrangement.nets.map((net) => ({
    ...net,
    points: net.points.flatMap(({ at, wire }) => {
      const landing = place(at);
      if (landing) return [{ at: landing, wire, class: net.class }];
      missing.add(at);
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
        [`drive:${common}`, `drive:${logic.wireCommonTo}`],
      ),
    );
  const [plus, a, b] = [place('@supply24'), place('@enableA'), place('@enableB')];
  if (!arrangement.usesEnables && plus && a && b)
    nets.push(link('enables', 'safety', ['', 'enable.A', 'enable.B'], [plus, a, b]));
  return { ...layChains(job, profile, arrangement, mergeChains(nets)), missing: [...missing] };
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
  profile: Profile,
  logic: InputLogic,
  landed: Landed,
): (at: string) => string | undefined {
  const zero = firstOfKind(profile, 'zeroVolt');
  const supply = firstOfKind(profile, 'supply24');
  const enable = (channel: string): string | undefined =>
    presentTerminals(profile).find((id) => {
      const t = profile.terminals[id];
      return t.kind === 'enableInput' && t.channel === channel;
    });
  const fixed: Readonly<Record<string, string | undefined>> = {
    '@feed': logic.contactsSwitch === 'plus24' ? supply : zero,
    '@return': logic.contactsSwitch === 'plus24' ? zero : supply,
    '@supply24': supply,
    '@zero': zero,
    '@reference10': firstOfKind(profile, 'reference10'),
    '@ai1': firstOfKind(profile, 'analogueInput'),
    '@analogueCommon': firstOfKind(profile, 'analogueCommon') ?? zero,
    '@aout': firstOfKind(profile, 'analogueOutput'),
    '@enableA': enable('A'),
    '@enableB': enable('B'),
  };
  return (at) => {
    if (!at.startsWith('@')) return at;
    const [kind, name, part] = at.split(':');
    const relay = landed.outputs[name];
    const terminal =
      kind === '@in'
        ? landed.inputs[name]
        : kind === '@out'
          ? relay?.[part as 'common' | 'no']
          : fixed[at];
    return terminal === undefined ? undefined : `drive:${terminal}`;
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

function layChains(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  chains: readonly Chain[],
): Omit<Routing, 'missing'> {
  const stationM = job.scheme.stationLength
    ? toBase(job.scheme.stationLength, 'length')
    : STATION_M;
  const placeOf = (at: string): Place =>
    arrangement.devices.find((d) => d.id === landingParts(at).device)?.place ?? 'panel';
  const held = new Map<string, number>();
  const wires: RoutedWire[] = [];
  const cores: Record<string, number> = {};
  let analogue = 0;
  for (const chain of chains) {
    const points = ordered(chain.points, placeOf, profile);
    for (let i = 0; i + 1 < points.length; i++) {
      const [from, to] = [points[i], points[i + 1]];
      for (const { at } of [from, to]) held.set(at, (held.get(at) ?? 0) + 1);
      const ends = [placeOf(from.at), placeOf(to.at)];
      const outside = ends.find((p) => p !== 'panel');
      const cable =
        ends[0] === ends[1]
          ? undefined
          : `W${2 + (classGroups[to.class] ?? 0) + (outside === 'machine' ? 3 : 0)}`;
      const core = cable ? { cable, core: String((cores[cable] = (cores[cable] ?? 0) + 1)) } : {};
      wires.push({
        from: from.at,
        to: to.at,
        function: to.wire,
        size: controlSize(job.practice, to.class),
        lengthM: cable ? stationM : INSIDE_M,
        potential: chain.potential,
        class: to.class,
        colour: colourOf(job.practice, to.class, to.class === 'analogue' ? analogue++ : 0),
        ...core,
      });
    }
  }
  const crowded = [...held]
    .filter(
      ([landing, count]) =>
        landing.startsWith('drive:') &&
        count > (profile.terminals[landing.slice(6)]?.conductors ?? 2),
    )
    .map(([landing]) => landing);
  return { wires, crowded };
}

/** Landings of one place lie together, so that a chain crosses once; a terminal for one conductor only lies at an end. */
function ordered(
  points: Chain['points'],
  placeOf: (at: string) => Place,
  profile: Profile,
): Chain['points'] {
  const places = [...new Set(points.map((p) => placeOf(p.at)))];
  const driveFirst = points[0].at.startsWith('drive:');
  const rank = (p: Chain['points'][number]): number =>
    p.at.startsWith('drive:') === driveFirst ? 0 : 1;
  const together = places.flatMap((place) =>
    points.filter((p) => placeOf(p.at) === place).sort((x, y) => rank(x) - rank(y)),
  );
  const single = (at: string): boolean =>
    at.startsWith('drive:') && (profile.terminals[at.slice(6)]?.conductors ?? 2) === 1;
  const inner = together.filter((p, i) => i > 0 && i < together.length - 1 && single(p.at));
  if (inner.length === 0) return together;
  return [...together.filter((p) => !inner.includes(p)), ...inner];
}
