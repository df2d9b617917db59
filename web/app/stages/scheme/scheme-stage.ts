import { Component, computed, inject, signal } from '@angular/core';
import type { Scheme } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import type { SaidCard } from '../../compute/compare.worker';
import { ShowMe } from '../../controls/show-me';
import { OpenJob } from '../../job-state/open-job';
import { SchoolCards } from './school-cards';
import { StartPanel } from './start-panel';
import { PeopleWishes, SpeedWishes, StarterWishes, StartWishes } from './wish-groups';
import { arrangementGroups, starterGroups } from './arrangement-groups';
import { Wishes } from './wishes';
import { RequiredFunctions } from './required-functions';

/** The schools of start and stop as they behave on this job, and the operator's wishes around them. */
@Component({
  selector: 'tac-scheme-stage',
  imports: [
    PeopleWishes,
    RequiredFunctions,
    SchoolCards,
    ShowMe,
    SpeedWishes,
    StartPanel,
    StarterWishes,
    StartWishes,
  ],
  providers: [Wishes],
  templateUrl: './scheme-stage.html',
  styleUrl: './scheme-stage.scss',
})
export class SchemeStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly wishes = inject(Wishes);
  protected readonly speeds = this.wishes.speeds;
  private readonly scheme = this.wishes.scheme;
  protected readonly arrangements = computed(() =>
    this.speeds() ? arrangementGroups : starterGroups,
  );
  /** Arrangement taken last, the wishes before it and those it made: hopping to another leaves nothing of it behind. */
  private readonly last = signal<{
    readonly id: string;
    readonly before: Scheme;
    readonly made: Scheme;
  } | null>(null);
  /** Arrangement taken last on this page, in words, while the wishes are still its. */
  protected readonly taken = computed(() => {
    const last = this.last();
    if (!last) return undefined;
    const scheme: Record<string, unknown> = this.scheme();
    const whole = Object.entries(last.made);
    const same =
      whole.length === Object.keys(scheme).length &&
      whole.every(([k, v]) => JSON.stringify(v) === JSON.stringify(scheme[k]));
    return same ? this.nameOf(last.id) : undefined;
  });
  private nameOf(id: string): string | undefined {
    return this.arrangements()
      .flatMap((g) => g.options)
      .find((o) => o.value === id)?.name;
  }

  protected readonly findings = computed(() =>
    (this.open.derived()?.findings ?? []).filter((f) => f.finding.stage !== 'plate'),
  );
  /** Whether anything was simulated that a rule could judge. */
  protected readonly judged = computed(() => (this.open.derived()?.requirements.length ?? 0) > 0);
  protected readonly plan = computed(() => this.open.derived()?.plan);
  /** Takes a shipped arrangement, in one step that Undo takes back. */
  protected async begin(id: string): Promise<void> {
    const before = this.taken() ? (this.last()?.before ?? this.scheme()) : this.scheme();
    const made = id ? await this.compute.startFrom(before, id, this.speeds()) : null;
    if (!made) return;
    this.open.edit(
      `arrangement: ${this.nameOf(id)}`,
      (draft) => void (draft.scheme = structuredClone(made)),
    );
    this.last.set({ id, before, made });
  }

  protected pick(card: SaidCard): void {
    this.open.edit(
      `school: ${card.name}`,
      (draft) => void (draft.scheme = structuredClone(card.scheme)),
    );
  }
}
