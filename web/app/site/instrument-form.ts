import { Component, output, signal } from '@angular/core';
import { instrumentKinds, type Instrument, type InstrumentKind } from '@tactron/core/job';
import { kindNames } from './instrument-names';

/** An instrument typed in: name, number, calibration, and what it measures. */
@Component({
  selector: 'tac-instrument-form',
  template: `
    <form (submit)="add($event)">
      <label class="named"
        >Instrument
        <input
          class="field"
          name="name"
          maxlength="120"
          required
          autocomplete="off"
          [value]="name()"
          (input)="name.set($any($event.target).value)"
      /></label>
      <label class="named"
        >Its number
        <input class="field" name="serial" maxlength="80" autocomplete="off" />
      </label>
      <label class="named"
        >Calibrated until
        <input class="field" name="until" type="date" />
      </label>
      <label class="named"
        >Category
        <input class="field" name="category" maxlength="40" placeholder="CAT III 600 V" />
      </label>
      <fieldset>
        <legend>It measures</legend>
        @for (kind of kinds; track kind) {
          <label class="tick">
            <input type="checkbox" [checked]="measures().has(kind)" (change)="toggle(kind)" />
            {{ names[kind] }}
          </label>
        }
        @if (measures().has('current')) {
          <label class="tick">
            <input type="checkbox" name="rms" checked /> true RMS, with a low-pass
          </label>
        }
      </fieldset>
      <button class="act main" type="submit" [disabled]="!name().trim() || !measures().size">
        Add it
      </button>
    </form>
  `,
  styles: `
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 14px;
      align-items: end;
    }
    fieldset {
      flex: 1 1 100%;
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      margin: 0;
      padding: 6px 0;
      border: 0;
    }
    legend {
      padding: 0;
      color: var(--ink-soft);
    }
    .tick {
      display: inline-flex;
      gap: 8px;
      align-items: center;
      min-height: 44px;
    }
    input[type='checkbox'] {
      width: 20px;
      height: 20px;
    }
  `,
})
export class InstrumentForm {
  readonly added = output<Instrument>();
  protected readonly kinds = instrumentKinds;
  protected readonly names = kindNames;
  protected readonly name = signal('');
  protected readonly measures = signal<ReadonlySet<InstrumentKind>>(new Set());

  protected toggle(kind: InstrumentKind): void {
    const now = new Set(this.measures());
    if (!now.delete(kind)) now.add(kind);
    this.measures.set(now);
  }

  protected add(event: Event): void {
    event.preventDefault();
    const form = event.target as HTMLFormElement;
    const typed = new FormData(form);
    const text = (name: string): string => String(typed.get(name) ?? '').trim();
    const measures = instrumentKinds.filter((k) => this.measures().has(k));
    const [serial, until, category] = [text('serial'), text('until'), text('category')];
    this.added.emit({
      name: text('name'),
      ...(serial ? { serial } : {}),
      ...(until ? { calibratedUntil: until } : {}),
      ...(category ? { category } : {}),
      measures,
      ...(measures.includes('current') ? { trueRms: typed.get('rms') !== null } : {}),
    });
    form.reset();
    this.name.set('');
    this.measures.set(new Set());
  }
}
