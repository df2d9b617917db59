import { Component, computed, inject } from '@angular/core';
import { v4 as uuid } from 'uuid';
import type { ControlSupplies, Job } from '@tactron/core/job';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { QuantityField } from '../../controls/quantity-field';
import { Typed } from '../../controls/typed';
import { OpenJob } from '../../job-state/open-job';

type Load = NonNullable<ControlSupplies['loads']>[string];

/** What hangs on the control transformer and the 24 V supply. */
@Component({
  selector: 'tac-control-loads',
  imports: [Choice, Icon, QuantityField, Typed],
  template: `
    @for (item of loads(); track item.id) {
      <div class="load" role="group" [attr.aria-label]="item.load.name">
        <label class="named"
          >Load
          <input
            class="field"
            maxlength="200"
            [tacTyped]="item.load.name"
            (change)="set(item.id, 'name', $any($event.target).value)"
        /></label>
        <button
          class="act quiet"
          type="button"
          [attr.aria-label]="'Take out ' + item.load.name"
          (click)="remove(item.id)"
        >
          <tac-icon name="close" />
        </button>
        <tac-choice
          class="span"
          label="Hangs on"
          [options]="places"
          [value]="item.load.on"
          (changed)="set(item.id, 'on', $event)"
        />
        @if (item.load.on === 'transformer') {
          <tac-quantity
            label="Holding"
            dimension="apparentPower"
            unit="VA"
            [value]="item.load.holdingVA"
            (changed)="set(item.id, 'holdingVA', $event)"
          />
          <tac-quantity
            label="Inrush"
            dimension="apparentPower"
            unit="VA"
            [value]="item.load.inrushVA"
            (changed)="set(item.id, 'inrushVA', $event)"
          />
        } @else {
          <tac-quantity
            label="Steady"
            dimension="current"
            unit="A"
            [value]="item.load.amps"
            (changed)="set(item.id, 'amps', $event)"
          />
          <tac-quantity
            label="Inrush"
            dimension="current"
            unit="A"
            [value]="item.load.inrush"
            (changed)="set(item.id, 'inrush', $event)"
          />
        }
      </div>
    }
    <button class="act" type="button" (click)="add()"><tac-icon name="add" /> Load</button>
  `,
  styles: `
    :host {
      grid-column: 1 / -1;
      display: grid;
      gap: 10px;
      justify-items: start;
    }
    .load {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px 9px;
      align-items: end;
      width: 100%;
      padding: 8px 0 10px;
      border-top: 1px solid var(--line);
    }
    .span {
      grid-column: 1 / -1;
    }
    .act.quiet {
      justify-self: end;
    }
  `,
})
export class ControlLoads {
  private readonly open = inject(OpenJob);
  protected readonly places = [
    { value: 'supply24', name: '24 V supply' },
    { value: 'transformer', name: 'transformer' },
  ];
  protected readonly loads = computed(() =>
    Object.entries((this.open.job() as Job).plate.control?.loads ?? {})
      .map(([id, load]) => ({ id, load }))
      .sort((x, y) => x.load.ord - y.load.ord),
  );

  protected add(): void {
    const ord = Math.max(0, ...this.loads().map(({ load }) => load.ord)) + 1;
    this.open.edit(
      'control load added',
      (draft) =>
        void (((draft.plate.control ??= {}).loads ??= {})[uuid()] = {
          ord,
          name: `Load ${ord}`,
          on: 'supply24',
        }),
    );
  }

  protected set(id: string, key: keyof Load, value: unknown): void {
    if (key === 'name' && !String(value).trim()) return;
    this.open.edit(`control load ${key}`, (draft) => {
      const load = draft.plate.control?.loads?.[id] as Record<string, unknown> | undefined;
      if (!load) return;
      if (value === undefined) delete load[key];
      else load[key] = value;
    });
  }

  protected remove(id: string): void {
    this.open.edit(
      'control load taken out',
      (draft) => void delete draft.plate.control?.loads?.[id],
    );
  }
}
