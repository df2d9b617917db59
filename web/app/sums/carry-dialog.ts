import { Component, computed, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { applyPatch } from '@tactron/core/job';
import { formatNumber, formatQuantity } from '@tactron/core/units';
import { Preferences } from '../frame/preferences';
import { Api, type BoardEntry } from '../job-state/api';
import { Desk } from '../job-state/desk';
import { carried, carryPatch, type Carry } from './carry';

/** Puts a number of a sum into a job: which number, which job; it is a change like any other and can be undone there. */
@Component({
  selector: 'tac-carry-dialog',
  imports: [MatDialogModule],
  template: `
    <form (submit)="carry($event)">
      <h2 mat-dialog-title>Carry into a job</h2>
      <mat-dialog-content>
        <label class="named"
          >Number
          <select class="field" (change)="chosen.set(+$any($event.target).value)">
            @for (c of data.carries; track c.path; let i = $index) {
              <option [value]="i" [selected]="i === chosen()">{{ c.label }}: {{ text(c) }}</option>
            }
          </select>
        </label>
        <label class="named"
          >Job
          <select class="field" (change)="job.set($any($event.target).value)">
            @for (j of jobs(); track j.id) {
              <option [value]="j.id" [selected]="j.id === job()">
                {{ j.job.tag }} · {{ j.job.machine }}
              </option>
            }
          </select>
        </label>
        @if (problem(); as p) {
          <p role="alert">{{ p }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="act" type="button" mat-dialog-close>Cancel</button>
        <button class="act main" type="submit" [disabled]="!job()">Carry</button>
      </mat-dialog-actions>
    </form>
  `,
  styles:
    'mat-dialog-content { display: grid; gap: 12px; min-width: min(420px, 80vw); padding-top: 6px !important; }',
})
export class CarryDialog {
  private readonly api = inject(Api);
  private readonly desk = inject(Desk);
  private readonly ref = inject(MatDialogRef<CarryDialog>);
  private readonly preferences = inject(Preferences);
  protected readonly data = inject<{
    carries: readonly Carry[];
    values: Readonly<Record<string, number>>;
  }>(MAT_DIALOG_DATA);
  protected readonly chosen = signal(0);
  protected readonly jobs = signal<readonly BoardEntry[]>([]);
  protected readonly job = signal('');
  protected readonly problem = signal<string | null>(null);
  private readonly one = computed(() => this.data.carries[this.chosen()]);

  constructor() {
    this.jobsToChoose().then(
      (rows) => {
        this.jobs.set(rows);
        this.job.set(rows[0]?.id ?? '');
      },
      (error: Error) => this.problem.set(error.message),
    );
  }

  private async jobsToChoose(): Promise<readonly BoardEntry[]> {
    try {
      return (await this.api.board('size=100')).rows;
    } catch (error) {
      const kept = await this.desk.keptJobs();
      if (kept.length === 0) throw error;
      return kept;
    }
  }

  protected text(c: Carry): string {
    const value = carried(c, this.data.values[c.from]);
    return typeof value === 'number'
      ? formatNumber(value, 3, this.preferences.decimal())
      : formatQuantity(value, this.preferences.decimal());
  }

  protected async carry(event: Event): Promise<void> {
    event.preventDefault();
    const one = this.one();
    try {
      const label = `${one.label} from Sums`;
      const job = await this.desk.change(this.job(), label, this.preferences.signed(), (draft) => {
        Object.assign(draft, applyPatch(draft, carryPatch(draft, one, this.data.values[one.from])));
      });
      this.ref.close(`${job.tag} now has ${this.one().label} ${this.text(this.one())}.`);
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
