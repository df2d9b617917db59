import { Component, computed, inject, signal } from '@angular/core';
import type { SaidRequirement } from '@tactron/core/said';
import { ShowMe } from '../../controls/show-me';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';

/** What the machine must do by what was wished, whether this job does it, and who states that it need not. */
@Component({
  selector: 'tac-required-functions',
  imports: [ShowMe],
  templateUrl: './required-functions.html',
  styleUrl: './required-functions.scss',
})
export class RequiredFunctions {
  private readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  protected readonly requirements = computed(() => this.open.derived()?.requirements ?? []);
  /** Why there is no list, where there is none. */
  protected readonly none = computed(() =>
    this.open.derived()?.noTests
      ? this.open.derived()?.noTests
      : 'Say how it is started and stopped; what the machine must do follows from that.',
  );
  protected readonly metText = computed(() => {
    const all = this.requirements().filter((r) => !r.stated);
    const of = (state: string): number => all.filter((r) => r.state === state).length;
    const parts = [
      `${of('met')} of ${all.length} met`,
      of('notMet') ? `${of('notMet')} not met` : '',
      of('undecided') ? `${of('undecided')} undecided` : '',
    ];
    return parts.filter(Boolean).join(', ');
  });
  /** The requirement that is being stated otherwise. */
  protected readonly stating = signal<string | null>(null);
  protected readonly why = signal('');
  protected readonly by = signal('');
  protected readonly role = signal('');
  protected readonly complete = computed(() =>
    [this.why(), this.by(), this.role()].every((text) => text.trim() !== ''),
  );

  protected mark({ state, stated }: SaidRequirement): string {
    if (stated) return 'not required';
    return state === 'met' ? '✓ met' : state === 'notMet' ? 'not met' : 'undecided';
  }

  protected begin(r: SaidRequirement): void {
    const { name = '', role = '' } = this.preferences.author() ?? {};
    this.why.set('');
    this.by.set(name);
    this.role.set(role);
    this.stating.set(r.id);
  }

  protected state(r: SaidRequirement): void {
    if (!this.complete()) return;
    const stated = { why: this.why().trim(), by: this.by().trim(), role: this.role().trim() };
    this.open.edit(`not required: ${r.text}`, (draft) => {
      draft.decisions.notRequired = { ...draft.decisions.notRequired, [r.id]: stated };
    });
    this.stating.set(null);
  }

  protected requireAgain(r: SaidRequirement): void {
    this.open.edit(`required again: ${r.text}`, ({ decisions }) => {
      delete decisions.notRequired?.[r.id];
      if (Object.keys(decisions.notRequired ?? {}).length === 0) delete decisions.notRequired;
    });
  }
}
