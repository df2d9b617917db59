import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Keys } from './keys';
import { Preferences } from './preferences';

describe('Undo by the keyboard', () => {
  let field: HTMLInputElement;
  let undone: number;
  beforeEach(() => {
    undone = 0;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: Router, useValue: { url: '/jobs/x/plate' } },
        { provide: MatDialog, useValue: { openDialogs: [] } },
        { provide: Preferences, useValue: { singleKeys: () => true } },
      ],
    });
    const keys = TestBed.inject(Keys);
    keys.listen();
    keys.on('undo', () => undone++);
    field = document.body.appendChild(document.createElement('input'));
    field.focus();
  });
  afterEach(() => field.remove());

  const press = (key: string, ctrlKey = false): boolean =>
    field.dispatchEvent(
      new KeyboardEvent('keydown', { key, ctrlKey, bubbles: true, cancelable: true }),
    );
  const type = (text: string): void => {
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
  };

  it('means the text while something is being typed, and the job once it was taken over', () => {
    type('62');
    expect([press('z', true), undone]).toEqual([true, 0]);
    press('Enter');
    expect([press('z', true), undone]).toEqual([false, 1]);
    type('90');
    field.dispatchEvent(new Event('change', { bubbles: true }));
    expect([press('z', true), undone]).toEqual([false, 2]);
  });
});
