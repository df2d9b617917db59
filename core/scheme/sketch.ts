import type { WireSpec } from '../job/index.js';
import type {
  ArrangedDevice,
  Arrangement,
  InputFunction,
  Net,
  Operation,
  OutputFunction,
  Place,
  WishConflict,
} from './arrangement.js';

/** Letter of a device's tag by what it is (IEC 81346-2 letters where the trade uses them). */
const letters: readonly (readonly [RegExp, string])[] = [
  [
    /^(levelContact|pressureContact|guardContact|thermostat|levelInterlock|pressureInterlock)$/u,
    'B',
  ],
  [/^(relay|timerRelay|contactorRelay)/u, 'K'],
  [/^(contactor|breakerThreePole)/u, 'Q'],
  [/^(fuse|breakerTwoPole|breakerOnePole)/u, 'F'],
  [/^(lamp|horn)/u, 'H'],
  [/^(workLight|panelFan)/u, 'E'],
  [/^brake$/u, 'Y'],
  [/^(supply24|loopSupply)/u, 'G'],
  [/^controlTransformer/u, 'T'],
  [/^potentiometer/u, 'R'],
  [/^(controller|transistorOutput|voltageSource|currentSource|meter)/u, 'A'],
];

/** First number of a letter that other devices of the job already use: the breaker is Q1, the drive T1. */
const taken: Readonly<Record<string, number>> = { Q: 1, T: 1 };

type Contact = readonly [device: string, a: string, b: string];

/** Collects devices, nets, inputs and operations while the wishes are gone through. */
export class Sketch {
  readonly devices: ArrangedDevice[] = [];
  readonly inputs: InputFunction[] = [];
  readonly outputs: OutputFunction[] = [];
  readonly operations: Record<string, Operation> = {};
  readonly conflicts: WishConflict[] = [];
  readonly meanings: Arrangement['meanings'][number][] = [];
  private readonly chains = new Map<
    string,
    { class: WireSpec['class']; points: { at: string; wire: string }[] }
  >();
  private readonly counts: Record<string, number> = { ...taken };

  device(
    id: string,
    kind: string,
    place: Place = 'station',
    params: ArrangedDevice['params'] = {},
  ): string {
    const letter = letters.find(([pattern]) => pattern.test(kind))?.[1] ?? 'S';
    this.counts[letter] = (this.counts[letter] ?? 0) + 1;
    this.devices.push({ id, kind, tag: `${letter}${this.counts[letter]}`, place, params });
    return id;
  }

  /** Adds a landing to a potential; a wire of that name reaches it from the landing before. */
  join(
    potential: string,
    at: string,
    wire: string,
    wireClass: WireSpec['class'] = 'controlDc',
  ): void {
    const chain = this.chains.get(potential) ?? { class: wireClass, points: [] };
    if (!chain.points.some((p) => p.at === at)) chain.points.push({ at, wire });
    this.chains.set(potential, chain);
  }

  has(potential: string): boolean {
    return this.chains.has(potential);
  }

  /** Lays contacts in series from a potential on; the potential behind the last contact is `to`. */
  series(
    from: string,
    contacts: readonly Contact[],
    to: string,
    wire: string,
    wireClass: WireSpec['class'] = 'controlDc',
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
    task: string,
    device: string,
    wish: string,
    potential: string,
    place: 'first' | 'last' = 'last',
  ): void {
    this.inputs[place === 'first' ? 'unshift' : 'push']({ id, task, device, wish });
    this.join(potential, `@in:${id}`, id);
  }

  output(task: string, wish: string, wired: boolean): void {
    const known = this.outputs.findIndex((o) => o.task === task);
    if (known < 0) this.outputs.push({ task, wish, wired });
    else if (wired) this.outputs[known] = { ...this.outputs[known], wired };
  }

  operation(id: string, device: string, position?: string): string {
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
