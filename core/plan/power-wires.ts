import {
  linkTerminals,
  presentTerminals,
  resistorTerminals,
  type Model,
  type Profile,
} from '../catalogue/index.js';
import type { Job, Size, WireSpec } from '../job/index.js';
import {
  feedSize,
  inputCurrentOf,
  leakageOf,
  plateContext,
  plateNumbers,
  REINFORCED_ABOVE_MA,
  type FeedAsked,
} from '../line/index.js';
import { isExposed, PROTECTIVE, RESISTOR_ENDS, UNIT_LINK, UNIT_RESISTOR } from '../parts/index.js';
import { lineIds, OUTPUT_CONTACTOR, type Arrangement } from '../scheme/index.js';
import { toBase } from '../units/index.js';
import { colourOf, peSize, powerSize } from './conductors.js';
import { deltaLeads, lineLeads, motorBond, type LeadsLaid, type Wire } from './motor-wires.js';
import type { RoutedWire } from './route.js';

/** Length taken for a wire of the panel, m. */
const PANEL_M = 2;
/** Part of the input current that a feed is sized for in either practice. */
const CONTINUOUS = { IEC: 1, NFPA: 1.25 } as const;

/** Conductors of the supply that feed the device, in the order of the breaker's poles. */
export const feedPhases = (profile: Profile): readonly string[] =>
  profile.supply.phases === 1 ? ['L1', 'N'] : ['L1', 'L2', 'L3'];

/** Input current of a device whose plates do not tell it, as a share of its rated output current. */
const INPUT_SHARE = 1.1;

/** What the feed of a device is sized by: its input current, and the protection ahead of it. */
export function feedAsked(job: Job, profile: Profile, model: Model): FeedAsked {
  const inputA = inputCurrentOf(plateContext(job, profile)) ?? model.ratedA * INPUT_SHARE;
  const rated = job.plate.line?.protection?.ratedA;
  return {
    practice: job.practice,
    loaded: profile.supply.phases === 1 ? 2 : 3,
    inputA,
    ...(rated ? { protectionA: toBase(rated, 'current') } : {}),
  };
}

/** Size of the feed: one fact, one size: the plate's where it states one, else the smallest that passes. */
const feedOf = (job: Job, profile: Profile, model: Model): Size =>
  job.plate.line?.protection?.feedSize ?? feedSize(feedAsked(job, profile, model));

/** Wires of the supply, over a line contactor where there is one, and of the motor. */
export function powerWires(
  job: Job,
  profile: Profile,
  model: Model,
  arrangement: Arrangement,
  device: string,
): RoutedWire[] {
  const { practice, plate } = job;
  const { supply, motor } = lineIds;
  const amps = Math.max(model.ratedA, plateNumbers(plate).rated?.amps ?? 0);
  // A winding of a delta carries the current of the line over the root of three.
  const leadA = arrangement.insideDelta ? amps / Math.sqrt(3) : amps;
  const feed = feedOf(job, profile, model);
  const motorSize: Size = plate.cable.size ?? powerSize(practice, leadA * CONTINUOUS[practice]);
  const motorM = plate.cable.length ? toBase(plate.cable.length, 'length') : PANEL_M;
  const wire = (
    [from, to]: readonly [string, string],
    name: string,
    wireClass: WireSpec['class'],
    more: { size: Size; lengthM?: number; line?: number; cable?: string; core?: string },
  ): RoutedWire => {
    const { line = 0, lengthM = PANEL_M, ...rest } = more;
    const colour = colourOf(practice, wireClass, line);
    const potential = from.replace(':', '.');
    return { from, to, function: name, colour, lengthM, potential, class: wireClass, ...rest };
  };
  const at = (kind: 'mains' | 'motor', phase: string): string | undefined => {
    const terminal = presentTerminals(profile).find(
      (id) => profile.terminals[id].kind === kind && profile.terminals[id].phase === phase,
    );
    return terminal === undefined ? undefined : `${device}:${terminal}`;
  };
  const feeds = feedWires(job, profile, arrangement, { at, wire, feed });
  const pe = at('mains', 'PE');
  const leaks = leakageOf(plateContext(job, profile)) > REINFORCED_ABOVE_MA;
  const motorPe = at('motor', 'PE') ?? pe;
  const cable = { cable: 'W1', lengthM: motorM };
  const outputs = plate.line?.outputFilter ? lineIds.outputFilter : undefined;
  const contactor = arrangement.devices.find(({ id }) => id === OUTPUT_CONTACTOR)?.id;
  const far = plate.line?.motorIsolator ? lineIds.motorIsolator : undefined;
  return [
    ...feeds,
    ...(pe ? [wire([`${supply}:PE`, pe], 'feed.PE', 'pe', { size: peSize(feed, leaks) })] : []),
    ...(arrangement.insideDelta ? deltaLeads({ at, wire }, motorSize, cable) : []),
    ...(arrangement.insideDelta
      ? []
      : lineLeads({ at, wire }, motorSize, cable, { outputs, contactor, far })),
    ...(motorPe
      ? motorBond(wire, [motorPe, `${motor}:PE`], far, { size: peSize(motorSize), ...cable })
      : []),
    ...resistorWires(job, profile, wire, device),
    ...bonds(job, profile, arrangement, wire, peSize(feed, leaks)),
  ];
}

/** Wires of a braking resistor from the device to where its heat may go, m. */
const RESISTOR_M = 3;

/** The two wires of a braking resistor, for the current at which it gives its rated power. */
function resistorWires(job: Job, profile: Profile, wire: Wire, device: string): RoutedWire[] {
  const { resistor, brakingUnit } = job.plate.line ?? {};
  const link = brakingUnit ? linkTerminals(profile) : [];
  const own = resistorTerminals(profile)?.map((t) => `${device}:${t}`);
  const terminals = link.length > 0 ? UNIT_RESISTOR.map((t) => `${lineIds.brakingUnit}:${t}`) : own;
  if (!resistor || !terminals) return unitWires(job, wire, device, link);
  const watts = (resistor.power ? toBase(resistor.power, 'power') : 1) * 1000;
  const ohm = resistor.ohm ? toBase(resistor.ohm, 'resistance') : 50;
  const size = powerSize(job.practice, Math.sqrt(watts / ohm) * CONTINUOUS[job.practice]);
  const ends = terminals.map((terminal, i) =>
    wire(
      [terminal, `${lineIds.resistor}:${RESISTOR_ENDS[i]}`],
      `resistor.${i + 1}`,
      'mains',
      // Direct current of power is black in either practice.
      { size, line: 1, lengthM: RESISTOR_M },
    ),
  );
  return [...unitWires(job, wire, device, link), ...ends];
}

/** Wires of a braking unit to the DC link: short, side by side. */
const UNIT_M = 1;

/** The two wires from the DC link of the device to a separate braking unit, for the largest current of the unit. */
function unitWires(job: Job, wire: Wire, device: string, link: readonly string[]): RoutedWire[] {
  const most = job.plate.line?.brakingUnit?.mostA;
  const amps = most ? toBase(most, 'current') : 10;
  const size = powerSize(job.practice, amps * CONTINUOUS[job.practice]);
  return link.map((terminal, i) =>
    wire(
      [`${device}:${terminal}`, `${lineIds.brakingUnit}:${UNIT_LINK[i]}`],
      `brakingUnit.${i === 0 ? 'plus' : 'minus'}`,
      'mains',
      { size, line: 1, lengthM: UNIT_M },
    ),
  );
}

interface Laying extends LeadsLaid {
  readonly feed: Size;
}

/** Conductors from the supply to the device, over everything that lies in their way. */
function feedWires(
  job: Job,
  profile: Profile,
  arrangement: Arrangement,
  { at, wire, feed }: Laying,
): RoutedWire[] {
  const { supply } = lineIds;
  const way = feedWay(job, arrangement);
  return feedPhases(profile).flatMap((phase, line) => {
    const terminal = at('mains', phase);
    if (!terminal) return [];
    const [into, out] = [2 * line + 1, 2 * line + 2];
    const on = { size: feed, line: phase === 'N' ? 0 : line };
    const mains = phase === 'N' ? 'neutral' : 'mains';
    const ends = way.map(({ part, single }): readonly [string, string] =>
      single
        ? [`${part}.${line + 1}:1`, `${part}.${line + 1}:2`]
        : [`${part}:${into}`, `${part}:${out}`],
    );
    const steps = way.map(({ name }, i) =>
      wire(
        [i === 0 ? `${supply}:${phase}` : ends[i - 1][1], ends[i][0]],
        `${name}.${phase}`,
        mains,
        on,
      ),
    );
    const last = ends[ends.length - 1][1];
    return [...steps, wire([last, terminal], `feed.${phase}`, mains, on)];
  });
}

/** What the feed passes on its way to the device, in order, and what the wire that reaches it is called. */
function feedWay(
  { plate }: Job,
  { contactor, isolator }: Arrangement,
): readonly {
  readonly part: string;
  readonly name: string;
  /** Each pole is a part of its own. */
  readonly single?: true;
}[] {
  const { breaker, filter, reactor, fuse } = lineIds;
  const { inputFilter, reactor: choke } = plate.line ?? {};
  return [
    ...(isolator ? [{ part: isolator, name: 'isolator' }] : []),
    { part: breaker, name: 'supply' },
    ...(contactor ? [{ part: contactor, name: 'line' }] : []),
    ...(contactor && plate.line?.contactor?.fuse
      ? [{ part: fuse, name: 'fuse', single: true as const }]
      : []),
    ...(inputFilter ? [{ part: filter, name: 'filter' }] : []),
    ...(choke ? [{ part: reactor, name: 'reactor' }] : []),
  ];
}

/** Parts that stand in the wiring because Plate names them: disconnecting device, filters, reactor. */
export function lineParts(
  { plate }: Job,
  profile: Profile,
): Readonly<Record<string, { kind: string; tag: string; poles: number }>> {
  const { isolator, inputFilter, reactor, outputFilter } = plate.line ?? {};
  const poles = feedPhases(profile).length;
  return {
    ...(isolator
      ? {
          [lineIds.isolator]: isolator.plug
            ? { kind: 'supplyPlug', tag: 'XB1', poles }
            : { kind: 'isolator', tag: 'QB1', poles },
        }
      : {}),
    ...(inputFilter ? { [lineIds.filter]: { kind: 'inputFilter', tag: 'RF1', poles } } : {}),
    ...(reactor ? { [lineIds.reactor]: { kind: 'inputReactor', tag: 'RA1', poles } } : {}),
    ...(outputFilter
      ? { [lineIds.outputFilter]: { kind: 'outputFilter', tag: 'RF2', poles: 3 } }
      : {}),
  };
}

/** Cable in which the alternating control wires of a place run. */
const controlCable = { panel: undefined, station: 'W4', machine: 'W7' } as const;
const STATION_M = 8;

/**
 * Protective conductors of everything else that can be touched, each straight from the bar, and the one wire that bonds the
 * control common (IEC 60204-1 §8.2.1 and §9.4.3.1.2, method a).
 */
function bonds(
  job: Job,
  profile: Profile,
  { devices }: Arrangement,
  wire: Wire,
  feedPe: Size,
): RoutedWire[] {
  const { practice, scheme } = job;
  const bar = `${lineIds.supply}:${PROTECTIVE}`;
  // Laid apart from its phases and protected: IEC 60364-5-54 §543.1.3.
  const size: Size = practice === 'NFPA' ? { awg: '14' } : { mm2: 2.5 };
  const stationM = scheme.stationLength ? toBase(scheme.stationLength, 'length') : STATION_M;
  const apart = devices.filter((d) => isExposed(d) && d.id !== lineIds.motorIsolator);
  const exposed = apart.map(({ id, place }) => {
    const cable = controlCable[place];
    const more = cable ? { cable, core: PROTECTIVE, lengthM: stationM } : {};
    return wire([bar, `${id}:${PROTECTIVE}`], `pe.${id}`, 'pe', { size, ...more });
  });
  for (const [id, { kind }] of Object.entries(lineParts(job, profile)))
    if (isExposed({ kind, params: {} }))
      // What leaks through the filter goes through its own conductor.
      exposed.push(wire([bar, `${id}:${PROTECTIVE}`], `pe.${id}`, 'pe', { size: feedPe }));
  // One pole of every control supply of its own is bonded, or an earth fault is not seen.
  const poles = { controlTransformer: 'S2', supply24: '-' } as const;
  const names = { controlTransformer: 'control.earth', supply24: 'supply24.earth' } as const;
  const commons = devices.flatMap(({ id, kind }) =>
    kind === 'controlTransformer' || kind === 'supply24'
      ? [wire([`${id}:${poles[kind]}`, bar], names[kind], 'pe', { size })]
      : [],
  );
  return [...exposed, ...commons];
}
