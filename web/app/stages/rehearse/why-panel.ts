import { Component, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import type { Where } from '@tactron/core/job';
import type { SaidCondition } from '../../compute/rehearse.worker';
import { OpenJob } from '../../job-state/open-job';
import { Leads } from './leads';
import { RehearsalSession } from './session';

/** Why the motor runs or does not, at the moment shown: conditions in order, the first unmet one first, each with its place. */
@Component({
  selector: 'tac-why-panel',
  template: `
    <div class="head">
      <h3>Why is it {{ running() === true ? '' : 'not ' }}running?</h3>
      <button class="act" type="button" (click)="ask()">
        {{ conditions() ? 'Ask again' : 'Ask' }}
      </button>
    </div>
    @if (conditions(); as list) {
      @if (unmet().length === 0) {
        <p role="status">
          {{
            running()
              ? 'It runs: every condition is met.'
              : 'Every condition is met: it starts, or has just stopped.'
          }}
        </p>
      }
      <ol>
        @for (c of unmet(); track $index) {
          <li class="unmet" [class.first]="$first">
            <button type="button" class="go" (click)="go(c.where)">
              <span class="mark stop">{{ $first ? 'first' : 'then' }}</span> {{ c.text }}
            </button>
            @for (p of c.places; track $index) {
              <button type="button" class="go place" (click)="go(p.where)">→ {{ p.text }}</button>
            }
          </li>
        }
      </ol>
      <details>
        <summary>{{ met().length }} conditions are met</summary>
        <ul>
          @for (c of met(); track $index) {
            <li class="soft">✓ {{ c.text }}</li>
          }
        </ul>
      </details>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      padding: 10px 12px;
      align-content: start;
    }
    .head .act {
      white-space: nowrap;
    }
    .head {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 8px;
    }
    ol,
    ul {
      display: grid;
      gap: 4px;
      margin: 0;
      padding: 0;
      list-style: none;
      font-size: 14px;
    }
    .unmet {
      border-left: 4px solid var(--line-strong);
      padding-left: 8px;
    }
    .first {
      border-left-color: var(--bad);
      font-weight: 600;
    }
    .go {
      display: block;
      width: 100%;
      min-height: 32px;
      border: 0;
      background: none;
      color: var(--ink);
      font: inherit;
      text-align: left;
      cursor: pointer;
      padding: 2px 0;
    }
    .go:hover {
      text-decoration: underline;
    }
    .place {
      padding-left: 16px;
      color: var(--ink-soft);
      font-weight: 400;
    }
    @media (pointer: coarse) {
      .go {
        min-height: 44px;
      }
    }
  `,
})
export class WhyPanel {
  private readonly session = inject(RehearsalSession);
  private readonly leads = inject(Leads);
  private readonly router = inject(Router);
  private readonly open = inject(OpenJob);
  protected readonly conditions = signal<readonly SaidCondition[] | null>(null);
  protected readonly running = signal<boolean | null>(null);
  private asked = 0;

  protected readonly unmet = (): readonly SaidCondition[] =>
    (this.conditions() ?? []).filter((c) => !c.met);
  protected readonly met = (): readonly SaidCondition[] =>
    (this.conditions() ?? []).filter((c) => c.met);

  constructor() {
    // The answer follows every act and everything that happens by itself.
    effect(() => {
      this.session.log();
      this.session.stretch();
      const opened = this.session.opened() !== null;
      untracked(() => {
        if (opened) void this.ask();
      });
    });
  }

  protected async ask(): Promise<void> {
    const mine = ++this.asked;
    const { running, conditions } = await this.session.why();
    // Only the last question counts: an earlier answer may come later.
    if (mine !== this.asked) return;
    this.running.set(running);
    this.conditions.set(conditions);
  }

  /** Points at what a condition is about: the wire in the tools, the lead on the landing, the setting on its sheet. */
  protected go(where: Where): void {
    if (where.kind === 'wire') this.leads.wire.set(where.id);
    else if (where.kind === 'landing') {
      this.leads.plus.set(where.id);
      document.getElementById('lead-plus')?.focus();
    } else if (where.kind === 'setting')
      void this.router.navigate(['/jobs', this.open.job()?.id, 'key']);
    else
      document
        .querySelector<HTMLElement>('tac-station-panel')
        ?.scrollIntoView({ block: 'nearest' });
  }
}
