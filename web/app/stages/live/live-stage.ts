import {
  afterRenderEffect,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  exchangeLeads,
  holdOf,
  instrumentFor,
  neverPassedOver,
  passedOver,
  readingTold,
  temporaryRegister,
  TURNED_WHY,
  verdictOfStep,
} from '@tactron/core/job';
import { recordedAct } from './recorder-curves';
import { RecorderPanel } from './recorder-panel';
import { SiteTolerances } from './site-tolerances';
import { SimulatedLine } from './simulated-line';
import { StartsLine } from './starts-line';
import { AttachmentRow } from '../../attachments/attachment-row';
import type { SaidCause } from '../../compute/causes.worker';
import type { SaidStep } from '@tactron/core/said';
import { Choice } from '../../controls/choice';
import { DestroysNotice } from '../../controls/destroys-notice';
import { ShowMe } from '../../controls/show-me';
import { IsolationNow } from '../../frame/isolation/isolation-now';
import { moment } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { TemporaryButton } from '../../frame/temporary-button';
import { noteAsBuilt } from '../../job-state/as-built';
import { keepAwake, Signals } from '../../frame/signals';
import { OpenJob } from '../../job-state/open-job';
import { actsOf, sectionsOf, withOffered } from './acts';
import { DialChart } from './dial-chart';
import { DischargeLine } from './discharge-line';
import { FindOut } from './find-out';
import { HoldGate } from './hold-gate';
import { InstrumentPick } from './instrument-pick';
import { IsolationGate } from './isolation-gate';
import { LoopSheet } from './loop-sheet';
import { LikelyCauses } from './likely-causes';
import { ReadingEntry, type Entered } from './reading-entry';
import { expectedLines, readBy, readingText } from '@tactron/core/printed';

const stateMarks: Readonly<Record<string, string>> = {
  open: 'to do',
  pass: 'pass',
  fail: 'fail',
  stale: 'stale',
  past: 'earlier procedure',
};

/** The card and the list stand beside each other. */
const BESIDE = '(min-width: 1101px)';

/** One act of the live tests, or of the dead checks, at a time: what to do, what must come, what was seen, the verdict at once. */
@Component({
  selector: 'tac-live-stage',
  imports: [
    TemporaryButton,
    Choice,
    DestroysNotice,
    DialChart,
    DischargeLine,
    FindOut,
    HoldGate,
    InstrumentPick,
    IsolationGate,
    AttachmentRow,
    LikelyCauses,
    LoopSheet,
    ReadingEntry,
    ShowMe,
    RecorderPanel,
    RouterLink,
    SiteTolerances,
    SimulatedLine,
    StartsLine,
  ],
  templateUrl: './live-stage.html',
  styleUrl: './live-stage.scss',
})
export class LiveStage {
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  private readonly isolation = inject(IsolationNow);
  /** Which part of the procedure is shown: both are worked through in the same way. */
  readonly part = input<'live' | 'dead'>('live');
  protected readonly isDead = computed(() => this.part() === 'dead');
  /** Steps passed here that are not reckoned with yet, each with the reading that stood before. */
  private readonly passedNow = signal<ReadonlyMap<string, string | undefined>>(new Map());
  /** Inputs by a jumper or calibrator before their controls, and whether the offer is taken: it is once one was read. */
  private readonly offered = computed(() => this.open.derived()?.offered ?? []);
  protected readonly taking = signal(false);
  private readonly taken = computed(() => this.taking() || this.offered().some((s) => s.reading));
  protected readonly offers = computed(
    () =>
      !this.isDead() &&
      this.offered().length > 0 &&
      !this.taken() &&
      this.steps().some((s) => s.step.section === 'inputs' && s.state !== 'pass'),
  );
  /** As reckoned, with what was given a moment ago: the next answer never waits for a worker. */
  protected readonly steps = computed<readonly SaidStep[]>(() => {
    const derived = this.open.derived();
    const now = this.passedNow();
    const live = withOffered(derived?.steps ?? [], this.taken() ? this.offered() : []);
    const all = this.isDead() ? (derived?.dead ?? []) : live;
    return all.map((s) =>
      now.has(s.step.key) && now.get(s.step.key) === s.reading?.id ? { ...s, state: 'pass' } : s,
    );
  });
  /** Ways that only a relay closes: they cannot be seen dead. */
  protected readonly notDead = computed(() =>
    this.isDead() ? (this.open.derived()?.notDead ?? []).join(', ') : '',
  );
  /** Only some wires are landed, and the steps are those of what is there. */
  /** Settings that stand in the device for tests, in words; empty where none do. */
  protected readonly testValues = computed(() =>
    temporaryRegister(this.open.evidence())
      .filter((t) => t.kind === 'testValue' && !t.removed)
      .map((t) => t.what)
      .join(', '),
  );
  protected readonly section = computed(() =>
    this.isDead() ? null : (this.open.derived()?.section ?? null),
  );
  protected readonly wires = computed(
    () => this.open.derived()?.hand.filter((l) => l.isWire).length ?? 0,
  );
  protected readonly past = computed(() =>
    this.isDead() ? [] : (this.open.derived()?.past ?? []),
  );
  protected readonly acts = computed(() => actsOf(this.steps()));
  protected readonly sections = computed(() => sectionsOf(this.acts()));
  protected readonly picked = signal<string | null>(null);
  protected readonly current = computed<SaidStep | undefined>(() => {
    const steps = this.steps();
    return (
      steps.find((s) => s.step.key === this.picked()) ??
      steps.find((s) => s.state !== 'pass') ??
      steps.at(-1)
    );
  });
  /** Answers of the act that is shown. */
  protected readonly inAct = computed(() => {
    const act = this.current()?.step.act;
    return act === undefined ? [] : this.steps().filter((s) => s.step.act === act);
  });
  protected readonly place = computed(
    () => this.inAct().findIndex((s) => s.step.key === this.current()?.step.key) + 1,
  );
  /** Leads that are not marked are being found out. */
  protected readonly finding = signal(false);
  protected readonly announced = signal('');
  private readonly signals = inject(Signals);
  /** The answer that has just passed: it stays in view above the next one. */
  protected readonly before = signal<{ key: string; reading: string; must: string } | null>(null);
  private readonly entry = viewChild(ReadingEntry);
  /** What goes into the field of an answer once there is one. */
  private readonly carried = signal<
    { readonly key: string; readonly reads?: string; readonly note?: string } | undefined
  >(undefined);
  /** What waits for the field of the shown answer, in words. */
  protected readonly waits = computed(() => {
    const carried = this.carried();
    const barred = this.holdText() || this.toDeclare();
    if (!carried || !barred || carried.key !== this.current()?.step.key) return '';
    return `“${carried.reads ?? carried.note ?? ''}” goes into the field as soon as this is settled.`;
  });
  private readonly withWhat = viewChild(InstrumentPick);
  private readonly discharge = viewChild(DischargeLine);
  private readonly over = computed(() => passedOver(this.open.evidence()));
  protected readonly ends = [
    { value: 'sourceFirst', name: 'the source end' },
    { value: 'loadFirst', name: 'the load end' },
  ];
  /** The control has branches of its own: they can be closed before the source, or after it. */
  protected readonly bothEnds = computed(() =>
    this.steps().some((s) => s.step.key.startsWith('energise.breaker')),
  );

  protected switchFrom(end: string): void {
    this.open.edit('end from which it is switched on', (draft) => {
      if (end === 'loadFirst') draft.decisions.energise = 'loadFirst';
      else delete draft.decisions.energise;
    });
  }

  /** The analogue reference, where the shown answer is about signal and speed. */
  protected readonly loop = computed(() => {
    const { section, key } = this.current()?.step ?? {};
    const about = section === 'speed' || /^(?:dial|reference)\./u.test(key ?? '');
    return about ? (this.open.derived()?.loop ?? null) : null;
  });
  /** What must be passed before the shown answer, and is neither passed nor passed over. */
  protected readonly waiting = computed(() => {
    const needs = new Set(this.current()?.step.needs ?? []);
    return this.steps().filter(
      ({ step, state }) =>
        needs.has(step.key) &&
        state !== 'pass' &&
        (neverPassedOver(step) || !this.over().has(holdOf(step))),
    );
  });
  /** Why a time that is not over yet holds the shown answer back; empty where none does. */
  protected readonly heldBack = computed(() => {
    const left = this.discharge()?.left();
    return left && this.current()?.step.key === 'dead.isolate.wait'
      ? `Wait ${left} yet: the link may still be charged.`
      : '';
  });
  protected readonly mayPassOver = computed(
    () => !this.waiting().some(({ step }) => neverPassedOver(step)),
  );
  /** Which hold point the shown answer waits for; empty where it waits for none. */
  protected readonly holdText = computed(() => {
    const waiting = this.waiting();
    if (waiting.length === 0) return '';
    const parts = [...new Set(waiting.map((s) => s.section || s.do))];
    const open = waiting.length === 1 ? '1 answer' : `${waiting.length} answers`;
    return `Hold point. First: ${parts.join('; ')} (${open} not passed).`;
  });
  /** State of isolation that has to be declared before the shown answer is given; undefined where it stands so. */
  protected readonly toDeclare = computed(() => {
    const needs = this.current()?.step.isolation;
    const now = this.isolation.now();
    if (!needs || this.waiting().length > 0) return undefined;
    return now?.state === needs && !now.expired && !now.contradicted ? undefined : needs;
  });
  protected readonly nothingYet = computed(() =>
    this.isDead()
      ? 'No plan is adopted, so no checks can be made from its wires. Check by your own list before power is on.'
      : (this.open.derived()?.noTests ?? ''),
  );
  protected readonly passed = computed(() => this.steps().filter((s) => s.state === 'pass').length);

  protected readonly clock = moment;
  private readonly page = inject<ElementRef<HTMLElement>>(ElementRef);

  constructor() {
    keepAwake();
    const { page } = this;
    effect(() => {
      const [entry, carried] = [this.entry(), this.carried()];
      if (!entry || carried?.key !== this.current()?.step.key || !carried) return;
      untracked(() => {
        if (carried.reads !== undefined) entry.fill(carried.reads);
        if (carried.note !== undefined) entry.again(carried.note);
        this.carried.set(undefined);
      });
    });
    // Beside the card the list follows it; below it, on a narrow screen, nothing moves.
    afterRenderEffect(() => {
      const act = this.current()?.step.act;
      if (act === undefined || !matchMedia(BESIDE).matches) return;
      page.nativeElement
        .querySelector(`[data-act="${CSS.escape(act)}"]`)
        ?.scrollIntoView({ block: 'nearest' });
    });
  }

  /** Chosen in the list: below it, on a narrow screen, the card is brought into view. */
  protected pick(key: string): void {
    this.picked.set(key);
    if (matchMedia(BESIDE).matches) return;
    this.page.nativeElement.querySelector('.current')?.scrollIntoView({ block: 'start' });
  }

  protected mark(state: string): string {
    return stateMarks[state];
  }

  protected short(step: SaidStep): string {
    return step.do.length > 64 ? `${step.do.slice(0, 62).replace(/\s\S*$/u, '')} …` : step.do;
  }

  protected expected(step: SaidStep) {
    return expectedLines(step, this.preferences.decimal());
  }

  protected from(step: SaidStep): string {
    const { from } = step.step;
    if (step.step.requirement)
      return step.unmet
        ? 'required by what was wished'
        : 'required by what was wished; this wiring does it when simulated';
    return from.kind === 'simulation'
      ? "simulated from this job's own wires and settings"
      : `${from.kind}: ${from.name}`;
  }

  protected reading(step: SaidStep): string {
    return step.reading ? readingText(step.reading.body, step, this.preferences.decimal()) : '';
  }

  /** Readings that stand beside the newest: who read what. */
  protected alsoRead(step: SaidStep): string {
    return step.beside
      .map((r) => `${readingText(r.body, step, this.preferences.decimal())}, ${r.author.name}`)
      .join('; ');
  }

  /** Moment of the trial that the expected value comes from. */
  protected proof(step: SaidStep) {
    const { from } = step.step;
    // The bench has the whole job as planned: what was tried with a part of it, or with test values, cannot be shown there.
    const asPlanned = !this.section() && this.testValues() === '';
    return from.kind === 'simulation' && asPlanned ? from : undefined;
  }

  /** Passes the holds over that the shown answer waits for: each by its own piece of evidence, with the reason. */
  protected passOver(reason: string): void {
    for (const hold of new Set(this.waiting().map(({ step }) => holdOf(step))))
      this.open.record('confirmation', `hold.${hold}`, {
        version: 1,
        hold,
        overridden: true,
        reason,
      });
  }

  /** Keeps what was read with the whole step in it; an earlier reading is superseded, not changed. */
  protected keep(step: SaidStep, { values, note }: Entered): void {
    const instrument = instrumentFor(step.step.instrument) && this.withWhat()?.chosen();
    const reader = this.withWhat()?.reader();
    const verdict = verdictOfStep(
      step.step,
      ...values.map(({ value, over }) => (over ? Infinity : (value ?? ''))),
    );
    const body = {
      version: 2,
      step: step.step,
      values: values.map((value) => ({ ...value })),
      verdict,
      ...(note ? { note } : {}),
      ...(instrument ? { instrument } : {}),
      ...(reader ? { reader } : {}),
    } as const;
    const before = step.reading ? [step.reading.id, ...step.beside.map((r) => r.id)] : [];
    this.open.record(
      'reading',
      step.step.key,
      body,
      before.length
        ? {
            supersedes: before.length === 1 ? before[0] : before,
            why: step.state === 'stale' ? 'tested again: the job changed' : 'tested again',
          }
        : {},
    );
    const now = new Map(this.passedNow());
    if (verdict === 'pass') now.set(step.step.key, step.reading?.id);
    else now.delete(step.step.key);
    this.passedNow.set(now);
    this.announced.set(`${verdict === 'pass' ? 'Pass' : 'Fail'}: ${step.must}`);
    this.signals.tell(verdict);
    const reading = readingText(body, step, this.preferences.decimal());
    this.before.set(verdict === 'pass' ? { key: step.step.key, reading, must: step.must } : null);
    this.picked.set(verdict === 'pass' ? this.nextInAct(step) : step.step.key);
  }

  protected readonly readBy = readBy;

  /** Whether the shaft was seen to turn the other way than was expected. */
  protected turnsWrongWay({ step, state, reading }: SaidStep): boolean {
    if (state !== 'fail' || !step.requirement?.id.startsWith('direction.') || !reading)
      return false;
    const seen = readingTold(reading.body).values[0]?.value;
    return seen === 'forward' || seen === 'reverse';
  }

  /**
   * A number read from a recorder's file goes into the field, as if it were typed; where a hold or a declaration stands in
   * place of the field, as soon as that is over.
   */
  protected readonly recorded = recordedAct;

  protected fromRecorder(reads: string): void {
    this.carry({ reads });
  }

  /** Something was mended: the answer is given again, and says what. */
  protected mended(what: string): void {
    this.carry({ note: `mended: ${what}` });
  }

  private carry(what: { readonly reads?: string; readonly note?: string }): void {
    const { key } = this.current()?.step ?? {};
    if (key !== undefined) this.carried.set({ ...what, key });
  }

  /** The panel is really built so: from now on it is what is simulated and expected. */
  protected bookAsBuilt({ builtSo, what }: SaidCause): void {
    if (!builtSo) return;
    noteAsBuilt(
      this.open,
      builtSo,
      `found at a ${this.isDead() ? 'dead check' : 'live test'}: ${what}`,
    );
  }

  /** What is exchanged to turn it round, as the wiring has it. */
  protected readonly exchange = computed(() => {
    const job = this.open.job();
    const motor = Object.entries(job?.adopted?.devices ?? {}).find(([, d]) => d.kind === 'motor');
    const at = job && motor ? exchangeLeads(job, motor[0])?.at : undefined;
    if (!at) return 'Exchange two leads';
    const ahead = motor?.[1].params['leads'] === 6;
    return ahead
      ? `Exchange two supply conductors, at ${at.join(' and ')}`
      : `Exchange ${at.join(' and ')} at the motor`;
  });

  /** Books the exchange of two leads: in the wiring, and in what the plate says of the machine. */
  protected exchangeLeads(): void {
    const job = this.open.job();
    const motor = Object.entries(job?.adopted?.devices ?? {}).find(([, d]) => d.kind === 'motor');
    const exchange = job && motor && exchangeLeads(job, motor[0]);
    if (!exchange) return;
    this.open.edit('two leads of the motor exchanged', (draft) => {
      for (const [id, end] of Object.entries(exchange.wires))
        draft.decisions.wires[id] = {
          ...draft.decisions.wires[id],
          ...end,
          why: TURNED_WHY,
        };
      if (exchange.leadsExchanged) draft.plate.motor.leadsExchanged = true;
      else delete draft.plate.motor.leadsExchanged;
    });
  }

  /** The next answer of the same act, which goes on from here; else whatever is open. */
  private nextInAct(step: SaidStep): string | null {
    const own = this.inAct();
    const at = own.findIndex((s) => s.step.key === step.step.key);
    const next = own.slice(at + 1).find((s) => s.state !== 'pass');
    return next?.step.key ?? null;
  }
}
