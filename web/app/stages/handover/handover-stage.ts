import { Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import type { Job } from '@tactron/core/job';
import { formatQuantity, formatValue, type Quantity } from '@tactron/core/units';
import { Compute } from '../../compute/compute';
import type { SaidStep } from '../../compute/compute.types';
import { Icon } from '../../controls/icon';
import { saveFile } from '../../controls/save-file';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { pageFoot } from './page-foot';

/** The record as it will print, with what blocks it first; and the job file. */
@Component({
  selector: 'tac-handover-stage',
  imports: [RouterLink, Icon],
  templateUrl: './handover-stage.html',
  styleUrl: './handover-stage.scss',
})
export class HandoverStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  private readonly preferences = inject(Preferences);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly blocks = computed(() => this.open.derived()?.blocks ?? []);
  protected readonly steps = computed(() => this.open.derived()?.steps ?? []);
  protected readonly today = new Date().toLocaleDateString('en-GB', { day: '2-digit', month: 'long', year: 'numeric' });

  protected readonly plate = computed(() => {
    const { motor, supply, load, cable } = this.job().plate;
    const q = (value: Quantity | undefined): string => (value ? formatQuantity(value, this.preferences.decimal()) : '–');
    const both = (low: Quantity | undefined, high: Quantity | undefined): string => [low, high].filter(Boolean).map((x) => q(x)).join(' / ') || '–'; // prettier-ignore
    return [
      ['Supply', `${supply.phases ?? '–'}-phase, ${q(supply.volts)}, ${q(supply.hz)}`],
      ['Device', `${this.open.profile()?.title} ${this.job().profile.model}`],
      ['Motor', `${q(motor.power)}, ${both(motor.lowV, motor.highV)}, ${both(motor.lowA, motor.highA)}, ${q(motor.rpm)}, ${q(motor.hz)}`],
      ['Links', motor.link ?? '–'],
      [
        'Cable',
        `${q(cable.length)}, ${cable.size ? ('mm2' in cable.size ? `${cable.size.mm2} mm²` : `${cable.size.awg} AWG`) : '–'}${cable.screened ? ', screened' : ''}`,
      ],
      ['Load', `${load.name ?? ''} ${load.torquePct ?? '–'} % of rated torque, ${load.kind ?? ''}`],
    ];
  });
  protected readonly wires = computed(() => {
    const { adopted } = this.job();
    const name = (landing: string): string => landing.replace(/^[^:]+/u, (id) => adopted?.devices[id]?.tag ?? id);
    return Object.values(adopted?.wires ?? {})
      .sort((x, y) => x.number.localeCompare(y.number, 'en', { numeric: true }))
      .map((w) => ({
        number: w.number,
        from: name(w.from),
        to: name(w.to),
        size: 'mm2' in w.size ? `${w.size.mm2} mm²` : `${w.size.awg} AWG`,
        colour: w.colour,
        cable: w.cable ? `${w.cable} · ${w.core}` : '',
      }));
  });
  protected readonly settings = computed(() =>
    (this.open.derived()?.rows ?? []).filter((row) => row.planned !== row.factory || row.found !== row.factory || row.state === 'differs'),
  );
  protected readonly accepted = computed(() => (this.open.derived()?.findings ?? []).filter((f) => f.accepted));

  constructor() {
    pageFoot(() => `${this.job().tag} · revision ${this.open.state().revision} · ${this.today}`);
  }

  protected expected(step: SaidStep): string {
    const { expect } = step.step;
    return expect?.kind === 'range' ? `${formatValue(expect.nominal, expect.unit, 4, this.preferences.decimal())}` : step.must;
  }

  protected seen(step: SaidStep): string {
    const reading = step.reading?.body.reading;
    if (reading === undefined) return '';
    return typeof reading === 'number'
      ? formatValue(reading, step.reading?.body.unit ?? '', 5, this.preferences.decimal())
      : (step.choices.find((c) => c.value === reading)?.name ?? String(reading));
  }

  protected earlier(step: SaidStep): string {
    return step.earlier
      .map(
        (e) =>
          `${typeof e.body.reading === 'number' ? formatValue(e.body.reading, e.body.unit ?? '', 5, this.preferences.decimal()) : String(e.body.reading)} (${e.body.verdict})`,
      )
      .join(', ');
  }

  protected print(): void {
    window.print();
  }

  protected async download(file: string): Promise<void> {
    const { profile } = this.open.state();
    if (!profile) return;
    const files = await this.compute.files(this.job(), profile, this.open.evidence());
    const type = file.endsWith('.svg') ? 'image/svg+xml' : file.endsWith('.csv') ? 'text/csv' : 'application/json';
    saveFile(file === 'job.json' ? `${this.job().tag}.tactron.json` : `${this.job().tag}-${file}`, files[file], type);
  }
}
