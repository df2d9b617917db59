import { Component, computed, inject, input, signal } from '@angular/core';
import * as v from 'valibot';
import { plateSchema, sizeText, type Job } from '@tactron/core/job';
import { Choice } from '../../controls/choice';
import { NumberField } from '../../controls/number-field';
import { QuantityField } from '../../controls/quantity-field';
import { Typed } from '../../controls/typed';
import { OpenJob } from '../../job-state/open-job';
import { putAt, valueAt } from './blocks';
import type { Field } from './fields';

/** Reads a conductor size: "1.5 mm²", "14 AWG", "2/0 AWG". */
export function parseSize(text: string): { mm2: number } | { awg: string } | null {
  const awg = /^(\d{1,2}|[1-4]\/0)\s*awg$/iu.exec(text.trim());
  if (awg) return { awg: awg[1] };
  const mm2 = /^(\d+(?:[.,]\d+)?)\s*(?:mm2|mm²)?$/u.exec(text.trim());
  const value = mm2 ? Number(mm2[1].replace(',', '.')) : 0;
  return value > 0 ? { mm2: value } : null;
}

/** One field of a block, by its kind. */
@Component({
  selector: 'tac-plate-field',
  imports: [Choice, NumberField, QuantityField, Typed],
  template: `
    @switch (field().kind) {
      @case ('quantity') {
        <tac-quantity
          [label]="field().label"
          [dimension]="$any(field()).dimension"
          [unit]="$any(field()).unit"
          [min]="$any(field()).dimension === 'temperature' ? -50 : 0"
          [value]="$any(value())"
          [flagged]="flagged()"
          (changed)="set($event)"
        />
      }
      @case ('number') {
        <tac-number
          [label]="field().label"
          [percent]="$any(field()).unit === '%'"
          [value]="$any(value())"
          [flagged]="flagged()"
          (changed)="set($event)"
        />
      }
      @case ('choice') {
        <tac-choice
          [label]="field().label"
          [options]="$any(field()).options"
          [value]="chosen()"
          (changed)="set($any(field()).numeric ? +$event : $event)"
        />
      }
      @case ('select') {
        <label class="named"
          >{{ field().label }}
          <select
            class="field"
            [attr.aria-invalid]="flagged() ? true : null"
            (change)="set($any($event.target).value || undefined)"
          >
            <option value="" [selected]="!value()">–</option>
            @for (o of $any(field()).options; track o.value) {
              <option [value]="o.value" [selected]="o.value === value()">{{ o.name }}</option>
            }
          </select>
        </label>
      }
      @case ('flag') {
        <button
          class="act flag"
          type="button"
          [attr.aria-pressed]="value() === true"
          (click)="set(value() === true ? undefined : true)"
        >
          {{ value() === true ? field().label : $any(field()).off }}
        </button>
      }
      @case ('size') {
        <label class="named"
          >{{ field().label }}
          <input
            class="field mono"
            placeholder="mm² or AWG"
            [tacTyped]="size()"
            [attr.aria-invalid]="problem() || flagged() ? true : null"
            (change)="setSize($any($event.target).value)"
          />
        </label>
      }
      @case ('text') {
        <label class="named"
          >{{ field().label }}
          <input
            class="field"
            maxlength="200"
            [placeholder]="$any(field()).placeholder ?? ''"
            [tacTyped]="$any(value()) ?? ''"
            [attr.aria-invalid]="flagged() ? true : null"
            (change)="set($any($event.target).value || undefined)"
          />
        </label>
      }
    }
    @if (problem(); as p) {
      <p class="problem" role="alert">{{ p }}</p>
    }
  `,
  styles:
    ':host { display: block; min-width: 0; } .problem { color: var(--bad); font-size: 13px; } .flag { width: 100%; white-space: normal; padding: 6px 10px; text-align: left; }',
})
export class PlateField {
  readonly field = input.required<Field>();
  readonly flagged = input(false);
  private readonly open = inject(OpenJob);
  protected readonly problem = signal<string | null>(null);
  protected readonly value = computed(() =>
    valueAt((this.open.job() as Job).plate, this.field().path),
  );
  protected readonly chosen = computed(() =>
    this.value() === undefined ? undefined : String(this.value()),
  );
  protected readonly size = computed(() => {
    const s = this.value() as { mm2: number } | { awg: string } | undefined;
    return sizeText(s);
  });

  /** Changes the job if its schema takes the value; otherwise says at the field what fits, and leaves what is typed. */
  protected set(value: unknown): void {
    const { path, label } = this.field();
    const draft = structuredClone((this.open.job() as Job).plate);
    putAt(draft, path, value);
    const { issues } = v.safeParse(plateSchema, draft);
    this.problem.set(issues ? `This does not fit: ${issues[0].message}.` : null);
    if (issues) return;
    this.open.edit(`${path.split('.')[0]} ${label}`, (draft) => putAt(draft.plate, path, value));
  }

  protected setSize(text: string): void {
    const parsed = text.trim() === '' ? undefined : parseSize(text);
    this.problem.set(parsed === null ? 'A size such as 1.5 mm² or 14 AWG.' : null);
    if (parsed !== null) this.set(parsed);
  }
}
