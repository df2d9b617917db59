import { Component, computed, DestroyRef, inject, signal } from '@angular/core';
import type { Job } from '@tactron/core/job';
import type { Value } from '@tactron/core/catalogue';
import type { SaidLine } from '@tactron/core/said';
import { Choice } from '../../controls/choice';
import { keepAwake } from '../../frame/signals';
import { OpenJob } from '../../job-state/open-job';
import { DialPicture } from './dial-picture';
import { IdentifyLine, type Identified } from './identify-line';
import { KeyingWays } from './keying-ways';
import { pressText } from './presses';
import { TestValues } from './test-values';
import { ReadBack } from './read-back';

const partNames: Readonly<Record<string, string>> = {
  makeSafe: 'So that nothing can move',
  motor: 'Motor plate',
  limits: 'Limits and ramps',
  identify: 'Identification run',
  inputs: 'Input tasks',
  reference: 'Reference',
  outputs: 'Outputs',
  protection: 'Protection and restart',
  handOver: 'Command to the terminals',
  readBack: 'Read back',
};

/** Holds that keep the motor from moving: they are passed anew in every session. */
const movesHold: ReadonlySet<string> = new Set([
  'estopIn',
  'openRunContacts',
  'contactsStillOpen',
  'stillAgain',
  'afterReadyMade',
  'atRest',
  'dialsDead',
]);

/** Something is done to the device, not only looked at. */
const isWork = (l: SaidLine): boolean => l.code !== undefined || l.identify !== undefined;

/** The keying sheet: one line is current and big; the rest runs down with done marks; the three sets beside. */
@Component({
  selector: 'tac-key-stage',
  imports: [Choice, DialPicture, IdentifyLine, KeyingWays, ReadBack, TestValues],
  templateUrl: './key-stage.html',
  styleUrl: './key-stage.scss',
})
export class KeyStage {
  protected readonly open = inject(OpenJob);
  protected readonly view = signal<'sheet' | 'found' | 'left'>('sheet');
  protected readonly views = [
    { value: 'sheet', name: 'Keying sheet' },
    { value: 'found', name: 'As found' },
    { value: 'left', name: 'As left' },
  ];
  /** This page began the session that goes on: its holds were passed here. */
  private readonly mine = signal(false);
  /** Lines with their holds: a hold counts only in the session in which it was passed. */
  protected readonly lines = computed<readonly SaidLine[]>(() => {
    const lines = this.open.derived()?.lines ?? [];
    // Holds without anything to key or to measure hold nothing.
    if (!lines.some(isWork)) return [];
    if (this.mine()) return lines;
    return lines.map((l) =>
      l.hold !== undefined && movesHold.has(l.hold) ? { ...l, done: false } : l,
    );
  });
  /** Something is to be keyed. */
  protected readonly due = computed(() => this.lines().some((l) => isWork(l) && !l.done));
  protected readonly picked = signal<string | null>(null);
  protected readonly current = computed<SaidLine | undefined>(
    () =>
      this.lines().find((l) => l.key === this.picked()) ??
      (this.due() ? this.lines().find((l) => !l.done) : undefined),
  );
  /** Hold that must be passed before the current line; undefined where none waits. */
  protected readonly waitsFor = computed<SaidLine | undefined>(() => {
    const lines = this.lines();
    const at = lines.findIndex((l) => l.key === this.current()?.key);
    return lines.slice(0, Math.max(at, 0)).find((l) => l.hold !== undefined && !l.done);
  });
  /** A value of this session is keyed. */
  protected readonly begun = computed(() =>
    this.lines().some((l) => l.code !== undefined && l.done),
  );
  protected readonly doneCount = computed(() => this.lines().filter((l) => l.done).length);
  protected readonly groups = computed(() => {
    const groups: { part: string; title: string; lines: SaidLine[] }[] = [];
    for (const line of this.lines()) {
      if (groups.at(-1)?.part !== line.part)
        groups.push({ part: line.part, title: partNames[line.part], lines: [] });
      groups.at(-1)?.lines.push(line);
    }
    return groups;
  });
  protected readonly rows = computed(() => this.open.derived()?.rows ?? []);
  protected readonly hasHead = computed(
    () => this.open.job()?.adopted?.devices['estop'] !== undefined,
  );
  protected readonly overriding = signal<string | null>(null);
  protected readonly overrideWhy = signal('');
  protected readonly overrideValue = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly hasLeft = computed(() => this.rows().some((row) => row.left !== undefined));

  constructor() {
    keepAwake();
    const left = (): void => {
      if (document.visibilityState === 'hidden') this.interrupt();
    };
    document.addEventListener('visibilitychange', left);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', left);
      this.interrupt();
    });
  }

  /** The sheet is left, or the screen goes dark: nobody knows what happens meanwhile, and the holds are open again. */
  protected interrupt(): void {
    if (!this.mine()) return;
    this.mine.set(false);
    const state = this.due() ? 'interrupted' : 'ended';
    this.open.record('keySession', 'key', { version: 1, state, basis: this.basis() });
  }

  /** The first hold that is passed begins a session: what the device holds now is what its lines start from. */
  private begin(): void {
    if (this.mine()) return;
    this.mine.set(true);
    this.open.record('keySession', 'key', { version: 1, state: 'begun', basis: this.basis() });
  }

  private basis(): string {
    return this.open.job()?.adopted?.planHash.slice(0, 64) ?? 'no plan';
  }

  protected done(line: SaidLine): void {
    this.begin();
    this.open.record('keyed', line.key, {
      code: line.key,
      value: line.code === undefined ? true : (line.to as Value),
    });
    this.picked.set(null);
  }

  /** The device has measured its motor: how, and what it shows now. */
  protected measured(line: SaidLine, { way, values }: Identified): void {
    this.begin();
    for (const [code, value] of Object.entries(values))
      this.open.record('keyed', code, { code, value });
    this.open.record('keyed', line.key, { code: line.key, value: way });
    this.picked.set(null);
  }

  protected undone(line: SaidLine): void {
    const back = (code: string, value: Value): void =>
      void this.open.record('keyed', code, { code, value, undone: true });
    for (const { code } of line.identify?.results ?? []) back(code, 0);
    back(line.key, line.code === undefined ? true : (line.to as Value));
    this.picked.set(null);
  }

  protected readonly presses = pressText;

  protected startOverride(line: SaidLine): void {
    this.overriding.set(line.code ?? null);
    this.overrideValue.set(String(line.to ?? ''));
  }

  protected override(): void {
    const code = this.overriding();
    const row = this.rows().find((r) => r.code === code);
    const value =
      typeof row?.factory === 'number'
        ? Number(this.overrideValue().replace(',', '.'))
        : this.overrideValue();
    if (
      !code ||
      !this.overrideWhy().trim() ||
      (typeof value === 'number' && !Number.isFinite(value))
    )
      return this.problem.set('A value and a reason are needed.');
    this.problem.set(null);
    this.open.edit(
      `setting ${code}`,
      (draft: Job) =>
        void (draft.decisions.settings[code] = { value, why: this.overrideWhy().trim() }),
    );
    this.overriding.set(null);
    this.overrideWhy.set('');
  }

  protected clearOverride(code: string): void {
    this.open.edit(
      `setting ${code} back to the plan`,
      (draft: Job) => void delete draft.decisions.settings[code],
    );
  }

  protected own(code: string | undefined): boolean {
    return code !== undefined && this.open.job()?.decisions.settings[code] !== undefined;
  }
}
