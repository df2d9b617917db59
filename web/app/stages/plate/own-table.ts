import { Component, computed, inject, signal } from '@angular/core';
import { sizeText, type Job } from '@tactron/core/job';
import { parseQuantity } from '@tactron/core/units';
import { Icon } from '../../controls/icon';
import { Typed } from '../../controls/typed';
import { OpenJob } from '../../job-state/open-job';
import { parseSize } from './plate-field';

/** The person's own table of what each conductor may carry, in place of the shipped ones. */
@Component({
  selector: 'tac-own-table',
  imports: [Icon, Typed],
  template: `
    <label class="named"
      >Name of the table
      <input
        class="field"
        maxlength="120"
        [tacTyped]="table().title"
        (change)="name($any($event.target).value)"
    /></label>
    <ul aria-label="Own table">
      @for (row of rows(); track row.size) {
        <li>
          <span class="mono">{{ row.size }}</span><b class="mono">{{ row.amps }} A</b>
          <button
            class="act quiet"
            type="button"
            [attr.aria-label]="'Take out ' + row.size"
            (click)="remove(row.size)"
          >
            <tac-icon name="close" />
          </button>
        </li>
      }
    </ul>
    <form (submit)="add($event)">
      <label class="named"
        >Size
        <input
          class="field mono"
          placeholder="2.5 mm²"
          [value]="size()"
          (input)="size.set($any($event.target).value)"
      /></label>
      <label class="named"
        >Carries
        <input
          class="field mono"
          placeholder="A"
          [value]="amps()"
          (input)="amps.set($any($event.target).value)"
      /></label>
      <button class="act" type="submit"><tac-icon name="add" /> Size</button>
    </form>
    @if (problem(); as p) {
      <p class="problem" role="alert">{{ p }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
      border-bottom: 1px solid var(--line);
    }
    form {
      display: grid;
      gap: 6px;
    }
    .problem {
      color: var(--bad);
      font-size: 13px;
    }
  `,
})
export class OwnTable {
  private readonly open = inject(OpenJob);
  protected readonly size = signal('');
  protected readonly amps = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly table = computed(
    () => (this.open.job() as Job).plate.cable.ownTable ?? { title: 'Own table', amps: {} },
  );
  protected readonly rows = computed(() =>
    Object.entries(this.table().amps)
      .map(([size, amps]) => ({ size, amps }))
      .sort((x, y) => x.amps - y.amps),
  );

  protected name(title: string): void {
    if (title.trim()) this.change((table) => (table.title = title.trim()));
  }

  protected add(event: Event): void {
    event.preventDefault();
    const size = parseSize(this.size());
    const amps = parseQuantity(this.amps(), 'current');
    if (!size) return this.problem.set('A size such as 2.5 mm² or 10 AWG.');
    if (!amps.ok || amps.quantity.v <= 0) return this.problem.set('A current above 0 A.');
    const { v } = amps.quantity;
    this.change((table) => (table.amps[sizeText(size)] = v));
    this.problem.set(null);
    this.size.set('');
    this.amps.set('');
  }

  protected remove(size: string): void {
    this.change((table) => delete table.amps[size]);
  }

  private change(
    recipe: (table: { title: string; amps: Record<string, number> }) => unknown,
  ): void {
    this.open.edit('own table', (draft) => {
      const table = (draft.plate.cable.ownTable ??= { title: 'Own table', amps: {} });
      recipe(table);
    });
  }
}
