import { Component, computed, inject, input } from '@angular/core';
import { v4 as uuid } from 'uuid';
import {
  landingParts,
  takenOut,
  temporaryRegister,
  type EvidenceBody,
  type Job,
} from '@tactron/core/job';
import type { SaidStep } from '@tactron/core/said';
import { moment } from '@tactron/core/units';
import { OpenJob } from '../../job-state/open-job';

type Put = Pick<EvidenceBody<'temporary'>, 'kind' | 'what'>;

/**
 * What a step has put in by hand in place of a control, as the register keeps it; nothing where it puts in nothing.
 *
 * @example putInFor(step, job).map((p) => p.what) // ['jumper T1:P24–T1:IN1']
 */
export function putInFor({ step }: SaidStep, { adopted }: Pick<Job, 'adopted'>): Put[] {
  const tagged = (landing: string): string => {
    const { device, terminal } = landingParts(landing);
    return `${adopted?.devices[device]?.tag ?? device}:${terminal}`;
  };
  return (step.acts ?? []).flatMap((act): Put[] => {
    if (act.do === 'breakWire') {
      const number = adopted?.wires[act.wire]?.number ?? act.wire;
      return [{ kind: 'liftedWire', what: `wire ${number} lifted` }];
    }
    if (act.do !== 'hook' || act.as === 'off') return [];
    const places = `${tagged(act.a)}–${tagged(act.b)}`;
    return act.as === 'short'
      ? [{ kind: 'jumper', what: `jumper ${places}` }]
      : [{ kind: 'forced', what: `calibrator at ${places}` }];
  });
}

/** Puts the jumper or the source of a simulated input into the register with one touch, and takes it out again. */
@Component({
  selector: 'tac-simulated-line',
  template: `
    @if (wanted().length) {
      <p class="line" [class.in]="inside().length > 0" role="status">
        @if (inside().length === 0) {
          <span>{{ text() }}: not in.</span>
          <button class="act" type="button" (click)="put()">It is in</button>
        } @else {
          <span
            ><b>{{ text() }} is in</b> since {{ clock(inside()[0].put.atClient) }},
            {{ inside()[0].put.author.name }}. It is counted in the strip until it is out.</span
          >
          <button class="act" type="button" (click)="out()">It is out again</button>
        }
      </p>
    }
  `,
  styles: `
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 6px 12px;
      align-items: center;
      justify-content: space-between;
      margin: 0 0 8px;
      padding: 8px 10px;
      border: 1px dashed var(--line-strong);
      border-radius: 6px;
    }
    .in {
      border-style: solid;
      border-color: var(--copper);
    }
  `,
})
export class SimulatedLine {
  readonly step = input.required<SaidStep>();
  private readonly open = inject(OpenJob);
  protected readonly clock = moment;
  protected readonly wanted = computed(() => {
    const job = this.open.job();
    return job ? putInFor(this.step(), job) : [];
  });
  protected readonly text = computed(() => {
    const text = this.wanted()
      .map((p) => p.what)
      .join(', ');
    return `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
  });
  protected readonly inside = computed(() => {
    const whats = new Set(this.wanted().map((p) => p.what));
    return temporaryRegister(this.open.evidence()).filter((t) => !t.removed && whats.has(t.what));
  });

  protected put(): void {
    for (const body of this.wanted())
      this.open.record('temporary', `temporary.${uuid()}`, { version: 1, ...body });
  }

  protected out(): void {
    for (const t of this.inside()) this.open.record('temporary', t.subject, takenOut(t));
  }
}
