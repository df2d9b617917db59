import { Component, computed, inject, input } from '@angular/core';
import type { PlateBlock } from '@tactron/core/power';
import { formatValue } from '@tactron/core/units';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';

const factNames: Readonly<Record<string, string>> = {
  dcLinkStopped: 'link, stopped', dcLinkLoaded: 'link, loaded', deviceShare: 'current used', cableDrop: 'drop', cableDropPct: 'share', polePairs: 'pole pairs',
  synchronousRpm: 'field', slip: 'slip', ratedTorque: 'torque', reckonedCurrent: 'reckoned', motorLink: 'link', totalInertia: 'J at motor',
}; // prettier-ignore

/** What is reckoned at one block of the line; a touch shows its working in the pocket. */
@Component({
  selector: 'tac-facts',
  template: `
    <ul class="facts" [class.wide]="wide()">
      @for (f of facts(); track f.id) {
        <li>
          <button type="button" [class.picked]="open.picked() === f.id" (click)="open.picked.set(f.id)">
            <span>{{ f.name }}</span><b class="mono">{{ f.text }}</b>
          </button>
        </li>
      }
    </ul>
  `,
  styleUrl: './facts.scss',
})
export class Facts {
  readonly block = input.required<PlateBlock>();
  readonly wide = input(false);
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  protected readonly facts = computed(() =>
    (this.open.derived()?.facts ?? [])
      .filter((f) => f.block === this.block())
      .map((f) => ({
        id: f.id,
        name: factNames[f.id] ?? f.id,
        text: typeof f.value === 'number' ? formatValue(f.value, f.unit, 3, this.preferences.decimal()) : f.value,
      })),
  );
}
