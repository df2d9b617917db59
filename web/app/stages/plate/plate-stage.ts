import { Component, computed, inject, signal } from '@angular/core';
import type { Job, MotorPlate } from '@tactron/core/job';
import { Choice, type Option } from '../../controls/choice';
import { QuantityField } from '../../controls/quantity-field';
import { OpenJob } from '../../job-state/open-job';
import { Facts } from './facts';
import { ShareField } from './share-field';
import { OneLineSymbol } from './one-line-symbol';

/** The one-line picture from supply to load; each block holds its plate in place. */
@Component({
  selector: 'tac-plate-stage',
  imports: [Choice, Facts, OneLineSymbol, QuantityField, ShareField],
  templateUrl: './plate-stage.html',
  styleUrl: './plate-stage.scss',
})
export class PlateStage {
  protected readonly open = inject(OpenJob);
  protected readonly plate = computed(() => (this.open.job() as Job).plate);
  protected readonly job = computed(() => this.open.job() as Job);
  protected readonly models = computed(() => this.open.profile()?.models ?? []);
  protected readonly sizeText = signal<string | null>(null);

  protected readonly connections: readonly Option[] = [
    { value: 'deltaStar', name: 'Δ / Y' },
    { value: 'seriesParallel', name: '9-lead' },
    { value: 'single', name: 'one voltage' },
  ];
  protected readonly loadKinds: readonly Option[] = [
    { value: 'constant', name: 'constant' },
    { value: 'linear', name: 'linear' },
    { value: 'square', name: 'square' },
  ];
  protected readonly phases: readonly Option[] = [
    { value: '3', name: '3-phase' },
    { value: '1', name: '1-phase' },
  ];
  protected readonly links = computed<readonly Option[]>(() =>
    this.plate().motor.connection === 'seriesParallel'
      ? [{ value: 'parallel', name: 'parallel' }, { value: 'series', name: 'series' }]
      : [{ value: 'delta', name: 'Δ delta' }, { value: 'star', name: 'Y star' }],
  ); // prettier-ignore

  protected readonly lowName = computed(() => ({ deltaStar: 'Δ', seriesParallel: 'parallel', single: '' })[this.plate().motor.connection ?? 'single']);
  protected readonly highName = computed(() => ({ deltaStar: 'Y', seriesParallel: 'series', single: '' })[this.plate().motor.connection ?? 'single']);
  protected readonly dual = computed(() => (this.plate().motor.connection ?? 'single') !== 'single');

  protected problems(...fields: string[]) {
    return (this.open.derived()?.findings ?? []).filter((f) => f.finding.where.some((w) => w.kind === 'plate' && fields.includes(w.id)));
  }

  protected flagged(field: string): boolean {
    return this.problems(field).length > 0;
  }

  protected setMotor(key: keyof MotorPlate, value: unknown): void {
    this.open.edit(`motor ${key}`, (draft) => put(draft.plate.motor as Record<string, unknown>, key, value));
  }

  protected set(block: 'supply' | 'load' | 'cable', key: string, value: unknown): void {
    this.open.edit(`${block} ${key}`, (draft) => put(draft.plate[block] as Record<string, unknown>, key, value));
  }

  protected setModel(model: string): void {
    this.open.edit('device model', (draft) => void (draft.profile.model = model));
  }

  protected size(): string {
    const { size } = this.plate().cable;
    return !size ? '' : 'mm2' in size ? `${size.mm2} mm²` : `${size.awg} AWG`;
  }

  protected setSize(text: string): void {
    const awg = /^(\d{1,2}|[1-4]\/0)\s*awg$/iu.exec(text.trim());
    const mm2 = /^(\d+(?:[.,]\d+)?)\s*(?:mm2|mm²)?$/u.exec(text.trim());
    if (text.trim() === '') return this.set('cable', 'size', undefined);
    if (awg) this.set('cable', 'size', { awg: awg[1] });
    else if (mm2 && Number(mm2[1].replace(',', '.')) > 0) this.set('cable', 'size', { mm2: Number(mm2[1].replace(',', '.')) });
    else return this.sizeText.set('A size such as 1.5 mm² or 14 AWG.');
    this.sizeText.set(null);
  }
}

function put(target: Record<string, unknown>, key: string, value: unknown): void {
  if (value === undefined) delete target[key];
  else target[key] = value;
}
