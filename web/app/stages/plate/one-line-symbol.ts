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
        @case ('isolator') {
          <path d="M26 30h20" class="gap" />
          <path d="M6 30h20M46 30h20M26 30 46 16M46 22v16M26 24v12" />
        }
        @case ('protection') {
          <path d="M26 30h20" class="gap" />
          <path d="M6 30h20M46 30h20M26 30 46 16M42 26l8 8M50 26l-8 8" />
        }
        @case ('transformer') {
          <circle cx="30" cy="30" r="13" class="fill" />
          <circle cx="44" cy="30" r="13" />
        }
        @case ('rcd') {
          <ellipse cx="36" cy="30" rx="8" ry="16" class="fill" />
          <path d="M36 46v6h14" />
        }
        @case ('contactor') {
          <path d="M26 30h20" class="gap" />
          <path d="M6 30h20M46 30h20M26 30 46 16M46 30a5 5 0 0 1-9 -3" />
        }
        @case ('capacitor') {
          <path d="M36 30v10M26 40h20M26 46h20M36 46v8" />
        }
        @case ('inputFilter') {
          <rect x="20" y="14" width="32" height="32" class="fill" />
          <path d="M25 26q4-6 8 0t8 0 6 0M25 36h22" />
        }
        @case ('reactor') {
          <path d="M16 30a6.6 6.6 0 0 1 13 0a6.6 6.6 0 0 1 13 0a6.6 6.6 0 0 1 13 0" class="fill" />
        }
        @case ('brakingUnit') {
          <rect x="22" y="34" width="28" height="24" class="fill" />
          <path d="M36 30v4M30 40h12M30 52h12M36 40v12" />
        }
        @case ('resistor') {
          <rect x="28" y="34" width="16" height="24" class="fill" />
          <path d="M36 30v4" />
        }
        @case ('outputFilter') {
          <rect x="20" y="14" width="32" height="32" class="fill" />
          <path d="M25 36q4-6 8 0t8 0 6 0M25 24h22" />
        }
        @case ('motorIsolator') {
          <path d="M26 30h20" class="gap" />
          <path d="M6 30h20M46 30h20M26 30 46 16M46 22v16M26 24v12M36 23v-12" />
        }
        @case ('brake') {
          <circle cx="36" cy="30" r="15" class="fill" />
          <path d="M22 12h28v8M22 48h28v-8" />
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
    .gap {
      stroke: var(--paper);
      stroke-width: 7;
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
