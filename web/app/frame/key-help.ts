import { Component, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { Choice } from '../controls/choice';
import { keyList } from './key-list';
import { Preferences } from './preferences';

/** Keys and what this browser keeps for the person: name and role, decimal mark, single keys on or off. */
@Component({
  selector: 'tac-key-help',
  imports: [MatDialogModule, Choice],
  template: `
    <h2 mat-dialog-title>Keys and preferences</h2>
    <mat-dialog-content>
      <table class="plain">
        <caption class="visually-hidden">
          Keys
        </caption>
        <tbody>
          @for (row of keys; track row[0]) {
            <tr>
              <th scope="row" class="mono">{{ row[0] }}</th>
              <td>{{ row[1] }}</td>
            </tr>
          }
        </tbody>
      </table>
      <div class="own">
        <tac-choice
          label="Single-letter keys"
          [options]="onOff"
          [value]="preferences.singleKeys() ? 'on' : 'off'"
          (changed)="preferences.singleKeys.set($event === 'on')"
        />
        <tac-choice
          label="Decimal mark shown"
          [options]="marks"
          [value]="preferences.decimal()"
          (changed)="preferences.decimal.set($event === ',' ? ',' : '.')"
        />
        <label class="named"
          >Name on changes and readings
          <input class="field" maxlength="120" [value]="preferences.author()?.name ?? ''" (change)="name($any($event.target).value)"
        /></label>
        <label class="named"
          >Role <input class="field" maxlength="120" [value]="preferences.author()?.role ?? ''" (change)="role($any($event.target).value)"
        /></label>
      </div>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="act main" type="button" mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    .own {
      display: grid;
      gap: 12px;
      margin-top: 16px;
    }
    th {
      white-space: nowrap;
    }
  `,
})
export class KeyHelp {
  protected readonly keys = keyList;
  protected readonly preferences = inject(Preferences);
  protected readonly onOff = [
    { value: 'on', name: 'on' },
    { value: 'off', name: 'off' },
  ];
  protected readonly marks = [
    { value: '.', name: '1.5' },
    { value: ',', name: '1,5' },
  ];

  protected name(text: string): void {
    const name = text.trim();
    this.preferences.author.set(name ? { name, role: this.preferences.author()?.role ?? '' } : null);
  }

  protected role(text: string): void {
    const known = this.preferences.author();
    if (known) this.preferences.author.set({ ...known, role: text.trim() });
  }
}
