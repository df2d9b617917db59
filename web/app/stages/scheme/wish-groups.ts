import { Component, computed, inject, signal } from '@angular/core';
import type { Scheme } from '@tactron/core/job';
import { Choice } from '../../controls/choice';
import { Choices } from '../../controls/choices';
import { NumberField } from '../../controls/number-field';
import { NumberList } from '../../controls/number-list';
import { QuantityField } from '../../controls/quantity-field';
import { OpenJob } from '../../job-state/open-job';
import { Wishes } from './wishes';

/** What every group of wishes has at hand. */
abstract class WishGroup {
  protected readonly wishes = inject(Wishes);
  protected readonly options = this.wishes.options;
  protected readonly scheme = this.wishes.scheme;
  protected readonly speeds = this.wishes.speeds;
  protected readonly pulse = this.wishes.pulse;
  protected readonly level = this.wishes.level;
  protected readonly both = this.wishes.both;
  /** Two answers, yes and no, as a choice. */
  protected readonly yesNo = [
    { value: 'no', name: 'no' },
    { value: 'yes', name: 'yes' },
  ];

  protected yes(value: boolean | undefined): string {
    return value ? 'yes' : 'no';
  }

  protected set<K extends keyof Scheme>(wish: K, value: unknown): void {
    this.wishes.set(wish, value);
  }
}

/** How it starts and stops. */
@Component({
  selector: 'tac-start-wishes',
  imports: [Choice, NumberField],
  templateUrl: './start-wishes.html',
  styleUrl: './wish-groups.scss',
})
export class StartWishes extends WishGroup {
  protected readonly drivePulse = this.wishes.drivePulse;
  protected readonly startBys = this.wishes.startBys;
  protected readonly insideDelta = this.wishes.insideDelta;
}

/** Which way it turns, and where its speed comes from. */
@Component({
  selector: 'tac-speed-wishes',
  imports: [Choice, NumberField, NumberList, QuantityField],
  templateUrl: './speed-wishes.html',
  styleUrl: './wish-groups.scss',
})
export class SpeedWishes extends WishGroup {
  private readonly open = inject(OpenJob);
  /** A dial or signal that this device could take at one input or another. */
  protected readonly analogue = computed(() => {
    const terminals = Object.values(this.open.profile()?.terminals ?? {});
    const inputs = terminals.filter(({ kind }) => kind === 'analogueInput').length;
    return inputs > 1 && ['dial', 'voltage', 'current'].includes(this.scheme().speed ?? '');
  });
  private readonly half = signal<Partial<NonNullable<Scheme['fullScale']>>>({});

  /** A number without its unit says nothing: kept when both are there, taken out when the number goes. */
  protected setFullScale(part: { value?: number | undefined; unit?: string }): void {
    const { value, unit } = { ...this.scheme().fullScale, ...this.half(), ...part };
    const named = unit?.trim() ?? '';
    this.half.set({ ...(value === undefined ? {} : { value }), ...(named ? { unit: named } : {}) });
    if (value !== undefined && named) return this.set('fullScale', { value, unit: named });
    if (this.scheme().fullScale) this.set('fullScale', undefined);
  }
}

/** Direction, run-up and stop of a soft starter. */
@Component({
  selector: 'tac-starter-wishes',
  imports: [Choice, NumberField],
  templateUrl: './starter-wishes.html',
  styleUrl: './wish-groups.scss',
})
export class StarterWishes extends WishGroup {
  protected readonly enables = this.wishes.enables;
}

/** Who can be there, what protects them, lamps and station. */
@Component({
  selector: 'tac-people-wishes',
  imports: [Choice, Choices, NumberField, QuantityField],
  templateUrl: './people-wishes.html',
  styleUrl: './wish-groups.scss',
})
export class PeopleWishes extends WishGroup {
  protected readonly contactor = this.wishes.contactor;
  protected readonly ownLatch = this.wishes.ownLatch;
}
