import { Component, computed, inject, signal } from '@angular/core';
import type { DrawnElement } from '@tactron/core/drawings';
import { voltsAt } from '@tactron/core/trace';
import { Choice } from '../../controls/choice';
import { CircuitView, type LiveState } from '../../drawings/circuit-view';
import { Drawings } from '../../drawings/drawings';
import type { Opened } from '../../compute/rehearse.worker';
import { valueAt } from './lane-reader';
import { Leads } from './leads';
import { RehearsalSession } from './session';

/** Below this a wire lies at the reference, V. */
const NOTHING_V = 0.5;
/** Width of the diagram in the bench, in its units. */
const WIDTH = 720;

/** The circuit as it stands now: what carries voltage, which contacts are closed, what works; each landing takes a lead. */
@Component({
  selector: 'tac-live-circuit',
  imports: [Choice, CircuitView],
  template: `
    @if (followed.problem(); as p) {
      <p class="problem" role="alert">{{ p }}</p>
    }
    @if (followed.drawing(); as d) {
      <tac-circuit-view
        [diagram]="d"
        [live]="state()"
        [wire]="leads.wire()"
        [leads]="[leads.plus(), leads.minus()]"
        label="Circuit as it stands; the device’s list tells the same voltages"
        (picked)="leads.wire.set($event)"
        (landed)="leads.put($event)"
      >
        <p class="legend small">
          <tac-choice
            [dense]="true"
            label="Circuit"
            [options]="parts"
            [value]="part()"
            (changed)="part.set($any($event))"
          />
          <span><i class="live"></i> voltage</span><span><i></i> 0 V</span
          ><span><i class="floating"></i> joined to nothing</span>
        </p>
      </tac-circuit-view>
    } @else {
      <p class="soft">Laying out the circuit …</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-rows: auto minmax(0, 1fr);
    }
    .legend {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      align-items: center;
    }
    i {
      display: inline-block;
      width: 26px;
      border-top: 2px solid var(--ink);
      vertical-align: middle;
    }
    i.live {
      border-top: 4px solid var(--copper);
    }
    i.floating {
      border-top: 2px dashed var(--ink-soft);
    }
    tac-circuit-view {
      min-height: 0;
    }
  `,
})
export class LiveCircuit {
  private readonly session = inject(RehearsalSession);
  protected readonly leads = inject(Leads);
  protected readonly part = signal<'control' | 'power'>('control');
  protected readonly parts = [
    { value: 'control', name: 'Control' },
    { value: 'power', name: 'Power' },
  ];
  protected readonly followed = inject(Drawings).circuit('built', WIDTH, this.part);

  protected readonly state = computed((): LiveState | undefined => {
    const opened = this.session.opened();
    if (!opened) return undefined;
    const now = this.session.shownUs();
    const broken = this.leads.broken();
    const index = new Map(opened.landings.map((l, i) => [l, i] as const));
    const isSo = (when: Opened['closed'][string] | undefined): boolean | undefined => {
      if (!when) return undefined;
      if ('always' in when) return when.always;
      return when.values.includes(valueAt(opened.trace, when.signal, now));
    };
    const earth = index.get('supply:PE') ?? -1;
    const gives = ([plus, minus]: DrawnElement['ends']): boolean => {
      const [a, b] = [index.get(plus.landing), index.get(minus.landing)];
      const v = a !== undefined && b !== undefined ? voltsAt(opened.trace, a, b, now) : null;
      return v !== null && Math.max(v.ac, Math.abs(v.dc)) > NOTHING_V;
    };
    return {
      closed: (way) => isSo(opened.closed[way]),
      works: ({ id, shape, ends }) => isSo(opened.works[id]) ?? (shape === 'source' && gives(ends)),
      at: (landing) => stands(opened, index.get(landing), now, earth),
      broken: (wire) => broken.has(wire),
    };
  });
}

/** What stands at a landing: against the device's 0 V, or against earth where nothing joins it to that. */
function stands(
  { trace, reference }: Opened,
  at: number | undefined,
  now: number,
  earth: number,
): ReturnType<LiveState['at']> {
  const against = (minus: number) =>
    at !== undefined && minus >= 0 ? voltsAt(trace, at, minus, now) : null;
  const v = against(reference) ?? against(earth);
  if (v === null) return { is: 'floating', text: 'joined to nothing' };
  const text = v.ac > 1 ? `${Math.round(v.ac)} V~` : `${v.dc.toFixed(1)} V`;
  return { is: Math.max(v.ac, Math.abs(v.dc)) > NOTHING_V ? 'live' : 'nothing', text };
}
