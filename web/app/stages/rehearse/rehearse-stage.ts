import { Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { landingParts, type Job } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { Keys } from '../../frame/keys';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { BenchTools } from './bench-tools';
import { DeviceFace } from './device-face';
import { valueAt } from './lane-reader';
import { Lanes, type LaneSpec } from './lanes';
import { Leads } from './leads';
import { ScriptShelf } from './script-shelf';
import { RehearsalSession, type SettingsChoice } from './session';
import { StationPanel } from './station-panel';
import { SweepPanel } from './sweep-panel';
import { WhyPanel } from './why-panel';

/** The station to press, the device with every voltage, the motor, and signals over time. */
@Component({
  selector: 'tac-rehearse-stage',
  imports: [
    BenchTools,
    Choice,
    DeviceFace,
    Icon,
    Lanes,
    ScriptShelf,
    StationPanel,
    SweepPanel,
    WhyPanel,
  ],
  providers: [RehearsalSession, Leads],
  templateUrl: './rehearse-stage.html',
  styleUrl: './rehearse-stage.scss',
})
export class RehearseStage {
  protected readonly open = inject(OpenJob);
  protected readonly session = inject(RehearsalSession);
  protected readonly leads = inject(Leads);
  private readonly preferences = inject(Preferences);
  protected readonly from = signal<'planned' | 'factory' | 'left'>('planned');
  protected readonly rates = [
    { value: '0.02', name: '1/50' },
    { value: '0.2', name: '1/5' },
    { value: '1', name: 'real time' },
    { value: '5', name: '5 ×' },
  ];

  private readonly left = computed(() => {
    const snapshot = this.open
      .evidence()
      .findLast((e) => e.kind === 'snapshot' && e.body.which === 'asLeft');
    return snapshot?.kind === 'snapshot' ? { id: snapshot.id, values: snapshot.body.values } : null;
  });
  protected readonly sources = computed(() => [
    { value: 'planned', name: 'planned' },
    { value: 'factory', name: 'factory' },
    ...(this.left() ? [{ value: 'left', name: 'as left' }] : []),
  ]);
  protected readonly rpm = computed(() => {
    const trace = this.session.trace();
    const hz = trace ? valueAt(trace, 'drive.shaftHz', this.session.nowUs()) : 0;
    return (hz * 60) / (this.session.opened()?.polePairs ?? 2);
  });
  protected readonly rpmText = computed(() =>
    formatNumber(this.rpm(), 0, this.preferences.decimal()),
  );

  protected readonly lanes = computed<readonly LaneSpec[]>(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const { scheme, adopted } = this.open.job() ?? {};
    const maxHz = scheme?.maxHz ?? 50;
    const lowHz = scheme?.direction === 'forwardReverse' || scheme?.jog === 'bothWays' ? -maxHz : 0;
    const used = new Set(
      Object.values(adopted?.assignments ?? {}).map((a) => `drive.${landingParts(a.at).terminal}`),
    );
    const states =
      opened.trace.signals
        .find((s) => s.id === 'drive.state')
        ?.states?.map((s) => opened.names[s] ?? s) ?? [];
    const level = (id: string, name: string): LaneSpec => ({ id, name, unit: '', low: 0, high: 1 });
    const worked = opened.devices.filter((d) => d.positions.length > 1 && d.workedBy !== 'supply');
    return [
      { id: 'drive.hz', name: 'Output', unit: 'Hz', low: lowHz, high: maxHz },
      { id: 'drive.state', name: 'State', unit: '', low: 0, high: states.length - 1, states },
      ...worked.map((d) => ({
        id: `${d.id}.position`,
        name: d.tag,
        unit: '',
        low: 0,
        high: d.positions.length - 1,
        states: d.positions,
      })),
      ...opened.devices.filter((d) => d.kind === 'coil').map((d) => level(`${d.id}.on`, d.tag)),
      ...opened.trace.signals
        .filter((s) => used.has(s.id) || (s.of.kind === 'landing' && /\.(S|ST)[AB]$/u.test(s.id)))
        .map((s) => level(s.id, s.id.replace('drive.', 'Input '))),
      level('supply.on', 'Supply'),
      { id: 'drive.shaftHz', name: 'Shaft', unit: 'Hz', low: lowHz, high: maxHz },
    ];
  });

  constructor() {
    effect(() => {
      const job = this.open.job();
      const profile = this.open.profile();
      const from = this.from();
      const left = this.left();
      if (!job?.adopted || !profile) return;
      const source: SettingsChoice =
        from === 'left' && left ? left : from === 'factory' ? 'factory' : 'planned';
      untracked(() => {
        const fresh = !this.session.opened();
        void this.session.open(job, profile, source, this.session.log(), !fresh).then(() => {
          if (fresh && this.session.log().length === 0 && !this.leads.plus()) this.plant(job);
        });
      });
    });
    const keys = inject(Keys);
    const off = [
      keys.on('p', () => void this.session.act({ do: this.supplyOn() ? 'supplyOff' : 'supplyOn' })),
      keys.on('b', () => this.leads.toggleWire()),
      keys.on('m', () => document.getElementById('lead-plus')?.focus()),
    ];
    inject(DestroyRef).onDestroy(() => off.forEach((end) => end()));
  }

  private supplyOn(): boolean {
    const trace = this.session.trace();
    return trace !== null && valueAt(trace, 'supply.on', this.session.nowUs()) === 1;
  }

  /** First look: the meter across the first input and its common. */
  private plant(job: Job): void {
    const input = Object.values(job.adopted?.assignments ?? {})[0]?.at;
    const common = this.session
      .opened()
      ?.landings.find(
        (l) => this.open.profile()?.terminals[landingParts(l).terminal]?.kind === 'inputCommon',
      );
    if (input) this.leads.plus.set(input);
    if (common) this.leads.minus.set(common);
  }
}
