import { v4 as uuid } from 'uuid';
import { Component, computed, inject, signal } from '@angular/core';
import {
  punchCategories,
  punchClosed,
  punchList,
  punchOf,
  type PunchCategory,
  type PunchPoint,
} from '@tactron/core/job';
import { Choice } from '../../controls/choice';
import { moment } from '@tactron/core/units';
import { OpenJob } from '../../job-state/open-job';
import { punchNames } from '@tactron/core/printed';

/** Open points of a job: noted with by when and whose, closed by name; they print in the record. */
@Component({
  selector: 'tac-open-points',
  imports: [Choice],
  template: `
    <h2>Open points</h2>
    @for (p of open(); track p.subject) {
      <div class="point" [attr.data-punch]="p.category">
        <div>
          <b>{{ names[p.category] }}</b>: {{ p.text }}
          <div class="small soft">
            {{ p.opened.author.name }}, {{ clock(p.opened.atClient)
            }}{{ p.owner ? '; ' + p.owner : '' }}{{ p.due ? ', until ' + p.due : '' }}
          </div>
        </div>
        <button class="act" type="button" (click)="close(p)">Closed</button>
      </div>
    } @empty {
      <p class="soft">None noted.</p>
    }
    <form (submit)="add($event)">
      <label class="named wide"
        >What is open
        <input
          class="field"
          name="what"
          maxlength="1000"
          [value]="what()"
          (input)="what.set($any($event.target).value)"
      /></label>
      <tac-choice
        label="To be closed"
        [options]="categories"
        [value]="category()"
        (changed)="category.set($any($event))"
      />
      <label class="named"
        >Whose
        <input
          class="field"
          name="owner"
          maxlength="120"
          [value]="owner()"
          (input)="owner.set($any($event.target).value)"
      /></label>
      <label class="named"
        >Until
        <input
          class="field"
          name="due"
          type="date"
          [value]="due()"
          (input)="due.set($any($event.target).value)"
      /></label>
      <button class="act" type="submit" [disabled]="!what().trim()">Note it</button>
    </form>
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
      max-width: 1000px;
      margin-bottom: 16px;
    }
    p,
    h2 {
      margin: 0;
    }
    .point {
      display: flex;
      gap: 12px;
      align-items: center;
      justify-content: space-between;
      padding-left: 10px;
      border-left: 4px solid var(--accent-line);
    }
    .point .act {
      flex: none;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
    }
    .wide {
      flex: 1 1 280px;
    }
  `,
})
export class OpenPoints {
  private readonly job = inject(OpenJob);
  protected readonly open = computed(() => punchList(this.job.evidence()).filter((p) => !p.closed));
  protected readonly names = punchNames;
  protected readonly categories = punchCategories.map((value) => ({
    value,
    name: punchNames[value],
  }));
  protected readonly clock = moment;
  protected readonly what = signal('');
  protected readonly owner = signal('');
  protected readonly due = signal('');
  protected readonly category = signal<PunchCategory>('beforeProduction');

  protected add(event: Event): void {
    event.preventDefault();
    const [text, owner, due] = [this.what().trim(), this.owner().trim(), this.due()];
    if (!text) return;
    this.job.record(
      'punch',
      `punch.${uuid()}`,
      punchOf(text, this.category(), { ...(owner ? { owner } : {}), ...(due ? { due } : {}) }),
    );
    this.what.set('');
    this.owner.set('');
    this.due.set('');
  }

  protected close(p: PunchPoint): void {
    this.job.record('punch', p.subject, punchClosed(p));
  }
}
