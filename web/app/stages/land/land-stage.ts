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
import { landingName, type AdoptedWire, type Job } from '@tactron/core/job';
import { AttachmentRow } from '../../attachments/attachment-row';
import { Compute } from '../../compute/compute';
import { Choice } from '../../controls/choice';
import { Icon } from '../../controls/icon';
import { ShowMe } from '../../controls/show-me';
import { CircuitView } from '../../drawings/circuit-view';
import { ConnectionView, type MovedEnd } from '../../drawings/connection-view';
import { Drawings } from '../../drawings/drawings';
import { noteAsBuilt } from '../../job-state/as-built';
import { OpenJob } from '../../job-state/open-job';
import { AsUsed } from './as-used';
import { FoundOtherwise, mayDiffer } from './found-otherwise';
import { HandList } from './hand-list';

/** Width of the circuit diagram beside the frame, in its units. */
const CIRCUIT_WIDTH = 1200;

const isPower = ({ class: kind }: AdoptedWire): boolean =>
  kind === 'mains' || kind === 'neutral' || kind === 'motor' || kind === 'pe';

/** The drawings and the list of all that hands do, with one selection; wire ends moved by drag or keyboard. */
@Component({
  selector: 'tac-land-stage',
  imports: [
    AsUsed,
    AttachmentRow,
    Choice,
    CircuitView,
    ConnectionView,
    FoundOtherwise,
    HandList,
    Icon,
    RouterLink,
    ShowMe,
  ],
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
  /** What was really used, and pictures, are unfolded. */
  protected readonly more = signal(false);
  protected readonly ends = ['from', 'to'] as const;
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
  protected readonly toFit = computed(() => this.open.derived()?.toFit);
  /** How an end that is moved is meant: as it is to be, or as it was found. */
  protected readonly meant = linkedSignal({
    source: this.selected,
    computation: (): 'wanted' | 'found' => 'wanted',
  });
  protected readonly meanings = [
    { value: 'wanted', name: 'I want it so' },
    { value: 'found', name: 'I found it so' },
  ];
  /** The chosen wire, with ferrule, strip length and torque. */
  protected readonly chosen = computed(() => {
    const id = this.selected() ?? '';
    const wire = this.job().adopted?.wires[id];
    const fit = this.open.derived()?.hand.find((l) => l.id === id)?.fit ?? '';
    return wire && { id, wire, fit };
  });
  /** Another chosen line at which something may be built otherwise. */
  protected readonly other = computed(() => {
    const line = this.open.derived()?.hand.find((l) => l.id === this.selected());
    const toFit = this.toFit();
    return line && toFit && mayDiffer(line, toFit) ? line : undefined;
  });
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
      const wire = this.chosen()?.wire;
      if (!wire || untracked(this.view) === 'circuit') return;
      untracked(() => this.view.set(isPower(wire) ? 'power' : 'control'));
    });
  }

  protected name(landing: string): string {
    return landingName(this.job().adopted?.devices, landing);
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

  /** Moves one end of a wire, as it is wanted or as it was found. An input function that is wanted elsewhere is pinned there. */
  protected async move(id: string, end: 'from' | 'to', landing: string): Promise<void> {
    const { adopted } = this.job();
    const profile = this.open.profile();
    const wire = adopted?.wires[id];
    if (!wire || !profile || wire[end] === landing) return;
    if (this.meant() === 'found') {
      const built = { kind: 'landed', wire: id, end, at: landing } as const;
      noteAsBuilt(this.open, built, this.why().trim() || 'found while landing');
      this.refused.set(null);
      return this.why.set('');
    }
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

  private functionName(id: string): string {
    const task = this.job().adopted?.assignments[id]?.task ?? id;
    return this.open.derived()?.names[task] ?? task;
  }
}
