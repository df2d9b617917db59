import { Component, computed, input, output } from '@angular/core';

/** What a touch of the pad does to what stands in a field. */
export type PadKey = string;

/** Keys beside the digits, by the unit that is read: thousands, overload of an ohmmeter, a sign. */
const besides = (unit: string, mark: string): readonly [PadKey, PadKey, PadKey] => {
  const ohms = unit.endsWith('Ω');
  return [mark, ohms ? 'OL' : '−', unit === 'Ω' ? 'k' : ohms ? '' : '00'];
};

/**
 * What stands in a field after a key of the pad.
 *
 * @example padTyped('23', '.') // '23.'
 */
export function padTyped(text: string, key: PadKey): string {
  if (key === '⌫') return text === 'OL' ? '' : text.slice(0, -1);
  if (key === 'OL') return 'OL';
  if (key === '−') return text.startsWith('-') ? text.slice(1) : `-${text}`;
  const on = text === 'OL' ? '' : text;
  if ((key === '.' || key === ',') && /[.,]/u.test(on)) return on;
  if (key === 'k' && (on === '' || on.endsWith('k'))) return on;
  return on.endsWith('k') ? on : `${on}${key}`;
}

/** Digits for gloves: big keys that put a reading into a field, with what an instrument shows besides numbers. */
@Component({
  selector: 'tac-number-pad',
  template: `
    @for (key of keys(); track $index) {
      @if (key) {
        <button
          class="act"
          type="button"
          [class.main]="key === 'next'"
          [attr.aria-label]="names[key] ?? key"
          (pointerdown)="$event.preventDefault()"
          (click)="typed.emit(key)"
        >
          {{ key === 'next' ? last() : key }}
        </button>
      } @else {
        <span></span>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(4, 1fr);
      gap: 8px;
    }
    button {
      min-height: 60px;
      padding: 0 4px;
      font-size: 24px;
      font-variant-numeric: tabular-nums;
    }
    .main {
      grid-row: span 2;
      font-size: 17px;
    }
  `,
})
export class NumberPad {
  readonly unit = input('');
  readonly mark = input('.');
  /** What the key at the end does: to the next field, or accept. */
  readonly last = input('Next');
  readonly typed = output<PadKey>();
  protected readonly names: Readonly<Partial<Record<string, string>>> = {
    '⌫': 'take back one sign',
    OL: 'overload, no reading',
    '−': 'minus',
    k: 'thousands',
  };
  protected readonly keys = computed(() => {
    const [point, besideA, besideB] = besides(this.unit(), this.mark());
    return ['7', '8', '9', '⌫', '4', '5', '6', besideA, '1', '2', '3', 'next', '0', point, besideB];
  });
}
