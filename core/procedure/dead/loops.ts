import { applyFault, install, type Installation, type Panel } from '../../installation/index.js';
import { areaOf, copperOhm } from '../../line/index.js';
import { Engine, ohmsBetween, timedActs, type EngineState } from '../../rehearsal/index.js';
import { actsOf, give, operationsOn, type OperationId } from '../../scheme/index.js';
import type { StepContext } from '../context.js';
import { joinedBut, seriesOf } from './ways.js';

/** Below this a meter shows a way, above it an open circuit, Ω. */
const WAY_OHM = 100;
/** When everything has settled after a hand has moved, ms. */
const SETTLED_MS = 1000;

/** A way between two landings of the device that one control closes or opens. */
export interface Loop {
  readonly id: OperationId;
  /** Function of the input, or the channel of an enable. */
  readonly name: string;
  /** Landings of the two leads. */
  readonly at: readonly [string, string];
  /** Resistance at rest and with the control worked, Ω; null where the way is open. */
  readonly rest: number | null;
  readonly worked: number | null;
}

/** Resistances of the dead panel: every source is off, whatever feeds it. */
export class DeadPanel {
  private readonly installation: Installation;
  private readonly engine: Engine;
  private readonly off: EngineState;
  /** The panel with some controls worked, each gone through once. */
  private readonly settled = new Map<string, EngineState>();

  /** @param built the panel as it is; left out, as the job has it */
  constructor(
    private readonly c: StepContext,
    built: Panel = c.trials.panel,
  ) {
    const sources = Object.entries(built.devices).filter(([, d]) =>
      /[sS]upply|Source$/u.test(d.kind),
    );
    const panel = sources.reduce(
      (p, [device, { kind }]) =>
        kind === 'loopSupply' || kind.endsWith('Source')
          ? applyFault(p, { kind: 'part', what: 'source', device })
          : p,
      built,
    );
    this.installation = install(c.job, c.profile, { from: 'planned' }, { panel, lean: true });
    this.engine = new Engine(this.installation);
    this.off = this.engine.snapshot();
  }

  /** Resistance between two landings with some controls worked and the dial at a share; null where they are not joined. */
  ohms(a: string, b: string, worked: readonly OperationId[] = [], share?: number): number | null {
    const { landings } = this.installation;
    const [x, y] = [landings.indexOf(a), landings.indexOf(b)];
    if (x < 0 || y < 0) return null;
    this.settle(worked, share);
    const reading = ohmsBetween(this.installation, this.engine, x, y);
    return reading.ok ? reading.ohm : null;
  }

  /**
   * Edges that lie one after the other between two landings with some controls worked: the way is gone without any one of
   * them. What has another way beside it is not among them.
   */
  series(a: string, b: string, worked: readonly OperationId[] = [], share?: number): number[] {
    const { landings } = this.installation;
    const [x, y] = [landings.indexOf(a), landings.indexOf(b)];
    if (x < 0 || y < 0) return [];
    return seriesOf(this.joins(worked, share), x, y);
  }

  /** Whether the ends of a wire are joined by something else too, with nothing worked. */
  beside(wire: string): boolean {
    const { edges, edgeA, edgeB } = this.installation;
    const e = edges.findIndex(({ of, role }) => role === 'wire' && of === wire);
    return e >= 0 && joinedBut(this.joins([], undefined), edgeA[e], edgeB[e], e);
  }

  /** What a meter shows as a way while some controls are worked. */
  private joins(
    worked: readonly OperationId[],
    share: number | undefined,
  ): { readonly e: number; readonly from: number; readonly to: number }[] {
    this.settle(worked, share);
    const { edgeA, edgeB } = this.installation;
    const g = this.engine.conductances();
    return edgeA.flatMap((from, e) => (g[e] >= 1 / WAY_OHM ? [{ e, from, to: edgeB[e] }] : []));
  }

  get edges(): Installation['edges'] {
    return this.installation.edges;
  }

  /** Brings the engine to the state in which these controls are worked. */
  private settle(worked: readonly OperationId[], share: number | undefined): void {
    const { engine } = this;
    const key = `${worked.join()} ${share ?? ''}`;
    const known = this.settled.get(key);
    if (known) return engine.restore(known);
    const { arrangement } = this.c;
    const { dial } = arrangement;
    engine.restore(this.off);
    const acts = actsOf(
      ...worked.map((id) => give(arrangement, id, 100)),
      share !== undefined && dial ? { do: 'dial', atMs: 100, device: dial, to: share } : undefined,
    );
    engine.runTo(SETTLED_MS * 1000, timedActs(acts));
    this.settled.set(key, engine.snapshot());
  }
}

const way = (ohm: number | null): number | null => (ohm !== null && ohm < WAY_OHM ? ohm : null);

/**
 * Loops of the control: two leads at the device's own terminals, the control worked once; one right pair of readings passes
 * both wires and the contact. What a relay closes cannot be seen dead and makes no loop.
 */
export function loopsOf(c: StepContext, panel: DeadPanel): Loop[] {
  const { arrangement: a, device, profile } = c;
  const feeds = Object.entries(profile.terminals).flatMap(([id, t]) =>
    ['supply24', 'zeroVolt', 'inputCommon', 'controlSupply'].includes(t.kind)
      ? [`${device.id}:${id}`]
      : [],
  );
  const targets = [
    ...a.inputs.flatMap((f) => {
      const at = c.job.adopted?.assignments[f.id]?.at;
      return at ? [{ name: f.id, at, ids: operationsOn(a, f) }] : [];
    }),
    ...device.enables.map((e) => ({
      name: `enable.${e.channel}`,
      at: `${device.id}:${e.terminal}`,
      ids: a.estop ? [a.estop] : [],
    })),
  ];
  return targets.flatMap(({ name, at, ids }) =>
    ids.flatMap((id): Loop[] => {
      const found = feeds
        .filter((feed) => feed !== at)
        .map((feed): Loop => {
          const rest = way(panel.ohms(feed, at));
          return { id, name, at: [feed, at], rest, worked: way(panel.ohms(feed, at, [id])) };
        })
        .find(({ rest, worked }) => (rest === null) !== (worked === null));
      return found ? [found] : [];
    }),
  );
}

/** Functions of the control whose way cannot be seen dead: a relay closes it. */
export function unseenOf(c: StepContext, loops: readonly Loop[]): string[] {
  const seen = new Set(loops.map((l) => l.name));
  return c.arrangement.inputs.flatMap((f) => {
    const at = c.job.adopted?.assignments[f.id]?.at;
    return at === undefined || seen.has(f.id) ? [] : [at];
  });
}

/** A protective conductor with the resistance of its copper, Ω. */
export interface Protective {
  readonly wire: string;
  readonly number: string;
  readonly from: string;
  readonly to: string;
  readonly ohm: number;
}

/** Every protective conductor of the plan: its value from length and size. */
export const protectiveOf = ({ job }: StepContext): Protective[] =>
  Object.entries(job.adopted?.wires ?? {})
    .filter(([, w]) => w.class === 'pe')
    .map(([wire, w]) => ({
      wire,
      number: w.number,
      from: w.from,
      to: w.to,
      ohm: copperOhm(w.lengthM, areaOf(w.size)),
    }))
    .sort((x, y) => x.number.localeCompare(y.number, 'en', { numeric: true }));
