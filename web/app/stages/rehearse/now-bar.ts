import { Component, computed, inject } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { deviceState, firstShown } from './shown-state';
import { RehearsalSession } from './session';

/** Frequency or current, state and speed in one row: on a phone it stays in view while station and lanes scroll below it. */
@Component({
  selector: 'tac-now-bar',
  template: `
    <span class="big mono"
      >{{ first().value }} <small>{{ first().unit }}</small></span
    >
    <b class="state">{{ state() }}</b>
    <ng-content />
  `,
  styles: `
    :host {
      display: flex;
      gap: 12px;
      align-items: baseline;
    }
    .big {
      font-size: 22px;
      font-weight: 700;
      white-space: nowrap;
    }
    .state {
      flex: 1;
      min-width: 0;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
})
export class NowBar {
  private readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  protected readonly state = computed(() => deviceState(this.session));
  protected readonly first = computed(() => {
    const { value, decimals, unit } = firstShown(this.session);
    return { value: formatNumber(value, decimals, this.preferences.decimal()), unit };
  });
}
