import type { Profile } from '../catalogue/index.js';
import { terminalsOfKind } from '../parts/index.js';
import { landingParts, sortedEntries, type AdoptedWire, type Job } from '../job/index.js';
import { presentTerminals } from '../plan/index.js';

/** One device in the drawing with the places of its terminals. */
export interface DrawnDevice {
  readonly id: string;
  readonly tag: string;
  readonly kind: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly terminals: readonly {
    readonly landing: string;
    readonly name: string;
    readonly x: number;
    readonly y: number;
    readonly kind: string;
  }[];
}

/** A wire as a line of right angles. */
export interface DrawnWire {
  readonly id: string;
  readonly number: string;
  readonly class: string;
  readonly colour: string;
  readonly points: readonly (readonly [number, number])[];
  readonly label: readonly [number, number];
}

export interface Drawing {
  readonly width: number;
  readonly height: number;
  readonly devices: readonly DrawnDevice[];
  readonly wires: readonly DrawnWire[];
}

const PITCH = 52;
const BOX = 64;
const TRACK = 13;
const MARGIN = 24;

/**
 * Lays out the control circuit: the device's terminal row below as it lies on the device, the station above, and between
 * them one track a wire, so that no two wires run over each other.
 *
 * @param rows which rows of the device are drawn: `control` leaves out the power terminals
 */
export function layOut(job: Job, profile: Profile, rows: 'control' | 'power'): Drawing {
  const { adopted } = job;
  if (!adopted) return { width: 0, height: 0, devices: [], wires: [] };
  const power = (terminal: string): boolean =>
    ['mains', 'motor', 'power'].includes(profile.terminals[terminal].kind);
  const shown = presentTerminals(profile).filter(
    (terminal) => power(terminal) === (rows === 'power'),
  );
  const byTag = ([, x]: [string, { tag: string }], [, y]: [string, { tag: string }]): number =>
    x.tag.localeCompare(y.tag, 'en', { numeric: true });
  const beside = sortedEntries(adopted.devices).filter(
    ([, d]) =>
      d.kind !== 'drive' &&
      ['supplyThreePhase', 'breakerThreePole', 'motor'].includes(d.kind) === (rows === 'power'),
  );
  const above = rows === 'control' ? beside.sort(byTag) : beside;
  const marked = sortedEntries(
    Object.fromEntries(
      sortedEntries(adopted.wires).map(([id, w]) => [`${w.number} ${id}`, [id, w] as const]),
    ),
  ).map(([, entry]) => entry);
  const wires = marked.filter(([, w]) =>
    [w.from, w.to].every((end) => {
      const { device, terminal } = landingParts(end);
      return device === 'drive' ? shown.includes(terminal) : above.some(([id]) => id === device);
    }),
  );
  const tracks = wires.length;
  const stationY = MARGIN;
  const rowY = stationY + BOX + MARGIN + tracks * TRACK + MARGIN;
  const devices: DrawnDevice[] = [];
  let x = MARGIN;
  for (const [id, device] of above) {
    const names = terminalsOfKind(device.kind);
    const width = Math.max(names.length * PITCH, 2 * PITCH);
    devices.push({
      id,
      tag: device.tag,
      kind: device.kind,
      x,
      y: stationY,
      width,
      height: BOX,
      terminals: names.map((name, i) => ({
        landing: `${id}:${name}`,
        name,
        x: x + PITCH / 2 + (i * width) / names.length,
        y: stationY + BOX,
        kind: device.kind,
      })),
    });
    x += width + MARGIN;
  }
  const driveWidth = shown.length * PITCH;
  devices.push({
    id: 'drive',
    tag: adopted.devices['drive']?.tag ?? 'T1',
    kind: 'drive',
    x: MARGIN,
    y: rowY,
    width: driveWidth,
    height: BOX,
    terminals: shown.map((name, i) => ({
      landing: `drive:${name}`,
      name,
      x: MARGIN + PITCH / 2 + i * PITCH,
      y: rowY,
      kind: profile.terminals[name].kind,
    })),
  });
  const width = Math.max(x, MARGIN + driveWidth + MARGIN);
  return {
    width,
    height: rowY + BOX + MARGIN,
    devices,
    wires: drawWires(wires, devices, stationY + BOX + MARGIN),
  };
}

function drawWires(
  wires: readonly (readonly [string, AdoptedWire])[],
  devices: readonly DrawnDevice[],
  topY: number,
): DrawnWire[] {
  const places = new Map(devices.flatMap((d) => d.terminals.map((t) => [t.landing, t] as const)));
  const used = new Map<string, number>();
  const spread = (landing: string): number => {
    const count = used.get(landing) ?? 0;
    used.set(landing, count + 1);
    return count === 0 ? 0 : count % 2 ? 7 * Math.ceil(count / 2) : -7 * (count / 2);
  };
  return wires.flatMap(([id, wire], i) => {
    const from = places.get(wire.from);
    const to = places.get(wire.to);
    if (!from || !to) return [];
    const y = topY + i * TRACK;
    const [x1, x2] = [from.x + spread(wire.from), to.x + spread(wire.to)];
    const points: [number, number][] = [
      [x1, from.y],
      [x1, y],
      [x2, y],
      [x2, to.y],
    ];
    return [
      {
        id,
        number: wire.number,
        class: wire.class,
        colour: wire.colour,
        points,
        label: [(x1 + x2) / 2, y] as const,
      },
    ];
  });
}

const escape = (text: string): string =>
  text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

/** The drawing as an SVG file of its own, readable in black and white. */
export function drawingSvg(drawing: Drawing, title: string): string {
  const boxes = drawing.devices.map(
    (d) =>
      `<rect x="${d.x}" y="${d.y}" width="${d.width}" height="${d.height}" fill="none" stroke="black"/><text x="${d.x + 6}" y="${d.y + (d.id === 'drive' ? 56 : 16)}" font-weight="bold">${escape(d.tag)}</text>` +
      d.terminals
        .map(
          (t) =>
            `<circle cx="${t.x}" cy="${t.y}" r="4" fill="white" stroke="black"/><text x="${t.x}" y="${t.y + (d.id === 'drive' ? 22 : -10)}" text-anchor="middle">${escape(t.name)}</text>`,
        )
        .join(''),
  );
  const wires = drawing.wires.map(
    (w) =>
      `<polyline points="${w.points.map((p) => p.join(',')).join(' ')}" fill="none" stroke="black"/><text x="${w.label[0]}" y="${w.label[1] - 2}" text-anchor="middle">${escape(w.number)}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${drawing.width} ${drawing.height}" font-family="sans-serif" font-size="11"><title>${escape(title)}</title>${boxes.join('')}${wires.join('')}</svg>\n`;
}
