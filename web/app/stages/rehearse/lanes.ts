import { Component, computed, inject, input, signal } from '@angular/core';
import type { Act } from '@tactron/core/job';
import { formatNumber } from '@tactron/core/units';
import { Icon } from '../../controls/icon';
import { Preferences } from '../../frame/preferences';
import { Fingers } from './fingers';
import { lanePath, laneY, valueAt } from './lane-reader';
import { Leads } from './leads';
import { RehearsalSession } from './session';

export interface LaneSpec {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly low: number;
  readonly high: number;
  readonly states?: readonly string[];
  /** What it belongs to: said once, at the first lane of each. */
  readonly group?: string;
  /** Values at which something happens, in a word. */
  readonly limits?: readonly { readonly at: number; readonly text: string }[];
}

const WIDTH = 800;
const HEIGHT = 40;
/** Rows of act names above the lanes, and the width of a letter there in the units of the drawing. */
const TICK_ROWS = 3;
const TICK_LETTER = 8;
const SPANS_S = [0.1, 0.5, 2, 5, 10, 20, 60, 180];

/** A hand on a dial is still turning it, µs: one tick for the whole turn. */
const TURN_US = 500_000;

type Logged = { readonly t: number; readonly act: Act };

/** Whether the next act only turns the same dial further. */
const goesOn = ({ t, act }: Logged, next: Logged | undefined): boolean =>
  act.do === 'dial' &&
  next?.act.do === 'dial' &&
  next.act.device === act.device &&
  next.t - t < TURN_US;

/** Signals over time: zoomed and moved, with a cursor, differences and marks; a table of the values at the cursor beside it. */
@Component({
  selector: 'tac-lanes',
  imports: [Icon],
  templateUrl: './lanes.html',
  styleUrl: './lanes.scss',
})
export class Lanes {
  readonly specs = input.required<readonly LaneSpec[]>();
  protected readonly session = inject(RehearsalSession);
  private readonly leads = inject(Leads);
  private readonly preferences = inject(Preferences);
  private readonly fingers = new Fingers();
  protected readonly width = WIDTH;
  protected readonly spanS = signal(10);
  protected readonly cursorUs = signal<number | null>(null);
  /** Marks the person set, and whether acts are marked too. */
  protected readonly marks = signal<readonly number[]>([]);
  /** Right edge where the window was moved by hand; null while it follows. */
  private readonly held = signal<number | null>(null);

  /** Right edge of the window: at most ten new pictures a second. */
  private readonly edgeUs = computed(() => {
    const follow = Math.ceil(this.session.shownUs() / 100_000) * 100_000;
    return Math.max(
      this.held() ?? (this.spanS() < 1 ? this.session.shownUs() : follow),
      this.spanS() * 1e6,
    );
  });
  private readonly fromUs = computed(() => this.edgeUs() - this.spanS() * 1e6);

  protected readonly drawn = computed(() => {
    const trace = this.session.trace();
    const now = this.session.shownUs();
    const [from, edge] = [this.fromUs(), this.edgeUs()];
    if (!trace) return [];
    const [at, cursor] = [now, this.cursorUs()];
    const share = Math.min(1, Math.max(0, (now - from) / (edge - from)));
    return this.specs().map((spec, i, all) => {
      const value = valueAt(trace, spec.id, at);
      const there = cursor === null ? null : valueAt(trace, spec.id, cursor);
      const difference =
        there !== null && spec.unit !== ''
          ? ` Δ ${formatNumber(value - there, 1, this.preferences.decimal())}`
          : '';
      return {
        spec,
        first: spec.group !== undefined && spec.group !== all[i - 1]?.group,
        path: lanePath(
          trace,
          spec.id,
          from,
          Math.max(from + 1, Math.min(now, edge)),
          WIDTH * share,
          HEIGHT,
          spec.low,
          spec.high,
        ),
        limits: (spec.limits ?? []).map(({ at: v, text }) => ({
          y: laneY(v, spec.low, spec.high, HEIGHT),
          text: `${text} ${formatNumber(v, 0, this.preferences.decimal())}`,
        })),
        text: this.text(spec, value),
        there: there === null ? '' : this.text(spec, there),
        difference,
      };
    });
  });

  protected readonly cursorX = computed(() => this.x(this.cursorUs()));
  /** Acts and the person's marks within the window; acts that come close together share one tick. */
  protected readonly ticks = computed(() => {
    const now = this.session.shownUs();
    const from = this.fromUs();
    // A dial that is drawn leaves hundreds of acts: only those in the window are put into words.
    const acts = this.session
      .log()
      .filter(({ t }, i, all) => t <= now && t >= from && !goesOn(all[i], all[i + 1]))
      .map(({ t, act }) => ({ t, text: this.actText(act), own: false }));
    const own = this.marks().map((t, i) => ({ t, text: `mark ${i + 1}`, own: true }));
    const seen: { x: number; text: string; own: boolean; t: number; row: number }[] = [];
    const ends = Array<number>(TICK_ROWS).fill(-Infinity);
    for (const tick of [...acts, ...own].sort((p, q) => p.t - q.t)) {
      const x = this.x(tick.t);
      if (x === null || !tick.text) continue;
      const row = ends.findIndex((end) => end <= x);
      const last = seen[seen.length - 1];
      if (row < 0 && last) last.text = `${last.text}, …`.replace(/(, …)+$/u, ', …');
      else {
        seen.push({ ...tick, x, row });
        ends[row] = x + 8 + tick.text.length * TICK_LETTER;
      }
    }
    return seen;
  });

  /** Rows of act names that are used now. */
  protected readonly tickRows = computed(() => Math.max(1, ...this.ticks().map((t) => t.row + 1)));
  /** Times below the acts. */
  protected readonly scale = computed(() =>
    [0, 0.25, 0.5, 0.75, 1].map((share) => ({
      at: share * 100,
      text: `${formatNumber(
        (this.fromUs() + share * this.spanS() * 1e6) / 1e6,
        this.spanS() < 2 ? 2 : 1,
        this.preferences.decimal(),
      )} s`,
    })),
  );

  /** The wheel zooms; with Shift, or moved sideways, it goes earlier and later. */
  protected wheel(event: WheelEvent): void {
    const sideways = Math.abs(event.deltaX) > Math.abs(event.deltaY);
    if (!event.shiftKey && !event.ctrlKey && !sideways && !event.altKey) {
      // Where the lanes themselves scroll, the plain wheel is theirs.
      const field = event.currentTarget as Element;
      if (field.scrollHeight > field.clientHeight + 1) return;
    }
    event.preventDefault();
    const by = sideways ? event.deltaX : event.deltaY;
    if (event.shiftKey || sideways) this.move(Math.sign(by) * 0.1);
    else this.zoom(by < 0);
  }

  protected key(event: KeyboardEvent): void {
    switch (event.key) {
      case '+':
      case '-':
        this.zoom(event.key === '+');
        break;
      case 'ArrowLeft':
      case 'ArrowRight':
        this.move(event.key === 'ArrowLeft' ? -0.25 : 0.25);
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }

  private x(us: number | null): number | null {
    if (us === null || us < this.fromUs() || us > this.edgeUs()) return null;
    return ((us - this.fromUs()) / (this.spanS() * 1e6)) * WIDTH;
  }

  protected down(event: PointerEvent): void {
    if (event.pointerType === 'touch') {
      // What was touched may be drawn anew under the finger: its events are to come here all the same.
      (event.currentTarget as Element).setPointerCapture(event.pointerId);
      this.fingers.down(event.pointerId, { x: event.clientX, y: event.clientY }, event.isPrimary);
    }
    this.place(event);
  }

  /** Fingers that spread or close zoom, one that goes sideways moves. */
  protected finger(event: PointerEvent): void {
    const { width } = (event.currentTarget as Element).getBoundingClientRect();
    const asked = this.fingers.move(event.pointerId, { x: event.clientX, y: event.clientY }, width);
    if (asked?.does === 'zoom') this.zoom(asked.closer);
    else if (asked) this.move(asked.share);
  }

  protected lift(event: PointerEvent): void {
    this.fingers.up(event.pointerId);
  }

  private place(event: PointerEvent): void {
    const svg = (event.target as Element).closest('svg');
    if (!svg) return;
    const box = svg.getBoundingClientRect();
    const t = this.fromUs() + this.spanS() * 1e6 * ((event.clientX - box.left) / box.width);
    this.cursorUs.set(Math.min(Math.max(0, Math.round(t)), this.session.nowUs()));
  }

  protected zoom(closer: boolean): void {
    const at = SPANS_S.indexOf(this.spanS());
    this.spanS.set(SPANS_S[Math.min(SPANS_S.length - 1, Math.max(0, at + (closer ? -1 : 1)))]);
    const middle = this.cursorUs();
    if (closer && middle !== null) this.held.set(middle + (this.spanS() * 1e6) / 2);
  }

  protected move(share: number): void {
    this.held.set(Math.max(this.spanS() * 1e6, this.edgeUs() + share * this.spanS() * 1e6));
  }

  protected follow(): void {
    this.held.set(null);
  }

  protected readonly following = computed(() => this.held() === null);

  protected mark(): void {
    const at = this.cursorUs() ?? this.session.shownUs();
    this.marks.update((list) => [...list, at].sort((x, y) => x - y));
  }

  protected drop(at: number): void {
    this.marks.update((list) => list.filter((_, i) => i !== at));
  }

  /** Takes the rehearsal back to the cursor: the next act goes on from there. */
  protected back(): void {
    const at = this.cursorUs();
    if (at !== null) this.session.seek(at);
  }

  protected clock(us: number): string {
    return `${formatNumber(us / 1e6, 3, this.preferences.decimal())} s`;
  }

  private actText(act: Act): string {
    const tag =
      'device' in act && act.device ? this.leads.name(`${act.device}:`).replace(/:$/u, '') : '';
    switch (act.do) {
      case 'supplyOn':
        return `${tag || act.phase || 'supply'} on`;
      case 'supplyOff':
        return `${tag || act.phase || 'supply'} off`;
      case 'press':
        return `${tag} in`;
      case 'release':
        return `${tag} out`;
      case 'turn':
        return `${tag} ${act.position}`;
      case 'dial':
        return `${tag} ${Math.round(act.to * 100)} %`;
      case 'breakWire':
        return 'wire broken';
      case 'mendWire':
        return 'wire mended';
      case 'hook':
        return act.as === 'off' ? 'bridge off' : act.as;
      case 'link':
        return `${act.link} ${act.position}`;
      case 'key':
        return act.down ? `key ${act.key}` : '';
    }
  }

  private text(spec: LaneSpec, value: number): string {
    if (spec.states) return spec.states[value] ?? '';
    if (spec.unit === '') return value >= 0.5 ? 'on' : 'off';
    return `${formatNumber(value, 1, this.preferences.decimal())} ${spec.unit}`;
  }
}
