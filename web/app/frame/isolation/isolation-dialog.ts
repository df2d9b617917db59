import { Component, inject } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { IsolationState } from '@tactron/core/job';
import { IsolationForm } from './isolation-form';

/** The declaration of a state of isolation, asked for in the head strip. */
@Component({
  selector: 'tac-isolation-dialog',
  imports: [MatDialogModule, IsolationForm],
  template: `
    <h2 mat-dialog-title>Declare {{ state }}</h2>
    <mat-dialog-content>
      <p class="soft">
        Declared by name and time, never inferred. Prove dead with a proved tester; local rules
        apply.
      </p>
      <tac-isolation-form [state]="state" (declared)="ref.close()" />
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="act" type="button" mat-dialog-close>Not now</button>
    </mat-dialog-actions>
  `,
  styles: 'mat-dialog-content { min-width: min(440px, 78vw); } p { margin: 0 0 12px; }',
})
export class IsolationDialog {
  protected readonly ref = inject<MatDialogRef<IsolationDialog>>(MatDialogRef);
  protected readonly state = inject<IsolationState>(MAT_DIALOG_DATA);
}
