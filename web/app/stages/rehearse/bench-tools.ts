import { Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { formatNumber } from '@tactron/core/units';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { Preferences } from '../../frame/preferences';
import { Leads } from './leads';
import { voltsAt } from '@tactron/core/trace';
import { RehearsalSession } from './session';

/** The meter and what is put to the circuit: two leads, a wire to break, a bridge, a battery, a calibrator. */
@Component({
  selector: 'tac-bench-tools',
  imports: [Choice, Icon],
  templateUrl: './bench-tools.html',
  styleUrl: './bench-tools.scss',
})
export class BenchTools {
  protected readonly session = inject(RehearsalSession);
  protected readonly leads = inject(Leads);
  private readonly preferences = inject(Preferences);
  protected readonly mode = signal('volts');
  protected readonly modes = [
    { value: 'volts', name: 'V' },
    { value: 'amps', name: 'A in wire' },
    { value: 'ohms', name: 'Ω' },
  ];
  protected readonly put = signal<'volts' | 'amps'>('volts');
  protected readonly value = signal('');
  protected readonly ohms = signal<{ text: string; note: string } | null>(null);

  protected readonly reading = computed(() => {
    const opened = this.session.opened();
    if (!opened) return null;
    if (this.mode() === 'amps') return this.current();
    if (this.mode() === 'ohms') return this.ohms();
    const [plus, minus] = [
      this.leads.index(this.leads.plus()),
      this.leads.index(this.leads.minus()),
    ];
    if (plus < 0 || minus < 0) return { text: '–', note: 'Put both leads.' };
    const v = voltsAt(opened.trace, plus, minus, this.session.shownUs());
    if (!v) return { text: '–', note: 'floating (a meter may show 0 V or ghost volts)' };
    return { text: `${this.n(v.dc, 2)} V DC`, note: `${this.n(v.ac, 1)} V AC` };
  });

  /** What lies between the leads now, put there by hand. */
  protected readonly hooked = computed(() => {
    const [a, b] = [this.leads.plus(), this.leads.minus()];
    const last = this.session
      .log()
      .findLast(
        ({ t, act }) =>
          t <= this.session.shownUs() &&
          act.do === 'hook' &&
          ((act.a === a && act.b === b) || (act.a === b && act.b === a)),
      )?.act;
    return last?.do === 'hook' && last.as !== 'off' ? last.as : null;
  });
  protected readonly bothLeads = computed(
    () =>
      this.leads.plus() !== '' &&
      this.leads.minus() !== '' &&
      this.leads.plus() !== this.leads.minus(),
  );

  constructor() {
    // A resistance is measured anew with every act and every move of a lead.
    effect(() => {
      this.leads.plus();
      this.leads.minus();
      this.session.log();
      if (this.mode() === 'ohms') untracked(() => void this.measureOhms());
    });
  }

  private current(): { text: string; note: string } {
    const opened = this.session.opened();
    const wire = opened?.wires.find((w) => w.id === this.leads.wire());
    if (!opened || !wire) return { text: '–', note: 'Choose a wire.' };
    if (this.leads.broken().has(wire.id))
      return { text: `${this.n(0, 2)} mA`, note: `wire ${wire.number} is broken` };
    const v = voltsAt(opened.trace, wire.from, wire.to, this.session.shownUs());
    if (!v) return { text: `${this.n(0, 2)} mA`, note: `wire ${wire.number}` };
    const alternating = v.ac / wire.ohm;
    return {
      text: `${this.n((v.dc / wire.ohm) * 1000, 2)} mA DC`,
      note: `wire ${wire.number}${alternating > 1e-3 ? `, ${this.n(alternating, 3)} A AC` : ''}`,
    };
  }

  private async measureOhms(): Promise<void> {
    const [plus, minus] = [
      this.leads.index(this.leads.plus()),
      this.leads.index(this.leads.minus()),
    ];
    if (plus < 0 || minus < 0) return this.ohms.set({ text: '–', note: 'Put both leads.' });
    const r = await this.session.ohms(plus, minus);
    if (!r.ok)
      return this.ohms.set({
        text: '–',
        note:
          r.why === 'live'
            ? 'Refused: something is live. Switch off every supply, prove dead, then measure.'
            : 'Both leads lie on one landing.',
      });
    if (r.ohm === null) return this.ohms.set({ text: 'open', note: 'nothing joins them' });
    const kilo = r.ohm >= 1000;
    this.ohms.set({
      text: `${this.n(kilo ? r.ohm / 1000 : r.ohm, kilo ? 2 : r.ohm < 10 ? 2 : 1)} ${kilo ? 'kΩ' : 'Ω'}`,
      note: r.ohm < 2 ? 'continuity' : '',
    });
  }

  /** Position of a link at the moment shown: as laid, or as it was last set by hand. */
  protected linkAt(id: string, laid: string): string {
    const act = this.session
      .log()
      .findLast(
        (l) => l.t <= this.session.shownUs() && l.act.do === 'link' && l.act.link === id,
      )?.act;
    return act?.do === 'link' ? act.position : laid;
  }

  protected bridge(): void {
    void this.session.hook(
      this.leads.plus(),
      this.leads.minus(),
      this.hooked() === 'short' ? 'off' : 'short',
    );
  }

  protected source(): void {
    const value = Number(this.value().replace(',', '.'));
    if (!Number.isFinite(value) || this.value().trim() === '') return;
    void this.session.hook(
      this.leads.plus(),
      this.leads.minus(),
      this.put(),
      this.put() === 'amps' ? value / 1000 : value,
    );
  }

  protected take(): void {
    void this.session.hook(this.leads.plus(), this.leads.minus(), 'off');
  }

  private n(x: number, digits: number): string {
    return formatNumber(
      Math.abs(x) < 0.5 * 10 ** -digits ? 0 : x,
      digits,
      this.preferences.decimal(),
    );
  }
}
