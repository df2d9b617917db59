import { Component, computed, input, output, signal } from '@angular/core';
import type { IdentificationWay } from '@tactron/core/catalogue';
import type { SaidIdentification } from '@tactron/core/said';
import { Choice } from '../../controls/choice';
import { pressText } from './presses';

/** What an identification run came to: how it was done, and what the device shows as measured, by setting. */
export interface Identified {
  readonly way: IdentificationWay;
  readonly values: Readonly<Record<string, number>>;
}

const wayNames: Readonly<Record<IdentificationWay, string>> = {
  standing: 'Shaft at rest',
  turning: 'Shaft turning',
};

/** The device measures its motor: what is done for it in order, what it leaves behind, and why it may end early. */
@Component({
  selector: 'tac-identify-line',
  imports: [Choice],
  templateUrl: './identify-line.html',
  styleUrl: './identify-line.scss',
})
export class IdentifyLine {
  readonly run = input.required<SaidIdentification>();
  /** What has to be put right first stands in its place. */
  readonly held = input(false);
  /** The station has an emergency stop, which holds the enable. */
  readonly estop = input(false);
  readonly measured = output<Identified>();
  protected readonly chosen = signal<IdentificationWay | null>(null);
  protected readonly problem = signal<string | null>(null);
  private readonly typed = signal<Readonly<Record<string, string>>>({});
  /** Values that were asked about once, because the plate lets expect others. */
  private readonly asked = signal('');
  protected readonly way = computed(() => {
    const { ways } = this.run();
    return ways.find((w) => w.id === this.chosen()) ?? ways[0];
  });
  protected readonly options = computed(() =>
    this.run().ways.map(({ id }) => ({ value: id, name: wayNames[id] })),
  );
  protected readonly presses = pressText;
  protected readonly ohms = (value: number): string => value.toPrecision(2);

  protected choose(value: string): void {
    this.chosen.set(value as IdentificationWay);
  }

  protected type(code: string, text: string): void {
    this.typed.update((all) => ({ ...all, [code]: text }));
  }

  /** Nothing counts as measured that nobody has read: each result is typed as the device shows it. */
  protected done(): void {
    const values: Record<string, number> = {};
    const odd: string[] = [];
    for (const { code, unit, min, max, expected } of this.run().results) {
      const text = (this.typed()[code] ?? '').trim();
      const value = text === '' ? NaN : Number(text.replace(',', '.'));
      if (!Number.isFinite(value))
        return this.problem.set(`Type what ${code} shows now, as a number in ${unit}.`);
      if (value <= min)
        return this.problem.set(
          `${code} at ${value} ${unit} means that nothing was measured: see what the display says.`,
        );
      if (value > max)
        return this.problem.set(`${code} goes to ${max} ${unit}: ${value} cannot stand there.`);
      values[code] = value;
      if (expected && (value < expected.least || value > expected.most)) odd.push(code);
    }
    const asked = odd.map((code) => `${code} ${values[code]}`).join();
    if (odd.length > 0 && this.asked() !== asked) {
      this.asked.set(asked);
      return this.problem.set(
        `${odd.join(', ')} lies outside what the plate lets expect. Is the motor linked as its data are keyed? Press again to keep it.`,
      );
    }
    this.problem.set(null);
    this.measured.emit({ way: this.way().id, values });
  }
}
