import { CONTACT_OHM, type EdgeRole, type Layout } from '../circuit/index.js';
import { MAIN_POLES, type InstalledSwitches } from '../parts/index.js';
import type { Installed } from './installation.js';
import type { Panel } from './panel.js';

/** Id of the switches among the devices. */
export const SWITCHES = 'faults';

/** Id of the part that all wires are. */
export const WIRES = 'wires';

/** Resistance of two landings that touch, Ω. */
export const BRIDGE_OHM = 0.05;

type Switch = InstalledSwitches['switches'][number];

/** What of a panel is stuck, shorted or dead, as switches that are thrown from the beginning. */
export function failureSwitches(
  layout: Layout,
  panel: Panel,
  devices: readonly Installed[],
): InstalledSwitches {
  const open = (edges: readonly number[]): Switch[] => edges.map((edge) => ({ edge, g: 0 }));
  const switches: Switch[] = [
    ...Object.entries(panel.stuck).flatMap(([at, is]) =>
      contactEdges(layout, at).map((edge) => ({ edge, g: is === 'closed' ? 1 / CONTACT_OHM : 0 })),
    ),
    ...panel.failed.flatMap((f): Switch[] => {
      const own = (role: EdgeRole): number[] => edgesOf(layout, f.device, role);
      switch (f.what) {
        case 'coil':
          return open(own('coil'));
        case 'lamp':
          return open(own('load'));
        case 'fuse':
          return open(own('fuse'));
        case 'map':
          return f.which === undefined ? open(own('contact')) : [];
        case 'pole':
          return open(contactEdges(layout, `${f.device}:${f.which ?? '1'}`));
        case 'phase':
          return open(
            own('source').filter((e) => layout.edges[e].a === `${f.device}:${f.which ?? 'L1'}`),
          );
        case 'track':
          return open(own('track'));
        case 'wiper':
          return wiperOff(layout, f.device, devices);
        case 'contacts':
          return MAIN_POLES.flatMap((pole) => contactEdges(layout, `${f.device}:${pole}`)).map(
            (edge) => ({
              edge,
              g: 1 / CONTACT_OHM,
            }),
          );
        // What a source or the device itself does not do is no matter of an edge.
        case 'source':
        case 'signalKind':
        case 'poleShorted':
        case 'poleDead':
        case 'bypassWelded':
          return [];
      }
    }),
    ...panel.bridges.map(({ a, b }) => ({
      edge: layout.edge(a, b, SWITCHES, 'fault'),
      g: 1 / BRIDGE_OHM,
    })),
  ];
  return { kind: 'switches', id: SWITCHES, tag: '', switches, thrown: switches.map((_, i) => i) };
}

function edgesOf({ edges }: Layout, of: string, role: EdgeRole): number[] {
  return edges.flatMap((e, i) => (e.of === of && e.role === role ? [i] : []));
}

/** Edges of the contact that begins at a landing. */
const contactEdges = (layout: Layout, at: string): number[] =>
  edgesOf(layout, at.slice(0, at.lastIndexOf(':')), 'contact').filter(
    (e) => layout.edges[e].a === at,
  );

/** The wiper touches nothing, and the whole track lies between the two ends. */
function wiperOff(layout: Layout, device: string, devices: readonly Installed[]): Switch[] {
  const dial = devices.find((d) => d.kind === 'dial' && d.id === device);
  if (dial?.kind !== 'dial') return [];
  const whole = layout.edge(
    layout.edges[dial.lower].a,
    layout.edges[dial.upper].b,
    device,
    'track',
  );
  return [
    { edge: dial.lower, g: 0 },
    { edge: dial.upper, g: 0 },
    { edge: whole, g: 1 / dial.ohm },
  ];
}
