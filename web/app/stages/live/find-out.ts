import { Component, DestroyRef, computed, inject, signal } from '@angular/core';
import { wrap } from 'comlink';
import { parseQuantity, valueIn } from '@tactron/core/units';
import type { FindOutWorker, SaidFindOut } from '../../compute/find-out.worker';
import { Choice } from '../../controls/choice';
import { OpenJob } from '../../job-state/open-job';

type Sort = 'dial' | 'contact' | 'motor';
type Ohms = number | 'over';

/** One reading that is asked for: where the leads lie, and in which state. */
interface Ask {
  readonly key: string;
  readonly text: string;
}

const OVER = /^(?:ol|o\.l|over|∞)$/iu;

/** Leads that are not marked: a few readings tell which is which, and the answer is landed in the hand list. */
@Component({
  selector: 'tac-find-out',
  imports: [Choice],
  templateUrl: './find-out.html',
  styleUrl: './find-out.scss',
})
export class FindOut {
  private readonly open = inject(OpenJob);
  private readonly link = new Worker(new URL('../../compute/find-out.worker', import.meta.url), {
    type: 'module',
  });
  private readonly worker = wrap<FindOutWorker>(this.link);
  protected readonly sorts = [
    { value: 'dial', name: 'Ends and wiper of a dial' },
    { value: 'contact', name: 'Make or break' },
    { value: 'motor', name: 'Cores of the motor' },
  ];
  protected readonly sort = signal<Sort>('dial');
  private readonly names = signal<Readonly<Record<Sort, string>>>({
    dial: '1, 2, 3',
    contact: '',
    motor: '1, 2, 3, green-yellow',
  });
  protected readonly leads = computed(() => this.names()[this.sort()]);
  private readonly list = computed(() => [
    ...new Set(
      this.leads()
        .split(/[,;]/u)
        .map((name) => name.trim())
        .filter(Boolean),
    ),
  ]);
  private readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly found = signal<SaidFindOut | null>(null);
  protected readonly problem = signal('');
  protected readonly said = signal('');

  private readonly pairs = computed(() => {
    const list = this.list();
    return list.flatMap((a, i) => list.slice(i + 1).map((b) => [a, b] as const));
  });

  protected readonly asks = computed<Ask[]>(() => {
    switch (this.sort()) {
      case 'dial':
        return (['back', 'full'] as const).flatMap((way) =>
          this.pairs().map(([a, b]) => ({
            key: `${way} ${a} ${b}`,
            text: `${a} – ${b}, turned ${way === 'back' ? 'back to its stop' : 'up to its stop'}`,
          })),
        );
      case 'contact':
        return [
          { key: 'rest', text: 'at rest' },
          { key: 'worked', text: 'worked' },
        ];
      case 'motor':
        return [
          ...this.list().map((a) => ({ key: `frame ${a}`, text: `${a} – frame of the motor` })),
          ...this.pairs().map(([a, b]) => ({ key: `pair ${a} ${b}`, text: `${a} – ${b}` })),
        ];
    }
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.link.terminate());
  }

  protected choose(sort: string): void {
    this.sort.set(sort as Sort);
    this.clear();
  }

  protected name(text: string): void {
    this.names.update((all) => ({ ...all, [this.sort()]: text }));
    this.clear();
  }

  private clear(): void {
    this.found.set(null);
    this.problem.set('');
    this.said.set('');
  }

  protected text(key: string): string {
    return this.typed()[`${this.sort()} ${key}`] ?? '';
  }

  protected type(key: string, text: string): void {
    this.typed.update((all) => ({ ...all, [`${this.sort()} ${key}`]: text }));
    this.found.set(null);
  }

  /** Ohms typed for an answer; nothing where it is none. An empty field between two cores is no way. */
  private ohms(key: string): Ohms | undefined {
    const text = this.text(key).trim();
    if (OVER.test(text)) return 'over';
    const parsed = parseQuantity(text, 'resistance', 'Ω');
    return parsed.ok ? valueIn(parsed.quantity, 'Ω', 'resistance') : undefined;
  }

  protected async look(): Promise<void> {
    this.clear();
    const list = this.list();
    if (this.sort() === 'dial' && list.length !== 3)
      return this.problem.set('A dial has three leads: write three names, with commas between.');
    if (this.sort() === 'motor' && list.length < 4)
      return this.problem.set('Three windings and a protective core: at least four names.');
    const reads = new Map<string, Ohms>();
    for (const { key, text } of this.asks()) {
      const ohm = this.ohms(key);
      if (ohm === undefined)
        return this.problem.set(`${text}: enter ohms, or OL where the meter shows no way.`);
      reads.set(key, ohm);
    }
    const read = (key: string): Ohms => reads.get(key) ?? 'over';
    const pairs = (head: string) =>
      this.pairs().map(([a, b]) => ({ a, b, ohm: read(`${head} ${a} ${b}`) }));
    switch (this.sort()) {
      case 'dial':
        return this.found.set(
          await this.worker.dial(list as [string, string, string], pairs('back'), pairs('full')),
        );
      case 'contact':
        return this.found.set(await this.worker.contact(read('rest'), read('worked')));
      case 'motor': {
        const frame = Object.fromEntries(list.map((a) => [a, read(`frame ${a}`)]));
        return this.found.set(await this.worker.motor(list, { pairs: pairs('pair'), frame }));
      }
    }
  }

  /** Part whose leads were found out, where the plan has one. */
  private readonly part = computed(() => {
    const kind = this.sort() === 'dial' ? 'potentiometer' : 'motor';
    return Object.entries(this.open.job()?.adopted?.devices ?? {}).find(([, d]) => d.kind === kind);
  });
  protected readonly landable = computed(() =>
    this.sort() !== 'contact' && this.found()?.ok === true ? this.part()?.[1].tag : undefined,
  );

  /** The mark of each lead as the core that is really used, at the wire that ends on its terminal. */
  protected land(): void {
    const [part, found] = [this.part(), this.found()];
    if (!part || !found) return;
    const [id, { tag }] = part;
    this.open.edit(`leads of ${tag} found out`, (draft) => {
      const all = { ...draft.asUsed };
      for (const [lead, terminal] of Object.entries(found.at))
        for (const [wire, w] of Object.entries(draft.adopted?.wires ?? {}))
          if ([w.from, w.to].includes(`${id}:${terminal}`))
            all[wire] = { ...all[wire], core: lead.slice(0, 20) };
      draft.asUsed = all;
    });
    this.said.set(`Noted at the wires of ${tag} in Land.`);
  }
}
