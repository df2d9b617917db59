import { Component, DestroyRef, computed, effect, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { landingName, sizeText, type Job } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Compute } from '../../compute/compute';
import type { SaidPanel } from '../../compute/card.worker';
import { Icon } from '../../controls/icon';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { pressText } from '../key/presses';
import { TimingStrip } from '../scheme/timing-strip';

/** Control wires up to which everything fits one sheet of A4. */
const ONE_SHEET = 12;

/** The one sheet to wire and key from: each terminal with its wires, task, setting and volts; links; what is to be keyed. */
@Component({
  selector: 'tac-panel-card',
  imports: [Icon, RouterLink, TimingStrip],
  templateUrl: './panel-card.html',
  styleUrl: './panel-card.scss',
})
export class PanelCard {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly panel = signal<SaidPanel | null>(null);
  protected readonly rows = computed(() => this.panel()?.terminals ?? null);
  protected readonly failed = signal('');
  protected readonly control = computed(() => (this.rows() ?? []).filter((r) => r.control));
  protected readonly power = computed(() => (this.rows() ?? []).filter((r) => !r.control));
  /** Wires of the control that do not end at the device. */
  protected readonly between = computed(() => {
    const { adopted } = this.job();
    const atDevice = (end: string): boolean => end.startsWith(`${adopted?.device}:`);
    return (this.open.derived()?.hand ?? []).flatMap((line) => {
      const w = line.isWire ? adopted?.wires[line.id] : undefined;
      if (!w || atDevice(w.from) || atDevice(w.to)) return [];
      const text = `${sizeText(w.size)} ${w.colour}${w.cable ? `, ${w.cable}` : ''}`;
      const [from, to] = [
        landingName(adopted?.devices, w.from),
        landingName(adopted?.devices, w.to),
      ];
      return [{ id: line.id, number: w.number, from, to, does: line.text, text }];
    });
  });
  protected readonly blocks = computed(() => this.open.derived()?.toFit.blocks ?? []);
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
        void worker.panel(job, profile).then((panel) => this.panel.set(panel));
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
