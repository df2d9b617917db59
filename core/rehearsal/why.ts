import {
  installedOf,
  logicOf,
  type Installation,
  type InstalledDevice,
  type InstalledInput,
} from '../installation/index.js';
import { landingParts, type Where } from '../job/index.js';
import type { LogicCondition } from '../motor/index.js';
import type { CoilState } from '../parts/index.js';
import type { DeviceState } from './device-model.js';
import type { Engine } from './engine.js';
import { Ways, type OpenPlace } from './ways.js';

/** A condition for running, met or not, with what it concerns. */
export interface Condition {
  readonly code: string;
  readonly met: boolean;
  readonly args: Readonly<Record<string, string | number | boolean>>;
  readonly where: Where;
  /** What is open on its way, each with its place. */
  readonly open: readonly OpenPlace[];
}

export interface Why {
  /** The motor is driven now. */
  readonly running: boolean;
  /** Conditions in the order in which they are to be looked at; the first unmet one comes first in what to do. */
  readonly conditions: readonly Condition[];
}

type Args = Condition['args'];

/** Below this nothing turns that a person could see: the end resistance of a dial is never quite nothing. */
const STANDSTILL_HZ = 0.05;
/** A relay that takes longer than this to pull in is a timer: a start warning. */
const TIMER_US = 500_000;

/** Collects the conditions of one moment. */
class Inquiry {
  readonly conditions: Condition[] = [];
  readonly device: InstalledDevice;
  readonly state: DeviceState;
  private readonly ways: Ways;
  private readonly closed: Float64Array;

  constructor(
    private readonly installation: Installation,
    private readonly engine: Engine,
  ) {
    this.device = installation.device;
    this.state = engine.stateOf(this.device.id) as DeviceState;
    this.ways = new Ways(installation);
    this.closed = engine.conductances();
  }

  add(
    code: string,
    met: boolean,
    where: Where,
    args: Args = {},
    open: readonly OpenPlace[] = [],
  ): void {
    this.conditions.push({ code, met, args, where, open: met ? [] : this.behindCoils(open) });
  }

  /** Open contacts of a relay are followed to what keeps its coil from pulling in. */
  private behindCoils(open: readonly OpenPlace[], seen: readonly string[] = []): OpenPlace[] {
    return open.flatMap((place) => {
      const coil = installedOf(this.installation, 'coil').find((d) => d.id === place.coil);
      if (!coil || seen.includes(coil.id)) return [place];
      const poles = this.poles(coil.ac ? 'alternating' : 'direct', 'a');
      const further = this.ways.openOnTheWay(coil.coil.a, poles, this.closed);
      return [place, ...this.behindCoils(further, [...seen, coil.id])];
    });
  }

  /** Landings of one pole of every source: `a` the plus or line side, `b` the other. */
  private poles(gives: 'direct' | 'alternating', pole: 'a' | 'b'): number[] {
    const { edges, edgeA, edgeB } = this.installation;
    const ends = pole === 'a' ? edgeA : edgeB;
    return edges.flatMap((e, i) => (e.gives === gives ? [ends[i]] : []));
  }

  /** What is open on the way of an input: to the pole that its common does not lie on. */
  private openAt({ plus, minus, ac }: Pick<InstalledInput, 'plus' | 'minus' | 'ac'>) {
    const gives = ac ? 'alternating' : 'direct';
    const high = this.poles(gives, 'a');
    const atPlus = !ac && this.ways.openOnTheWay(minus, high, this.closed).length === 0;
    return this.ways.openOnTheWay(plus, atPlus ? this.poles(gives, 'b') : high, this.closed);
  }

  /** Supply, and the mains terminals of the device. */
  supply(): void {
    const { installation, device } = this;
    const [supply] = installedOf(installation, 'supply');
    if (supply) {
      const { on, lost } = this.engine.stateOf(supply.id) as {
        on: boolean;
        lost: readonly string[];
      };
      const where = { kind: 'device', id: supply.id } as const;
      this.add('supply', on && lost.length === 0, where, { phase: on ? (lost[0] ?? '') : '' });
    }
    if (logicOf(device.spec).mainsOnDemand !== true) this.mains();
  }

  /** The mains terminals of the device, each with what is open on its way. */
  mains(): void {
    const { installation, device } = this;
    const [supply] = installedOf(installation, 'supply');
    const sources = supply
      ? supply.phases.map(({ edge }) => installation.edgeA[edge])
      : this.poles('alternating', 'a');
    const before = this.conditions.length;
    device.mains.landings.forEach((landing, i) => {
      if (device.mains.phases[i] === 'N') return;
      const name = installation.landings[landing];
      const open = this.ways.openOnTheWay(landing, sources, this.closed);
      const args = { terminal: landingParts(name).terminal };
      if (open.length > 0) this.add('mains', false, { kind: 'landing', id: name }, args, open);
    });
    if (this.conditions.length > before) return;
    const [first] = device.mains.landings;
    const terminal = first === undefined ? '' : landingParts(installation.landings[first]).terminal;
    const of = { kind: 'device', id: device.id } as const;
    this.add('mains', this.state.mains === 2, of, { terminal });
  }

  /** Whether more has reached the device than it withstands: nothing else is worth asking then. */
  destroyed(): boolean {
    const at = this.device.withstand[this.state.destroyed - 1];
    if (this.state.destroyed === 0) return false;
    const { terminal } = at;
    this.add('destroyed', false, this.landingOf(terminal), { terminal });
    return true;
  }

  /** What of the circuit the logic asks for, and its own conditions, in its order. */
  logic(t: number): void {
    for (const c of logicOf(this.device.spec).why(this.state.logic, t)) {
      if ('ask' in c) this[c.ask]();
      else if (c.about === 'reference') this.reference(c);
      else if (c.about === 'device') this.add(c.code, c.met, this.of(), c.args);
      else this.task(c, c.about.tasks);
    }
  }

  enables(): void {
    this.device.enables.forEach((input, i) => {
      const { terminal } = input;
      const met = this.state.enables[i] === 1;
      const open = met ? [] : this.openAt(input);
      this.add('enable', met, this.landingOf(terminal), { terminal }, open);
    });
  }

  /** A condition about inputs of some tasks: nothing to say where the device has none of them. */
  private task(c: LogicCondition, tasks: readonly string[]): void {
    const input = this.device.inputs.find((i) => tasks.includes(i.task));
    if (!input && c.follow) return;
    const terminal = input?.terminal ?? '';
    const follows = c.follow && !c.met && input;
    const open = follows && (c.code !== 'inhibit' || input.inverted) ? this.openAt(input) : [];
    const hand = open.find((p) => p.code === 'contact');
    const pulse = c.args['pulse'] === true && open.every((p) => p.code === 'contact');
    const args = {
      ...c.args,
      terminal,
      ...(c.code === 'place' ? { setting: 'command' } : {}),
      ...(c.code === 'demand' ? { pulse, device: hand?.args['device'] ?? terminal } : {}),
    };
    this.add(c.code, c.met, input ? this.landingOf(terminal) : this.of(), args, open);
  }

  common(): void {
    const [first] = this.device.inputs;
    const link = this.device.links.find((l) =>
      Object.values(l.positions).some((p) => p.edges.length > 0),
    );
    if (!first || !link || first.ac) return;
    const poles = [...this.poles('direct', 'a'), ...this.poles('direct', 'b')];
    const joined = this.ways.openOnTheWay(first.minus, poles, this.closed).length === 0;
    const { terminal } = landingParts(this.installation.landings[first.minus]);
    const position = this.state.links[link.id] ?? '';
    this.add('common', joined, this.landingOf(terminal), { terminal, link: link.id, position });
  }

  warnings(): void {
    for (const d of installedOf(this.installation, 'coil')) {
      if (d.operateUs < TIMER_US) continue;
      const s = this.engine.stateOf(d.id) as CoilState;
      if (s.on && !s.makesClosed)
        this.add(
          'warning',
          false,
          { kind: 'device', id: d.id },
          { device: d.tag, answers: d.answers === true },
        );
    }
  }

  private reference(c: LogicCondition): void {
    const { device, installation } = this;
    const input = device.analogue.find((a) => a.terminal === device.facts.referenceInput);
    const volts = input && this.engine.voltsBetween(input.plus, input.minus);
    const dial = installation.devices.find((d) => d.kind === 'dial' || d.kind === 'source');
    const at = dial ? (this.engine.stateOf(dial.id) as { at: number }).at * 100 : 0;
    const args: Args = {
      ...c.args,
      ...(input ? { volts: volts ?? 0, terminal: input.terminal } : {}),
      ...(dial ? { device: dial.tag, pct: at } : {}),
    };
    this.add(c.code, c.met, input ? this.landingOf(input.terminal) : this.of(), args);
  }

  private of(): Where {
    return { kind: 'device', id: this.device.id };
  }

  private landingOf(terminal: string): Where {
    return { kind: 'landing', id: `${this.device.id}:${terminal}` };
  }
}

/**
 * Why the motor runs or does not, at the moment an engine stands at: supply, device, enables, command, stop, demand,
 * reference, each met or not, and what is open on the way of each that is not.
 *
 * @param engine at the moment asked about
 * @example whyNotRunning(installation, session.engineAt(t), t).conditions.find((c) => !c.met)
 */
export function whyNotRunning(installation: Installation, engine: Engine, t: number): Why {
  const inquiry = new Inquiry(installation, engine);
  if (inquiry.destroyed()) return { running: false, conditions: inquiry.conditions };
  inquiry.supply();
  inquiry.logic(t);
  const { hz } = logicOf(installation.device.spec).view(inquiry.state.logic, t);
  return { running: Math.abs(hz) >= STANDSTILL_HZ, conditions: inquiry.conditions };
}
