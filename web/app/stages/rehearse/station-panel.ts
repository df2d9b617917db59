import { NgTemplateOutlet } from '@angular/common';
import { Component, computed, inject } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import type { ShownDevice } from '../../compute/rehearse.worker';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { valueAt } from './lane-reader';
import { PushButton } from './push-button';
import { RehearsalSession } from './session';

const byTag = (x: ShownDevice, y: ShownDevice): number =>
  x.tag.localeCompare(y.tag, 'en', { numeric: true });

/** Everything a hand, the process and the supply do: switches, buttons, dials, signals, and what lamps and relays show. */
@Component({
  selector: 'tac-station-panel',
  imports: [NgTemplateOutlet, PushButton],
  templateUrl: './station-panel.html',
  styleUrl: './station-panel.scss',
})
export class StationPanel {
  protected readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  private readonly job = inject(OpenJob).job;
  private readonly device = computed(() => this.session.opened()?.device ?? '');
  private readonly devices = computed(() =>
    [...(this.session.opened()?.devices ?? [])].sort(byTag),
  );
  protected readonly supplies = computed(() => this.devices().filter((d) => d.kind === 'power'));
  protected readonly breakers = computed(() =>
    this.devices().filter((d) => d.workedBy === 'supply' && d.positions.length === 2),
  );
  protected readonly buttons = computed(() => this.devices().filter((d) => d.momentary));
  /** Selectors and maintained buttons, the emergency stop before all others. */
  protected readonly hands = computed(() =>
    this.devices()
      .filter((d) => d.positions.length > 1 && !d.momentary && d.workedBy === 'hand')
      .sort((x, y) => Number(y.id === 'estop') - Number(x.id === 'estop')),
  );
  protected readonly process = computed(() =>
    this.devices().filter(
      (d) => d.positions.length > 1 && !d.momentary && d.workedBy === 'process',
    ),
  );
  protected readonly dials = computed(() => [
    ...this.devices()
      .filter((d) => d.kind === 'dial' || d.kind === 'source')
      .map((d) => ({ id: d.id, tag: d.tag, name: d.name, signal: `${d.id}.dial` })),
    ...(this.session.opened()?.panelDial
      ? [
          {
            id: this.device(),
            tag: this.job()?.adopted?.devices[this.device()]?.tag ?? '',
            name: 'Dial of the device',
            signal: '',
          },
        ]
      : []),
  ]);
  protected readonly shows = computed(() =>
    this.devices().flatMap((d) => {
      const signal =
        d.kind === 'load'
          ? `${d.id}.lit`
          : d.kind === 'coil'
            ? `${d.id}.on`
            : d.kind === 'fuse'
              ? `${d.id}.blown`
              : '';
      if (!signal) return [];
      const on = this.at(signal) === 1;
      const words =
        d.id === 'brake'
          ? ['open', 'closed']
          : { load: ['on', 'off'], coil: ['pulled in', 'dropped out'], fuse: ['blown', 'whole'] }[
              d.kind as 'load' | 'coil' | 'fuse'
            ];
      const chatters = d.kind === 'coil' && this.at(`${d.id}.chatters`) === 1;
      return [
        { id: d.id, tag: d.tag, name: d.name, on, text: chatters ? 'chatters' : words[on ? 0 : 1] },
      ];
    }),
  );
  protected readonly supplyOn = computed(() => this.at('supply.on') === 1);
  protected readonly phases = computed(() =>
    this.session.opened()?.landings.includes('supply:L3') ? (['L1', 'L2', 'L3'] as const) : [],
  );
  private readonly lost = computed(() => {
    const lost = new Set<string>();
    for (const { t, act } of this.session.log()) {
      if (t > this.session.shownUs()) break;
      if ((act.do === 'supplyOff' || act.do === 'supplyOn') && act.phase)
        lost[act.do === 'supplyOff' ? 'add' : 'delete'](act.phase);
    }
    return lost;
  });
  /** Where the dial of the device stands: it has no signal of its own. */
  private readonly panelPct = computed(() => {
    const act = this.session
      .log()
      .findLast(
        (l) =>
          l.t <= this.session.shownUs() && l.act.do === 'dial' && l.act.device === this.device(),
      )?.act;
    return act?.do === 'dial' ? act.to * 100 : 0;
  });

  protected at(id: string): number {
    const trace = this.session.trace();
    return trace ? valueAt(trace, id, this.session.shownUs()) : 0;
  }

  protected pct(signal: string): number {
    return signal ? this.at(signal) : this.panelPct();
  }

  protected pctText(signal: string): string {
    return formatNumber(this.pct(signal), 0, this.preferences.decimal());
  }

  protected position(d: ShownDevice): string {
    return d.positions[this.at(`${d.id}.position`)] ?? '';
  }

  /** What a button does, from its role; the kind where the role says no more. */
  protected buttonName(d: ShownDevice): string {
    return d.id.startsWith('button.')
      ? d.id
          .replace(/^button\./u, '')
          .replace('.', ' ')
          .replace(/([A-Z])/gu, ' $1')
          .toLowerCase()
      : d.name.toLowerCase();
  }

  protected push(id: string, down: boolean): void {
    void this.session.act({ do: down ? 'press' : 'release', device: id });
  }

  protected turn(d: ShownDevice, position: string): void {
    if (this.position(d) !== position)
      void this.session.act({ do: 'turn', device: d.id, position });
  }

  protected key(event: KeyboardEvent, d: ShownDevice, position: string): void {
    if (event.key !== ' ' && event.key !== 'Enter') return;
    event.preventDefault();
    this.turn(d, position);
  }

  protected dial(id: string, pct: number): void {
    void this.session.act({ do: 'dial', device: id, to: Math.min(1, Math.max(0, pct / 100)) });
  }

  protected toggleSupply(): void {
    void this.session.act({ do: this.supplyOn() ? 'supplyOff' : 'supplyOn' });
  }

  protected hasPhase(phase: string): boolean {
    return !this.lost().has(phase);
  }

  protected togglePhase(phase: 'L1' | 'L2' | 'L3'): void {
    void this.session.act({ do: this.hasPhase(phase) ? 'supplyOff' : 'supplyOn', phase });
  }

  protected togglePower(d: ShownDevice): void {
    void this.session.act({
      do: this.at(`${d.id}.on`) === 1 ? 'supplyOff' : 'supplyOn',
      device: d.id,
    });
  }

  protected toggleBreaker(d: ShownDevice): void {
    this.turn(d, this.position(d) === 'on' ? 'off' : 'on');
  }
}
