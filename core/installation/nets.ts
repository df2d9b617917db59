import { parts } from '../parts/index.js';
import type { Panel } from './panel.js';

/** What wires join, whatever any contact does. */
export interface Nets {
  /** Name of the net of a landing: one of its landings. */
  of(landing: string): string;
  /** Whether two landings are joined by wires alone. */
  joined(a: string, b: string): boolean;
}

/**
 * Nets of a panel by its wires and bridges alone: contacts, coils and everything inside a part are open.
 *
 * @param also pairs of landings that are joined as well: terminals joined inside the device
 * @example netsOf(panel).joined('supply:PE', 'motor:PE')
 */
export function netsOf(
  { wires, open, bridges }: Pick<Panel, 'wires' | 'open' | 'bridges'>,
  also: readonly (readonly [string, string])[] = [],
): Nets {
  const up = new Map<string, string>();
  const of = (landing: string): string => {
    let at = landing;
    for (let next = up.get(at); next !== undefined; next = up.get(at)) at = next;
    return at;
  };
  const join = (a: string, b: string): void => {
    const [x, y] = [of(a), of(b)];
    if (x !== y) up.set(x, y);
  };
  for (const [id, { from, to }] of Object.entries(wires)) if (!open.includes(id)) join(from, to);
  for (const { a, b } of bridges) join(a, b);
  for (const [a, b] of also) join(a, b);
  return { of, joined: (a, b) => of(a) === of(b) };
}

/**
 * Nets of a panel over its terminal strips and plugs as well, which join what lies on their two sides until they are lifted.
 *
 * @example netsOverStrips(panel).joined('device:AI1', 'controller.speed:+')
 */
export function netsOverStrips(panel: Panel): Nets {
  const passages = Object.entries(panel.devices).flatMap(([id, device]) => {
    const part = parts[device.kind];
    if (part?.power || !part?.through) return [];
    return part
      .through({ ...device })
      .flatMap(([a, b]): (readonly [string, string])[] =>
        panel.stuck[`${id}:${a}`] === 'open' ? [] : [[`${id}:${a}`, `${id}:${b}`]],
      );
  });
  return netsOf(panel, passages);
}
