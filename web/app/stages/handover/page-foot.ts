import { DestroyRef, effect, inject } from '@angular/core';

/** Text as a CSS string: quotes, backslashes and line ends cannot leave it. */
export const cssString = (text: string): string =>
  `"${text.replace(/["\\\n\r\f]/gu, (c) => `\\${c.charCodeAt(0).toString(16)} `)}"`;

/**
 * Foot of every printed page while the caller lives: what the record is on the left, page n of m on the right.
 *
 * @example pageFoot(() => 'FM-AUGER · revision 4 · 23 November 2026')
 */
export function pageFoot(text: () => string): void {
  const sheet = new CSSStyleSheet();
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  effect(() =>
    sheet.replaceSync(
      `@page { margin: 14mm 12mm 18mm; @bottom-left { content: ${cssString(text())}; font-size: 8pt; } @bottom-right { content: "page " counter(page) " of " counter(pages); font-size: 8pt; } }`,
    ),
  );
  inject(DestroyRef).onDestroy(
    () => (document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== sheet)),
  );
}
