import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job } from '@tactron/core/job';
import { Icon } from '../../../controls/icon';
import { OpenJob } from '../../../job-state/open-job';
import { NightCard } from '../../../record/night-card';
import { operatorRows } from '@tactron/core/printed';

/** The sheet that stays at the machine: how it is worked, what its lamps mean, and where to look when it stands. */
@Component({
  selector: 'tac-operator-sheet',
  imports: [Icon, RouterLink],
  providers: [NightCard],
  template: `
    <div class="tools no-print">
      <a class="act" routerLink="../handover">Back to Hand over</a>
      <button class="act main" type="button" (click)="print()">
        <tac-icon name="print" /> Print
      </button>
    </div>
    <article class="sheet">
      <header>
        <h2>{{ job().tag }} · for the operator</h2>
        <p class="soft">{{ job().machine }} · {{ today }}, revision {{ open.state().revision }}</p>
      </header>
      @if (!job().adopted) {
        <p>There is no plan yet: nothing can be said of how it works.</p>
      } @else {
        <table class="plain">
          <tbody>
            @for (r of rows(); track $index) {
              <tr>
                <th scope="row">{{ r[0] }}</th>
                <td>{{ r[1] }}</td>
              </tr>
            }
          </tbody>
        </table>
        <h3>When it stands: the likeliest faults of this machine</h3>
        <p class="caution">
          Only for a competent person: power off, locked, proved dead and discharged before a hand
          goes in. Never reset a fault before its cause is found; fault codes stand in the maker’s
          manual.
        </p>
        @if (night.busy()) {
          <p role="status">Being reckoned …</p>
        }
        <ol>
          @for (n of night.rows(); track $index) {
            <li>
              <b>{{ n.noticed }}.</b> {{ n.likely }} <span class="soft">{{ n.look }}</span>
            </li>
          }
        </ol>
      }
    </article>
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
    }
    .tools {
      display: flex;
      gap: 8px;
    }
    article {
      display: grid;
      gap: 10px;
      max-width: 900px;
      padding: 18px 22px;
    }
    p,
    h2,
    h3 {
      margin: 0;
    }
    th {
      width: 1%;
      padding-right: 16px;
    }
    tr:has(+ tr th:empty) > * {
      border-bottom-color: transparent;
    }
    ol {
      display: grid;
      gap: 8px;
      margin: 0;
      padding-left: 24px;
    }
    .caution {
      padding-left: 10px;
      border-left: 5px solid var(--warn);
      font-size: 14px;
    }
    @media print {
      article {
        max-width: none;
        padding: 0;
        border: 0;
        font-size: 10.5pt;
      }
    }
  `,
})
export class OperatorSheet {
  protected readonly open = inject(OpenJob);
  protected readonly night = inject(NightCard);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly today = new Date().toISOString().slice(0, 10);
  protected readonly rows = computed(() => operatorRows(this.open.derived()?.requirements ?? []));

  protected print(): void {
    window.print();
  }
}
