import type { Model, Profile } from '../catalogue/index.js';
import type { Job, Size, WireSpec } from '../job/index.js';
import type { Arrangement, InputFunction } from '../scheme/index.js';
import { plateNumbers } from '../power/index.js';
import { toBase } from '../units/index.js';
import { colourOf, controlSize, peSize, powerSize } from './conductors.js';
import { firstOfKind, presentTerminals, type InputLogic } from './terminals.js';

/** A wire to be drawn, before it has an id and a number. */
export type RoutedWire = Omit<WireSpec, 'number'>;

export interface Routing {
  readonly wires: readonly RoutedWire[];
  /** Terminals that would have to hold more conductors than they may. */
  readonly crowded: readonly string[];
}

const PANEL_M = 2;
const STATION_M = 8;

/** All wires of the job: supply, motor, station inputs and dial, each potential routed as one chain. */
export function routeWires(
  job: Job,
  profile: Profile,
  model: Model,
  arrangement: Arrangement,
  logic: InputLogic,
  at: Readonly<Record<string, string>>,
): Routing {
  const power = powerWires(job, profile, model);
  const control = controlWires(job, profile, arrangement, logic, at);
  return { wires: [...power, ...control.wires], crowded: control.crowded };
}

function powerWires(job: Job, profile: Profile, model: Model): RoutedWire[] {
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
    cable?: { cable: string; core: string },
  ): void => {
    wires.push({
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
  };
  const terminals = presentTerminals(profile);
  const find = (kind: string, phase: string): string | undefined =>
    terminals.find((id) => profile.terminals[id].kind === kind && profile.terminals[id].phase === phase);
  ['L1', 'L2', 'L3'].forEach((phase, i) => {
    const terminal = find('mains', phase);
    if (!terminal) return;
    add(`supply:${phase}`, `breaker:${2 * i + 1}`, `supply.${phase}`, 'mains', feed, PANEL_M, i);
    add(`breaker:${2 * i + 2}`, `drive:${terminal}`, `feed.${phase}`, 'mains', feed, PANEL_M, i);
  });
  const pe = find('mains', 'PE');
  if (pe) add('supply:PE', `drive:${pe}`, 'feed.PE', 'pe', peSize(feed), PANEL_M, 0);
  ['U', 'V', 'W'].forEach((phase, i) => {
    const terminal = find('motor', phase);
    if (terminal) add(`drive:${terminal}`, `motor:${phase}`, `motor.${phase}`, 'motor', motorSize, motorM, i, { cable: 'W1', core: String(i + 1) });
  });
  const motorPe = find('motor', 'PE') ?? pe;
  if (motorPe) add(`drive:${motorPe}`, 'motor:PE', 'motor.PE', 'pe', peSize(motorSize), motorM, 0, { cable: 'W1', core: 'PE' });
  return wires;
}

interface Chain {
  readonly potential: string;
  readonly landings: readonly string[];
  readonly names: readonly string[];
  readonly class: WireSpec['class'];
}

function controlWires(job: Job, profile: Profile, arrangement: Arrangement, logic: InputLogic, at: Readonly<Record<string, string>>): Routing {
  const feedTerminal = firstOfKind(profile, logic.contactsSwitch === 'plus24' ? 'supply24' : 'zeroVolt');
  const zero = firstOfKind(profile, 'zeroVolt');
  const analogueCommon = firstOfKind(profile, 'analogueCommon') ?? zero;
  const reference = firstOfKind(profile, 'reference10');
  const analogueInput = firstOfKind(profile, 'analogueInput');
  const common = firstOfKind(profile, 'inputCommon');
  const chains: Chain[] = [];
  const fed = arrangement.inputs.filter((f) => !f.fedThrough);
  const chain = (potential: string, wireClass: WireSpec['class'], landings: string[], names: string[]): void =>
    void chains.push({ potential, class: wireClass, landings, names });
  const feedOf = (f: InputFunction): string => `${f.device}:${f.contact.feed}`;
  const feedLandings = [`drive:${feedTerminal}`, ...fed.map(feedOf)];
  const feedNames = fed.map((f) => `feed.${f.id}`);
  if (arrangement.dial && analogueCommon === feedTerminal) {
    feedLandings.push(`${arrangement.dial}:1`);
    feedNames.push('dial.low');
  }
  chain(feedTerminal ?? 'feed', 'controlDc', feedLandings, feedNames);
  for (const f of arrangement.inputs) {
    const behind = arrangement.inputs.filter((g) => g.fedThrough === f.id);
    chain(f.id, 'controlDc', [`${f.device}:${f.contact.load}`, ...behind.map(feedOf), `drive:${at[f.id]}`], [...behind.map((g) => `feed.${g.id}`), f.id]);
  }
  if (logic.wireCommonTo && common) chain('common', 'controlDc', [`drive:${common}`, `drive:${logic.wireCommonTo}`], ['inputCommon']);
  if (arrangement.dial && reference && analogueInput && analogueCommon) {
    chain(reference, 'analogue', [`drive:${reference}`, `${arrangement.dial}:3`], ['dial.high']);
    chain('wiper', 'analogue', [`${arrangement.dial}:2`, `drive:${analogueInput}`], ['dial.wiper']);
    if (analogueCommon !== feedTerminal) chain(analogueCommon, 'analogue', [`drive:${analogueCommon}`, `${arrangement.dial}:1`], ['dial.low']);
  }
  return layChains(job, profile, chains);
}

function layChains(job: Job, profile: Profile, chains: readonly Chain[]): Routing {
  const stationM = job.scheme.stationLength ? toBase(job.scheme.stationLength, 'length') : STATION_M;
  const held = new Map<string, number>();
  const wires: RoutedWire[] = [];
  const cores = { controlDc: 0, analogue: 0 } as Record<string, number>;
  for (const chain of chains) {
    for (let i = 0; i + 1 < chain.landings.length; i++) {
      const [from, to] = [chain.landings[i], chain.landings[i + 1]];
      for (const end of [from, to]) held.set(end, (held.get(end) ?? 0) + 1);
      const toDrive = from.startsWith('drive:') || to.startsWith('drive:');
      const core = toDrive ? { cable: chain.class === 'analogue' ? 'W3' : 'W2', core: String(++cores[chain.class]) } : {};
      wires.push({
        from, to, function: chain.names[i], size: controlSize(job.practice, chain.class), lengthM: toDrive ? stationM : 0.3, potential: chain.potential, class: chain.class,
        colour: colourOf(job.practice, chain.class, chain.class === 'analogue' ? wires.filter((w) => w.class === 'analogue').length : 0), ...core,
      }); // prettier-ignore
    }
  }
  const crowded = [...held]
    .filter(([landing, count]) => landing.startsWith('drive:') && count > (profile.terminals[landing.slice(6)]?.conductors ?? 2))
    .map(([landing]) => landing);
  return { wires, crowded };
}
