import { Component, DestroyRef, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Compute } from '../../compute/compute';
import type { SaidTerminal } from '../../compute/card.worker';
import { Icon } from '../../controls/icon';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { pressText } from '../key/presses';

/** Control wires up to which everything fits one sheet of A4. */
const ONE_SHEET = 12;

/** The one sheet to wire and key from: each terminal with its wires, task, setting and volts; links; what is to be keyed. */
@Component({
  selector: 'tac-panel-card',
  imports: [Icon, RouterLink],
  templateUrl: './panel-card.html',
  styleUrl: './panel-card.scss',
})
export class PanelCard {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly rows = signal<readonly SaidTerminal[] | null>(null);
  protected readonly failed = signal('');
  protected readonly control = computed(() => (this.rows() ?? []).filter((r) => r.control));
  protected readonly power = computed(() => (this.rows() ?? []).filter((r) => !r.control));
  protected readonly links = computed(() => this.open.derived()?.links ?? []);
  protected readonly lines = computed(() =>
    (this.open.derived()?.lines ?? []).filter((l) => l.code !== undefined),
  );
  protected readonly dense = computed(
    () => this.control().reduce((sum, r) => sum + r.ends.length, 0) <= ONE_SHEET,
  );
  protected readonly today = new Date().toISOString().slice(0, 10);

  constructor() {
    const { worker, end } = this.compute.card(() =>
      this.failed.set('The card could not be reckoned. Load the page again.'),
    );
    inject(DestroyRef).onDestroy(end);
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      if (job?.adopted && profile)
        void worker.terminals(job, profile).then((rows) => this.rows.set(rows));
    });
  }

  protected volts(value: number): string {
    return `${formatNumber(value, value < 15 && value % 1 !== 0 ? 1 : 0, this.preferences.decimal())} V`;
  }

  protected readonly presses = pressText;

  protected print(): void {
    window.print();
  }
}
