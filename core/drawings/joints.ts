import type { Element, Elements } from './elements.js';

/** An end of an element in the layout. */
export interface NetEnd {
  readonly port: string;
  readonly element: string;
  readonly side: 'start' | 'end';
}

/** A net with the ends that lie on it. */
export interface Net {
  readonly name: string;
  readonly ends: readonly NetEnd[];
  /** How the ends are joined: by one line, at a dot, or on a rail above or below all that hangs on it. */
  readonly joint: 'line' | 'dot' | 'above' | 'below';
  /** Earths at a rail, which are drawn at its end. */
  readonly earths: readonly string[];
}

/** Name of an end in the layout. */
export const portOf = (element: Element, landing: string): string => `${element.id}#${landing}`;

/** Landing that an end in the layout stands for. */
export const landingOf = (port: string): string => port.slice(port.lastIndexOf('#') + 1);

/** The nets of some elements, and how the ends of each are joined. */
export function netsOfEnds(elements: readonly Element[], nets: Elements['nets']): Net[] {
  const by = new Map<string, (NetEnd & { earth: boolean })[]>();
  for (const element of elements)
    for (const { landing, side } of element.ends) {
      const name = nets.of(landing);
      const earth = element.shape === 'earth';
      const end = { port: portOf(element, landing), element: element.id, side, earth };
      by.set(name, [...(by.get(name) ?? []), end]);
    }
  return [...by].map(([name, all]) => {
    const ends = all.filter((e) => !e.earth);
    const joint = jointOf(ends);
    return joint === 'above' || joint === 'below'
      ? { name, ends, joint, earths: all.filter((e) => e.earth).map((e) => e.element) }
      : { name, ends: all, joint: all.length > 2 ? 'dot' : 'line', earths: [] };
  });
}

function jointOf(ends: readonly NetEnd[]): Net['joint'] {
  const above = ends.filter((e) => e.side === 'start').length;
  if (ends.length > 1 && above === ends.length) return 'above';
  return ends.length > 1 && above === 0 ? 'below' : 'line';
}

export const isRail = ({ joint }: Net): boolean => joint === 'above' || joint === 'below';
