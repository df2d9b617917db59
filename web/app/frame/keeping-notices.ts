import { Component, DestroyRef, ElementRef, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { Icon } from '../controls/icon';
import { Keeping } from '../job-state/keeping';
import { SignIn } from './sign-in';

/** Above every view: what stands between the person and keeping the work. Nothing is shown while all is well. */
@Component({
  selector: 'tac-keeping-notices',
  styles: ':host { display: block; }',
  imports: [RouterLink, Icon, SignIn],
  template: `
    @if (keeping.signInNeeded() && !router.url.startsWith('/invitation/')) {
      <tac-sign-in />
    }
    @for (job of keeping.lost(); track job.id) {
      <section class="notice bad no-print" role="alert">
        <tac-icon name="stop" />
        <div>
          <b>This browser has lost what it kept of {{ job.tag || 'a job' }}.</b> Not sent to the
          server: {{ job.text }}. Enter it again from your notes. Browsers throw data away when the
          disk is full or when the site's data are cleared.
        </div>
        <button class="act" type="button" (click)="keeping.forgetLost()">I have seen it</button>
      </section>
    }
    @if (keeping.full()) {
      <section class="notice bad no-print" role="alert">
        <tac-icon name="warn" />
        <div>
          <b>This browser's storage is full.</b> What you do now is only in this window until the
          server has it: keep it open, and free space on this device.
        </div>
      </section>
    }
    @if (keeping.aside().length) {
      <section class="notice no-print" role="status">
        <tac-icon name="warn" />
        <div>
          The server did not take
          {{ keeping.aside().length === 1 ? 'one thing' : keeping.aside().length + ' things' }}; it
          is kept beside, with the reason.
          <a routerLink="/settings" fragment="aside">Look at it</a>
        </div>
      </section>
    }
    @if (keeping.clock(); as difference) {
      <section class="notice no-print" role="status">
        <tac-icon name="warn" />
        <div>
          The clock of this device is {{ difference }} the server's. Both times are kept with every
          change and reading; put the clock right.
        </div>
      </section>
    }
    @if (keeping.plainHttp && !seen()) {
      <section class="notice no-print" role="status">
        <tac-icon name="advise" />
        <div>
          Over plain HTTP this browser cannot keep Tactron for work without network: it opens only
          while the server is reached. HTTPS makes it possible.
        </div>
        <button class="act" type="button" (click)="seen.set(true)">Close</button>
      </section>
    }
    @if (keeping.newRelease() || keeping.otherRelease()) {
      <section class="notice no-print" role="status">
        <tac-icon name="advise" />
        <div>
          {{
            keeping.otherRelease()
              ? 'The server has another release than this window. Your work is kept here.'
              : 'A new release is ready.'
          }}
        </div>
        <button class="act main" type="button" (click)="reload()">Load it</button>
      </section>
    }
  `,
})
export class KeepingNotices {
  protected readonly keeping = inject(Keeping);
  protected readonly router = inject(Router);
  protected readonly seen = signal(false);

  constructor() {
    // The job frame fills what the notices leave of the window.
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const observer = new ResizeObserver(() =>
      document.documentElement.style.setProperty('--above', `${host.offsetHeight}px`),
    );
    observer.observe(host);
    inject(DestroyRef).onDestroy(() => observer.disconnect());
  }

  protected reload(): void {
    location.reload();
  }
}
