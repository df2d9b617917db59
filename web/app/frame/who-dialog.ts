import { Component, inject, signal } from '@angular/core';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';

@Component({
  selector: 'tac-who-dialog',
  imports: [MatDialogModule],
  template: `
    <form (submit)="accept($event)">
      <h2 mat-dialog-title>Who is working?</h2>
      <mat-dialog-content>
        <p class="soft">Every change and reading carries a name. It is kept in this browser.</p>
        <label class="named"
          >Name
          <input
            class="field"
            name="name"
            required
            maxlength="120"
            autocomplete="name"
            [value]="name()"
            (input)="name.set($any($event.target).value)"
        /></label>
        <label class="named"
          >Role
          <input
            class="field"
            name="role"
            maxlength="120"
            placeholder="commissioning electrician"
            [value]="role()"
            (input)="role.set($any($event.target).value)"
        /></label>
      </mat-dialog-content>
      <mat-dialog-actions>
        <button class="act" type="button" (click)="ref.close()">Not now</button>
        <button class="act main" type="submit" [disabled]="!name().trim()">Go on</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: 'mat-dialog-content { display: grid; gap: 12px; min-width: min(420px, 80vw); }',
})
export class WhoDialog {
  protected readonly ref = inject(MatDialogRef<WhoDialog>);
  protected readonly name = signal('');
  protected readonly role = signal('');

  protected accept(event: Event): void {
    event.preventDefault();
    if (this.name().trim()) this.ref.close({ name: this.name().trim(), role: this.role().trim() });
  }
}
