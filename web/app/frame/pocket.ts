import { Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import type { Working } from '@tactron/core/calculation';
import { Router } from '@angular/router';
import { Icon } from '../controls/icon';
import { ShowMe } from '../controls/show-me';
import type { SaidFinding } from '@tactron/core/said';
import { lengthUnitOf } from '../job-state/length-unit';
import { OpenJob } from '../job-state/open-job';
import { belongs } from './pocket-findings';
import { Preferences } from './preferences';

/** Findings, why it is so, and the working of the number last touched. */
@Component({
  selector: 'tac-pocket',
  imports: [Icon, ShowMe],
  templateUrl: './pocket.html',
  styleUrl: './pocket.scss',
})
export class Pocket {
  readonly closed = output<void>();
  /** Stage that is shown. */
  readonly stage = input('');
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  private readonly router = inject(Router);
  protected readonly accepting = signal<string | null>(null);
  protected readonly reason = signal('');
  protected readonly problem = signal<string | null>(null);

  /** Every finding, wherever it is put right; until the stage is left. */
  protected readonly all = linkedSignal({ source: this.stage, computation: () => false });
  private readonly told = computed(() => this.open.derived()?.findings ?? []);
  protected readonly findings = computed(() =>
    this.all() ? this.told() : this.told().filter((f) => belongs(f, this.stage())),
  );
  protected readonly elsewhere = computed(() => this.told().length - this.findings().length);
  protected working(): Working | null {
    if (!this.router.url.includes('/plate')) return null;
    const facts = this.open.derived()?.facts ?? [];
    return (facts.find((f) => f.id === this.open.picked()) ?? facts.at(0))?.working ?? null;
  }

  protected number(value: unknown, unit: string): string {
    if (Array.isArray(value)) return value.join(', ');
    return typeof value === 'number'
      ? this.preferences.value(value, unit, 4, lengthUnitOf(this.open.job()))
      : `${String(value)}${unit ? ` ${unit}` : ''}`;
  }

  protected accept(f: SaidFinding): void {
    if (!this.reason().trim()) return;
    const { name = '', role = '' } = this.preferences.author() ?? {};
    // What protects somebody is accepted by name and role, or not at all.
    if (f.finding.rank === 'protects' && !(name.trim() && role.trim()))
      return this.problem.set('Say your name and your role in the settings first.');
    this.problem.set(null);
    this.open.record('acceptance', f.subject, {
      rule: f.finding.rule,
      args: { ...f.finding.args },
      reason: this.reason().trim(),
    });
    this.accepting.set(null);
    this.reason.set('');
  }
}
