import type {
  CircuitDiagram,
  ConnectionDrawing,
  DrawnElement,
  DrawnLabel,
  DrawnLine,
} from './drawing.js';

const escape = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

const r = (n: number): string => String(Math.round(n * 10) / 10);

const anchors = { start: '', middle: ' text-anchor="middle"', end: ' text-anchor="end"' } as const;

const labelSvg = ({ x, y, text, anchor, kind, of }: DrawnLabel): string =>
  `<text x="${r(x)}" y="${r(y)}"${anchors[anchor]}${kind === 'tag' ? ' font-weight="bold"' : ''} data-label="${kind}" data-of="${escape(of)}">${escape(text)}</text>`;

const lineSvg = (l: DrawnLine): string =>
  `<polyline points="${l.points.map(([x, y]) => `${r(x)},${r(y)}`).join(' ')}" data-net="${escape(l.net)}" data-wire="${escape(l.wires.join(' '))}"${l.open ? ' stroke-dasharray="1.5 4" data-open="true"' : ''}/>`;

function framed(width: number, height: number, title: string, body: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${r(width)} ${r(height)}" font-family="sans-serif" font-size="11"><title>${escape(title)}</title>${body}</svg>\n`;
}

const drawnLines = (lines: readonly DrawnLine[]): string =>
  `<g fill="none" stroke="black">${lines.map(lineSvg).join('')}</g>`;

function connectionBody({ boxes, lines, labels }: ConnectionDrawing): string {
  const each = boxes.map(
    (b) =>
      `<rect x="${r(b.x)}" y="${r(b.y)}" width="${r(b.width)}" height="${r(b.height)}" fill="none" stroke="black"/>${b.rows.map((row) => `<circle cx="${r(row.x)}" cy="${r(row.y)}" r="3" fill="white" stroke="black" data-landing="${escape(row.landing)}"/>`).join('')}`,
  );
  return drawnLines(lines) + each.join('') + labels.map(labelSvg).join('');
}

/**
 * Connection drawings one below the other, as one SVG file, readable in black and white: lines with `data-wire` and
 * `data-net`, terminals with `data-landing`.
 */
export function connectionSvg(drawings: readonly ConnectionDrawing[], title: string): string {
  let y = 0;
  const bodies = drawings.map((d) => {
    const body = `<g transform="translate(0 ${r(y)})">${connectionBody(d)}</g>`;
    y += d.height + 20;
    return body;
  });
  return framed(Math.max(0, ...drawings.map((d) => d.width)), y, title, bodies.join(''));
}

function elementBody({ x, y, strokes, ways, ends, earths, of }: DrawnElement): string {
  const stands = ways.map((w) => (w.rest === 'open' ? w.open : w.closed)).join('');
  const landings = [...ends, ...earths].map((e) => e.landing).join(' ');
  return `<path transform="translate(${r(x)} ${r(y)})" d="${strokes}${stands}" fill="none" stroke="black" data-of="${escape(of)}" data-landing="${escape(landings)}"/>`;
}

/** The circuit diagram as an SVG file, everything as it stands with no power and nothing worked. */
export function circuitSvg(diagram: CircuitDiagram, title: string): string {
  const { width, height, elements, lines, dots, labels } = diagram;
  const marks = dots.map((d) => `<circle cx="${r(d.x)}" cy="${r(d.y)}" r="2.5"/>`).join('');
  const body = [drawnLines(lines), marks, ...elements.map(elementBody), ...labels.map(labelSvg)];
  return framed(width, height, title, body.join(''));
}
