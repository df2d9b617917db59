import { Shelf, type Act, type StoreName } from '../shelf';

type Rows = Map<StoreName, Map<string, Record<string, unknown>>>;

/** A disk that outlives the windows that write to it. */
export class Disk {
  readonly rows: Rows = new Map();
  /** Told of every write, in order. */
  written: (acts: readonly Act[]) => void = () => undefined;

  of(store: StoreName): Map<string, Record<string, unknown>> {
    const rows = this.rows.get(store) ?? new Map<string, Record<string, unknown>>();
    this.rows.set(store, rows);
    return rows;
  }
}

/** A shelf on such a disk instead of IndexedDB, for specs that restart windows many times. */
export class MapShelf extends Shelf {
  constructor(private readonly disk = new Disk()) {
    super('not used');
  }

  override get(store: never, key: string): Promise<never> {
    return Promise.resolve(structuredClone(this.disk.of(store).get(key)) as never);
  }

  override all(store: never): Promise<never[]> {
    return Promise.resolve(structuredClone([...this.disk.of(store).values()]) as never[]);
  }

  override ofJob(store: never, jobId: string): Promise<never[]> {
    return Promise.resolve(
      structuredClone(
        [...this.disk.of(store).values()].filter((row) => row['jobId'] === jobId),
      ) as never[],
    );
  }

  /** The browser has no room: what is written is in this window alone. */
  full = false;

  override get unkept(): boolean {
    return this.full;
  }

  override write(acts: readonly Act[]): Promise<boolean> {
    for (const act of acts) {
      if ('drop' in act) this.disk.of(act.drop).delete(act.key);
      else {
        const value = structuredClone(act.value) as unknown as Record<string, unknown>;
        this.disk.of(act.put).set(String(value['id'] ?? value['sha256'] ?? value['name']), value);
      }
    }
    this.disk.written(acts);
    return Promise.resolve(!this.full);
  }
}
