import {
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { landingParts, sizeText, tickOf, type AdoptedWire, type Job } from '@tactron/core/job';
import { valueIn } from '@tactron/core/units';
import { AttachmentRow } from '../../attachments/attachment-row';
import { Compute } from '../../compute/compute';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { ShowMe } from '../../controls/show-me';
import { CircuitView } from '../../drawings/circuit-view';
import { ConnectionView, type MovedEnd } from '../../drawings/connection-view';
import { Drawings } from '../../drawings/drawings';
import { OpenJob } from '../../job-state/open-job';
import { AsUsed } from './as-used';

interface WireRow {
  readonly id: string;
  readonly wire: AdoptedWire;
  readonly from: string;
  readonly to: string;
  readonly size: string;
  readonly does: string;
  /** The conductor as it was really taken, where that is not as planned. */
  readonly used: NonNullable<Job['asUsed']>[string];
  /** Ferrule, strip length, torque. */
  readonly fit: string;
  /** Who landed it, and when; empty while it is to do. */
  readonly landed: string;
  readonly stale: boolean;
}

/** Width of the circuit diagram beside the frame, in its units. */
const CIRCUIT_WIDTH = 1200;

const inNumbers = (x: string, y: string): number => x.localeCompare(y, 'en', { numeric: true });

const isPower = ({ class: kind }: AdoptedWire): boolean =>
  kind === 'mains' || kind === 'neutral' || kind === 'motor' || kind === 'pe';

/** Terminal row, station and wires; the schedule with the same selection; wire ends moved by drag or keyboard. */
@Component({
  selector: 'tac-land-stage',
  imports: [AsUsed, AttachmentRow, Choice, CircuitView, ConnectionView, Icon, RouterLink, ShowMe],
  templateUrl: './land-stage.html',
  styleUrl: './land-stage.scss',
})
export class LandStage {
  protected readonly open = inject(OpenJob);
  private readonly compute = inject(Compute);
  protected readonly view = signal<'control' | 'power' | 'circuit'>('control');
  protected readonly views = [
    { value: 'control', name: 'Control wires' },
    { value: 'power', name: 'Power wires' },
    { value: 'circuit', name: 'Circuit diagram' },
  ];
  /** Wire to choose, in the address: from elsewhere one comes to it. */
  readonly wire = input<string>();
  protected readonly selected = linkedSignal<string | null>(() => this.wire() ?? null);
  protected readonly why = signal('');
  protected readonly refused = signal<string | null>(null);
  protected readonly job = computed(() => this.open.job() as Job);
  private readonly drawings = inject(Drawings);
  protected readonly connections = this.drawings.connections();
  protected readonly circuit = this.drawings.circuit('planned', CIRCUIT_WIDTH);
  /** Connection drawing that is shown; none while the circuit diagram is. */
  protected readonly drawing = computed(() => {
    const view = this.view();
    return view === 'circuit' ? null : (this.connections.drawing()?.[view] ?? null);
  });
  protected readonly rows = computed<readonly WireRow[]>(() => {
    const { adopted } = this.job();
    const view = this.view();
    return Object.entries(adopted?.wires ?? {})
      .filter(([, w]) => view === 'circuit' || isPower(w) === (view === 'power'))
      .sort(
        ([, x], [, y]) => inNumbers(this.place(x), this.place(y)) || inNumbers(x.number, y.number),
      )
      .map(([id, wire]) => ({
        id,
        wire,
        from: this.name(wire.from),
        to: this.name(wire.to),
        size: sizeText(wire.size),
        does: this.does(id, wire),
        landed: this.lineOf(id)?.landed ?? '',
        stale: this.lineOf(id)?.stale === true,
        used: this.job().asUsed?.[id] ?? {},
        fit: this.lineOf(id)?.fit ?? '',
      }));
  });
  protected readonly order = signal<'number' | 'device' | 'cable'>('number');
  protected readonly orders = [
    { value: 'number', name: 'by number' },
    { value: 'device', name: 'by device' },
    { value: 'cable', name: 'by cable' },
  ];
  protected readonly toFit = computed(() => this.open.derived()?.toFit);
  protected readonly hand = computed(() => this.open.derived()?.hand ?? []);
  protected readonly landed = computed(() => this.hand().filter((l) => l.landed).length);
  /** Wires by cable, those inside the panel last: what one touch may cover. */
  protected readonly cables = computed(() => {
    const names = [...new Set(this.hand().map((l) => l.cable))].sort((x, y) =>
      x === '' ? 1 : y === '' ? -1 : x.localeCompare(y, 'en', { numeric: true }),
    );
    return names.map((name) => {
      const own = this.hand().filter((l) => l.cable === name);
      return {
        name,
        title: name === '' ? 'Wires in the panel' : `Cable ${name}`,
        ids: own.map((l) => l.id),
        landed: own.filter((l) => l.landed).length,
      };
    });
  });
  protected readonly chosen = computed(() => this.rows().find((row) => row.id === this.selected()));
  /** Terminals to which a wire end can be moved: those of the drawing in which the chosen wire is. */
  protected readonly targets = computed(() => {
    const wire = this.chosen()?.wire;
    const all = this.open.derived()?.landings;
    const landings = wire && all ? all[isPower(wire) ? 'power' : 'control'] : [];
    return landings.map((landing) => ({ landing, name: this.name(landing) }));
  });
  protected readonly titles = computed(() => {
    const landings = this.drawing()?.boxes.flatMap((b) => b.rows.map((r) => r.landing)) ?? [];
    return Object.fromEntries(landings.map((l) => [l, `${this.name(l)} ${this.task(l)}`]));
  });
  /** Links of the device as the plan wants them: nothing planned stays untold. */
  protected readonly links = computed(() => this.open.derived()?.links ?? []);
  protected readonly asBuilt = computed(() => this.open.derived()?.asBuilt ?? []);
  protected readonly decisions = computed(() => {
    const { pins, wires } = this.job().decisions;
    return [
      ...Object.entries(pins).map(([id, d]) => ({
        id,
        kind: 'pins' as const,
        text: `${this.functionName(id)} on ${this.name(d.at)}`,
        why: d.why,
      })),
      ...Object.entries(wires).map(([id, d]) => ({
        id,
        kind: 'wires' as const,
        text: `wire ${this.job().adopted?.wires[id]?.number ?? id}: ${[d.from, d.to]
          .filter((x) => x !== undefined)
          .map((x) => this.name(x))
          .join(' → ')}`,
        why: d.why,
      })),
    ];
  });
  protected readonly findings = computed(() =>
    (this.open.derived()?.findings ?? []).filter((f) =>
      f.finding.where.some((w) => w.kind === 'landing' || w.kind === 'wire'),
    ),
  );

  constructor() {
    effect(() => {
      const wire = this.job().adopted?.wires[this.wire() ?? ''];
      if (wire) untracked(() => this.view.set(isPower(wire) ? 'power' : 'control'));
    });
  }

  /** Where a wire stands in the list: with the device at which a person works, with its cable, or nowhere. */
  private place({ from, to, cable }: AdoptedWire): string {
    const order = this.order();
    if (order === 'cable') return cable ?? '~';
    if (order === 'number') return '';
    const { adopted } = this.job();
    const ends = [to, from].map((end) => landingParts(end).device);
    const at = ends.find((id) => id !== adopted?.device) ?? ends[0];
    return adopted?.devices[at]?.tag ?? at;
  }

  private lineOf(id: string) {
    return this.hand().find((l) => l.id === id);
  }

  /** Ticks wires as landed, or takes the tick back; what is ticked already is left as it is. */
  protected tick(ids: readonly string[], by: 'line' | 'cable', undone: boolean): void {
    const due = undone ? ids : ids.filter((id) => !this.lineOf(id)?.landed);
    if (due.length === 0) return;
    this.open.record('handTick', 'hand', tickOf(this.job(), due, 'landed', by, undone));
  }

  protected name(landing: string): string {
    const { device, terminal } = landingParts(landing);
    return `${this.job().adopted?.devices[device]?.tag ?? device}:${terminal}`;
  }

  protected task(landing: string): string {
    const task = Object.values(this.job().adopted?.assignments ?? {}).find(
      (a) => a.at === landing,
    )?.task;
    return task ? (this.open.derived()?.names[task] ?? task) : '';
  }

  protected dropped({ wire, end, landing }: MovedEnd): void {
    void this.move(wire, end, landing);
  }

  /** Moves one end of a wire. An input function moves with its wire: it is pinned to the new terminal. */
  protected async move(id: string, end: 'from' | 'to', landing: string): Promise<void> {
    const { adopted } = this.job();
    const profile = this.open.profile();
    const wire = adopted?.wires[id];
    if (!wire || !profile || wire[end] === landing) return;
    const move = await this.compute.moved(this.job(), profile, id, end, landing);
    if (!move.ok) return this.refused.set(move.text);
    this.refused.set(null);
    const why = this.why().trim() || 'moved on the drawing';
    this.open.edit(`wire ${wire.number} to ${this.name(landing)}`, ({ decisions }) => {
      if ('pin' in move) decisions.pins[move.pin] = { at: move.at, why };
      else decisions.wires[move.wire] = { ...decisions.wires[move.wire], [move.end]: move.at, why };
    });
    this.why.set('');
  }

  /** What was found otherwise was put as planned. */
  protected asPlannedNow(id: string): void {
    this.open.edit('as planned now', (draft) => void delete draft.deviations[id]);
  }

  protected forget(decision: { id: string; kind: 'pins' | 'wires' }): void {
    this.open.edit(
      'decision cleared',
      (draft) => void delete draft.decisions[decision.kind][decision.id],
    );
  }

  /** Lengths in the unit in which the job gives its own. */
  protected readonly lengthUnit = computed(() => {
    const { plate, scheme } = this.job();
    return plate.cable.length?.u === 'ft' || scheme.stationLength?.u === 'ft' ? 'ft' : 'm';
  });

  protected lengthText(lengthM: number): string {
    const length = valueIn({ v: lengthM, u: 'm' }, this.lengthUnit(), 'length');
    return length < 10 ? String(Math.round(10 * length) / 10) : length.toFixed(0);
  }

  private functionName(id: string): string {
    const task = this.job().adopted?.assignments[id]?.task ?? id;
    return this.open.derived()?.names[task] ?? task;
  }

  private does(id: string, wire: AdoptedWire): string {
    return this.open.derived()?.names[`wire.${id}`] ?? wire.function;
  }
}
