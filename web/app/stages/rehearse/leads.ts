import { Injectable, computed, inject, signal } from '@angular/core';
import { landingName } from '@tactron/core/job';
import { voltsAt } from '@tactron/core/trace';
import { OpenJob } from '../../job-state/open-job';
import { RehearsalSession } from './session';

/** What the person points at while rehearsing: two meter leads and one wire. */
@Injectable()
export class Leads {
  private readonly open = inject(OpenJob);
  private readonly session = inject(RehearsalSession);
  readonly plus = signal('');
  readonly minus = signal('');
  readonly wire = signal('');
  readonly landings = computed(() =>
    (this.session.opened()?.landings ?? []).map((id) => ({ id, name: this.name(id) })),
  );

  /** Wires broken at the moment shown: found so, or broken in this rehearsal. */
  readonly broken = computed(() => {
    const broken = new Set<string>(this.session.opened()?.open);
    for (const { t, act } of this.session.log()) {
      if (t > this.session.shownUs()) break;
      if (act.do === 'breakWire') broken.add(act.wire);
      else if (act.do === 'mendWire') broken.delete(act.wire);
    }
    return broken;
  });

  /** A landing as it is marked on the panel: "T1:IN2". */
  name(landing: string): string {
    return landingName(this.open.job()?.adopted?.devices, landing);
  }

  index(landing: string): number {
    return this.session.opened()?.landings.indexOf(landing) ?? -1;
  }

  /** Puts the next lead: the first to a free one, the second beside it, then anew. */
  put(landing: string): void {
    if (!this.plus() || this.minus()) {
      this.plus.set(landing);
      this.minus.set('');
    } else this.minus.set(landing);
  }

  /**
   * Measures at the chosen wire: the first lead goes to its end, the second to what its circuit returns to; once more, and the
   * second goes to its other end. Without a chosen wire nothing is measured.
   *
   * @returns whether a lead was put
   */
  measure(): boolean {
    const opened = this.session.opened();
    const wire = opened?.wires.find((w) => w.id === this.wire());
    if (!opened || !wire) return false;
    const end = opened.landings[wire.to];
    if (this.plus() !== end) {
      this.plus.set(end);
      this.minus.set(this.returnOf(wire.to));
    } else this.minus.set(opened.landings[wire.from]);
    return true;
  }

  /** The device's 0 V where it is joined to that, else earth. */
  private returnOf(landing: number): string {
    const opened = this.session.opened();
    if (!opened) return '';
    const { landings, reference, trace } = opened;
    const joined = voltsAt(trace, landing, reference, this.session.shownUs()) !== null;
    const earth = landings.indexOf('supply:PE');
    return landings[joined || earth < 0 ? reference : earth];
  }

  toggleWire(): void {
    const wire = this.wire();
    if (wire)
      void this.session.act({ do: this.broken().has(wire) ? 'mendWire' : 'breakWire', wire });
  }
}
