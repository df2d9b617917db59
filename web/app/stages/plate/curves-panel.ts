import { Component, computed, effect, inject, signal } from '@angular/core';
import type { MotorCurves } from '@tactron/core/line';
import { Compute } from '../../compute/compute';
import { LineChart, type Series } from '../../controls/line-chart';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';

const why: Readonly<Record<string, string>> = {
  load: 'The load’s torque is missing.',
  inertia: 'The inertia of motor and load, or the gear ratio, is missing.',
  overload:
    'The load is above the breakdown torque: at full voltage the motor never reaches speed.',
};
const ratioNames: Readonly<Record<string, string>> = {
  lockedCurrentRatio: 'starting current',
  lockedTorqueRatio: 'starting torque',
  breakdownRatio: 'breakdown torque',
};

/** The fitted motor at full voltage: torque and current over speed, and the direct run-up with this load. */
@Component({
  selector: 'tac-curves-panel',
  imports: [LineChart],
  template: `
    @if (curves(); as c) {
      <section class="sheet" aria-label="Motor at full voltage">
        <h3>Motor at full voltage</h3>
        <p>
          {{ summary() }}
          @if (c.assumed.length) {
            <span class="soft"
              >Usual values for a motor of this size stand in for {{ assumed() }}; the data sheet
              prevails.</span
            >
          }
        </p>
        <div class="charts">
          <tac-line-chart
            title="Torque and current over speed"
            x="rpm"
            y="Nm"
            rightY="A"
            [series]="overSpeed()"
          />
          @if (c.runUp) {
            <tac-line-chart
              title="Run-up, direct on line"
              x="s"
              y="rpm"
              rightY="A"
              [series]="overTime()"
            />
          }
        </div>
        <details>
          <summary>As a table</summary>
          <div class="scroll-x">
            <table class="plain">
              <thead>
                <tr>
                  <th>speed</th>
                  <th>torque</th>
                  <th>load</th>
                  <th>current</th>
                </tr>
              </thead>
              <tbody>
                @for (p of c.points; track p.rpm; let i = $index) {
                  @if (i % 8 === 0) {
                    <tr>
                      <td class="mono">{{ show(p.rpm, 'rpm') }}</td>
                      <td class="mono">{{ show(p.torqueNm, 'Nm') }}</td>
                      <td class="mono">{{ show(p.loadNm, 'Nm') }}</td>
                      <td class="mono">{{ show(p.amps, 'A') }}</td>
                    </tr>
                  }
                }
              </tbody>
            </table>
          </div>
        </details>
      </section>
    }
  `,
  styles: `
    section {
      display: grid;
      gap: 8px;
      padding: 12px 14px;
    }
    .charts {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
      gap: 16px;
    }
    summary {
      min-height: 32px;
      cursor: pointer;
    }
  `,
})
export class CurvesPanel {
  private readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly preferences = inject(Preferences);
  protected readonly curves = signal<MotorCurves | null>(null);
  private round = 0;
  /** What is drawn: the same numbers are not drawn again. */
  private shown = '';

  constructor() {
    effect(() => {
      const [job, profile] = [this.open.job(), this.open.profile()];
      const round = ++this.round;
      if (!job || !profile) return;
      void this.compute.curves(job, profile).then((made) => {
        if (round !== this.round || JSON.stringify(made) === this.shown) return;
        this.shown = JSON.stringify(made);
        this.curves.set(made);
      });
    });
  }

  protected readonly overSpeed = computed<Series[]>(() => {
    const points = this.curves()?.points ?? [];
    return [
      { name: 'torque', points: points.map((p) => ({ x: p.rpm, y: p.torqueNm })) },
      { name: 'current', points: points.map((p) => ({ x: p.rpm, y: p.amps })), right: true },
      { name: 'load', points: points.map((p) => ({ x: p.rpm, y: p.loadNm })), shown: 'dashes' },
    ];
  });
  protected readonly overTime = computed<Series[]>(() => {
    const curve = this.curves()?.runUp?.curve ?? [];
    return [
      { name: 'speed', points: curve.map((p) => ({ x: p.t, y: p.rpm })) },
      { name: 'current', points: curve.map((p) => ({ x: p.t, y: p.amps })), right: true },
    ];
  });
  protected readonly assumed = computed(() =>
    (this.curves()?.assumed ?? []).map((name) => ratioNames[name] ?? name).join(', '),
  );
  protected readonly summary = computed(() => {
    const c = this.curves();
    if (!c?.runUp) return why[c?.noRunUp ?? ''] ?? '';
    const { stalls, startS, peakA, breakawayS } = c.runUp;
    if (stalls)
      return breakawayS === null
        ? 'The motor does not break the load loose.'
        : 'The motor stalls below its speed.';
    const of = (verdict: string, one: string, more: string): string[] => {
      const own = c.classes.filter((k) => k.verdict === verdict).map((k) => `${k.tripClass}`);
      if (own.length === 0) return [];
      if (own.length === 1) return [`class ${own[0]} ${one}`];
      return [`classes ${own.slice(0, -1).join(', ')} and ${own.at(-1)} ${more}`];
    };
    const classes = [
      ...of('clear', 'lets it pass', 'let it pass'),
      ...of('doubtful', 'may trip', 'may trip'),
      ...of('trips', 'trips', 'trip'),
    ].join(', ');
    return `Direct on line it runs up in ${this.show(startS ?? 0, 's')} with ${this.show(peakA, 'A')} at first. Overload from cold: ${classes}.`;
  });

  protected show(value: number, unit: string): string {
    return this.preferences.value(value, unit, 3);
  }
}
