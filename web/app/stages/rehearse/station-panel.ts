import { Component, computed, inject, signal } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import type { ShownDevice } from '../../compute/rehearse.worker';
import { Preferences } from '../../frame/preferences';
import { OpenJob } from '../../job-state/open-job';
import { DialFace } from './faces/dial-face';
import { functionOf, lookOf, stationRank } from './faces/face-look';
import { PushButton } from './faces/push-button';
import { SwitchFace } from './faces/switch-face';
import { valueAt } from './lane-reader';
import { byTag } from './by-tag';
import { RehearsalSession } from './session';

/** Everything a hand and the process do, with true faces: switches, buttons, dials, signals, and what lamps and relays show. */
@Component({
  selector: 'tac-station-panel',
  imports: [DialFace, PushButton, SwitchFace],
  templateUrl: './station-panel.html',
  styleUrl: './station-panel.scss',
})
export class StationPanel {
  protected readonly session = inject(RehearsalSession);
  private readonly preferences = inject(Preferences);
  private readonly job = inject(OpenJob).job;
  private readonly device = computed(() => this.session.opened()?.device ?? '');
  private readonly devices = computed(() => [...this.session.devices()].sort(byTag));
  protected readonly functionOf = functionOf;
  protected readonly lookOf = lookOf;
  /** A press stays in until the next one: for a second hand that is not there. */
  protected readonly latches = signal(false);
  /** Stop before start, as they stand on a station; then what is only held. */
  protected readonly buttons = computed(() =>
    this.devices()
      .filter((d) => d.momentary)
      .sort((x, y) => stationRank(x) - stationRank(y)),
  );
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
  /** What lights, sounds or holds: seen by a person at the station or at the machine. */
  protected readonly lamps = computed(() =>
    this.devices()
      .filter((d) => d.kind === 'load' || d.id === 'brake')
      .map((d) => {
        const on = this.at(`${d.id}.lit`) === 1 || this.at(`${d.id}.on`) === 1;
        const [yes, no] = d.id === 'brake' ? ['open', 'closed'] : ['on', 'off'];
        return { id: d.id, tag: d.tag, function: functionOf(d), on, text: on ? yes : no };
      }),
  );
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

  protected push(id: string, down: boolean): void {
    void this.session.act({ do: down ? 'press' : 'release', device: id });
  }

  protected turn(d: ShownDevice, position: string): void {
    if (this.position(d) !== position)
      void this.session.act({ do: 'turn', device: d.id, position });
  }

  protected dial(id: string, pct: number): void {
    void this.session.act({ do: 'dial', device: id, to: Math.min(1, Math.max(0, pct / 100)) });
  }
}
