import { Component, computed, inject, input, signal } from '@angular/core';
import { instrumentDoubt, instrumentFor, type Instrument } from '@tactron/core/job';
import { InstrumentForm } from '../../site/instrument-form';
import { doubtNames, instrumentText } from '../../site/instrument-names';
import { InstrumentsInHand } from './instruments-in-hand';

const today = (): string => new Date().toISOString().slice(0, 10);

/** With what is measured: chosen once in a session for each kind of reading; not naming it blocks nothing. */
@Component({
  selector: 'tac-instrument-pick',
  imports: [InstrumentForm],
  template: `
    @if (kind(); as k) {
      <label class="named"
        >Measured with
        <select class="field" name="instrument" (change)="take($any($event.target).value)">
          <option value="" [selected]="!inHand()">not named</option>
          @for (o of options(); track o.text) {
            <option [value]="$index" [selected]="o.same" [disabled]="o.never">
              {{ o.text }}{{ o.doubt ? ' – ' + o.doubt : '' }}
            </option>
          }
          <option value="new">another one …</option>
        </select></label
      >
      @if (doubt(); as d) {
        <p class="caution small" role="status">
          {{ d }}: it prints with every reading taken with it.
        </p>
      }
      @if (adding()) {
        <tac-instrument-form (added)="add($event)" />
      }
    }
    @if (hand.reader() || another()) {
      <label class="named"
        >Read by, while {{ hand.writer() }} writes
        <input
          class="field"
          name="reader"
          maxlength="120"
          autocomplete="off"
          [value]="hand.reader()"
          (change)="hand.readBy($any($event.target).value)"
      /></label>
    } @else if (kind()) {
      <button class="act quiet small" type="button" (click)="another.set(true)">
        Somebody else reads …
      </button>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .caution {
      margin: 0;
      padding-left: 8px;
      border-left: 4px solid var(--warn);
    }
  `,
})
export class InstrumentPick {
  protected readonly hand = inject(InstrumentsInHand);
  /** A name is being asked for. */
  protected readonly another = signal(false);
  /** As the step names what is measured with. */
  readonly instrument = input<string | undefined>();
  protected readonly kind = computed(() => instrumentFor(this.instrument()));
  protected readonly adding = signal(false);
  protected readonly inHand = computed<Instrument | undefined>(() => {
    const kind = this.kind();
    return kind && this.hand.inHand(kind);
  });
  protected readonly options = computed(() => {
    const mine = this.inHand();
    const listed = this.hand.all();
    const known = mine && !listed.some((i) => instrumentText(i) === instrumentText(mine));
    return [...listed, ...(known ? [mine] : [])].map((of) => {
      const doubt = instrumentDoubt(of, this.instrument(), today());
      return {
        of,
        text: instrumentText(of),
        doubt: doubt ? doubtNames[doubt] : '',
        never: doubt === 'cannotMeasure' || doubt === 'notTrueRms',
        same: mine !== undefined && instrumentText(of) === instrumentText(mine),
      };
    });
  });
  protected readonly doubt = computed(() => {
    const mine = this.inHand();
    const doubt = mine && instrumentDoubt(mine, this.instrument(), today());
    return doubt === 'outOfCalibration' ? `Its ${doubtNames[doubt]}` : '';
  });

  constructor() {
    void this.hand.load();
  }

  /** The instrument that a reading is kept with. */
  chosen(): Instrument | undefined {
    return this.inHand();
  }

  /** Who read it; nothing where the one who writes does. */
  reader(): string | undefined {
    const name = this.hand.reader();
    return name && name !== this.hand.writer() ? name : undefined;
  }

  protected take(value: string): void {
    const kind = this.kind();
    this.adding.set(value === 'new');
    if (!kind || value === 'new') return;
    this.hand.take(kind, value === '' ? undefined : this.options()[Number(value)]?.of);
  }

  protected async add(instrument: Instrument): Promise<void> {
    await this.hand.note(instrument);
    this.adding.set(false);
    const kind = this.kind();
    if (kind && !instrumentDoubt(instrument, this.instrument(), today()))
      this.hand.take(kind, instrument);
  }
}
