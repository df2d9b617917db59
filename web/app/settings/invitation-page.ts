import { Component, inject, input, signal, type OnInit } from '@angular/core';
import { Router } from '@angular/router';
import { PlaceStrip } from '../frame/place-strip';
import { Api } from '../job-state/api';
import { Keeping } from '../job-state/keeping';

/** Takes up an invitation: the person chooses login, name and password. */
@Component({
  selector: 'tac-invitation-page',
  imports: [PlaceStrip],
  template: `
    <tac-place-strip title="Invitation" />
    <main>
      <form class="sheet" (submit)="accept($event)">
        @if (offer(); as o) {
          <p>You are invited as {{ o.role }} to {{ o.sites.join(', ') }}.</p>
          @for (f of fields; track f.name) {
            <label class="named"
              >{{ f.label }}
              <input
                class="field"
                [name]="f.name"
                [type]="f.type"
                [autocomplete]="f.complete"
                maxlength="200"
                (input)="typed[f.name] = $any($event.target).value"
            /></label>
          }
          <p class="soft small">
            A password of at least 12 characters; a few words are easier to keep than one with
            signs.
          </p>
          <button class="act main" type="submit">Make my account</button>
        }
        <p class="problem" role="alert">{{ problem() }}</p>
      </form>
    </main>
  `,
  styleUrl: './settings-page.scss',
  styles:
    'form { display: grid; gap: 12px; padding: 18px; max-width: 480px; } .act { justify-self: start; }',
})
export class InvitationPage implements OnInit {
  readonly token = input.required<string>();
  private readonly api = inject(Api);
  private readonly keeping = inject(Keeping);
  private readonly router = inject(Router);
  protected readonly offer = signal<{ role: string; sites: string[] } | null>(null);
  protected readonly problem = signal('');
  protected readonly typed: Record<string, string> = {
    login: '',
    name: '',
    trade: '',
    password: '',
  };
  protected readonly fields = [
    { name: 'name', label: 'Name on changes and readings', type: 'text', complete: 'name' },
    {
      name: 'trade',
      label: 'Role, such as commissioning electrician',
      type: 'text',
      complete: 'organization-title',
    },
    { name: 'login', label: 'Login', type: 'text', complete: 'username' },
    { name: 'password', label: 'Password', type: 'password', complete: 'new-password' },
  ] as const;

  async ngOnInit(): Promise<void> {
    try {
      this.offer.set(await this.api.invitation(this.token()));
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }

  protected async accept(event: Event): Promise<void> {
    event.preventDefault();
    try {
      await this.api.acceptInvitation(this.token(), this.typed);
      await this.keeping.signedIn();
      await this.router.navigateByUrl('/jobs');
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
