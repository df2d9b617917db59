import { Injectable, computed, inject } from '@angular/core';
import type { Job, Scheme } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';
import { wishOptions } from '@tactron/core/printed';
import { pulseSchools } from './arrangement-groups';

/** Wishes to which none is an answer; elsewhere none is what stands without one. */
const noneIsAnswer: readonly (keyof Scheme)[] = ['lineContactor', 'contactorLatch'];

/** The wishes of the open job, and what follows from one for the asking of others. */
@Injectable()
export class Wishes {
  private readonly open = inject(OpenJob);
  readonly options = wishOptions;
  readonly scheme = computed(() => (this.open.job() as Job).scheme);
  /** The device changes the speed of its motor; until something is derived it is taken for one. */
  readonly speeds = computed(() => this.open.derived()?.speeds ?? true);
  readonly enables = computed(() => this.open.derived()?.enables ?? true);
  readonly insideDelta = computed(() => this.open.derived()?.insideDelta ?? false);
  readonly drivePulse = computed(
    () =>
      this.scheme().startStop === 'threeWire' || this.scheme().startStop === 'threeWireTwoStarts',
  );
  readonly pulse = computed(() => pulseSchools.includes(this.scheme().startStop));
  readonly level = computed(() =>
    [undefined, 'twoWire', 'lineContactor'].includes(this.scheme().startStop),
  );
  readonly both = computed(() => this.scheme().direction === 'forwardReverse');
  readonly contactor = computed(
    () =>
      this.scheme().startStop === 'lineContactor' ||
      this.scheme().lineContactor?.startsWith('by') === true ||
      this.scheme().estop?.startsWith('contactor') === true,
  );
  /** A contactor that no relay of the device closes. */
  readonly ownLatch = computed(() => this.contactor() && this.scheme().lineContactor !== 'byRelay');
  /** What gives the two-wire command; with one selector for both directions it is that selector. */
  readonly startBys = computed(() =>
    this.both() && (this.scheme().directionBy ?? 'selector') === 'selector'
      ? [{ value: 'selector', name: 'the same selector' }]
      : this.options.startBys,
  );

  set<K extends keyof Scheme>(wish: K, value: unknown): void {
    this.open.edit(`scheme ${wish}`, (draft) => {
      const unset = value === undefined || value === false;
      if (unset || (value === 'none' && !noneIsAnswer.includes(wish))) delete draft.scheme[wish];
      else draft.scheme[wish] = value as Scheme[K];
    });
  }
}
