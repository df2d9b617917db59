import { Component, computed, input } from '@angular/core';
import { encode } from 'uqr';

/** A code that a phone reads, black on white in every theme. */
@Component({
  selector: 'tac-qr-code',
  template: `<svg [attr.viewBox]="box()" role="img" [attr.aria-label]="'Code: ' + text()">
    <rect width="100%" height="100%" fill="#fff" />
    <path [attr.d]="path()" fill="#000" shape-rendering="crispEdges" />
  </svg>`,
  styles: ':host { display: block; } svg { display: block; width: 100%; height: 100%; }',
})
export class QrCode {
  readonly text = input.required<string>();
  private readonly cells = computed(() => encode(this.text(), { ecc: 'M', border: 2 }).data);
  protected readonly box = computed(() => `0 0 ${this.cells().length} ${this.cells().length}`);
  protected readonly path = computed(() =>
    this.cells()
      .flatMap((line, y) => line.flatMap((dark, x) => (dark ? [`M${x} ${y}h1v1h-1z`] : [])))
      .join(''),
  );
}
