import { Component, computed, inject } from '@angular/core';
import type { Job, Scheme } from '@tactron/core/job';
import type { SaidCard } from '../../compute/compare.worker';
import { Choice } from '../../controls/choice';
import { Choices } from '../../controls/choices';
import { NumberField } from '../../controls/number-field';
import { NumberList } from '../../controls/number-list';
import { QuantityField } from '../../controls/quantity-field';
import { OpenJob } from '../../job-state/open-job';
import { SchoolCards } from './school-cards';
import { pulseSchools, wishOptions } from './wish-options';

/** The schools of start and stop as they behave on this job, and the operator's wishes around them. */
@Component({
  selector: 'tac-scheme-stage',
  imports: [Choice, Choices, NumberField, NumberList, QuantityField, SchoolCards],
  templateUrl: './scheme-stage.html',
  styleUrl: './scheme-stage.scss',
})
export class SchemeStage {
  protected readonly open = inject(OpenJob);
  protected readonly options = wishOptions;
  protected readonly scheme = computed(() => (this.open.job() as Job).scheme);
  protected readonly drivePulse = computed(() => this.scheme().startStop === 'threeWire' || this.scheme().startStop === 'threeWireTwoStarts');
  protected readonly pulse = computed(() => pulseSchools.includes(this.scheme().startStop));
  protected readonly level = computed(() => [undefined, 'twoWire', 'lineContactor'].includes(this.scheme().startStop));
  protected readonly both = computed(() => this.scheme().direction === 'forwardReverse');
  protected readonly contactor = computed(() => this.scheme().startStop === 'lineContactor' || this.scheme().estop?.startsWith('contactor') === true);
  protected readonly findings = computed(() => (this.open.derived()?.findings ?? []).filter((f) => f.scheme));
  protected readonly plan = computed(() => this.open.derived()?.plan);
  /** What gives the two-wire command; with one selector for both directions it is that selector. */
  protected readonly startBys = computed(() =>
    this.both() && (this.scheme().directionBy ?? 'selector') === 'selector' ? [{ value: 'selector', name: 'the same selector' }] : this.options.startBys,
  );

  protected set<K extends keyof Scheme>(wish: K, value: unknown): void {
    this.open.edit(`scheme ${wish}`, (draft) => {
      if (value === undefined || value === false || value === 'none') delete draft.scheme[wish];
      else draft.scheme[wish] = value as Scheme[K];
    });
  }

  protected pick(card: SaidCard): void {
    this.open.edit(`school: ${card.name}`, (draft) => void (draft.scheme = structuredClone(card.scheme)));
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
