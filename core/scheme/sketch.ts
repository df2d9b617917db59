import type { InputTask, OutputTask } from '../catalogue/index.js';
import type { WireSpec } from '../job/index.js';
import { parts } from '../parts/index.js';
import type {
  ArrangedDevice,
  Arrangement,
  InputFunction,
  Net,
  Operation,
  OperationId,
  OutputFunction,
  Mounting,
  PointRef,
  WishConflict,
} from './arrangement.js';

/** First number of a letter that other devices of the job already use: the breaker is Q1, the drive T1. */
const taken: Readonly<Record<string, number>> = { Q: 1, T: 1 };

/** A contact between two terminals of a part. */
export type Contact = readonly [device: string, a: string, b: string];

/** Collects devices, nets, inputs and operations while the wishes are gone through. */
export class Sketch {
  readonly devices: ArrangedDevice[] = [];
  readonly inputs: InputFunction[] = [];
  readonly outputs: OutputFunction[] = [];
  readonly operations: Partial<Record<OperationId, Operation>> = {};
  readonly conflicts: WishConflict[] = [];
  readonly meanings: Arrangement['meanings'][number][] = [];
  private readonly chains = new Map<
    string,
    { class: WireSpec['class']; points: { at: PointRef; wire: string }[] }
  >();
  private readonly counts: Record<string, number> = { ...taken };

  /** Potentials that are another one under a second name, and symbols this device has no terminal for. */
  private readonly aliases = new Map<string, string>();
  private readonly absent = new Set<PointRef>();
  /** Class of the wires of the station, where nothing else is said. */
  controlClass: WireSpec['class'] = 'controlDc';

  /** @param terminals of the device, so that no tag equals one of them */
  constructor(private readonly terminals: readonly string[] = []) {}

  /** From here on one name stands for the potential of another. */
  alias(name: string, potential: string): void {
    this.aliases.set(name, potential);
  }

  /** Landings that are not there: whatever would be joined to them is not. */
  without(...symbols: PointRef[]): void {
    for (const symbol of symbols) this.absent.add(symbol);
  }

  private named(potential: string): string {
    return this.aliases.get(potential) ?? potential;
  }

  device(
    id: string,
    kind: string,
    place: Mounting = 'station',
    params: ArrangedDevice['params'] = {},
    more: Pick<ArrangedDevice, 'positions' | 'contacts'> = {},
  ): string {
    const { letter } = parts[kind];
    // No tag that equals a terminal of the device: "measure A1" would mean two things.
    do this.counts[letter] = (this.counts[letter] ?? 0) + 1;
    while (this.terminals.includes(`${letter}${this.counts[letter]}`));
    const tag = `${letter}${this.counts[letter]}`;
    this.devices.push({ id, kind, tag, place, params, ...more });
    return id;
  }

  /** Adds a landing to a potential; a wire of that name reaches it from the landing before. */
  join(
    potential: string,
    at: PointRef,
    wire: string,
    wireClass: WireSpec['class'] = this.controlClass,
  ): void {
    if (this.absent.has(at)) return;
    potential = this.named(potential);
    const chain = this.chains.get(potential) ?? { class: wireClass, points: [] };
    if (!chain.points.some((p) => p.at === at)) chain.points.push({ at, wire });
    this.chains.set(potential, chain);
  }

  has(potential: string): boolean {
    return this.chains.has(this.named(potential));
  }

  /** Lays contacts in series from a potential on; the potential behind the last contact is `to`. */
  series(
    from: string,
    contacts: readonly Contact[],
    to: string,
    wire: string,
    wireClass: WireSpec['class'] = this.controlClass,
  ): void {
    let potential = from;
    contacts.forEach(([device, a, b], i) => {
      this.join(
        potential,
        `${device}:${a}`,
        i === 0 ? `feed.${wire}` : `${wire}.link.${i}`,
        wireClass,
      );
      potential = i === contacts.length - 1 ? to : `${to}.${i + 1}`;
      this.join(potential, `${device}:${b}`, `${wire}.${i + 1}`, wireClass);
    });
  }

  /** An input function whose terminal ends the potential; the first ones are assigned to the first terminals. */
  input(
    id: string,
    task: InputTask,
    device: string,
    wish: string,
    potential: string,
    place: 'first' | 'last' = 'last',
  ): void {
    this.inputs[place === 'first' ? 'unshift' : 'push']({ id, task, device, wish });
    this.join(potential, `@in:${id}`, id);
  }

  /** @param rests its break contact is wired, not its make contact */
  output(task: OutputTask, wish: string, wired: boolean, rests = false): void {
    const known = this.outputs.findIndex((o) => o.task === task);
    const more = rests ? { rests } : {};
    if (known < 0) this.outputs.push({ task, wish, wired, ...more });
    else if (wired) this.outputs[known] = { ...this.outputs[known], wired, ...more };
  }

  operation<Id extends OperationId>(id: Id, device: string, position?: string): Id {
    this.operations[id] = position === undefined ? { device } : { device, position };
    return id;
  }

  mean(role: string, value: number | string | boolean | undefined, wish: string): void {
    if (value === undefined) return;
    const known = this.meanings.findIndex((m) => m.role === role);
    if (known >= 0) this.meanings.splice(known, 1);
    this.meanings.push({ role, value, wish });
  }

  conflict(wishes: readonly string[], code: string): void {
    this.conflicts.push({ wishes, code });
  }

  /** The potentials laid, those of a single landing left out: nothing would be wired. */
  nets(): Net[] {
    return [...this.chains]
      .map(([potential, { class: wireClass, points }]) => ({ potential, class: wireClass, points }))
      .filter((n) => n.points.length > 1);
  }
}
