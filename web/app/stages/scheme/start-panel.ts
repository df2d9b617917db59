import { Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import type { StartView } from '@tactron/core/compare';
import { Compute } from '../../compute/compute';
import { LineChart, type Series } from '../../controls/line-chart';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';

const QUIET_MS = 250;
const assumedNames: Readonly<Record<string, string>> = {
  motor: 'the motor',
  load: 'the load',
  inertia: 'the inertia',
  lockedCurrentRatio: 'its starting current',
  lockedTorqueRatio: 'its starting torque',
  breakdownRatio: 'its breakdown torque',
};

/** The start as it is planned, beside a direct one: current, torque and speed over time, and what comes of it. */
@Component({
  selector: 'tac-start-panel',
  imports: [LineChart],
  template: `
    @if (view(); as v) {
      <section class="sheet" aria-label="The start as planned">
        <h3>The start as planned</h3>
        <p class="first">{{ says() }}</p>
        <dl>
          @for (row of rows(); track row.name) {
            <div>
              <dt>{{ row.name }}</dt>
              <dd class="mono">{{ row.planned }}</dd>
              <dd class="soft small">{{ row.recommended }}</dd>
            </div>
          }
        </dl>
        <div class="charts">
          <tac-line-chart
            title="Current and speed"
            x="s"
            y="A"
            rightY="rpm"
            [series]="overTime()"
          />
          <tac-line-chart title="Torque of motor and load" x="rpm" y="Nm" [series]="torque()" />
        </div>
        @if (assumed()) {
          <p class="soft small">
            Not entered, and taken as usual: {{ assumed() }}. The run-up is an estimate until it is.
          </p>
        }
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 10px;
      padding: 12px 14px;
    }
    .first {
      font-weight: 600;
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
      gap: 10px 18px;
      margin: 0;
    }
    dt {
      font-size: 13px;
      color: var(--ink-soft);
    }
    dd {
      margin: 0;
    }
    dd.mono {
      font-size: 18px;
    }
    .charts {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
      gap: 16px;
    }
  `,
})
export class StartPanel {
  private readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  private readonly link = inject(Compute).comparison(() => this.view.set(null));
  protected readonly view = signal<StartView | null>(null);
  private round = 0;

  constructor() {
    effect((onCleanup) => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      const mine = ++this.round;
      if (!job || !profile) return;
      const timer = setTimeout(
        () =>
          void this.link.worker.start(job, profile).then((made) => {
            if (mine === this.round) untracked(() => this.view.set(made));
          }),
        QUIET_MS,
      );
      onCleanup(() => clearTimeout(timer));
    });
    inject(DestroyRef).onDestroy(() => this.link.end());
  }

  private show(value: number, unit: string, digits = 3): string {
    return this.preferences.value(value, unit, digits);
  }

  private between(low: number, high: number, unit: string): string {
    const [a, b] = [this.show(low, unit), this.show(high, unit)];
    return a === b ? a : `${this.preferences.value(low, '', 3)} – ${b}`;
  }

  /** What comes of it, in a sentence. */
  protected readonly says = computed(() => {
    const v = this.view();
    if (!v) return '';
    const { facts, set, direct } = v;
    const peaks = `${this.show(set.peakA, 'A')} at most; direct on line ${this.show(direct.peakA, 'A')}`;
    if (facts.humsS === null)
      return `The motor does not break the load loose: it hums with ${peaks}.`;
    if (facts.stalls) return `It stalls at ${this.show(facts.stallRpm, 'rpm')} with ${peaks}.`;
    const needs = set.startS === null ? '' : this.show(set.startS, 's');
    if (facts.coldTripS !== null)
      return `The overload trips after ${this.show(facts.coldTripS, 's')}; the start would take ${needs}, with ${peaks}.`;
    if (set.startS !== null && set.startS > facts.limitS)
      return `The device trips after ${this.show(facts.limitS, 's')}, its longest start; this one would take ${needs}.`;
    const time = set.startS === null ? 'never at full voltage' : `at full voltage after ${needs}`;
    const heavy = facts.heavier.stalls
      ? 'A load 20 % heavier stalls.'
      : facts.heavier.startS === null
        ? ''
        : `A load 20 % heavier takes ${this.show(facts.heavier.startS, 's')}.`;
    return `It is ${time}, with ${peaks}. ${heavy}`;
  });

  protected readonly rows = computed(() => {
    const v = this.view();
    if (!v) return [];
    const { planned, recommended: r, facts } = v;
    const row = (
      name: string,
      value: number | string | undefined,
      unit: string,
      wanted?: number | string,
    ) =>
      value === undefined
        ? []
        : [
            {
              name,
              planned: typeof value === 'number' ? this.show(value, unit) : value,
              recommended:
                wanted === undefined || wanted === value
                  ? 'as recommended'
                  : `recommended ${typeof wanted === 'number' ? this.show(wanted, unit) : wanted}`,
            },
          ];
    return [
      ...row('Begin at', planned.beginPct, '%', r.beginPct),
      ...row('Current limit', planned.limitPct, '%', r.limitPct),
      ...row('Ramp up', planned.rampS, 's', r.rampS),
      ...row('Overload class', planned.tripClass, '', r.tripClass),
      ...(v.leastPct === undefined
        ? []
        : [
            {
              name: 'Smallest limit that starts',
              planned: this.between(...v.leastPct, '%'),
              recommended:
                v.leastPct[0] === v.leastPct[1]
                  ? 'this load, this class, from cold'
                  : 'from the plate alone: a data sheet’s curve narrows it',
            },
          ]),
      ...(v.facts.startS === null || v.band.toS === null
        ? []
        : [
            {
              name: 'Start takes',
              planned: this.between(v.band.fromS, v.band.toS, 's'),
              recommended: 'load a fifth less or more, motor within its tolerance',
            },
          ]),
      ...this.hourly(v),
      {
        name: 'Torque at first',
        planned: this.show(facts.beginNm, 'Nm'),
        recommended: `the load asks for ${this.show(facts.breakNm, 'Nm')}`,
      },
    ];
  });

  /** Starts an hour that motor and device bear, beside what the plate asks for. */
  private hourly({ starts }: StartView) {
    if (!starts) return [];
    const asked = this.open.job()?.plate.load.stopsPerHour;
    const device = starts.judged
      ? `device ${Math.floor(starts.starterPerHour)}`
      : 'device not judged: its profile has no duty';
    return [
      {
        name: 'Starts an hour',
        planned: String(Math.floor(starts.perHour)),
        recommended: `motor ${Math.floor(starts.motorPerHour)}, ${device}${asked === undefined ? '' : `; asked for ${asked}`}`,
      },
    ];
  }

  protected readonly overTime = computed<Series[]>(() => {
    const v = this.view();
    if (!v) return [];
    const line = (
      name: string,
      points: StartView['set']['points'],
      of: 'amps' | 'rpm',
      right = false,
    ): Series => ({
      name,
      points: points.map((p) => ({ x: p.t, y: p[of] })),
      ...(right ? { right } : {}),
    });
    return [
      line('current', v.set.points, 'amps'),
      line('direct, current', v.direct.points, 'amps'),
      line('speed', v.set.points, 'rpm', true),
    ];
  });

  protected readonly torque = computed<Series[]>(() => {
    const v = this.view();
    if (!v) return [];
    return [
      { name: 'motor', points: v.set.points.map((p) => ({ x: p.rpm, y: p.torqueNm })) },
      { name: 'motor, direct', points: v.direct.points.map((p) => ({ x: p.rpm, y: p.torqueNm })) },
      { name: 'load', points: v.direct.points.map((p) => ({ x: p.rpm, y: p.loadNm })) },
    ];
  });

  protected readonly assumed = computed(() =>
    (this.view()?.facts.assumed ?? []).map((name) => assumedNames[name] ?? name).join(', '),
  );
}
