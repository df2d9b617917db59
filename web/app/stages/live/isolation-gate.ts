import { Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { IsolationState } from '@tactron/core/job';
import { IsolationForm } from '../../frame/isolation/isolation-form';
import { IsolationNow } from '../../frame/isolation/isolation-now';
import { moment } from '@tactron/core/units';

/** In place of an entry: the state of isolation that a step needs, while another one stands declared or none. */
@Component({
  selector: 'tac-isolation-gate',
  imports: [IsolationForm, RouterLink],
  template: `
    <p>
      <b>Done with the job declared {{ needs() }}.</b> {{ stands() }}
    </p>
    <tac-isolation-form [state]="needs()" />
    <p class="small soft">
      Declared by name and time, never inferred. Prove dead with a proved tester; local rules apply.
      <a routerLink="../isolation">Isolation card</a>
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      align-content: start;
    }
    p {
      margin: 0;
    }
    a {
      color: var(--copper);
      font-weight: 600;
      line-height: 2;
    }
  `,
})
export class IsolationGate {
  private readonly isolation = inject(IsolationNow);
  readonly needs = input.required<IsolationState>();
  protected readonly stands = computed(() => {
    const now = this.isolation.now();
    if (!now) return 'Nothing is declared yet.';
    const by = `${now.state} by ${now.by}, ${moment(now.at)}`;
    if (now.contradicted) return `Declarations contradict each other; the more live one is ${by}.`;
    return now.expired
      ? `It was declared ${by}, until ${moment(now.until)}: that is over.`
      : `Declared now: ${by}.`;
  });
}
