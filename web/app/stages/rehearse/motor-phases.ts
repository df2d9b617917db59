import { Component, computed, inject } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { RehearsalSession } from './session';
import { feedsAtSupply, shownStateOf, shownValue } from './shown-state';

/** The leads of the motor with the voltage between two of them now; a lead that no output reaches is *open*. */
@Component({
  selector: 'tac-motor-phases',
  template: `
    @for (lead of leads(); track lead.name) {
      <span
        class="lead"
        [class.open]="lead.open"
        [class.live]="lead.live"
        [attr.data-lead]="lead.name"
        ><b>{{ lead.name }}</b> {{ lead.open ? 'open' : '' }}</span
      >
    }
    <span class="volts mono">{{ text() }}</span>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 6px;
      align-items: center;
      font-size: 12.5px;
    }
    .lead {
      padding: 0 6px;
      border: 1px solid var(--line-strong);
      border-radius: 3px;
    }
    .live {
      border-color: var(--copper);
      border-left-width: 4px;
    }
    .open {
      border-style: dashed;
      color: var(--ink-soft);
    }
    .volts {
      white-space: nowrap;
    }
  `,
})
export class MotorPhases {
  private readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);

  /** Isolator between device and motor, where one is open. */
  private readonly cut = computed(() => {
    const isolator = this.session.opened()?.motor.isolator;
    if (!isolator) return undefined;
    const { tag, positions, id } = isolator;
    return positions[this.at(`${id}.position`)] === 'on' ? undefined : tag;
  });

  /** Voltage between two outputs, V; undefined where the plate does not say what the motor is rated for. */
  private readonly volts = computed(() => {
    const motor = this.session.opened()?.motor;
    if (!motor) return undefined;
    const { perHz, mostV, lineV } = motor;
    if (lineV !== undefined) return (lineV * this.at('device.voltsPct')) / 100;
    if (perHz === undefined) return undefined;
    return Math.min(Math.abs(this.at('device.hz')) * perHz, mostV ?? Infinity);
  });

  /** A drive that slows its motor down without any frequency does so by direct current. */
  private readonly directCurrent = computed(
    () =>
      !feedsAtSupply(this.session) &&
      shownStateOf(this.session, 'device.state', 'off') === 'decelerating' &&
      this.at('device.hz') === 0,
  );

  protected readonly leads = computed(() => {
    const motor = this.session.opened()?.motor;
    const fed = this.directCurrent() || (this.volts() ?? 0) >= 1;
    const live = this.cut() === undefined && fed;
    return (motor?.leads ?? []).map((name) => {
      const open = motor?.missing.includes(name) === true;
      return { name, open, live: live && !open };
    });
  });

  protected readonly text = computed(() => {
    const cut = this.cut();
    if (cut !== undefined) return `${cut} is open`;
    if (this.directCurrent()) return 'direct current, it brakes';
    const volts = this.volts();
    if (volts === undefined) return '';
    return `${formatNumber(volts, 0, this.preferences.decimal())} V between two`;
  });

  private at(id: string): number {
    return shownValue(this.session, id);
  }
}
