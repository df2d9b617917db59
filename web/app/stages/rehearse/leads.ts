import { Injectable, computed, inject, signal } from '@angular/core';
import { landingParts } from '@tactron/core/job';
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

  /** Wires broken at the moment shown. */
  readonly broken = computed(() => {
    const broken = new Set<string>();
    for (const { t, act } of this.session.log()) {
      if (t > this.session.shownUs()) break;
      if (act.do === 'breakWire') broken.add(act.wire);
      else if (act.do === 'mendWire') broken.delete(act.wire);
    }
    return broken;
  });

  /** A landing as it is marked on the panel: "T1:IN2". */
  name(landing: string): string {
    const { device, terminal } = landingParts(landing);
    return `${this.open.job()?.adopted?.devices[device]?.tag ?? device}:${terminal}`;
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

  toggleWire(): void {
    const wire = this.wire();
    if (wire)
      void this.session.act({ do: this.broken().has(wire) ? 'mendWire' : 'breakWire', wire });
  }
}
