import {
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { Router, RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { Store } from '@ngrx/store';
import { isolationStates, type IsolationState } from '@tactron/core/job';
import { Icon, type IconName } from '../controls/icon';
import { JobActions } from '../job-state/job.actions';
import { Keeping } from '../job-state/keeping';
import { FoundWords } from '../job-state/found-words';
import { OpenJob } from '../job-state/open-job';
import { IsolationNow } from './isolation/isolation-now';
import { Keys } from './keys';
import { Lost } from './lost';
import { placeName } from './place-name';
import { Pocket } from './pocket';
import { speaksAt } from './pocket-findings';
import { Preferences } from './preferences';
import { TemporaryButton } from './temporary-button';
import { ThemeButton } from './theme-button';
import { PresenceHere } from '../job-state/presence';
import { hintOf, stageTitles, trailOf } from './trail';
import { moment } from '@tactron/core/units';

const saveMarks: Record<string, { icon: IconName; text: string }> = {
  keeping: { icon: 'here', text: 'keeping…' },
  here: { icon: 'here', text: 'kept here' },
  unkept: { icon: 'warn', text: 'only in this window' },
  server: { icon: 'server', text: 'kept on server' },
  waiting: { icon: 'waiting', text: 'kept here, waiting for server' },
};

/** Longest name that the head strip has room for, in letters. */
const LONGEST_NAME = 14;

/** Head strip, walk, pocket and hint line around the stage of an open job. */
@Component({
  selector: 'tac-job-frame',
  imports: [
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    MatMenuModule,
    MatTooltipModule,
    Icon,
    Pocket,
    Lost,
    TemporaryButton,
    ThemeButton,
  ],
  templateUrl: './job-frame.html',
  styleUrl: './job-frame.scss',
})
export class JobFrame {
  readonly jobId = input.required<string>();

  private readonly store = inject(Store);
  private readonly router = inject(Router);
  protected readonly open = inject(OpenJob);
  protected readonly keeping = inject(Keeping);
  protected readonly preferences = inject(Preferences);
  protected readonly state = this.open.state;
  private readonly dialog = inject(MatDialog);
  protected readonly states = isolationStates;
  protected readonly slow = signal(false);

  protected readonly saved = computed(() => saveMarks[this.state().save]);
  protected readonly openFindings = computed(
    () => this.open.derived()?.findings.filter((f) => !f.accepted) ?? [],
  );
  protected readonly stops = computed(
    () => this.openFindings().filter((f) => f.finding.severity === 'stop').length,
  );
  protected readonly trail = computed(() =>
    trailOf(this.open.job(), this.open.derived(), this.open.signing()),
  );
  protected readonly hint = computed(() =>
    hintOf(this.open.job(), this.open.derived(), this.open.signing(), this.here()),
  );
  private readonly presence = inject(PresenceHere);
  /** Who else has this job open, short and told; nothing while one is alone. */
  protected readonly others = computed(() => {
    const others = this.presence.others();
    if (others.length === 0) return undefined;
    const where = (at: string): string =>
      (stageTitles as Partial<Record<string, string>>)[at] ?? 'another page';
    const [{ name }] = others;
    return {
      count: `+${others.length}`,
      // One is named where there is room.
      name: others.length === 1 && name.length <= LONGEST_NAME ? name : '',
      told: `Also here: ${others.map((p) => `${p.name} at ${where(p.at)}`).join(', ')}`,
    };
  });
  protected readonly isolation = inject(IsolationNow).now;
  /** What a plan that waits for a person would change; nothing where none waits. */
  protected readonly proposal = computed(() => this.open.derived()?.difference ?? []);
  protected readonly proposalOpen = signal(false);

  protected readonly keys = inject(Keys);
  /** Stage that is shown: it is brought into view in the walk, once more when its marks are there. */
  protected readonly here = signal('');
  /** The stage that is shown, for the one row of a phone. */
  protected readonly present = computed(() => {
    const at = this.trail().findIndex((s) => s.name === this.here());
    return at < 0
      ? { name: 'Stages', title: 'Stages: go to one' }
      : {
          name: `${at + 1} ${this.trail()[at].title}`,
          title: `Stage ${at + 1}, ${this.trail()[at].title}: go to another`,
        };
  });
  private readonly marked = computed(() => this.open.derived() !== null);
  /** A stage that takes the whole height and width: the pocket lies over it, and is shut when one comes to it. */
  protected readonly onBench = signal(false);
  private readonly benchPocket = signal(false);
  /** Opened by hand at this stage, although it has nothing to say. */
  private readonly asked = signal(false);
  /** Open where it has something to say, and the width belongs to the work elsewhere. */
  protected readonly pocket = computed(() => {
    if (this.onBench()) return this.benchPocket();
    const findings = this.open.derived()?.findings ?? [];
    return this.asked() || (this.preferences.pocket() && speaksAt(this.here(), findings));
  });

  protected readonly clock = moment;

  constructor() {
    inject(FoundWords);
    effect(() => this.store.dispatch(JobActions.open({ id: this.jobId() })));
    const { keys } = this;
    const off = [
      keys.on('undo', () => this.open.undo()),
      keys.on('redo', () => this.open.redo()),
      keys.on('n', () => this.go()),
    ];
    const walk = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      this.here();
      this.marked();
      requestAnimationFrame(() =>
        walk.querySelector('.walk a.here')?.scrollIntoView({ inline: 'nearest', block: 'nearest' }),
      );
    });
    effect((cleanup) => {
      const loading =
        this.state().status === 'loading' ||
        (this.state().status === 'ready' && !this.open.derived());
      const timer = loading ? setTimeout(() => this.slow.set(true), 300) : undefined;
      if (!loading) this.slow.set(false);
      cleanup(() => clearTimeout(timer));
    });
    effect(() => {
      const job = this.open.job();
      document.title = job ? `${job.tag} · Tactron` : 'Tactron';
    });
    effect(() => {
      if (this.state().status === 'ready') this.presence.here(this.jobId(), this.here());
    });
    inject(DestroyRef).onDestroy(() => {
      this.presence.left();
      off.forEach((end) => end());
      this.store.dispatch(JobActions.close());
    });
  }

  /** Each stage begins at its top. */
  protected arrived(stage: unknown, field: HTMLElement): void {
    field.scrollTop = 0;
    // On a narrow screen it is what lies around it that scrolls.
    if (field.parentElement) field.parentElement.scrollTop = 0;
    this.onBench.set((stage as { bench?: boolean }).bench === true);
    this.benchPocket.set(false);
    this.asked.set(false);
  }

  protected openPocket(open: boolean): void {
    if (this.onBench()) return this.benchPocket.set(open);
    this.asked.set(open);
    this.preferences.pocket.set(open);
  }

  protected async declare(state: IsolationState): Promise<void> {
    const { IsolationDialog } = await import('./isolation/isolation-dialog');
    this.dialog.open(IsolationDialog, { data: state });
  }

  protected go(): void {
    const hint = this.hint();
    if (hint) void this.router.navigate(['/jobs', this.jobId(), hint.stage]);
  }

  protected retry(): void {
    this.store.dispatch(JobActions.open({ id: this.jobId() }));
  }

  protected keepMine(): void {
    this.store.dispatch(JobActions.keepMine({ waiting: this.state().outbox.map((c) => c.id) }));
  }

  protected takeTheirs(): void {
    this.store.dispatch(JobActions.takeTheirs({ waiting: this.state().outbox.map((c) => c.id) }));
  }

  protected dismiss(): void {
    this.store.dispatch(JobActions.dismiss());
  }

  protected shown(patch: readonly { op: string; path: string; value?: unknown }[]): string {
    const done = patch.filter((p) => p.op !== 'test');
    const wished = done.filter((p) => !/^\/adopted(\/|$)/u.test(p.path));
    const told = wished
      .slice(0, MOST_PLACES)
      .map((p) => `${placeName(p.path, this.open.job())}: ${valueText(p)}`);
    if (wished.length > MOST_PLACES) told.push(`and ${wished.length - MOST_PLACES} more`);
    if (wished.length < done.length) told.push('the plan that goes with it');
    return told.join('; ');
  }
}

/** Places of a change that are told one by one. */
const MOST_PLACES = 6;

/** A value as it was typed, as far as one line holds it. */
function valueText({ op, value }: { op: string; value?: unknown }): string {
  if (op === 'remove') return 'taken out';
  const { v, u } = (value ?? {}) as { v?: unknown; u?: unknown };
  if (typeof v === 'number' && typeof u === 'string') return `${v} ${u}`;
  const text = typeof value === 'string' ? value : JSON.stringify(value);
  return text.length > 80 ? `${text.slice(0, 78)} …` : text;
}
