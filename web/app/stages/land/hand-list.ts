import { Component, computed, inject, model, signal } from '@angular/core';
import {
  landingName,
  sizeText,
  standing,
  tickOf,
  type AdoptedWire,
  type EvidenceBody,
  type EvidenceOf,
  type Fault,
  type Job,
} from '@tactron/core/job';
import { valueIn } from '@tactron/core/units';
import type { HandLine as Line } from '@tactron/core/said';
import { Choice } from '../../controls/choice';
import { lengthUnitOf } from '../../job-state/length-unit';
import { OpenJob } from '../../job-state/open-job';
import { mayDiffer } from './found-otherwise';
import { Tick } from './tick';

/** How the list is put together. */
type Order = 'work' | 'device' | 'cable' | 'number';

/** A line with the ticks that stand for it: who, and when; empty while it is to do. */
interface HandLine extends Line {
  readonly landed: string;
  /** Done before it was planned otherwise. */
  readonly stale: boolean;
  readonly torqued: string;
}

interface Row {
  readonly line: HandLine;
  readonly wire: AdoptedWire | undefined;
  readonly from: string;
  readonly to: string;
  readonly conductor: string;
  /** The conductor as it was really taken, where that is not as planned. */
  readonly used: NonNullable<Job['asUsed']>[string];
  /** It was found built otherwise than planned. */
  readonly otherwise: boolean;
}

interface Group {
  readonly title: string;
  readonly rows: readonly Row[];
  readonly done: number;
  /** Lines whose torque is confirmed apart. */
  readonly tight: readonly HandLine[];
  readonly tightened: number;
}

const inNumbers = (x: string, y: string): number => x.localeCompare(y, 'en', { numeric: true });

const who = (tick: EvidenceOf<'handTick'> | undefined): string =>
  tick ? `${tick.author.name}, ${tick.atClient}` : '';

/** Line of the hand list that something built otherwise is about; of what is joined, the first wire that ends there. */
function lineAt(f: Fault, wires: Readonly<Record<string, AdoptedWire>>): string {
  switch (f.kind) {
    case 'open':
    case 'landed':
    case 'size':
      return f.wire;
    case 'swapped':
      return f.wires[0];
    case 'link':
      return `link:${f.link}`;
    case 'stuck':
    case 'wrongContact':
    case 'part':
      return `mount:${f.device}`;
    case 'loose':
    case 'short': {
      const at = f.kind === 'loose' ? f.at : f.a;
      return Object.keys(wires).find((id) => [wires[id].from, wires[id].to].includes(at)) ?? '';
    }
    default:
      return '';
  }
}

/** Work of which the torque is confirmed by itself: what carries the power, and what protects. */
const tightened: readonly string[] = ['power', 'protective'];

/** Everything that hands do, in the order of the work, by part, by cable or by number; each line and group with its tick. */
@Component({
  selector: 'tac-hand-list',
  imports: [Choice, Tick],
  templateUrl: './hand-list.html',
  styleUrl: './hand-list.scss',
})
export class HandList {
  private readonly open = inject(OpenJob);
  /** Id of the wire that is chosen. */
  readonly selected = model<string | null>(null);
  protected readonly order = signal<Order>('work');
  protected readonly orders: readonly { value: Order; name: string }[] = [
    { value: 'work', name: 'in order of work' },
    { value: 'device', name: 'by part' },
    { value: 'cable', name: 'by cable' },
    { value: 'number', name: 'by number' },
  ];
  /** The lines as they were worked out, with the ticks of this very moment: a tick waits for nothing. */
  private readonly lines = computed((): readonly HandLine[] => {
    const evidence = this.open.evidence();
    const [landed, torqued] = [standing(evidence, 'landed'), standing(evidence, 'torque')];
    return (this.open.derived()?.hand ?? []).map((l) => ({
      ...l,
      landed: who(landed.of(l.line)),
      stale: landed.stale(l.line),
      torqued: who(torqued.of(l.line)),
    }));
  });
  protected readonly done = computed(() => this.lines().filter((l) => l.landed).length);
  protected readonly total = computed(() => this.lines().length);
  protected readonly wires = computed(() => this.lines().filter((l) => l.isWire));
  protected readonly landed = computed(() => this.wires().filter((l) => l.landed).length);
  /** First line that is still to do, as the list stands. */
  protected readonly next = computed(() =>
    this.groups()
      .flatMap((g) => g.rows)
      .find((r) => !r.line.landed),
  );
  protected readonly groups = computed((): readonly Group[] => {
    const by = new Map<string, Row[]>();
    for (const row of this.rows()) {
      const title = this.titleOf(row.line);
      by.set(title, [...(by.get(title) ?? []), row]);
    }
    return [...by].map(([title, rows]) => {
      const tight = rows.map((r) => r.line).filter((l) => this.isTightened(l));
      return {
        title,
        rows,
        done: rows.filter((r) => r.line.landed).length,
        tight,
        tightened: tight.filter((l) => l.torqued).length,
      };
    });
  });

  private readonly rows = computed((): readonly Row[] => {
    const { adopted, asUsed = {}, deviations = {} } = this.open.job() ?? {};
    const found = new Set(
      Object.values(deviations).map(({ actual }) => lineAt(actual, adopted?.wires ?? {})),
    );
    const rows = this.lines().map((line): Row => {
      const wire = line.isWire ? adopted?.wires[line.id] : undefined;
      return {
        line,
        wire,
        from: wire ? landingName(adopted?.devices, wire.from) : '',
        to: wire ? landingName(adopted?.devices, wire.to) : '',
        conductor: wire ? sizeText(wire.size) : '',
        used: asUsed[line.id] ?? {},
        otherwise: found.has(line.id),
      };
    });
    const order = this.order();
    if (order === 'work') return rows;
    const number = (r: Row): string => r.wire?.number ?? '~';
    const place = ({ line }: Row): string =>
      order === 'device' ? line.at || '~' : order === 'cable' ? line.cable || '~' : '';
    // What is no wire stays where the work has it: before the wires of its part, behind them of its cable.
    return [...rows].sort(
      (x, y) =>
        inNumbers(place(x), place(y)) || (order === 'number' ? inNumbers(number(x), number(y)) : 0),
    );
  });

  private titleOf(line: HandLine): string {
    switch (this.order()) {
      case 'work':
        return line.title;
      case 'device':
        return line.at || 'All over the panel';
      case 'cable':
        return line.cable ? `Cable ${line.cable}` : 'In the panel';
      case 'number':
        return line.isWire ? 'Wires' : 'What is no wire';
    }
  }

  protected isTightened({ torque, group }: HandLine): boolean {
    return torque !== '' && tightened.includes(group);
  }

  protected differs(line: HandLine): boolean {
    const toFit = this.open.derived()?.toFit;
    return toFit !== undefined && mayDiffer(line, toFit);
  }

  private by(): EvidenceBody<'handTick'>['by'] {
    const order = this.order();
    return order === 'device' || order === 'cable' ? order : 'row';
  }

  /** Ticks a line as done, or takes the tick back. */
  protected tick(line: HandLine): void {
    this.record([line], 'landed', 'line', line.landed !== '');
  }

  protected tighten(line: HandLine): void {
    this.record([line], 'torque', 'line', line.torqued !== '');
  }

  /** Ticks all of a group that is still to do; takes all back where everything is done. */
  protected tickAll({ rows, done }: Group): void {
    const all = rows.map((r) => r.line);
    const undone = done === rows.length;
    this.record(undone ? all : all.filter((l) => !l.landed), 'landed', this.by(), undone);
  }

  protected tightenAll(group: Group): void {
    const undone = group.tightened === group.tight.length;
    const due = undone ? group.tight : group.tight.filter((l) => !l.torqued);
    this.record(due, 'torque', 'row', undone);
  }

  private record(
    lines: readonly HandLine[],
    act: 'landed' | 'torque',
    by: EvidenceBody<'handTick'>['by'],
    undone: boolean,
  ): void {
    const named = lines.map((l) => l.line);
    this.open.record('handTick', 'hand', tickOf(named, act, by, undone));
  }

  /** Brings the first line that is to do into view, and chooses it. */
  protected toNext(list: HTMLElement): void {
    const row = this.next();
    if (!row) return;
    if (row.wire) this.selected.set(row.line.id);
    list
      .querySelector(`[data-line="${CSS.escape(row.line.id)}"]`)
      ?.scrollIntoView({ block: 'center' });
  }

  /** Lengths in the unit in which the job gives its own. */
  protected readonly lengthUnit = computed(() => lengthUnitOf(this.open.job()));

  protected lengthText(lengthM: number): string {
    const length = valueIn({ v: lengthM, u: 'm' }, this.lengthUnit(), 'length');
    return length < 10 ? String(Math.round(10 * length) / 10) : length.toFixed(0);
  }
}
