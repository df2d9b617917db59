import { Component, computed, effect, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Api } from '../../job-state/api';
import { OpenJob } from '../../job-state/open-job';
import { everywhere, found, placesOf, type Place } from './places';

/** How long one waits for more letters before jobs are asked for, ms. */
const PAUSE_MS = 150;
const MOST_JOBS = 6;

/** One box to go anywhere: stages, wires, terminals, settings and findings of the job, pages, and other jobs. */
@Component({
  selector: 'tac-go-to',
  imports: [MatDialogModule],
  template: `
    <h2 mat-dialog-title>Go to</h2>
    <mat-dialog-content>
      <input
        class="field"
        cdkFocusInitial
        role="combobox"
        aria-label="Go to"
        aria-controls="go-to-list"
        aria-expanded="true"
        aria-autocomplete="list"
        [attr.aria-activedescendant]="'go-to-' + at()"
        maxlength="80"
        placeholder="wire 35, T1:D1, a setting, a finding, a job …"
        [value]="typed()"
        (input)="typed.set($any($event.target).value); at.set(0)"
        (keydown.arrowdown)="$event.preventDefault(); move(1)"
        (keydown.arrowup)="$event.preventDefault(); move(-1)"
        (keydown.enter)="$event.preventDefault(); go(results()[at()])"
      />
      <ul id="go-to-list" role="listbox" aria-label="Places">
        @for (place of results(); track $index) {
          <li
            role="option"
            [id]="'go-to-' + $index"
            [attr.aria-selected]="$index === at()"
            (click)="go(place)"
          >
            <span class="kind small soft">{{ place.kind }}</span>
            <b>{{ place.title }}</b> <span class="soft">{{ place.detail }}</span>
          </li>
        }
      </ul>
      @if (results().length === 0) {
        <p class="soft" role="status">Nothing of that name here.</p>
      }
    </mat-dialog-content>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 10px;
      width: min(620px, 88vw);
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: flex;
      gap: 10px;
      align-items: baseline;
      min-height: 38px;
      padding: 8px 10px;
      border-left: 4px solid transparent;
      cursor: pointer;
    }
    li[aria-selected='true'] {
      border-left-color: var(--copper);
      background: var(--paper);
    }
    .kind {
      flex: 0 0 64px;
    }
    @media (pointer: coarse) {
      li {
        min-height: 44px;
      }
    }
  `,
})
export class GoTo {
  private readonly open = inject(OpenJob);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly ref = inject(MatDialogRef<GoTo>);
  protected readonly typed = signal('');
  /** Which of the results Enter goes to. */
  protected readonly at = signal(0);
  private readonly jobs = signal<readonly Place[]>([]);
  private readonly places = computed(() => {
    const id = /^\/jobs\/([^/?]+)/u.exec(this.router.url)?.[1];
    return id ? placesOf(id, this.open.job(), this.open.derived()) : everywhere;
  });
  protected readonly results = computed(() => [
    ...found(this.places(), this.typed()),
    ...this.jobs(),
  ]);

  constructor() {
    effect((cleanup) => {
      const typed = this.typed().trim();
      if (typed.length < 2) return this.jobs.set([]);
      const timer = setTimeout(() => void this.look(typed), PAUSE_MS);
      cleanup(() => clearTimeout(timer));
    });
  }

  /** Jobs by tag, machine or device; none without the server. */
  private async look(typed: string): Promise<void> {
    const query = new URLSearchParams({ search: typed, size: String(MOST_JOBS) });
    const { rows } = await this.api.board(query.toString()).catch(() => ({ rows: [] }));
    if (typed !== this.typed().trim()) return;
    this.jobs.set(
      rows.slice(0, MOST_JOBS).map(({ id, job }) => ({
        kind: 'job',
        title: job.tag,
        detail: job.machine,
        path: ['/jobs', id, 'plate'],
      })),
    );
  }

  protected move(by: number): void {
    const count = this.results().length;
    if (count > 0) this.at.update((i) => (i + by + count) % count);
  }

  protected go(place: Place | undefined): void {
    if (!place) return;
    this.ref.close();
    void this.router.navigate([...place.path], { queryParams: place.query ?? {} });
  }
}
