import { Component, input } from '@angular/core';

/** Symbols of the one-line picture after IEC 60617: supply, converter, cable, machine, gear with load. */
@Component({
  selector: 'tac-one-line-symbol',
  template: `
    <svg viewBox="0 0 72 60" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="2">
      @switch (name()) {
        @case ('supply') {
          <circle cx="30" cy="30" r="14" class="fill" />
          <circle cx="44" cy="30" r="14" class="fill" />
          <circle cx="30" cy="30" r="14" />
        }
        @case ('device') {
          <rect x="18" y="10" width="38" height="40" class="fill" />
          <path d="M18 50 56 10" />
          <path d="M23 20h10M23 24h10" />
          <path d="M41 42q3-6 6 0t6 0" />
        }
        @case ('cable') {
          <path d="M28 22 22 38M38 22 32 38M48 22 42 38" />
          <ellipse cx="36" cy="30" rx="24" ry="14" stroke-dasharray="4 3" />
        }
        @case ('motor') {
          <circle cx="36" cy="30" r="21" class="fill" />
          <text x="36" y="30">M</text>
          <text x="36" y="44" class="low">3∼</text>
        }
        @case ('load') {
          <circle cx="27" cy="30" r="9" class="fill" />
          <circle cx="27" cy="30" r="2" />
          <circle cx="45" cy="30" r="14" class="fill" />
          <circle cx="45" cy="30" r="2" />
        }
      }
    </svg>
  `,
  styles: `
    svg {
      display: block;
      height: 60px;
    }
    .fill {
      fill: var(--paper);
    }
    text {
      stroke: none;
      fill: currentColor;
      font-size: 17px;
      font-weight: 700;
      text-anchor: middle;
    }
    text.low {
      font-size: 12px;
    }
  `,
})
export class OneLineSymbol {
  readonly name = input.required<string>();
}
