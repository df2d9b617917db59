import { Component, computed, inject, input, signal } from '@angular/core';
import type { PlateBlock } from '@tactron/core/line';
import { Preferences } from '../../frame/preferences';
import { lengthUnitOf } from '../../job-state/length-unit';
import { OpenJob } from '../../job-state/open-job';

const factNames: Readonly<Record<string, string>> = {
  dcLinkStopped: 'DC link, stopped',
  dcLinkLoaded: 'DC link, loaded',
  inputCurrent: 'input current',
  unbalance: 'unbalance',
  unbalanceFactor: 'motor may give',
  shortCircuit: 'short-circuit current',
  dipDirect: 'dip, direct start',
  dipLimit: 'dip, at the current limit',
  dipDrive: 'dip, with the drive',
  feedAmpacity: 'feed carries',
  distortion: 'distortion',
  inputPowerFactor: 'power factor',
  deviceShare: 'current used',
  usableCurrent: 'usable here',
  overloadTorque: 'torque for 1 min',
  dischargeTime: 'DC link below 60 V',
  resistorMin: 'resistor, at least',
  resistorMax: 'resistor, at most',
  resistorPeak: 'peak power',
  resistorMean: 'mean power',
  resistorDuty: 'duty',
  cableDrop: 'voltage drop',
  cableDropPct: 'of the supply',
  cableLongest: 'longest allowed',
  cableAmpacity: 'conductor carries',
  criticalLength: 'critical length',
  motorPeak: 'peak at motor',
  chargingCurrent: 'charging current',
  cablePe: 'PE, at least',
  cableGround: 'ground, AWG',
  polePairs: 'pole pairs',
  synchronousRpm: 'field speed',
  slip: 'slip',
  ratedTorque: 'rated torque',
  reckonedCurrent: 'reckoned current',
  motorLink: 'motor link',
  overloadSetting: 'overload, set to',
  lowSpeedLimit: 'torque at slowest',
  totalInertia: 'inertia at motor',
  shortestStart: 'shortest start',
  shortestStop: 'shortest stop',
  transformerLoad: 'transformer',
  transformerNeeded: 'needs',
  supply24Load: '24 V load',
  supply24Share: '24 V share',
  heatLoss: 'losses',
  insideTemperature: 'inside',
  airNeeded: 'air needed',
};

/** What is reckoned at one block of the line; a touch shows its working in the pocket. */
@Component({
  selector: 'tac-facts',
  template: `
    <ul class="facts" [class.wide]="wide()">
      @for (f of shown(); track f.id) {
        <li>
          <button
            type="button"
            [class.picked]="open.picked() === f.id"
            (click)="open.picked.set(f.id)"
          >
            <span>{{ f.name }}</span><b class="mono">{{ f.text }}</b>
          </button>
        </li>
      }
      @if (facts().length > most() + 1) {
        <li>
          <button type="button" class="rest" [attr.aria-expanded]="all()" (click)="all.set(!all())">
            {{ all() ? 'fewer' : facts().length - most() + ' more' }}
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
  protected readonly all = signal(false);
  protected readonly most = computed(() => (this.wide() ? 8 : 4));
  protected readonly open = inject(OpenJob);
  private readonly preferences = inject(Preferences);
  /** The picked one is always to be seen. */
  protected readonly shown = computed(() => {
    const list = this.facts();
    const hidden = list.slice(this.most()).some((f) => f.id === this.open.picked());
    return this.all() || hidden || list.length === this.most() + 1
      ? list
      : list.slice(0, this.most());
  });
  protected readonly facts = computed(() =>
    (this.open.derived()?.facts ?? [])
      .filter((f) => f.block === this.block())
      .map((f) => ({
        id: f.id,
        name: factNames[f.id] ?? f.id,
        text:
          typeof f.value === 'number'
            ? this.preferences.value(f.value, f.unit, 3, lengthUnitOf(this.open.job()))
            : `${f.value}${f.unit && f.unit !== 'AWG' ? ` ${f.unit}` : ''}`,
      })),
  );
}
