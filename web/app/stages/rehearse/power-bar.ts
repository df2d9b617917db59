import { Component, computed, inject } from '@angular/core';
import type { ShownDevice } from '../../compute/rehearse.worker';
import { byTag } from './by-tag';
import { RehearsalSession } from './session';
import { shownValue } from './shown-state';

/** The supply, its phases, breakers and control supplies: each says how it stands, and is switched by a touch. */
@Component({
  selector: 'tac-power-bar',
  template: `
    <button
      class="act supply"
      type="button"
      [class.live]="supplyOn()"
      (pointerdown)="$event.preventDefault(); toggleSupply()"
      (keydown.enter)="toggleSupply()"
      (keydown.space)="$event.preventDefault(); toggleSupply()"
    >
      Supply {{ supplyOn() ? 'on' : 'off' }}
      <span class="does">{{ supplyOn() ? 'switch off' : 'switch on' }}</span>
    </button>
    @for (phase of phases(); track phase) {
      <button
        class="act small"
        type="button"
        [class.open]="!hasPhase(phase)"
        (click)="togglePhase(phase)"
        [title]="hasPhase(phase) ? 'Take ' + phase + ' away' : 'Bring ' + phase + ' back'"
      >
        {{ phase }}
        @if (hasPhase(phase)) {
          <span class="usual">there</span>
        } @else {
          lost
        }
      </button>
    }
    @for (b of breakers(); track b.id) {
      <button
        class="act small"
        type="button"
        [class.open]="position(b) !== 'on'"
        [title]="b.name + (position(b) === 'on' ? ': open it' : ': close it')"
        (click)="toggleBreaker(b)"
      >
        {{ b.tag }}
        @if (position(b) === 'on') {
          <span class="usual">closed</span>
        } @else {
          open
        }
      </button>
    }
    @for (p of supplies(); track p.id) {
      <button
        class="act small"
        type="button"
        [class.open]="at(p.id + '.on') !== 1"
        [title]="p.name"
        (click)="togglePower(p)"
      >
        {{ p.tag }} {{ at(p.id + '.on') === 1 ? 'on' : 'off' }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
      align-items: center;
    }
    .act {
      min-height: 40px;
      padding: 0 8px;
      white-space: nowrap;
    }
    .small {
      gap: 3px;
      padding: 0 6px;
      font-size: 12.5px;
      font-weight: 500;
    }
    .supply {
      border-width: 2px;
    }
    .live {
      border-color: var(--copper);
    }
    .open {
      border-style: dashed;
      color: var(--ink-soft);
    }
    @media (max-width: 1180px) and (min-width: 900px) {
      /* One row: what is as usual is said by the name alone. */
      .usual {
        display: none;
      }
      :host {
        flex-wrap: nowrap;
      }
    }
    .does {
      font-weight: 400;
      font-size: 12.5px;
      color: var(--ink-soft);
    }
  `,
})
export class PowerBar {
  private readonly session = inject(RehearsalSession);
  private readonly devices = computed(() => [...this.session.devices()].sort(byTag));
  protected readonly supplies = computed(() => this.devices().filter((d) => d.kind === 'power'));
  protected readonly breakers = computed(() =>
    this.devices().filter((d) => d.workedBy === 'supply' && d.positions.length === 2),
  );
  protected readonly supplyOn = computed(() => this.at('supply.on') === 1);
  protected readonly phases = computed(() =>
    this.session.opened()?.landings.includes('supply:L3') ? (['L1', 'L2', 'L3'] as const) : [],
  );
  private readonly lost = computed(() => {
    const lost = new Set<string>();
    for (const { t, act } of this.session.log()) {
      if (t > this.session.shownUs()) break;
      if ((act.do === 'supplyOff' || act.do === 'supplyOn') && act.phase)
        lost[act.do === 'supplyOff' ? 'add' : 'delete'](act.phase);
    }
    return lost;
  });

  protected at(id: string): number {
    return shownValue(this.session, id);
  }

  protected position(d: ShownDevice): string {
    return d.positions[this.at(`${d.id}.position`)] ?? '';
  }

  protected hasPhase(phase: string): boolean {
    return !this.lost().has(phase);
  }

  protected toggleSupply(): void {
    void this.session.act({ do: this.supplyOn() ? 'supplyOff' : 'supplyOn' });
  }

  protected togglePhase(phase: 'L1' | 'L2' | 'L3'): void {
    void this.session.act({ do: this.hasPhase(phase) ? 'supplyOff' : 'supplyOn', phase });
  }

  protected togglePower(d: ShownDevice): void {
    void this.session.act({
      do: this.at(`${d.id}.on`) === 1 ? 'supplyOff' : 'supplyOn',
      device: d.id,
    });
  }

  protected toggleBreaker(d: ShownDevice): void {
    const position = this.position(d) === 'on' ? 'off' : 'on';
    void this.session.act({ do: 'turn', device: d.id, position });
  }
}
