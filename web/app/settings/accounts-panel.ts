import { Component, computed, inject, signal } from '@angular/core';
import {
  Api,
  type AccountEntry,
  type AuditLine,
  type InvitationEntry,
  type SiteEntry,
} from '../job-state/api';
import { Keeping } from '../job-state/keeping';
import { moment } from '@tactron/core/units';

const roleNames = {
  reader: 'reader: looks at everything',
  electrician: 'electrician: works on jobs',
  supervisor: 'supervisor: sites, archive, invitations',
} as const;
type Role = keyof typeof roleNames;

/** Invitations for whoever may give them; accounts and the audit for administrators. */
@Component({
  selector: 'tac-accounts-panel',
  templateUrl: './accounts-panel.html',
  styleUrl: './accounts-panel.scss',
})
export class AccountsPanel {
  private readonly api = inject(Api);
  private readonly keeping = inject(Keeping);
  protected readonly administrator = computed(() => {
    const me = this.keeping.me();
    return me?.accounts === true && me.administrator;
  });
  protected readonly roles = computed(() =>
    (
      ['reader', 'electrician', ...(this.administrator() ? ['supervisor' as const] : [])] as const
    ).map((value) => ({ value, name: roleNames[value as Role] })),
  );
  protected readonly sites = signal<readonly SiteEntry[]>([]);
  protected readonly accounts = signal<readonly AccountEntry[]>([]);
  protected readonly invitations = signal<readonly InvitationEntry[]>([]);
  protected readonly audit = signal<readonly AuditLine[] | null>(null);
  protected readonly role = signal<Role>('electrician');
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  protected readonly link = signal('');
  protected readonly problem = signal('');

  protected readonly clock = moment;

  constructor() {
    void this.load();
  }

  protected async load(): Promise<void> {
    await this.tried(async () => {
      this.sites.set(await this.api.sites());
      this.invitations.set(await this.api.invitations());
      if (this.administrator()) this.accounts.set(await this.api.accounts());
    });
  }

  protected toggle(id: string): void {
    const next = new Set(this.chosen());
    if (!next.delete(id)) next.add(id);
    this.chosen.set(next);
  }

  protected async invite(): Promise<void> {
    await this.tried(async () => {
      const { token } = await this.api.invite(this.role(), [...this.chosen()]);
      this.link.set(`${location.origin}/invitation/${token}`);
      this.invitations.set(await this.api.invitations());
    });
  }

  protected async revoke(invitation: InvitationEntry): Promise<void> {
    await this.tried(() => this.api.revokeInvitation(invitation.id));
    await this.load();
  }

  /** Names of the sites an invitation shares. */
  protected shares({ sites }: InvitationEntry): string {
    return this.sites()
      .filter((s) => sites.includes(s.id))
      .map((s) => s.name)
      .join(', ');
  }

  protected async change(
    account: AccountEntry,
    change: Partial<Pick<AccountEntry, 'role' | 'disabled' | 'sites'>>,
  ): Promise<void> {
    await this.tried(() => this.api.changeAccount(account.id, change));
    await this.load();
  }

  protected share(account: AccountEntry, siteId: string): Promise<void> {
    const sites = account.sites.includes(siteId)
      ? account.sites.filter((s) => s !== siteId)
      : [...account.sites, siteId];
    return this.change(account, { sites });
  }

  protected async endSessions(account: AccountEntry): Promise<void> {
    await this.tried(() => this.api.signOutAccount(account.id));
  }

  protected async readAudit(): Promise<void> {
    await this.tried(async () => this.audit.set(await this.api.audit()));
  }

  private async tried(act: () => Promise<unknown>): Promise<void> {
    this.problem.set('');
    try {
      await act();
    } catch (error) {
      this.problem.set((error as Error).message);
    }
  }
}
