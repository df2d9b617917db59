import { Component, computed, inject, input, linkedSignal } from '@angular/core';
import { landingName, sizeText, type AdoptedWire, type Fault, type Size } from '@tactron/core/job';
import { noteAsBuilt } from '../../job-state/as-built';
import { OpenJob } from '../../job-state/open-job';

interface Other {
  readonly key: string;
  readonly text: string;
  readonly fault: Fault;
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
    <label class="named grow"
      >where it was seen
      <input
        class="field"
        maxlength="300"
        placeholder="while landing"
        [value]="why()"
        (input)="why.set($any($event.target).value)"
    /></label>
    <button class="act" type="button" [disabled]="!choice()" (click)="note()">
      It is built so
    </button>
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
    const sizes: Size[] =
      'mm2' in wire.size ? usual.mm2.map((mm2) => ({ mm2 })) : usual.awg.map((awg) => ({ awg }));
    const twins = Object.entries(adopted?.wires ?? {})
      .filter(([other, w]) => other !== id && w.class === wire.class)
      .sort(([, x], [, y]) => x.number.localeCompare(y.number, 'en', { numeric: true }));
    return [
      { key: 'open', text: 'not there, or broken', fault: { kind: 'open', wire: id } },
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

  /** Contact blocks of an actuator: of the other kind, or stuck. */
  private ofPart(device: string): Other[] {
    const { adopted } = this.open.job() ?? {};
    const tag = adopted?.devices[device]?.tag ?? device;
    const blocks = this.open.derived()?.toFit.blocks.find((b) => b.tag === tag)?.contacts ?? [];
    return blocks.flatMap(({ a, b, makes }): Other[] => [
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
  }

  protected note(): void {
    const other = this.others().find((o) => o.key === this.choice());
    if (!other) return;
    noteAsBuilt(this.open, other.fault, this.why().trim() || 'found while landing');
    this.choice.set('');
    this.why.set('');
  }
}
