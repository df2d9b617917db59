import { Injectable, inject } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Preferences } from './preferences';
import { stageNames } from './stage-names';

type Handler = () => void;

/** Single-letter keys: off while typing, and as a whole when the person switches them off. */
@Injectable({ providedIn: 'root' })
export class Keys {
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly preferences = inject(Preferences);
  private readonly handlers = new Map<string, Handler[]>();
  /** The field in which something was typed that is not taken over yet. */
  private unfinished: EventTarget | null = null;

  listen(): void {
    document.addEventListener('keydown', (event) => this.press(event));
    document.addEventListener('input', ({ target }) => (this.unfinished = target), true);
    for (const done of ['change', 'focusout'])
      document.addEventListener(done, () => (this.unfinished = null), true);
  }

  /** Gives a key a meaning until the returned function is called. */
  on(key: string, handler: Handler): () => void {
    const list = this.handlers.get(key) ?? [];
    this.handlers.set(key, [handler, ...list]);
    return () =>
      this.handlers.set(
        key,
        (this.handlers.get(key) ?? []).filter((h) => h !== handler),
      );
  }

  /** Opens the list of keys. */
  help(): void {
    void import('./key-help').then((m) => this.dialog.open(m.KeyHelp));
  }

  /** Opens the box to go anywhere. */
  goTo(): void {
    void import('./go-to/go-to').then((m) =>
      this.dialog.open(m.GoTo, { position: { top: '12vh' }, autoFocus: 'input' }),
    );
  }

  private press(event: KeyboardEvent): void {
    const typing =
      event.target instanceof HTMLElement &&
      (event.target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/u.test(event.target.tagName));
    // Enter takes over what was typed in a field of one line.
    if (event.key === 'Enter' && event.target instanceof HTMLInputElement) this.unfinished = null;
    if (this.isUndo(event, typing)) {
      event.preventDefault();
      return this.call(event.shiftKey ? 'redo' : 'undo');
    }
    if (
      typing ||
      event.ctrlKey ||
      event.metaKey ||
      event.altKey ||
      this.dialog.openDialogs.length > 0
    )
      return;
    if (event.key === '?') return this.help();
    if (!this.preferences.singleKeys()) return;
    if (event.key === 'g') {
      event.preventDefault();
      return this.goTo();
    }
    const stage = stageNames[Number(event.key) - 1];
    const job = /^\/jobs\/([^/?]+)/u.exec(this.router.url)?.[1];
    if (stage && job) return void this.router.navigate(['/jobs', job, stage]);
    if (this.handlers.get(event.key)?.length) {
      event.preventDefault();
      this.call(event.key);
    }
  }

  /** In a field whose text was taken over, Undo means the job; while something is being typed it means the text. */
  private isUndo(event: KeyboardEvent, typing: boolean): boolean {
    const asked = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
    if (!asked || this.dialog.openDialogs.length > 0 || !this.handlers.get('undo')?.length)
      return false;
    return !typing || this.unfinished !== event.target;
  }

  private call(key: string): void {
    this.handlers.get(key)?.[0]?.();
  }
}
