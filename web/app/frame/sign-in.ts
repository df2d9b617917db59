import { Component, inject, signal } from '@angular/core';
import { Keeping } from '../job-state/keeping';

/** Asks for login and password above whatever is open; what is kept in this browser stays in reach. */
@Component({
  selector: 'tac-sign-in',
  template: `
    <form class="notice no-print" (submit)="enter($event)" aria-labelledby="sign-in">
      <h2 id="sign-in">Sign in</h2>
      <label class="named"
        >Login
        <input
          class="field"
          name="login"
          autocomplete="username"
          autocapitalize="none"
          [value]="login()"
          (input)="login.set($any($event.target).value)"
      /></label>
      <label class="named"
        >Password
        <input
          class="field"
          name="password"
          type="password"
          autocomplete="current-password"
          [value]="password()"
          (input)="password.set($any($event.target).value)"
      /></label>
      <button class="act main" type="submit" [disabled]="busy() || !login().trim() || !password()">
        Sign in
      </button>
      <p class="said" role="alert">{{ problem() }}</p>
    </form>
  `,
  styles: `
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: end;
    }
    h2 {
      margin: 0 8px 8px 0;
      font-size: 18px;
    }
    .said {
      margin: 0 0 8px;
      color: var(--bad);
    }
  `,
})
export class SignIn {
  private readonly keeping = inject(Keeping);
  protected readonly login = signal('');
  protected readonly password = signal('');
  protected readonly problem = signal('');
  protected readonly busy = signal(false);

  protected async enter(event: Event): Promise<void> {
    event.preventDefault();
    this.busy.set(true);
    this.problem.set('');
    try {
      await this.keeping.signIn(this.login().trim(), this.password());
      location.reload();
    } catch (error) {
      this.problem.set((error as Error).message);
      this.password.set('');
    } finally {
      this.busy.set(false);
    }
  }
}
