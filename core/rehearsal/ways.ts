import type { EdgeRole } from '../circuit/index.js';
import { installedOf, tagIn, type Installation } from '../installation/index.js';
import { landingParts, type Where } from '../job/index.js';

/** One open place on the way of a circuit, as a code for words. */
export interface OpenPlace {
  readonly code: 'wire' | 'contact' | 'link' | 'missing';
  readonly args: Readonly<Record<string, string>>;
  readonly where: Where;
  /** Relay or contactor whose contact it is. */
  readonly coil?: string;
}

interface Step {
  readonly edge: number;
  readonly place: OpenPlace;
}

/** Edges that carry a circuit on: what can be open or closed, never a resistance. */
const carries: ReadonlySet<EdgeRole> = new Set(['wire', 'contact', 'fuse', 'link', 'join']);

/** What can be open or closed between landings: wires, contacts, links. */
export class Ways {
  private readonly at = new Map<number, Step[]>();
  private readonly ends: readonly (readonly [number, number])[];

  constructor(private readonly installation: Installation) {
    this.ends = installation.edgeA.map((a, e) => [a, installation.edgeB[e]] as const);
    const numbers = new Map(
      installedOf(installation, 'wires').flatMap((d) => d.wires.map((w) => [w.id, w.number])),
    );
    const coils = new Set(installedOf(installation, 'coil').map((d) => d.id));
    const { device } = installation;
    installation.edges.forEach(({ of, role, a, b }, edge) => {
      if (!carries.has(role)) return;
      if (role === 'wire')
        this.add(edge, {
          code: 'wire',
          args: { number: numbers.get(of) ?? of },
          where: { kind: 'wire', id: of },
        });
      else if (role === 'link') {
        const { position = '' } = device.links.find((l) => l.id === of) ?? {};
        const where = { kind: 'device', id: device.id } as const;
        this.add(edge, { code: 'link', args: { device: of, position }, where });
      } else if (role === 'join')
        this.add(edge, { code: 'missing', args: {}, where: { kind: 'device', id: of } });
      else {
        const [from, to] = [a, b].map((landing) => landingParts(landing).terminal);
        this.add(edge, {
          code: 'contact',
          args: { device: tagIn(installation, of), a: from, b: to },
          where: { kind: 'device', id: of },
          ...(coils.has(of) ? { coil: of } : {}),
        });
      }
    });
  }

  private add(edge: number, place: OpenPlace): void {
    for (const node of this.ends[edge]) {
      const list = this.at.get(node) ?? [];
      list.push({ edge, place });
      this.at.set(node, list);
    }
  }

  /**
   * The way from a landing to the nearest of some others with the fewest open places, and these places in order from the
   * far end. An empty list: the way is closed. One place `missing`: nothing leads there.
   *
   * @param closed conductance of every edge
   */
  openOnTheWay(
    from: number,
    targets: readonly number[],
    closed: Float64Array,
  ): readonly OpenPlace[] {
    const cost = new Map<number, number>([[from, 0]]);
    const back = new Map<number, { node: number; step: Step }>();
    const queue: number[] = [from];
    const goal = new Set(targets);
    const done = new Set<number>();
    while (queue.length > 0) {
      queue.sort((x, y) => (cost.get(x) ?? 0) - (cost.get(y) ?? 0));
      const node = queue.shift() as number;
      if (done.has(node)) continue;
      done.add(node);
      if (goal.has(node)) return this.placesBack(node, from, back, closed);
      for (const step of this.at.get(node) ?? []) {
        const [a, b] = this.ends[step.edge];
        const next = a === node ? b : a;
        // A longer way with everything closed comes before a shorter one with something open.
        const total = (cost.get(node) ?? 0) + (closed[step.edge] > 0 ? 1e-3 : 1);
        if (total >= (cost.get(next) ?? Infinity)) continue;
        cost.set(next, total);
        back.set(next, { node, step });
        queue.push(next);
      }
    }
    return [
      {
        code: 'missing',
        args: {},
        where: { kind: 'landing', id: this.installation.landings[from] },
      },
    ];
  }

  private placesBack(
    node: number,
    from: number,
    back: ReadonlyMap<number, { node: number; step: Step }>,
    closed: Float64Array,
  ): OpenPlace[] {
    const places: OpenPlace[] = [];
    for (let at = node; at !== from;) {
      const { node: before, step } = back.get(at) as { node: number; step: Step };
      if (!(closed[step.edge] > 0)) places.push(step.place);
      at = before;
    }
    return places;
  }
}
