import { Component, computed, inject, input, output, signal } from '@angular/core';
import { shiftEnd, type IsolationState } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';
import { IsolationNow } from './isolation-now';

const two = (x: number): string => String(x).padStart(2, '0');

/** A moment of today or tomorrow at an hour and minute of this device's clock. */
function momentAt(clock: string, now = new Date()): string | undefined {
  const [hour, minute] = clock.split(':').map(Number);
  if (!Number.isInteger(hour) || !Number.isInteger(minute)) return undefined;
  const at = new Date(now);
  at.setHours(hour, minute, 0, 0);
  if (at <= now) at.setDate(at.getDate() + 1);
  return at.toISOString();
}

/** Declares a state of isolation: for DEAD each source with its lock; who holds the keys; until when it stands. */
@Component({
  selector: 'tac-isolation-form',
  template: `
    <form (submit)="declare($event)">
      @if (state() === 'DEAD') {
        @for (s of sources(); track s.tag) {
          <div class="source">
            <label class="tick"
              ><input
                type="checkbox"
                [checked]="ticked()[s.tag] || false"
                (change)="tick(s.tag, $any($event.target).checked)"
              />
              <b class="mono">{{ s.tag }}</b> <span>{{ s.what }}</span></label
            >
            @if (s.locked) {
              <input
                class="field lock"
                maxlength="60"
                placeholder="lock no."
                [attr.aria-label]="'Number of the lock on ' + s.tag"
                [value]="locks()[s.tag] || ''"
                (input)="lock(s.tag, $any($event.target).value)"
              />
            }
          </div>
        } @empty {
          <p class="soft">No plan names the sources here: lock each by your own list.</p>
        }
      } @else {
        <p class="soft">
          {{
            state() === 'CONTROL LIVE'
              ? 'The supplies of the control are on, the main branch is off.'
              : 'The device has its mains.'
          }}
          Everybody at the machine knows.
        </p>
      }
      <div class="more">
        <label class="named"
          >Stands until
          <input
            class="field"
            type="time"
            name="until"
            [value]="until()"
            (input)="until.set($any($event.target).value)"
        /></label>
        @if (state() === 'DEAD') {
          <label class="named"
            >Keys held by, if not you
            <input
              class="field"
              name="holder"
              maxlength="120"
              [value]="holder()"
              (input)="holder.set($any($event.target).value)"
          /></label>
          <label class="named"
            >Permit
            <input
              class="field"
              name="permit"
              maxlength="80"
              [value]="permit()"
              (input)="permit.set($any($event.target).value)"
          /></label>
        }
      </div>
      <button class="act main wide" type="submit" [disabled]="missing() > 0">
        Declare {{ state() }}
      </button>
      @if (missing(); as n) {
        <p class="soft small">{{ n === 1 ? '1 source is' : n + ' sources are' }} not ticked.</p>
      }
    </form>
  `,
  styles: `
    form,
    .more {
      display: grid;
      gap: 12px;
    }
    .more {
      grid-template-columns: repeat(auto-fit, minmax(130px, 1fr));
    }
    p {
      margin: 0;
    }
    .source {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
      justify-content: space-between;
    }
    .tick {
      display: flex;
      flex: 1 1 200px;
      gap: 10px;
      align-items: center;
      min-height: 44px;
      cursor: pointer;
    }
    .tick input {
      flex: none;
      width: 22px;
      height: 22px;
    }
    .lock {
      width: 110px;
    }
    .wide {
      width: 100%;
    }
  `,
})
export class IsolationForm {
  private readonly open = inject(OpenJob);
  private readonly isolation = inject(IsolationNow);
  readonly state = input.required<IsolationState>();
  readonly declared = output();

  protected readonly sources = computed(() => this.open.derived()?.sources ?? []);
  /** As it was declared last: who comes back after a shift finds the locks. */
  private readonly last = computed(() => this.isolation.now()?.declared.body);
  protected readonly ticked = signal<Readonly<Record<string, boolean>>>({});
  private readonly typed = signal<Readonly<Record<string, string>>>({});
  protected readonly locks = computed<Readonly<Record<string, string>>>(() => ({
    ...Object.fromEntries((this.last()?.sources ?? []).map((s) => [s.name, s.lock ?? ''])),
    ...this.typed(),
  }));
  protected readonly until = signal(
    ((end) => `${two(end.getHours())}:${two(end.getMinutes())}`)(shiftEnd(new Date())),
  );
  protected readonly holder = signal('');
  protected readonly permit = signal('');
  protected readonly missing = computed(() =>
    this.state() === 'DEAD' ? this.sources().filter((s) => !this.ticked()[s.tag]).length : 0,
  );

  protected tick(tag: string, on: boolean): void {
    this.ticked.set({ ...this.ticked(), [tag]: on });
  }

  protected lock(tag: string, text: string): void {
    this.typed.set({ ...this.typed(), [tag]: text });
  }

  protected declare(event: Event): void {
    event.preventDefault();
    if (this.missing() > 0) return;
    const [holder, permit] = [this.holder().trim(), this.permit().trim()];
    const until = momentAt(this.until());
    const sources = this.sources().map(({ tag }) => {
      const lock = (this.locks()[tag] ?? '').trim();
      return { name: tag, ...(lock ? { lock } : {}) };
    });
    this.isolation.declare({
      state: this.state(),
      ...(this.state() === 'DEAD' ? { sources } : {}),
      ...(holder ? { holder } : {}),
      ...(permit ? { permit } : {}),
      ...(until ? { until } : {}),
    });
    this.declared.emit();
  }
}
