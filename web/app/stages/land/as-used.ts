import { Component, computed, inject, input, linkedSignal } from '@angular/core';
import type { AdoptedWire, Job } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';

type Used = NonNullable<Job['asUsed']>[string];

/** The conductor as it was really taken: colour, core, own marker; for one wire, or dealt to a whole cable. */
@Component({
  selector: 'tac-as-used',
  template: `
    @for (f of fields; track f.key) {
      <label class="named"
        >{{ f.name }}
        <input
          class="field"
          [maxLength]="f.most"
          [placeholder]="planned(f.key)"
          [value]="used()[f.key] ?? ''"
          (change)="use(f.key, $any($event.target).value)"
      /></label>
    }
    @if (wire().cable; as cable) {
      <label class="named grow"
        >colours of the cores of {{ cable }}, in their order
        <span class="deal">
          <input
            class="field"
            maxlength="400"
            placeholder="white, brown, green, yellow …"
            [value]="colours()"
            (input)="colours.set($any($event.target).value)"
          />
          <button class="act" type="button" [disabled]="!colours().trim()" (click)="deal(cable)">
            Deal
          </button>
        </span>
      </label>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 14px;
      align-items: end;
    }
    label {
      width: 130px;
    }
    .grow {
      flex: 1 1 300px;
    }
    .deal {
      display: flex;
      gap: 6px;
    }
    .deal input {
      flex: 1;
    }
  `,
})
export class AsUsed {
  private readonly open = inject(OpenJob);
  /** Id of the wire, and the wire as planned. */
  readonly id = input.required<string>();
  readonly wire = input.required<AdoptedWire>();
  protected readonly fields = [
    { key: 'colour', name: 'colour used', most: 40 },
    { key: 'core', name: 'core used', most: 20 },
    { key: 'number', name: 'own marker', most: 20 },
  ] as const;
  protected readonly used = computed((): Used => this.open.job()?.asUsed?.[this.id()] ?? {});
  protected readonly colours = linkedSignal({ source: this.id, computation: () => '' });

  protected planned(key: keyof Used): string {
    return this.wire()[key] ?? '';
  }

  protected use(key: keyof Used, typed: string): void {
    const text = typed.trim();
    const id = this.id();
    // What is as planned is nothing to note.
    const other = text === this.planned(key) ? '' : text;
    this.open.edit(`wire ${this.wire().number} as used`, (draft) => note(draft, id, key, other));
  }

  /** Deals colours to the wires of a cable in the order of its cores. */
  protected deal(cable: string): void {
    const colours = this.colours()
      .split(/[,;]+/u)
      .map((c) => c.trim())
      .filter(Boolean);
    const wires = Object.entries(this.open.job()?.adopted?.wires ?? {})
      .filter(([, w]) => w.cable === cable && w.class !== 'pe')
      .sort(([, x], [, y]) => (x.core ?? '').localeCompare(y.core ?? '', 'en', { numeric: true }));
    this.open.edit(`cores of ${cable} as used`, (draft) =>
      wires.forEach(([id, w], i) => {
        if (colours[i]) note(draft, id, 'colour', colours[i] === w.colour ? '' : colours[i]);
      }),
    );
    this.colours.set('');
  }
}

function note(draft: Job, id: string, key: keyof Used, text: string): void {
  const used: Used = { ...draft.asUsed?.[id] };
  if (text) used[key] = text;
  else delete used[key];
  const all = { ...draft.asUsed };
  if (Object.keys(used).length > 0) all[id] = used;
  else delete all[id];
  if (Object.keys(all).length > 0) draft.asUsed = all;
  else delete draft.asUsed;
}
