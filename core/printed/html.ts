import type { Cell, RecordSection } from './cells.js';

/** What stands above and below the parts of the record. */
export interface RecordPage {
  readonly title: string;
  readonly machine: string;
  /** Draft, or the issue that is closed. */
  readonly state: string;
  readonly sections: readonly RecordSection[];
  readonly signatures: readonly { readonly role: string; readonly text: string }[];
}

const escaped = (text: string): string =>
  text.replace(
    /[&<>"]/gu,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c,
  );

const cellHtml = ({ text, sub }: Cell): string =>
  `${escaped(text)}${sub ? `<br><small>${escaped(sub)}</small>` : ''}`;

function sectionHtml({ id, title, intro, heads, rows, empty }: RecordSection): string {
  const head = heads
    ? `<thead><tr>${heads.map((h) => `<th scope="col">${escaped(h)}</th>`).join('')}</tr></thead>`
    : '';
  const body = rows
    .map((cells) => {
      const tds = cells.map((c, i) =>
        !heads && i === 0 && cells.length > 1
          ? `<th scope="row">${cellHtml(c)}</th>`
          : `<td>${cellHtml(c)}</td>`,
      );
      return `<tr>${tds.join('')}</tr>`;
    })
    .join('\n');
  const table =
    rows.length > 0
      ? `<table>${head}<tbody>\n${body}\n</tbody></table>`
      : `<p>${escaped(empty ?? '')}</p>`;
  return `<section id="${id}"><h2>${escaped(title)}</h2>${intro ? `<p>${escaped(intro)}</p>` : ''}${table}</section>`;
}

const style =
  'body{font:16px/1.4 sans-serif;max-width:70rem;margin:2rem auto;padding:0 1rem}table{border-collapse:collapse;width:100%}th,td{border-bottom:1px solid #999;padding:.3rem .5rem;text-align:left;vertical-align:top}';

/**
 * The record as one page of its own that needs nothing else: for readers of a screen, and for years in which nobody opens a
 * PDF any more.
 *
 * @example recordHtml({ title: 'FM-DRUM-1', machine: '', state: 'Draft', sections, signatures: [] })
 */
export function recordHtml({ title, machine, state, sections, signatures }: RecordPage): string {
  const links = sections.map((s) => `<li><a href="#${s.id}">${escaped(s.title)}</a></li>`).join('');
  const signed =
    signatures.length > 0
      ? `<section id="signatures"><h2>Signatures</h2><table><tbody>${signatures
          .map((s) => `<tr><th scope="row">${escaped(s.role)}</th><td>${escaped(s.text)}</td></tr>`)
          .join('')}</tbody></table></section>`
      : '';
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><style>${style}</style></head>
<body><header><h1>${escaped(title)}</h1><p>${escaped(machine)}</p><p>${escaped(state)}</p></header>
<nav aria-label="Parts"><ul>${links}</ul></nav>
<main>${sections.map(sectionHtml).join('\n')}${signed}</main></body></html>
`;
}
