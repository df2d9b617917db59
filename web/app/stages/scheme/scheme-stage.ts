import { Component, computed, inject, signal } from '@angular/core';
import type { Job, Scheme } from '@tactron/core/job';
import { Compute } from '../../compute/compute';
import type { SaidCard } from '../../compute/compare.worker';
import { Choice } from '../../controls/choice';
import { Choices } from '../../controls/choices';
import { NumberField } from '../../controls/number-field';
import { NumberList } from '../../controls/number-list';
import { QuantityField } from '../../controls/quantity-field';
import { ShowMe } from '../../controls/show-me';
import { OpenJob } from '../../job-state/open-job';
import { SchoolCards } from './school-cards';
import { StartPanel } from './start-panel';
import { arrangementGroups, pulseSchools, starterGroups, wishOptions } from './wish-options';
import { RequiredFunctions } from './required-functions';

/** The schools of start and stop as they behave on this job, and the operator's wishes around them. */
@Component({
  selector: 'tac-scheme-stage',
  imports: [
    Choice,
    Choices,
    NumberField,
    NumberList,
    QuantityField,
    SchoolCards,
    ShowMe,
    RequiredFunctions,
    StartPanel,
  ],
  templateUrl: './scheme-stage.html',
  styleUrl: './scheme-stage.scss',
})
export class SchemeStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  protected readonly options = wishOptions;
  /** The device changes the speed of its motor; until something is derived it is taken for one. */
  protected readonly speeds = computed(() => this.open.derived()?.speeds ?? true);
  protected readonly enables = computed(() => this.open.derived()?.enables ?? true);
  protected readonly insideDelta = computed(() => this.open.derived()?.insideDelta ?? false);
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

  protected readonly scheme = computed(() => (this.open.job() as Job).scheme);
  protected readonly drivePulse = computed(
    () =>
      this.scheme().startStop === 'threeWire' || this.scheme().startStop === 'threeWireTwoStarts',
  );
  protected readonly pulse = computed(() => pulseSchools.includes(this.scheme().startStop));
  protected readonly level = computed(() =>
    [undefined, 'twoWire', 'lineContactor'].includes(this.scheme().startStop),
  );
  protected readonly both = computed(() => this.scheme().direction === 'forwardReverse');
  protected readonly contactor = computed(
    () =>
      this.scheme().startStop === 'lineContactor' ||
      this.scheme().lineContactor?.startsWith('by') === true ||
      this.scheme().estop?.startsWith('contactor') === true,
  );
  protected readonly findings = computed(() =>
    (this.open.derived()?.findings ?? []).filter((f) => f.finding.stage !== 'plate'),
  );
  /** Whether anything was simulated that a rule could judge. */
  protected readonly judged = computed(() => (this.open.derived()?.requirements.length ?? 0) > 0);
  protected readonly plan = computed(() => this.open.derived()?.plan);
  /** What gives the two-wire command; with one selector for both directions it is that selector. */
  protected readonly startBys = computed(() =>
    this.both() && (this.scheme().directionBy ?? 'selector') === 'selector'
      ? [{ value: 'selector', name: 'the same selector' }]
      : this.options.startBys,
  );

  protected set<K extends keyof Scheme>(wish: K, value: unknown): void {
    this.open.edit(`scheme ${wish}`, (draft) => {
      const unset = value === undefined || value === false;
      // No contactor is an answer; elsewhere none is what stands without one.
      if (unset || (value === 'none' && wish !== 'lineContactor')) delete draft.scheme[wish];
      else draft.scheme[wish] = value as Scheme[K];
    });
  }

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

  /** Two answers, yes and no, as a choice. */
  protected readonly yesNo = [
    { value: 'no', name: 'no' },
    { value: 'yes', name: 'yes' },
  ];
  protected yes(value: boolean | undefined): string {
    return value ? 'yes' : 'no';
  }
}
