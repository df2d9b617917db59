import { presentTerminals, type Model, type Profile } from '../catalogue/index.js';
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
import { isExposed, PROTECTIVE } from '../parts/index.js';
import { lineIds, type Arrangement } from '../scheme/index.js';
import { toBase } from '../units/index.js';
import { colourOf, peSize, powerSize } from './conductors.js';
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
  const { supply, breaker, motor } = lineIds;
  const amps = Math.max(model.ratedA, plateNumbers(plate).rated?.amps ?? 0);
  const feed = feedOf(job, profile, model);
  const motorSize: Size = plate.cable.size ?? powerSize(practice, amps * CONTINUOUS[practice]);
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
  const feeds = feedPhases(profile).flatMap((phase, line) => {
    const terminal = at('mains', phase);
    if (!terminal) return [];
    const [into, out] = [2 * line + 1, 2 * line + 2];
    const { contactor } = arrangement;
    const last = `${contactor ?? breaker}:${out}`;
    const on = { size: feed, line: phase === 'N' ? 0 : line };
    const mains = phase === 'N' ? 'neutral' : 'mains';
    return [
      wire([`${supply}:${phase}`, `${breaker}:${into}`], `supply.${phase}`, mains, on),
      ...(contactor
        ? [wire([`${breaker}:${out}`, `${contactor}:${into}`], `line.${phase}`, mains, on)]
        : []),
      wire([last, terminal], `feed.${phase}`, mains, on),
    ];
  });
  const pe = at('mains', 'PE');
  const leaks = leakageOf(plateContext(job, profile)) > REINFORCED_ABOVE_MA;
  const motorPe = at('motor', 'PE') ?? pe;
  const cable = { cable: 'W1', lengthM: motorM };
  return [
    ...feeds,
    ...(pe ? [wire([`${supply}:PE`, pe], 'feed.PE', 'pe', { size: peSize(feed, leaks) })] : []),
    ...['U', 'V', 'W'].flatMap((phase, line) => {
      const from = at('motor', phase);
      const more = { size: motorSize, line, core: String(line + 1), ...cable };
      return from ? [wire([from, `${motor}:${phase}`], `motor.${phase}`, 'motor', more)] : [];
    }),
    ...(motorPe
      ? [
          wire([motorPe, `${motor}:PE`], 'motor.PE', 'pe', {
            size: peSize(motorSize),
            core: 'PE',
            ...cable,
          }),
        ]
      : []),
    ...bonds(job, arrangement, wire),
  ];
}

type Wire = (
  ends: readonly [string, string],
  name: string,
  wireClass: WireSpec['class'],
  more: { size: Size; lengthM?: number; line?: number; cable?: string; core?: string },
) => RoutedWire;

/** Cable in which the alternating control wires of a place run. */
const controlCable = { panel: undefined, station: 'W4', machine: 'W7' } as const;
const STATION_M = 8;

/**
 * Protective conductors of everything else that can be touched, each straight from the bar, and the one wire that bonds the
 * control common (IEC 60204-1 §8.2.1 and §9.4.3.1.2, method a).
 */
function bonds({ practice, scheme }: Job, { devices }: Arrangement, wire: Wire): RoutedWire[] {
  const bar = `${lineIds.supply}:${PROTECTIVE}`;
  // Laid apart from its phases and protected: IEC 60364-5-54 §543.1.3.
  const size: Size = practice === 'NFPA' ? { awg: '14' } : { mm2: 2.5 };
  const stationM = scheme.stationLength ? toBase(scheme.stationLength, 'length') : STATION_M;
  const exposed = devices.filter(isExposed).map(({ id, place }) => {
    const cable = controlCable[place];
    const more = cable ? { cable, core: PROTECTIVE, lengthM: stationM } : {};
    return wire([bar, `${id}:${PROTECTIVE}`], `pe.${id}`, 'pe', { size, ...more });
  });
  const common = devices.find((d) => d.kind === 'controlTransformer');
  return common
    ? [...exposed, wire([`${common.id}:S2`, bar], 'control.earth', 'pe', { size })]
    : exposed;
}
