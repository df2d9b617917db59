import { Component, computed, inject, input, linkedSignal } from '@angular/core';
import { landingName, sizeText, type AdoptedWire, type Fault, type Size } from '@tactron/core/job';
import type { Derived, HandLine } from '@tactron/core/said';
import { noteAsBuilt } from '../../job-state/as-built';
import { OpenJob } from '../../job-state/open-job';

interface Other {
  readonly key: string;
  readonly text: string;
  /** Absent where more has to be said first. */
  readonly fault?: Fault;
}

/** Begins the choice of an end that is joined with something else. */
const JOINED = 'joined ';

/** Whether something may be found otherwise at a line that is no wire: a link, a contact block, what inside a part may not work. */
export function mayDiffer(
  { id, at }: Pick<HandLine, 'id' | 'at'>,
  { blocks, fails }: Pick<Derived['toFit'], 'blocks' | 'fails'>,
): boolean {
  if (id.startsWith('link:')) return true;
  if (!id.startsWith('mount:')) return false;
  const device = id.slice('mount:'.length);
  return blocks.some((b) => b.tag === at) || fails.some((f) => f.fault.device === device);
}

/** Conductors as they are usually sold. */
const usual: { readonly mm2: readonly number[]; readonly awg: readonly string[] } = {
  mm2: [0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35],
  awg: ['20', '18', '16', '14', '12', '10', '8', '6', '4', '3', '2'],
};

/** What is found built otherwise than planned at a line of the hand list; a wire found at another terminal is moved there. */
@Component({
  selector: 'tac-found-otherwise',
  template: `
    <label class="named grow"
      >it is
      <select
        class="field"
        aria-label="it is"
        [value]="choice()"
        (change)="choice.set($any($event.target).value)"
      >
        <option value="">as planned</option>
        @for (o of others(); track o.key) {
          <option [value]="o.key" [selected]="o.key === choice()">{{ o.text }}</option>
        }
      </select></label
    >
    @if (joins()) {
      <label class="named"
        >with
        <select
          class="field"
          aria-label="with"
          [value]="joined()"
          (change)="joined.set($any($event.target).value)"
        >
          <option value="">which terminal?</option>
          @for (l of landings(); track l.at) {
            <option [value]="l.at" [selected]="l.at === joined()">{{ l.name }}</option>
          }
        </select></label
      >
    }
    <label class="named grow"
      >where it was seen
      <input
        class="field"
        maxlength="300"
        placeholder="while landing"
        [value]="why()"
        (input)="why.set($any($event.target).value)"
    /></label>
    <button class="act" type="button" [disabled]="!fault()" (click)="note()">It is built so</button>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 14px;
      align-items: end;
    }
    .grow {
      flex: 1 1 220px;
    }
  `,
})
export class FoundOtherwise {
  private readonly open = inject(OpenJob);
  /** Line of the hand list: a wire's id, or `link:` or `mount:` and the id of link or part. */
  readonly line = input.required<string>();
  protected readonly choice = linkedSignal({ source: this.line, computation: () => '' });
  protected readonly why = linkedSignal({ source: this.line, computation: () => '' });

  /** The other terminal that an end is joined with. */
  protected readonly joined = linkedSignal({ source: this.line, computation: () => '' });

  /** The end that is joined with something else, where that is chosen. */
  protected readonly joins = computed(() =>
    this.choice().startsWith(JOINED) ? this.choice().slice(JOINED.length) : '',
  );

  /** Terminals an end may be joined with: all that a wire reaches, but the far end of the same wire. */
  protected readonly landings = computed(() => {
    const { adopted } = this.open.job() ?? {};
    const wires = Object.values(adopted?.wires ?? {});
    const own = adopted?.wires[this.line()];
    return [...new Set(wires.flatMap((w) => [w.from, w.to]))]
      .filter((at) => at !== own?.from && at !== own?.to)
      .map((at) => ({ at, name: landingName(adopted?.devices, at) }))
      .sort((x, y) => x.name.localeCompare(y.name, 'en', { numeric: true }));
  });

  protected readonly fault = computed((): Fault | undefined => {
    const a = this.joins();
    if (a) return this.joined() ? { kind: 'short', a, b: this.joined() } : undefined;
    return this.others().find((o) => o.key === this.choice())?.fault;
  });

  protected readonly others = computed((): readonly Other[] => {
    const line = this.line();
    const wire = this.open.job()?.adopted?.wires[line];
    if (wire) return this.ofWire(line, wire);
    if (line.startsWith('link:')) return this.ofLink(line.slice('link:'.length));
    return line.startsWith('mount:') ? this.ofPart(line.slice('mount:'.length)) : [];
  });

  private ofWire(id: string, wire: AdoptedWire): Other[] {
    const { adopted } = this.open.job() ?? {};
    const name = (landing: string): string => landingName(adopted?.devices, landing);
    const all = Object.values(adopted?.wires ?? {});
    const wiresAt = (at: string): number => all.filter((w) => w.from === at || w.to === at).length;
    const sizes: Size[] =
      'mm2' in wire.size ? usual.mm2.map((mm2) => ({ mm2 })) : usual.awg.map((awg) => ({ awg }));
    const twins = Object.entries(adopted?.wires ?? {})
      .filter(([other, w]) => other !== id && w.class === wire.class)
      .sort(([, x], [, y]) => x.number.localeCompare(y.number, 'en', { numeric: true }));
    return [
      { key: 'open', text: 'not there, or broken', fault: { kind: 'open', wire: id } },
      ...[wire.from, wire.to]
        .filter((at) => wiresAt(at) > 1)
        .map((at): Other => ({
          key: `loose ${at}`,
          text: `loose at ${name(at)} with every conductor there`,
          fault: { kind: 'loose', at },
        })),
      ...[wire.from, wire.to].map((at): Other => ({
        key: `${JOINED}${at}`,
        text: `joined at ${name(at)} with another terminal, by a bridge or a wire too many`,
      })),
      ...sizes
        .filter((size) => sizeText(size) !== sizeText(wire.size))
        .map((size): Other => {
          const text = sizeText(size);
          return {
            key: `size ${text}`,
            text: `of ${text}`,
            fault: { kind: 'size', wire: id, size },
          };
        }),
      ...twins.flatMap(([other, w]) =>
        (['to', 'from'] as const).map((end): Other => ({
          key: `${end} ${other}`,
          text: `exchanged with wire ${w.number}, ${name(wire[end])} for ${name(w[end])}`,
          fault: { kind: 'swapped', wires: [id, other], ends: [end, end] },
        })),
      ),
    ];
  }

  private ofLink(id: string): Other[] {
    const stands = this.open.derived()?.links.find((l) => l.id === id)?.position;
    return Object.entries(this.open.profile()?.links[id]?.positions ?? {})
      .filter(([position]) => position !== stands)
      .map(([position, { name }]) => ({
        key: position,
        text: `at ${name}`,
        fault: { kind: 'link', link: id, position },
      }));
  }

  /** Contact blocks of an actuator, of the other kind or stuck; what inside a part does not work. */
  private ofPart(device: string): Other[] {
    const { adopted } = this.open.job() ?? {};
    const tag = adopted?.devices[device]?.tag ?? device;
    const blocks = this.open.derived()?.toFit.blocks.find((b) => b.tag === tag)?.contacts ?? [];
    const fails = (this.open.derived()?.toFit.fails ?? [])
      .filter((f) => f.fault.device === device)
      .map(({ fault, text }): Other => ({
        key: `fails ${fault.what} ${fault.which ?? ''}`,
        text,
        fault,
      }));
    const contacts = blocks.flatMap(({ a, b, makes }): Other[] => [
      {
        key: `wrong ${a}`,
        text: `${a}–${b} is a ${makes ? 'break' : 'make'} contact`,
        fault: { kind: 'wrongContact', device, contact: a },
      },
      ...(['open', 'closed'] as const).map((is): Other => ({
        key: `${is} ${a}`,
        text: `${a}–${b} stays ${is}`,
        fault: { kind: 'stuck', device, contact: a, is },
      })),
    ]);
    return [...contacts, ...fails];
  }

  protected note(): void {
    const fault = this.fault();
    if (!fault) return;
    noteAsBuilt(this.open, fault, this.why().trim() || 'found while landing');
    this.choice.set('');
    this.why.set('');
  }
}
