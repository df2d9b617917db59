import { Component, computed, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatMenuModule } from '@angular/material/menu';
import type { Job } from '@tactron/core/job';
import { AttachmentRow } from '../../attachments/attachment-row';
import { Icon } from '../../controls/icon';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { valueAt } from './blocks';
import type { Field, LineBlockSpec } from './fields';
import { Facts } from './facts';
import { OneLineSymbol } from './one-line-symbol';
import { PlateField } from './plate-field';

/** One block of the picture: its symbol on the line, what is reckoned there, its fields and what is wrong with it. */
@Component({
  selector: 'tac-plate-block',
  imports: [AttachmentRow, Facts, Icon, MatMenuModule, OneLineSymbol, PlateField, RouterLink],
  templateUrl: './plate-block.html',
  styleUrl: './plate-block.scss',
  host: { '[class.wide]': "block().id === 'motor'", '[class.beside]': '!line()' },
})
export class PlateBlockCard {
  readonly block = input.required<LineBlockSpec>();
  /** Lies in the line, not beside it. */
  readonly line = input(true);
  readonly first = input(false);
  readonly last = input(false);
  /** Blocks that may be added behind this one. */
  readonly addable = input<readonly LineBlockSpec[]>([]);
  readonly added = output<LineBlockSpec>();
  readonly removed = output<void>();

  protected readonly open = inject(OpenJob);
  protected readonly openMore = signal(false);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly models = computed(() => this.open.profile()?.models ?? []);
  protected readonly moreShown = computed(
    () => this.openMore() || (this.block().more ?? []).some((f) => this.flagged(f)),
  );
  protected readonly moreFilled = computed(
    () =>
      (this.block().more ?? []).filter((f) => valueAt(this.job().plate, f.path) !== undefined)
        .length,
  );

  /** What is wrong at a field of this block. */
  protected readonly preferences = inject(Preferences);
  protected readonly problems = computed(() => {
    const { id } = this.block();
    const own = (where: string): boolean =>
      where === id || where.startsWith(`${id}.`) || (id === 'load' && where.startsWith('scheme.'));
    return (this.open.derived()?.findings ?? []).filter(
      (f) => !f.accepted && f.finding.where.some((w) => w.kind === 'plate' && own(w.id)),
    );
  });

  protected readonly flagTitle = computed(() => {
    const n = this.problems().length;
    return n === 1 ? 'one finding' : `${n} findings`;
  });

  protected flagged(field: Field): boolean {
    const path = field.path.replace(/^line\./u, '');
    return this.problems().some((f) =>
      f.finding.where.some((w) => w.id === path || path.startsWith(`${w.id}.`)),
    );
  }

  protected setModel(model: string): void {
    this.open.edit('device model', (draft) => void (draft.profile.model = model));
  }
}
