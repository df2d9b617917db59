import { Component, computed, inject } from '@angular/core';
import type { Job } from '@tactron/core/job';
import { Icon } from '../../controls/icon';
import { OpenJob } from '../../job-state/open-job';
import { moment } from '@tactron/core/units';
import { IsolationNow } from './isolation-now';

/** The card that hangs at the lock: sources, locks, holder, until when; as declared, with room for what is written by hand. */
@Component({
  selector: 'tac-isolation-card',
  imports: [Icon],
  template: `
    <div class="tools no-print">
      <button class="act main" type="button" (click)="print()">
        <tac-icon name="print" /> Print
      </button>
      <p class="soft">Declare another state in the head strip; the card follows.</p>
    </div>
    <article class="sheet card">
      <header>
        <p class="no">Do not switch on. Do not take this lock off.</p>
        <h2>{{ job().tag }} · isolation card</h2>
        <p>{{ job().machine }}</p>
      </header>
      @if (now(); as i) {
        <p class="state">
          <b>{{ i.state }}</b>
          @if (i.contradicted) {
            <span>contradicted by another declaration: declare anew</span>
          } @else if (i.expired) {
            <span>expired {{ clock(i.until) }}: declare anew</span>
          } @else {
            <span
              >declared by {{ i.declared.author.name }}, {{ clock(i.at, true)
              }}{{ i.until ? '; stands until ' + clock(i.until, true) : '' }}</span
            >
          }
        </p>
        @if (i.state !== 'DEAD') {
          <p class="caution">
            This is no card for work on bare parts: the job is not declared dead.
          </p>
        }
      } @else {
        <p class="state"><b>NOT DECLARED</b></p>
        <p class="caution">This is no card for work on bare parts: the job is not declared dead.</p>
      }
      <table class="plain" aria-label="Sources">
        <thead>
          <tr>
            <th>source</th>
            <th>what</th>
            <th>lock</th>
            <th>tester proved, dead, tester proved</th>
          </tr>
        </thead>
        <tbody>
          @for (s of sources(); track s.tag) {
            <tr>
              <td class="mono">
                <b>{{ s.tag }}</b>
              </td>
              <td>{{ s.what }}</td>
              <td class="mono">{{ s.locked ? s.lock || '……………' : '' }}</td>
              <td>{{ s.locked ? proved() || '……………' : '' }}</td>
            </tr>
          } @empty {
            <tr>
              <td colspan="4">
                No plan names the sources here: write each source with its lock by hand.
              </td>
            </tr>
          }
        </tbody>
      </table>
      <dl>
        <dt>Keys held by</dt>
        <dd>{{ (dead() && now()?.by) || '……………' }}</dd>
        <dt>Permit</dt>
        <dd>{{ now()?.declared?.body?.permit || '……………' }}</dd>
        <dt>DC link</dt>
        <dd>{{ link() }}</dd>
        <dt>Stays live ahead of this</dt>
        <dd>{{ ahead() }}</dd>
      </dl>
      <p class="small soft">
        Printed {{ clock(today, true) }}, revision {{ open.state().revision }}. The card states what
        was declared and read; it does not make anything dead. Local codes and the rules of the site
        apply.
      </p>
    </article>
  `,
  styles: `
    :host {
      display: grid;
      gap: 16px;
      align-content: start;
    }
    .tools {
      display: flex;
      flex-wrap: wrap;
      gap: 12px;
      align-items: center;
    }
    .card {
      display: grid;
      gap: 16px;
      max-width: 720px;
      padding: 24px 28px;
    }
    p,
    dl {
      margin: 0;
    }
    .no {
      font-weight: 700;
    }
    .state {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 14px;
      align-items: baseline;
      padding: 10px 14px;
      border: 2px solid var(--ink);
    }
    .state b {
      font-size: 24px;
    }
    dl {
      display: grid;
      grid-template-columns: max-content 1fr;
      gap: 8px 18px;
    }
    dt {
      color: var(--ink-soft);
    }
    dd {
      margin: 0;
    }
    @media (max-width: 560px) {
      .card {
        padding: 14px;
        overflow-x: auto;
      }
      /* Its columns fit beside each other where their heads may break. */
      table.plain th {
        white-space: normal;
      }
      dl {
        grid-template-columns: 1fr;
        gap: 2px;
      }
    }
  `,
})
export class IsolationCard {
  protected readonly open = inject(OpenJob);
  protected readonly now = inject(IsolationNow).now;
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly clock = moment;
  protected readonly today = new Date().toISOString();
  /** Sources of the plan, each with the lock of the declaration; those of the declaration where it names others. */
  protected readonly sources = computed(() => {
    const body = this.now()?.declared.body;
    const locks = new Map(
      body?.state === 'DEAD' ? (body.sources ?? []).map((s) => [s.name, s.lock ?? '']) : [],
    );
    return (this.open.derived()?.sources ?? []).map((s) => ({
      ...s,
      lock: locks.get(s.tag) ?? '',
    }));
  });
  /** It stands declared dead now: only then what was proved for it counts. */
  protected readonly dead = computed(() => {
    const now = this.now();
    return now?.state === 'DEAD' && !now.expired && !now.contradicted;
  });
  private readonly check = (key: string) =>
    this.open.derived()?.dead.find((s) => s.step.key === key && s.state === 'pass');
  protected readonly proved = computed(() => {
    const step = this.dead() ? this.check('dead.isolate.proved') : undefined;
    return step ? `${step.reading?.author.name}, ${moment(step.reading?.atClient)}` : '';
  });
  protected readonly link = computed(() => {
    const { dischargeS, dead } = this.open.derived() ?? {};
    const read = dead?.find((s) => s.step.key === 'dead.isolate.link')?.reading;
    if (read && this.dead()) return `measured, ${read.author.name}, ${moment(read.atClient)}`;
    if (!dischargeS) return 'none in this device';
    const waited = this.check('dead.isolate.wait')?.reading;
    if (waited && this.dead())
      return `${dischargeS} s waited, ${waited.author.name}, ${moment(waited.atClient)}`;
    return `wait ${dischargeS} s after switching off, then measure where it can be measured`;
  });
  protected readonly ahead = computed(() => {
    const first = this.sources()[0];
    return first ? `the incoming side of ${first.tag}` : 'as found at the place';
  });

  protected print(): void {
    window.print();
  }
}
