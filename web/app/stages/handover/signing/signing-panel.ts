import { Component, Injector, computed, effect, inject, signal, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  arrivedAfter,
  signable,
  usualRoles,
  type EvidenceBody,
  type EvidenceOf,
} from '@tactron/core/job';
import { Compute } from '../../../compute/compute';
import { Choice } from '../../../controls/choice';
import { moment } from '@tactron/core/units';
import { OpenJob } from '../../../job-state/open-job';
import { SiteDocuments } from '../../../site/site-documents';
import { DrawnMark, MARK_BOX } from './drawn-mark';

/** What a person declares with a signature. */
export const statementOf = (role: string, number: number, open: number): string => {
  const points = open === 1 ? '1 open point named' : `${open} open points named`;
  return `${role}: I stand for issue ${number} of this record${open ? `, with ${points}` : ''}.`;
};

/** The signatures of the record: by role, over one state of the job that a hash names; open points are named with a reason. */
@Component({
  selector: 'tac-signing-panel',
  imports: [RouterLink, Choice, DrawnMark],
  templateUrl: './signing-panel.html',
  styleUrl: './signing-panel.scss',
})
export class SigningPanel {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly injector = inject(Injector);
  protected readonly signing = this.open.signing;
  protected readonly clock = moment;
  protected readonly box = `0 0 ${MARK_BOX.width} ${MARK_BOX.height}`;
  private readonly mark = viewChild(DrawnMark);

  /** What was frozen is still what the job is; undefined while that is looked at. */
  protected readonly stands = signal<boolean | undefined>(undefined);
  protected readonly obstacles = computed(() => this.open.derived()?.obstacles ?? []);
  protected readonly never = computed(() => this.obstacles().filter((o) => !o.mayStay));
  private readonly reasons = signal<Readonly<Record<string, string>>>({});
  private readonly role = signal('');
  protected readonly chosen = computed(() => {
    const { missing } = this.signing();
    return missing.includes(this.role()) ? this.role() : (missing[0] ?? '');
  });
  protected readonly roles = computed(() =>
    this.signing().missing.map((name) => ({ value: name, name })),
  );
  /** Open points as the frozen issue names them; signed by who comes after. */
  private readonly named = computed(() =>
    this.stands() ? (this.signing().frozen?.body.open ?? []) : [],
  );
  protected readonly points = computed(() =>
    this.obstacles()
      .filter((o) => o.mayStay)
      .map((o) => ({
        ...o,
        reason: this.reasons()[o.text] ?? this.named().find((p) => p.what === o.text)?.reason ?? '',
      })),
  );
  protected readonly unreasoned = computed(
    () => this.points().filter((p) => p.reason.trim() === '').length,
  );
  protected readonly statement = computed(() =>
    statementOf(this.chosen(), this.signing().number, this.points().length),
  );
  /** Signatures that would have to be given again, because something was changed after them. */
  protected readonly voided = computed(() =>
    this.stands() === false
      ? this.signing()
          .signed.map((s) => s.author.name)
          .join(', ')
      : '',
  );
  protected readonly alone = computed(() => {
    const { signed } = this.signing();
    return signed.length > 1 && new Set(signed.map((s) => s.author.name)).size === 1;
  });
  protected readonly late = computed(() => {
    const { closed, frozen } = this.signing();
    return closed && frozen ? arrivedAfter(this.open.evidence(), frozen).length : 0;
  });
  protected readonly why = signal('');
  protected readonly busy = signal(false);

  constructor() {
    const sites = inject(SiteDocuments);
    const at = computed(() => this.open.job()?.siteId);
    effect(() => {
      const siteId = at();
      if (!siteId) return;
      void sites.of(siteId).then(({ document: { requiredRoles } }) => {
        this.open.roles.set(requiredRoles.length > 0 ? requiredRoles : usualRoles);
      });
    });
    effect(() => {
      const { frozen, closed } = this.signing();
      const [job, profile, evidence] = [this.open.job(), this.open.profile(), this.open.evidence()];
      if (!frozen || !job || !profile) return this.stands.set(undefined);
      // What comes after a closed record belongs to the next issue.
      const after = closed ? 0 : arrivedAfter(evidence, frozen).length;
      if (after > 0) return this.stands.set(false);
      // What stood for the state before says nothing of this one.
      this.stands.set(undefined);
      void this.compute
        .stands(job, profile, evidence, frozen)
        .then((stands) => this.signing().frozen === frozen && this.stands.set(stands));
    });
  }

  protected choose(role: string): void {
    this.role.set(role);
  }

  protected because(what: string, event: Event): void {
    const reason = (event.target as HTMLInputElement).value;
    this.reasons.set({ ...this.reasons(), [what]: reason });
  }

  protected stamp(s: EvidenceOf<'signature'>): string {
    return moment(s.atClient, true);
  }

  /** Freezes what is signed where that was not done or it is another now, and signs it. */
  protected async sign(): Promise<void> {
    const role = this.chosen();
    if (this.busy() || !role) return;
    this.busy.set(true);
    try {
      await this.reckoned();
      const [job, profile, evidence] = [this.open.job(), this.open.profile(), this.open.evidence()];
      const bars = this.never().length > 0 || this.unreasoned() > 0;
      if (!job || !profile || bars || !this.signing().missing.includes(role)) return;
      const points = this.points().map(({ text, reason }) => ({
        what: text,
        reason: reason.trim(),
      }));
      const { frozen, number } = this.signing();
      // Asked here where it is not known yet: to freeze anew would take the signatures before it away.
      const stands =
        frozen && (this.stands() ?? (await this.compute.stands(job, profile, evidence, frozen)));
      const goesOn = frozen && stands && sameOpen(frozen.body.open ?? [], points);
      const contentHash = goesOn
        ? frozen.body.contentHash
        : await this.compute.contentHash(job, profile, evidence);
      if (!goesOn)
        this.open.record('issue', `issue.${number}`, {
          version: 1,
          number,
          contentHash,
          roles: [...this.open.roles()],
          covers: signable(evidence).map((e) => e.id),
          ...(points.length ? { open: points } : {}),
        });
      const mark = this.mark()?.path();
      this.open.record('signature', `issue.${number}`, {
        role,
        statement: statementOf(role, number, points.length),
        documentHash: contentHash,
        ...(mark ? { mark } : {}),
      });
      this.mark()?.clear();
    } finally {
      this.busy.set(false);
    }
  }

  /** A press while the job is still being reckoned is kept until it is: what is signed is what it comes to. */
  private reckoned(): Promise<void> {
    if (!this.open.working()) return Promise.resolve();
    return new Promise((done) => {
      const watch = effect(
        () => {
          if (this.open.working()) return;
          watch.destroy();
          done();
        },
        { injector: this.injector },
      );
    });
  }

  /** Opens the next issue of a closed record: from then on the job may be changed again. */
  protected openNext(event: Event): void {
    event.preventDefault();
    const { number, frozen } = this.signing();
    const why = this.why().trim();
    if (!why || !frozen) return;
    const { contentHash } = frozen.body;
    const next = number + 1;
    this.open.record(
      'issue',
      `issue.${next}`,
      { version: 1, number: next, contentHash, opens: true },
      { why },
    );
    this.why.set('');
  }
}

type Open = NonNullable<EvidenceBody<'issue'>['open']>;

const sameOpen = (x: Open, y: Open): boolean =>
  x.length === y.length &&
  x.every(({ what, reason }) => y.some((p) => p.what === what && p.reason === reason));
