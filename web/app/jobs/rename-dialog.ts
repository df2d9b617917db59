import { Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Preferences } from '../frame/preferences';
import type { BoardEntry } from '../job-state/api';
import { Desk } from '../job-state/desk';

/** Gives a job another tag or machine name; a change like any other. */
@Component({
  selector: 'tac-rename-dialog',
  imports: [MatDialogModule],
  template: `
    <form (submit)="rename($event)">
      <h2 mat-dialog-title>Rename {{ row.job.tag }}</h2>
      <mat-dialog-content>
        <label class="named"
          >Tag
          <input
            class="field"
            maxlength="40"
            [value]="tag()"
            (input)="tag.set($any($event.target).value)"
        /></label>
        <label class="named"
          >Machine
          <input
            class="field"
            maxlength="200"
            [value]="machine()"
            (input)="machine.set($any($event.target).value)"
        /></label>
        @if (problem(); as p) {
          <p role="alert">{{ p }}</p>
        }
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="act" type="button" mat-dialog-close>Cancel</button>
        <button class="act main" type="submit" [disabled]="!tag().trim()">Rename</button>
      </mat-dialog-actions>
    </form>
  `,
  styles:
    'mat-dialog-content { display: grid; gap: 12px; min-width: min(420px, 80vw); padding-top: 6px !important; }',
})
export class RenameDialog {
  private readonly desk = inject(Desk);
  private readonly ref = inject(MatDialogRef<RenameDialog>);
  private readonly preferences = inject(Preferences);
  protected readonly row = inject<BoardEntry>(MAT_DIALOG_DATA);
  protected readonly tag = signal(this.row.job.tag);
  protected readonly machine = signal(this.row.job.machine);
  protected readonly problem = signal<string | null>(null);

  protected async rename(event: Event): Promise<void> {
    event.preventDefault();
    try {
      await this.desk.change(this.row.id, 'renamed', this.preferences.signed(), (draft) => {
        draft.tag = this.tag().trim();
        draft.machine = this.machine().trim();
      });
      this.ref.close(`${this.row.job.tag} is now ${this.tag().trim()}.`);
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
