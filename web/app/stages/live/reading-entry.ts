import {
  afterRenderEffect,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { expectedAt, readingDoubt } from '@tactron/core/job';
import {
  dimensionOf,
  formatNumber,
  formatValue,
  parseQuantity,
  valueIn,
  type Dimension,
} from '@tactron/core/units';
import type { SaidStep } from '@tactron/core/said';
import { NumberPad, padTyped, type PadKey } from '../../controls/number-pad';
import { Stopwatch } from '../../controls/stopwatch';
import { placeName } from '@tactron/core/printed';
import { Preferences } from '../../frame/preferences';

/** One value that was read: where, what, in which unit, and as it was typed. */
export interface ReadValue {
  readonly where?: string;
  /** Absent where the instrument showed overload. */
  readonly value?: number | string;
  readonly unit?: string;
  readonly typed?: string;
  readonly over?: boolean;
}

/** What a person enters for a step: its values and a note. */
export interface Entered {
  readonly values: readonly ReadValue[];
  readonly note: string;
}

/** How an instrument's overload is typed. */
const OVERLOAD = /^(?:ol|o\.l|over|overload|∞)$/iu;

/** Fields for what a step asks to be read, or buttons for what can be seen; nothing is guessed towards the expected. */
@Component({
  selector: 'tac-reading-entry',
  imports: [NumberPad, Stopwatch],
  templateUrl: './reading-entry.html',
  styleUrl: './reading-entry.scss',
})
export class ReadingEntry {
  private readonly preferences = inject(Preferences);
  readonly step = input.required<SaidStep>();
  /** Why nothing can be entered without a reason in the note; empty where it can. */
  readonly heldBack = input('');
  readonly entered = output<Entered>();

  protected readonly texts = signal<readonly (string | undefined)[]>([]);
  protected readonly note = signal('');
  protected readonly problem = signal<string | null>(null);
  protected readonly doubted = signal(false);
  /** Numbers that what was typed may mean: a mark before three digits is asked about. */
  protected readonly meanings = signal<readonly { readonly v: number; readonly u: string }[]>([]);
  private place = 0;
  /** Fingers, not keys: the page has digits of its own, big enough for gloves. */
  protected readonly byTouch = matchMedia('(pointer: coarse)').matches;
  /** Field that the pad writes to. */
  protected readonly active = signal(0);
  protected readonly decimal = this.preferences.decimal;
  protected readonly padLast = computed(() =>
    this.emptyAfter(this.active()) >= 0
      ? 'Next'
      : `Accept ${this.places().length > 1 ? 'readings' : 'reading'}`,
  );
  /** Something was just entered, and the next step is on its way. */
  private readonly goesOn = signal(false);
  /** What was meant where what was typed could mean two things. */
  private readonly meant = new Map<number, number>();

  protected readonly placeName = (place: string): string => placeName(place, this.step());
  protected readonly places = computed(() => this.step().step.fields ?? ['']);
  protected readonly unit = computed(() => {
    const { expect } = this.step().step;
    return expect?.kind === 'range' ? expect.unit : '';
  });

  /** A time that is taken by hand: the page has a watch for it. */
  protected readonly timed = computed(() => this.unit() === 's' && this.places().length === 1);
  /** Time that the device waits between two starts, as it is to be counted. */
  protected readonly counted = computed(() => {
    const { key, do: asked } = this.step().step;
    const s = asked.args['s'];
    return key === 'start.again' && typeof s === 'number' ? `it starts after ${s} s` : '';
  });
  protected took(s: number): string {
    return formatNumber(s, 4, this.preferences.decimal());
  }

  constructor() {
    let last = '';
    effect(() => {
      const { key } = this.step().step;
      if (key !== last) untracked(() => this.clear());
      last = key;
    });
    // After an answer the next field has the focus: the hands stay at the instrument.
    afterRenderEffect(() => {
      this.step();
      if (!untracked(() => this.goesOn())) return;
      document.getElementById('reading-0')?.focus();
      this.goesOn.set(false);
    });
  }

  /** The answer is to be given again, with a note that says what was done before it. */
  again(note: string): void {
    this.note.set(note);
    document.getElementById('reading-0')?.focus();
  }

  /** Puts a number into the one field there is. */
  fill(text: string): void {
    this.type(0, text);
    document.getElementById('reading-0')?.focus();
  }

  protected type(place: number, text: string): void {
    this.meant.delete(place);
    this.texts.update((all) => this.places().map((_, i) => (i === place ? text : (all[i] ?? ''))));
  }

  private emptyAfter(place: number): number {
    return this.places().findIndex((_, i) => i > place && !this.texts()[i]?.trim());
  }

  /** Enter goes to the next empty place, and accepts after the last. */
  protected onEnter(place: number): void {
    const next = this.emptyAfter(place);
    if (next < 0) return this.enter();
    document.getElementById(`reading-${next}`)?.focus();
  }

  protected pad(key: PadKey): void {
    const at = Math.min(this.active(), this.places().length - 1);
    if (key === 'next') this.onEnter(at);
    else this.type(at, padTyped(this.texts()[at] ?? '', key));
  }

  protected answer(value: string): void {
    this.keep([{ value }]);
  }

  /** @param believed what looks impossible is what the instrument shows */
  protected enter(believed = false): void {
    const { expect } = this.step().step;
    if (expect?.kind !== 'range') return;
    this.settle();
    const values: ReadValue[] = [];
    for (const [i, where] of this.places().entries()) {
      const read = this.read(i, expect.unit);
      if (!read) return;
      values.push({ ...(where ? { where } : {}), ...read });
    }
    const doubt = values.flatMap(({ value }, i) => {
      const own = expectedAt(this.step().step, i);
      return typeof value === 'number' && own?.kind === 'range'
        ? (readingDoubt(own, value) ?? [])
        : [];
    })[0];
    if (doubt && !believed) {
      this.doubted.set(true);
      return this.problem.set(
        doubt === 'negative'
          ? `Less than nothing cannot be read in ${expect.unit}. Look again at leads and sign.`
          : `This is more than ten times what is expected (${formatValue(expect.nominal, expect.unit, 4, this.preferences.decimal())}). Look again at range, place and unit.`,
      );
    }
    this.keep(values);
  }

  /** The number typed for a place; what is wrong with it is said. */
  private read(place: number, unit: string): Omit<ReadValue, 'where'> | undefined {
    const dimension: Dimension = dimensionOf(unit) ?? 'number';
    const typed = (this.texts()[place] ?? '').trim();
    const meant = this.meant.get(place);
    if (meant !== undefined) return { value: meant, unit, typed: typed.slice(0, 60) };
    if (OVERLOAD.test(typed)) return { over: true, unit, typed: 'OL' };
    const parsed = parseQuantity(typed, dimension, unit);
    if (parsed.ok) {
      const value = Number(valueIn(parsed.quantity, unit, dimension).toPrecision(12));
      return { value, unit, typed: typed.slice(0, 60) };
    }
    const at = this.placeName(this.places()[place] ?? '');
    const named = at ? `${at}: ` : '';
    if (parsed.why === 'ambiguous') {
      this.place = place;
      this.meanings.set(parsed.readings.map((v) => ({ v, u: unit })));
      this.problem.set(`${named}Which one is meant?`);
    } else if (parsed.why === 'unknownUnit') {
      const units = (parsed.units ?? []).filter(Boolean).join(', ');
      this.problem.set(`${named}This unit does not fit: ${units} can be typed here.`);
    } else this.problem.set(`${named}Enter the reading as a number.`);
    return undefined;
  }

  protected choose({ v }: { readonly v: number }): void {
    this.meant.set(this.place, v);
    this.enter();
  }

  protected meaning({ v, u }: { readonly v: number; readonly u: string }): string {
    return `${formatNumber(v, 6, this.preferences.decimal())} ${u}`;
  }

  private settle(): void {
    this.meanings.set([]);
    this.problem.set(null);
    this.doubted.set(false);
  }

  private keep(values: readonly ReadValue[]): void {
    const note = this.note().trim();
    if (this.heldBack() && !note)
      return this.problem.set(
        `${this.heldBack()} To enter it all the same, write the reason in the note.`,
      );
    this.goesOn.set(true);
    this.entered.emit({ values, note });
    this.clear();
  }

  private clear(): void {
    this.texts.set([]);
    this.active.set(0);
    this.meant.clear();
    this.note.set('');
    this.settle();
  }
}
