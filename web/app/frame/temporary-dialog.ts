import { v4 as uuid } from 'uuid';
import { Component, computed, inject, signal } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { takenOut, temporaryRegister, type Temporary, type TemporaryKind } from '@tactron/core/job';
import { Choice } from '../controls/choice';
import { OpenJob } from '../job-state/open-job';
import { moment } from '@tactron/core/units';
import { temporaryNames } from '@tactron/core/printed';

/** What is in for tests and must come out again: put in by name, taken out by name, counted in the head strip. */
@Component({
  selector: 'tac-temporary-dialog',
  imports: [MatDialogModule, Choice],
  template: `
    <h2 mat-dialog-title>In for tests</h2>
    <mat-dialog-content>
      <p class="soft">
        Whatever is put in for a test and must come out again. While anything is in, the job is not
        handed over.
      </p>
      @for (t of inside(); track t.subject) {
        <div class="one" [attr.data-temporary]="t.subject">
          <div>
            <b>{{ names[t.kind] }}</b>{{ t.where ? ' at ' + t.where : '' }}: {{ t.what }}
            <div class="small soft">
              put in by {{ t.put.author.name }}, {{ clock(t.put.atClient) }}
            </div>
          </div>
          @if (t.kind === 'testValue') {
            <span class="soft">put back in Key</span>
          } @else {
            <button class="act" type="button" (click)="takeOut(t)">Taken out</button>
          }
        </div>
      } @empty {
        <p>Nothing is in.</p>
      }
      <form class="put" (submit)="put($event)">
        <tac-choice
          label="What is put in"
          [options]="kinds"
          [value]="kind()"
          (changed)="kind.set($any($event))"
        />
        <label class="named"
          >Where
          <input
            class="field"
            name="where"
            cdkFocusInitial
            maxlength="120"
            list="temporary-places"
            placeholder="T1:D3 or wire 28"
            [value]="where()"
            (input)="where.set($any($event.target).value)"
        /></label>
        <datalist id="temporary-places">
          @for (place of places(); track place) {
            <option [value]="place"></option>
          }
        </datalist>
        <label class="named"
          >What for
          <input
            class="field"
            name="what"
            required
            maxlength="400"
            placeholder="inhibit held closed for the bump test"
            [value]="what()"
            (input)="what.set($any($event.target).value)"
        /></label>
        <button class="act main" type="submit">Put in</button>
      </form>
      @if (out().length) {
        <h3>Taken out again</h3>
        @for (t of out(); track t.subject) {
          <p class="small soft">
            {{ names[t.kind] }}{{ t.where ? ' at ' + t.where : '' }}: {{ t.what }};
            {{ t.removed?.author?.name }}, {{ clock(t.removed?.atClient ?? '') }}
          </p>
        }
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="act" type="button" mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 12px;
      min-width: min(460px, 78vw);
    }
    .one {
      display: flex;
      gap: 12px;
      align-items: center;
      justify-content: space-between;
      padding-left: 10px;
      border-left: 4px solid var(--warn, currentColor);
    }
    .one .act {
      flex: none;
    }
    .put {
      display: grid;
      gap: 12px;
      padding-top: 12px;
      border-top: 1px solid var(--line);
    }
    p,
    h3 {
      margin: 0;
    }
  `,
})
export class TemporaryDialog {
  private readonly open = inject(OpenJob);
  private readonly register = computed(() => temporaryRegister(this.open.evidence()));
  protected readonly inside = computed(() => this.register().filter((t) => !t.removed));
  protected readonly out = computed(() => this.register().filter((t) => t.removed));
  protected readonly names = temporaryNames;
  /** Test values are keyed and put back in Key. */
  protected readonly kinds = Object.entries(temporaryNames)
    .filter(([kind]) => kind !== 'testValue')
    .map(([value, name]) => ({ value, name }));
  protected readonly kind = signal<TemporaryKind>('jumper');
  protected readonly where = signal('');
  protected readonly what = signal('');
  protected readonly clock = moment;
  /** Landings and wires of the job as they are marked on the panel. */
  protected readonly places = computed(() => {
    const { adopted } = this.open.job() ?? {};
    const wires = Object.values(adopted?.wires ?? {});
    const marked = (at: string): string =>
      at.replace(/^[^:]+/u, (id) => adopted?.devices[id]?.tag ?? id);
    const landings = new Set(wires.flatMap((w) => [marked(w.from), marked(w.to)]));
    return [...[...landings].sort(), ...wires.map((w) => `wire ${w.number}`)];
  });

  protected put(event: Event): void {
    event.preventDefault();
    const what = this.what().trim();
    if (!what) return;
    const where = this.where().trim();
    const body = { version: 1 as const, kind: this.kind(), what, ...(where ? { where } : {}) };
    this.open.record('temporary', `temporary.${uuid()}`, body);
    this.where.set('');
    this.what.set('');
  }

  protected takeOut(t: Temporary): void {
    this.open.record('temporary', t.subject, takenOut(t));
  }
}
