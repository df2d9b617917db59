import { Component, inject } from '@angular/core';
import { MatDialogModule } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import { keyList } from './key-list';
import { Preferences } from './preferences';

/** Every key, and where single-letter keys are switched off. */
@Component({
  selector: 'tac-key-help',
  imports: [MatDialogModule, RouterLink],
  template: `
    <h2 mat-dialog-title>Keys</h2>
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
      <p class="soft">
        Single-letter keys are {{ preferences.singleKeys() ? 'on' : 'off' }};
        <a routerLink="/settings" mat-dialog-close>Settings</a> switches them.
      </p>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button class="act main" type="button" mat-dialog-close>Close</button>
    </mat-dialog-actions>
  `,
  styles: `
    th {
      white-space: nowrap;
    }
  `,
})
export class KeyHelp {
  protected readonly keys = keyList;
  protected readonly preferences = inject(Preferences);
}
