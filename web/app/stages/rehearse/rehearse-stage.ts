import { Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { landingParts, type Job } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { Keys } from '../../frame/keys';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { valueAt, voltsBetween } from './lane-reader';
import { Lanes, type LaneSpec } from './lanes';
import { PushButton } from './push-button';
import { SweepPanel } from './sweep-panel';
import { RehearsalSession, type SettingsChoice } from './session';

const whyNot: Readonly<Record<string, string>> = {
  off: 'The drive has no supply.', poweringUp: 'The drive is still powering up.', noMains: 'The main supply is away.', faulted: 'A fault is stored. Remove its cause, then reset.',
  enableOpen: 'The enable is open.', blocked: 'A start is given but not followed: the reference is zero, or a new start is needed (open the contact, close it again).', ready: 'Ready: no start is given.',
}; // prettier-ignore

/** The station to press, the device with every voltage, the motor, and signals over time. */
@Component({
  selector: 'tac-rehearse-stage',
  imports: [Choice, Icon, Lanes, PushButton, SweepPanel],
  providers: [RehearsalSession],
  templateUrl: './rehearse-stage.html',
  styleUrl: './rehearse-stage.scss',
})
export class RehearseStage {
  protected readonly open = inject(OpenJob);
  protected readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  protected readonly from = signal<'planned' | 'factory' | 'left'>('planned');
  protected readonly wire = signal('');
  protected readonly plus = signal('');
  protected readonly minus = signal('');
  protected readonly scriptName = signal('');
  protected readonly rates = [
    { value: '0.1', name: '⅒ speed' },
    { value: '1', name: 'real time' },
    { value: '4', name: '4 ×' },
  ];

  protected readonly left = computed(() => {
    const snapshot = this.open.evidence().findLast((e) => e.kind === 'snapshot' && e.body.which === 'asLeft');
    return snapshot?.kind === 'snapshot' ? { id: snapshot.id, values: snapshot.body.values } : null;
  });
  protected readonly sources = computed(() => [{ value: 'planned', name: 'planned' }, { value: 'factory', name: 'factory' }, ...(this.left() ? [{ value: 'left', name: 'as left' }] : [])]); // prettier-ignore
  protected readonly scripts = computed(() => Object.entries(this.open.job()?.scripts ?? {}).map(([id, s]) => ({ id, ...s })).sort((x, y) => x.ord - y.ord)); // prettier-ignore

  protected readonly station = computed(() => this.session.opened()?.devices ?? []);
  protected readonly hands = computed(() => this.station().filter((d) => d.kind === 'contacts' && !d.momentary && d.id !== 'breaker'));
  protected readonly buttons = computed(() =>
    this.station()
      .filter((d) => d.momentary)
      .sort((x, y) => x.tag.localeCompare(y.tag, 'en', { numeric: true })),
  );
  protected readonly dials = computed(() => this.station().filter((d) => d.kind === 'dial'));
  protected readonly brokenWires = computed(() => {
    const broken = new Set<string>();
    for (const { t, act } of this.session.log()) {
      if (t > this.session.nowUs()) break;
      if (act.do === 'breakWire') broken.add(act.wire);
      else if (act.do === 'mendWire') broken.delete(act.wire);
    }
    return broken;
  });
  protected readonly supplyOn = computed(() => this.at('supply.on') === 1);
  protected readonly breakerOn = computed(() => this.at('breaker.position') === 1);
  protected readonly hz = computed(() => this.at('drive.hz'));
  protected readonly state = computed(() => {
    const trace = this.session.trace();
    const names = trace?.signals.find((s) => s.id === 'drive.state')?.states ?? [];
    return names[this.at('drive.state')] ?? 'off';
  });
  protected readonly stateText = computed(() => this.session.opened()?.names[this.state()] ?? this.state());
  protected readonly why = computed(() => whyNot[this.state()] ?? '');
  protected readonly rpm = computed(() => (this.at('drive.shaftHz') * 60) / (this.session.opened()?.polePairs ?? 2));
  protected readonly volts = computed(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const now = this.session.nowUs();
    const of = (device: string) => opened.landings.map((landing, i) => ({ landing, i, ...landingParts(landing) })).filter((l) => l.device === device); // prettier-ignore
    const tags = this.open.job()?.adopted?.devices ?? {};
    return Object.keys(tags)
      .filter((id) => !['motor', 'supply', 'breaker'].includes(id))
      .map((id) => ({
        id,
        tag: tags[id].tag,
        landings: of(id)
          .filter((l) => id !== 'drive' || !this.powerTerminal(l.terminal))
          .map((l) => ({ name: l.terminal, landing: l.landing, text: this.voltText(l.i, opened.reference, now), on: this.inputOn(l.landing) })),
      }))
      .sort((x, y) => Number(y.id === 'drive') - Number(x.id === 'drive'));
  });
  protected readonly powerVolts = computed(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const now = this.session.nowUs();
    const tags = this.open.job()?.adopted?.devices ?? {};
    return opened.landings.flatMap((landing, i) => {
      const { device, terminal } = landingParts(landing);
      const shown = ['supply', 'breaker'].includes(device) || (device === 'drive' && this.powerTerminal(terminal));
      return shown ? [{ landing, name: `${tags[device]?.tag}:${terminal}`, text: this.voltText(i, opened.reference, now) }] : [];
    });
  });
  protected readonly meter = computed(() => {
    const opened = this.session.opened();
    const [plus, minus] = [this.plus(), this.minus()].map((name) => opened?.landings.indexOf(name) ?? -1);
    if (!opened || plus < 0 || minus < 0) return null;
    const v = voltsBetween(opened.trace, plus, minus, this.session.nowUs());
    const mark = this.preferences.decimal();
    return v ? { dc: `${formatNumber(v.dc, 2, mark)} V DC`, ac: `${formatNumber(v.ac, 1, mark)} V AC`, floating: false } : { dc: '–', ac: '–', floating: true };
  });
  protected readonly lanes = computed<readonly LaneSpec[]>(() => {
    const opened = this.session.opened();
    if (!opened) return [];
    const maxHz = this.open.job()?.scheme.maxHz ?? 50;
    const lowHz = this.open.job()?.scheme.direction === 'forwardReverse' ? -maxHz : 0;
    const used = new Set(Object.values(this.open.job()?.adopted?.assignments ?? {}).map((a) => `drive.${landingParts(a.at).terminal}`));
    const tag = (id: string): string => this.open.job()?.adopted?.devices[id]?.tag ?? id;
    const states = opened.trace.signals.find((s) => s.id === 'drive.state')?.states?.map((s) => opened.names[s] ?? s) ?? [];
    return [
      { id: 'drive.hz', name: 'Output', unit: 'Hz', low: lowHz, high: maxHz },
      { id: 'drive.state', name: 'State', unit: '', low: 0, high: states.length - 1, states },
      ...[...this.buttons(), ...this.hands()].map((d) => ({
        id: `${d.id}.position`,
        name: tag(d.id),
        unit: '',
        low: 0,
        high: d.positions.length - 1,
        states: d.positions,
      })),
      ...opened.trace.signals.filter((s) => used.has(s.id)).map((s) => ({ id: s.id, name: s.id.replace('drive.', 'Input '), unit: '', low: 0, high: 1 })),
      { id: 'supply.on', name: 'Supply', unit: '', low: 0, high: 1 },
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
      const source: SettingsChoice = from === 'left' && left ? left : from === 'factory' ? 'factory' : 'planned';
      untracked(() => {
        const fresh = !this.session.opened();
        void this.session.open(job, profile, source, this.session.log(), !fresh).then(() => {
          if (fresh && this.session.log().length === 0 && !this.plus()) this.plant(job);
        });
      });
    });
    const keys = inject(Keys);
    const off = [
      keys.on('p', () => this.toggleSupply()),
      keys.on('b', () => this.toggleWire()),
      keys.on('m', () => document.getElementById('lead-plus')?.focus()),
    ];
    inject(DestroyRef).onDestroy(() => off.forEach((end) => end()));
  }

  protected at(id: string): number {
    const trace = this.session.trace();
    return trace ? valueAt(trace, id, this.session.nowUs()) : 0;
  }

  protected position(id: string): string {
    return this.hands().find((d) => d.id === id)?.positions[this.at(`${id}.position`)] ?? '';
  }

  /** What a button of the station does, from its role. */
  protected buttonName(id: string): string {
    return id.replace(/^button\./u, '').replace(/([A-Z])/gu, ' $1').toLowerCase(); // prettier-ignore
  }

  protected push(id: string, down: boolean): void {
    void this.session.act({ do: down ? 'press' : 'release', device: id });
  }

  protected turn(id: string, position: string): void {
    if (this.position(id) !== position) void this.session.act({ do: 'turn', device: id, position });
  }

  protected key(event: KeyboardEvent, id: string, position: string): void {
    if (event.key !== ' ' && event.key !== 'Enter') return;
    event.preventDefault();
    this.turn(id, position);
  }

  protected dial(id: string, pct: number): void {
    void this.session.act({ do: 'dial', device: id, to: Math.min(1, Math.max(0, pct / 100)) });
  }

  protected toggleSupply(): void {
    void this.session.act({ do: this.supplyOn() ? 'supplyOff' : 'supplyOn' });
  }

  protected toggleBreaker(): void {
    void this.session.act({ do: 'turn', device: 'breaker', position: this.breakerOn() ? 'off' : 'on' });
  }

  protected toggleWire(): void {
    const wire = this.wire();
    if (wire) void this.session.act({ do: this.brokenWires().has(wire) ? 'mendWire' : 'breakWire', wire });
  }

  protected reset(down: boolean): void {
    void this.session.act({ do: 'key', key: 'reset', down });
  }

  protected lead(landing: string): void {
    if (!this.plus() || this.minus()) {
      this.plus.set(landing);
      this.minus.set('');
    } else this.minus.set(landing);
  }

  protected keep(): void {
    const name = this.scriptName().trim() || `Script ${this.scripts().length + 1}`;
    const { id, script } = this.session.script(name, this.scripts().length + 1);
    this.open.edit('script kept', (draft: Job) => void (draft.scripts[id] = script));
    this.scriptName.set('');
  }

  protected play(id: string): void {
    const script = this.open.job()?.scripts[id];
    if (script) this.session.restart(script.acts.map((act) => ({ t: Math.round(act.atMs * 1000), act })));
  }

  protected drop(id: string): void {
    this.open.edit('script removed', (draft: Job) => void delete draft.scripts[id]);
  }

  protected round(x: number, digits = 1): string {
    return formatNumber(x, digits, this.preferences.decimal());
  }

  private powerTerminal(terminal: string): boolean {
    return ['mains', 'motor', 'power'].includes(this.open.profile()?.terminals[terminal]?.kind ?? '');
  }

  /** First look: the meter across the first input and its common. */
  private plant(job: Job): void {
    const input = Object.values(job.adopted?.assignments ?? {})[0]?.at;
    const common = this.session.opened()?.landings.find((l) => this.open.profile()?.terminals[landingParts(l).terminal]?.kind === 'inputCommon');
    if (input) this.plus.set(input);
    if (common) this.minus.set(common);
  }

  private inputOn(landing: string): boolean {
    const { device, terminal } = landingParts(landing);
    return device === 'drive' && this.session.trace()?.signals.some((s) => s.id === `drive.${terminal}`) === true && this.at(`drive.${terminal}`) === 1;
  }

  private voltText(landing: number, reference: number, now: number): string {
    const opened = this.session.opened();
    if (!opened) return '';
    const mark = this.preferences.decimal();
    const v = voltsBetween(opened.trace, landing, reference, now);
    if (v) return v.ac > 1 ? `${formatNumber(v.ac, 0, mark)} V~` : `${formatNumber(v.dc, 2, mark)} V`;
    const earth = opened.landings.indexOf('supply:PE');
    const against = earth >= 0 ? voltsBetween(opened.trace, landing, earth, now) : null;
    return against && against.ac > 1 ? `${formatNumber(against.ac, 0, mark)} V~` : '– floating';
  }
}
