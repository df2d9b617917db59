import { Component, input, output } from '@angular/core';
import type { SaidCard } from '../../compute/compare.worker';
import { TimingStrip } from './timing-strip';

/** One school as it behaves on this job: a strip, what it comes to, its hazards and its price. */
@Component({
  selector: 'tac-behaviour-card',
  imports: [TimingStrip],
  template: `
    @let c = card();
    <header>
      <h4>{{ c.name }}</h4>
      @if (c.recommended) {
        <span class="mark done">recommended</span>
      }
    </header>
    @if (c.impossible) {
      <p class="impossible">{{ c.impossible }}</p>
    } @else {
      @if (c.strip; as strip) {
        <tac-timing-strip [strip]="strip" />
      }
      <ul class="outcomes">
        @for (o of c.outcomes; track o.text) {
          <li [class.bad]="o.bad">{{ o.bad ? '▲' : '■' }} {{ o.text }}</li>
        }
      </ul>
      @for (h of c.hazards; track h.text) {
        <p class="hazard small">
          <span class="mark" [class]="'mark ' + h.severity">{{ h.mark }}</span> {{ h.text }}
        </p>
      }
      <footer>
        <span class="small soft">{{ c.cost }}</span>
        <button
          class="act"
          type="button"
          [attr.aria-pressed]="c.chosen"
          (click)="picked.emit(c.id)"
        >
          {{ c.chosen ? 'Chosen' : 'Choose this' }}
        </button>
      </footer>
    }
  `,
  styleUrl: './behaviour-card.scss',
  host: {
    '[class.chosen]': 'card().chosen',
    '[class.off]': "card().impossible !== ''",
    role: 'group',
    '[attr.aria-label]': 'card().name',
  },
})
export class BehaviourCard {
  readonly card = input.required<SaidCard>();
  readonly picked = output<string>();
}
