/** Spread of two fingers at which one step of a zoom is done. */
const STEP = 1.35;

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** What fingers on a field ask for: a step closer or back, or a way along it as a share of its width. */
export type Asked =
  | { readonly does: 'zoom'; readonly closer: boolean }
  | { readonly does: 'move'; readonly share: number };

/**
 * Follows the fingers on a field: two that spread or close zoom step by step, one that goes sideways moves.
 *
 * @example fingers.down(1, { x: 10, y: 5 }); fingers.move(1, { x: 60, y: 5 }, 500) // { does: 'move', share: -0.1 }
 */
export class Fingers {
  private readonly at = new Map<number, Spot>();
  private spread = 0;

  /** @param first of a new touch: whatever was down before it is not there any more, told or not */
  down(id: number, spot: Spot, first = false): void {
    if (first) this.at.clear();
    this.at.set(id, spot);
    this.spread = this.apart();
  }

  /** @param width of the field, in the unit of the spots */
  move(id: number, spot: Spot, width: number): Asked | undefined {
    const before = this.at.get(id);
    if (!before) return undefined;
    this.at.set(id, spot);
    if (this.at.size === 1)
      return spot.x === before.x ? undefined : { does: 'move', share: (before.x - spot.x) / width };
    const now = this.apart();
    if (now < this.spread * STEP && now * STEP > this.spread) return undefined;
    const closer = now > this.spread;
    this.spread = now;
    return { does: 'zoom', closer };
  }

  up(id: number): void {
    this.at.delete(id);
    this.spread = this.apart();
  }

  private apart(): number {
    const [p, q] = [...this.at.values()];
    return p && q ? Math.hypot(p.x - q.x, p.y - q.y) : 0;
  }
}
