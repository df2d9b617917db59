import type { Installation } from '../installation/index.js';
import type { Where } from '../job/index.js';

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

/** What can be open or closed between landings: wires, contacts, links; never a resistance. */
export class Ways {
  private readonly at = new Map<number, Step[]>();
  private readonly ends: readonly (readonly [number, number])[];

  constructor(private readonly installation: Installation) {
    this.ends = installation.edgeA.map((a, e) => [a, installation.edgeB[e]] as const);
    for (const w of installation.wires)
      this.add(w.edge, {
        code: 'wire',
        args: { number: w.number },
        where: { kind: 'wire', id: w.id },
      });
    for (const d of installation.devices) {
      if (d.kind === 'contacts') for (const c of d.contacts) this.contact(c.edge, d.id, d.tag);
      if (d.kind === 'coil')
        for (const edge of [...d.makes, ...d.breaks]) this.contact(edge, d.id, d.tag, d.id);
      if (d.kind === 'fuse') this.contact(d.across.edge, d.id, d.tag);
      if (d.kind === 'transistor') this.contact(d.edge, d.id, d.tag);
      if (d.kind === 'drive') {
        for (const edge of d.joined)
          this.add(edge, { code: 'missing', args: {}, where: { kind: 'device', id: d.id } });
        for (const r of d.relays)
          for (const edge of [...r.no, ...r.nc]) this.contact(edge, d.id, 'T1');
        for (const link of d.links)
          for (const p of Object.values(link.positions))
            for (const edge of p.edges)
              this.add(edge, {
                code: 'link',
                args: { device: link.id, position: link.position },
                where: { kind: 'device', id: d.id },
              });
      }
    }
  }

  private contact(edge: number, id: string, tag: string, coil?: string): void {
    const [a, b] = this.ends[edge].map((i) => this.installation.landings[i].split(':')[1]);
    this.add(edge, {
      code: 'contact',
      args: { device: tag, a, b },
      where: { kind: 'device', id },
      ...(coil ? { coil } : {}),
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
