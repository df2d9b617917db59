import {
  commandPlace,
  isPulse,
  terminalDemand,
  viewDrive,
  type DriveState,
  type InputName,
} from '../drive/index.js';
import type { Installation, InstalledDrive, InstalledInput } from '../installation/index.js';
import type { Where } from '../job/index.js';
import type { Engine } from './engine.js';
import type { CoilState } from './models/coil.js';
import type { DriveModelState } from './models/drive.js';
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

/** Collects the conditions of one moment. */
class Inquiry {
  readonly conditions: Condition[] = [];
  readonly drive: InstalledDrive;
  readonly state: DriveModelState;
  readonly logic: DriveState;
  private readonly ways: Ways;
  private readonly closed: Float64Array;

  constructor(
    private readonly installation: Installation,
    private readonly engine: Engine,
    private readonly t: number,
  ) {
    this.drive = installation.devices.find(
      (d): d is InstalledDrive => d.kind === 'drive',
    ) as InstalledDrive;
    this.state = engine.stateOf(this.drive.id) as DriveModelState;
    this.logic = this.state.logic;
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
      const coil = this.installation.devices.find((d) => d.kind === 'coil' && d.id === place.coil);
      if (coil?.kind !== 'coil' || seen.includes(coil.id)) return [place];
      const poles = coil.ac
        ? this.landings(/^(fuse\.control:2|breaker\.control:2|supply:L1)$/u)
        : this.plusPoles();
      const further = this.ways.openOnTheWay(coil.coil.a, poles, this.closed);
      return [place, ...this.behindCoils(further, [...seen, coil.id])];
    });
  }

  private landings(pattern: RegExp): number[] {
    return this.installation.landings.flatMap((l, i) => (pattern.test(l) ? [i] : []));
  }

  private plusPoles(): number[] {
    const supply = this.drive.supply24 ? [this.installation.edgeA[this.drive.supply24.edge]] : [];
    return [
      ...supply,
      ...this.landings(/:\+$/u).filter((i) =>
        /^(supply24|controller\.supply):/u.test(this.installation.landings[i]),
      ),
    ];
  }

  private zeroPoles(): number[] {
    return this.drive.supply24 ? [this.installation.edgeB[this.drive.supply24.edge]] : [];
  }

  /** What is open on the way of an input: to the pole that its common does not lie on. */
  openAt(input: Pick<InstalledInput, 'plus' | 'minus'>): readonly OpenPlace[] {
    const atPlus = this.ways.openOnTheWay(input.minus, this.plusPoles(), this.closed).length === 0;
    return this.ways.openOnTheWay(
      input.plus,
      atPlus ? this.zeroPoles() : this.plusPoles(),
      this.closed,
    );
  }

  inputOf(...tasks: readonly InputName[]): InstalledInput | undefined {
    return this.drive.inputs.find((i) => tasks.includes(i.task as InputName));
  }

  supply(): void {
    const { installation, drive } = this;
    const supply = installation.devices.find((d) => d.kind === 'supply');
    if (supply?.kind === 'supply') {
      const { on, lost } = this.engine.stateOf(supply.id) as {
        on: boolean;
        lost: readonly string[];
      };
      this.add(
        'supply',
        on && lost.length === 0,
        { kind: 'device', id: supply.id },
        { phase: on ? (lost[0] ?? '') : '' },
      );
    }
    const sources = this.landings(/^supply:L[123]$/u);
    drive.mains.landings.forEach((landing) => {
      const name = installation.landings[landing];
      if (name.endsWith(':N')) return;
      const open = this.ways.openOnTheWay(landing, sources, this.closed);
      if (open.length > 0)
        this.add(
          'mains',
          false,
          { kind: 'landing', id: name },
          { terminal: name.split(':')[1] },
          open,
        );
    });
    if (!this.conditions.some((c) => c.code === 'mains'))
      this.add(
        'mains',
        this.state.mains === 2,
        { kind: 'device', id: drive.id },
        { terminal: 'L1' },
      );
    const { logic } = this.logic.power;
    this.add('logic', logic === 'on', { kind: 'device', id: drive.id }, { state: logic });
    this.add(
      'fault',
      this.logic.fault === null,
      { kind: 'device', id: drive.id },
      { name: this.logic.fault ?? '' },
    );
  }

  enables(): void {
    this.drive.enables.forEach((input, i) => {
      const met = this.state.enables[i] === 1;
      this.add(
        'enable',
        met,
        this.landingOf(input.terminal),
        { terminal: input.terminal },
        met ? [] : this.ways.openOnTheWay(input.plus, this.plusPoles(), this.closed),
      );
    });
    for (const task of ['outputInhibit', 'quickStop', 'externalFault'] as const) {
      const input = this.inputOf(task);
      if (input)
        this.add(
          'inhibit',
          this.logic.levels[task] === 0,
          this.landingOf(input.terminal),
          { terminal: input.terminal },
          input.inverted ? this.openAt(input) : [],
        );
    }
  }

  command(): void {
    const { drive, logic } = this;
    const terminals = commandPlace(drive.control, logic.levels) === 'terminals';
    const local = this.inputOf('local');
    this.add(
      'place',
      terminals,
      local ? this.landingOf(local.terminal) : { kind: 'device', id: drive.id },
      { local: logic.levels.local === 1, terminal: local?.terminal ?? '', setting: 'command' },
    );
    this.common();
    const stop = this.inputOf('stop');
    if (stop)
      this.add(
        'stop',
        logic.levels.stop === 1,
        this.landingOf(stop.terminal),
        { terminal: stop.terminal },
        this.openAt(stop),
      );
    this.demand();
  }

  private common(): void {
    const [first] = this.drive.inputs;
    const link = this.drive.links.find((l) =>
      Object.values(l.positions).some((p) => p.edges.length > 0),
    );
    if (!first || !link) return;
    const joined =
      this.ways.openOnTheWay(first.minus, [...this.plusPoles(), ...this.zeroPoles()], this.closed)
        .length === 0;
    const terminal = this.installation.landings[first.minus].split(':')[1];
    this.add('common', joined, this.landingOf(terminal), {
      terminal,
      link: link.id,
      position: this.state.links[link.id] ?? '',
    });
  }

  private demand(): void {
    const { drive, logic } = this;
    const { control } = drive;
    const pulse = isPulse(control);
    const given = pulse
      ? logic.latch !== 0
      : terminalDemand(control, logic.levels) || logic.carried !== 0;
    const start = this.inputOf(
      'forward',
      'run',
      'start',
      'startForward',
      'reverse',
      'startReverse',
    );
    if (start) {
      const open = given ? [] : this.openAt(start);
      const hand = open.find((p) => p.code === 'contact');
      this.add(
        'demand',
        given,
        this.landingOf(start.terminal),
        {
          terminal: start.terminal,
          pulse: pulse && open.every((p) => p.code === 'contact'),
          device: hand?.args['device'] ?? start.terminal,
        },
        open,
      );
    }
    for (const d of this.installation.devices) {
      if (d.kind !== 'coil' || d.operateUs < 500_000) continue;
      const s = this.engine.stateOf(d.id) as CoilState;
      if (s.on && !s.makesClosed)
        this.add('warning', false, { kind: 'device', id: d.id }, { device: d.tag });
    }
    this.add('fresh', !logic.needFresh, { kind: 'device', id: drive.id });
  }

  outcome(blockedBy: string | null): void {
    const { drive, logic, t } = this;
    const of = { kind: 'device', id: drive.id } as const;
    this.add('direction', blockedBy !== 'noReverse', of);
    this.add('together', blockedBy !== 'bothDirections' && blockedBy !== 'startsTogether', of);
    const coasts =
      logic.motion.kind === 'coast' &&
      t < logic.motion.endUs &&
      drive.control.startWhileCoasting === 'waitUntilStill';
    this.add('coasting', !coasts, of);
    const hz =
      drive.control.referenceSource === 'keypad'
        ? (drive.control.keypadHz ?? 0)
        : drive.control.referenceSource === 'motorPot'
          ? logic.potHz
          : logic.referenceHz;
    const presets =
      drive.control.referenceSource === 'preset' ||
      [logic.levels.presetBit0, logic.levels.presetBit1, logic.levels.presetBit2].some(Boolean);
    const { analogue } = drive;
    const volts = analogue?.used
      ? this.engine.voltsBetween(analogue.plus, analogue.minus)
      : undefined;
    const dial = this.installation.devices.find((d) => d.kind === 'dial' || d.kind === 'source');
    const at = dial ? (this.engine.stateOf(dial.id) as { at: number }).at * 100 : 0;
    const args: Args = {
      hz,
      ...(volts === undefined ? {} : { volts: volts ?? 0, terminal: analogue?.terminal ?? '' }),
      ...(dial && 'tag' in dial ? { device: dial.tag, pct: at } : {}),
    };
    this.add(
      'reference',
      presets || hz >= STANDSTILL_HZ,
      analogue?.used ? this.landingOf(analogue.terminal) : of,
      args,
    );
  }

  private landingOf(terminal: string): Where {
    return { kind: 'landing', id: `${this.drive.id}:${terminal}` };
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
  const inquiry = new Inquiry(installation, engine, t);
  const view = viewDrive(inquiry.drive.control, inquiry.drive.link, inquiry.logic, t);
  inquiry.supply();
  inquiry.enables();
  inquiry.command();
  inquiry.outcome(view.blockedBy);
  return { running: Math.abs(view.hz) >= STANDSTILL_HZ, conditions: inquiry.conditions };
}
