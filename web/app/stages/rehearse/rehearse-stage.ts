import {
  Component,
  DestroyRef,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router } from '@angular/router';
import { landingParts, type Job } from '@tactron/core/job';
import type { Profile } from '@tactron/core/catalogue';
import { formatNumber } from '@tactron/core/units';
import { Choice } from '../../controls/choice';
import { DestroysNotice } from '../../controls/destroys-notice';
import { Icon } from '../../controls/icon';
import { Keys } from '../../frame/keys';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { BenchTools } from './bench-tools';
import { DeviceFace } from './device-face';
import { valueAt } from './lane-reader';
import { laneSpecs } from './lane-specs';
import { MotorPhases } from './motor-phases';
import { NowBar } from './now-bar';
import { Lanes, type LaneSpec } from './lanes';
import { Leads } from './leads';
import { LiveCircuit } from './live-circuit';
import { PowerBar } from './power-bar';
import { ScriptShelf } from './script-shelf';
import { RehearsalSession, type SettingsChoice } from './session';
import { StationPanel } from './station-panel';
import { SweepPanel } from './sweep-panel';
import { WhyPanel } from './why-panel';

const LESS_MOTION = matchMedia('(prefers-reduced-motion: reduce)');

/** The station to press, the device with every voltage, the motor, and signals over time. */
@Component({
  selector: 'tac-rehearse-stage',
  imports: [
    BenchTools,
    Choice,
    DestroysNotice,
    DeviceFace,
    Icon,
    Lanes,
    MotorPhases,
    NowBar,
    LiveCircuit,
    PowerBar,
    ScriptShelf,
    StationPanel,
    SweepPanel,
    WhyPanel,
  ],
  providers: [RehearsalSession, Leads],
  templateUrl: './rehearse-stage.html',
  styleUrl: './rehearse-stage.scss',
  host: { '[class.wide]': "tab() === 'circuit' || tab() === 'sweep'" },
})
export class RehearseStage {
  protected readonly open = inject(OpenJob);
  protected readonly session = inject(RehearsalSession);
  protected readonly leads = inject(Leads);
  private readonly preferences = inject(Preferences);
  private readonly router = inject(Router);
  /** Trial to show, and the moment of it, µs; both in the address. */
  readonly trial = input<string>();
  readonly at = input<string>();
  /** Whether the trial runs from its beginning. */
  readonly play = input<string>();
  protected readonly from = signal<'planned' | 'factory' | 'left'>('planned');
  /** The frame gives it the whole height, and lays the pocket over it. */
  readonly bench = true;
  protected readonly tab = signal('lanes');
  protected readonly tabs = [
    { value: 'lanes', name: 'Lanes' },
    { value: 'circuit', name: 'Circuit' },
    { value: 'sweep', name: 'What if it breaks' },
    { value: 'scripts', name: 'Scripts' },
  ];
  /** Acts of the live tests in their order, with what is asked in each: what can be played here first. */
  protected readonly acts = computed(() => {
    const acts: {
      id: string;
      title: string;
      steps: { key: string; do: string; must: string }[];
    }[] = [];
    for (const { step, title, do: does, must } of this.open.derived()?.steps ?? []) {
      if (!step.acts?.length && acts.at(-1)?.id !== step.act) continue;
      if (acts.at(-1)?.id !== step.act) acts.push({ id: step.act ?? '', title, steps: [] });
      acts.at(-1)?.steps.push({ key: step.key, do: does, must });
    }
    return acts;
  });
  protected readonly shownAct = computed(() =>
    this.acts().find((a) => `live.${a.id}` === this.trial()),
  );
  protected readonly nextAct = computed(() => {
    const [acts, shown] = [this.acts(), this.shownAct()];
    return acts[shown ? (acts.indexOf(shown) + 1) % acts.length : 0];
  });
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
    const hz = trace ? valueAt(trace, 'shaft.hz', this.session.nowUs()) : 0;
    if (hz === 0) return 0;
    const { rpmPerHz, slipRpm = 0 } = this.session.opened() ?? {};
    if (rpmPerHz === undefined) return undefined;
    const slip = this.shaft() === 'driven' ? Math.min(slipRpm, Math.abs(hz * rpmPerHz)) : 0;
    return hz * rpmPerHz - Math.sign(hz) * slip;
  });
  /** Whoever asked for less motion sees the speed in numbers alone. */
  protected readonly wheel = computed(() =>
    LESS_MOTION.matches ? '' : `rotate(${(this.session.nowUs() / 1e6) * this.turning() * 0.6}deg)`,
  );
  /** How fast the wheel is drawn turning: the shaft's own speed, in Hz where the pole pairs are not known. */
  protected readonly turning = computed(() => {
    const trace = this.session.trace();
    const hz = trace ? valueAt(trace, 'shaft.hz', this.session.nowUs()) : 0;
    return this.rpm() ?? hz * 30;
  });
  /** State of the shaft, as its code. */
  protected readonly shaft = computed(() => {
    const trace = this.session.trace();
    const states = trace?.signals.find((s) => s.id === 'shaft.state')?.states ?? [];
    return trace ? (states[valueAt(trace, 'shaft.state', this.session.nowUs())] ?? '') : '';
  });
  protected readonly shaftText = computed(() => {
    const state = this.shaft();
    const way = this.turning() > 0.5 ? 'forward' : this.turning() < -0.5 ? 'reverse' : '';
    if (!way) return state === 'held' ? 'stands still, held by the brake' : 'stands still';
    if (state === 'driven') return way;
    const name = this.session.opened()?.names[state] ?? 'stands still';
    return `${name}, ${way}`;
  });
  protected readonly rpmText = computed(() => {
    const rpm = this.rpm();
    return rpm === undefined ? '–' : formatNumber(rpm, 0, this.preferences.decimal());
  });

  protected readonly lanes = computed<readonly LaneSpec[]>(() => {
    const [opened, job] = [this.session.opened(), this.open.job()];
    return opened && job ? laneSpecs(opened, job) : [];
  });

  constructor() {
    effect(() => {
      const job = this.open.job();
      const profile = this.open.profile();
      const from = this.from();
      const left = this.left();
      const trial = this.trial();
      if (!job?.adopted || !profile) return;
      if (trial) return untracked(() => void this.show(job, profile, trial));
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
      keys.on('m', () => {
        if (!this.leads.measure()) document.getElementById('lead-plus')?.focus();
      }),
    ];
    inject(DestroyRef).onDestroy(() => off.forEach((end) => end()));
  }

  /** Shows a trial of the job, standing at the moment it was asked for. */
  private async show(job: Job, profile: Profile, trial: string): Promise<void> {
    await this.session.open(job, profile, { trial }, [], false);
    this.session.seek(Number(this.at() ?? 0));
    if (this.play()) this.session.playing.set(true);
  }

  /** Plays the next act of the live tests as one person does it, from its beginning. */
  protected async playNext(): Promise<void> {
    const next = this.nextAct();
    if (!next) return;
    await this.router.navigate([], { queryParams: { trial: `live.${next.id}`, play: 1 } });
  }

  /** Back to a rehearsal of one's own, from the start. */
  protected async leaveTrial(): Promise<void> {
    this.session.clear();
    await this.router.navigate([], { queryParams: {} });
    this.session.playing.set(true);
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
