import { type Installation } from '../installation/index.js';

/** When a way through an element is closed: a signal of the rehearsal and the values of it, or always, or never. */
export type ClosedWhen =
  { readonly signal: string; readonly values: readonly number[] } | { readonly always: boolean };

/**
 * When each contact of an installation is closed, by its two landings as the circuit diagram names its ways. What is welded
 * or never moves is told as it is. While the contacts of a coil travel, a break contact is told by the coil: for some
 * milliseconds neither is closed.
 *
 * @example closedWhen(installation)['button.start:13|button.start:14'] // { signal: 'button.start.position', values: [1] }
 */
export function closedWhen({
  devices,
  device,
  edges,
}: Installation): Readonly<Record<string, ClosedWhen>> {
  const by = new Map<number, ClosedWhen>();
  const on = (list: readonly number[], signal: string, value: number): void =>
    list.forEach((edge) => by.set(edge, { signal, values: [value] }));
  for (const d of devices) {
    if (d.kind === 'contacts')
      for (const { edge, closedIn } of d.contacts) {
        const values = closedIn.map((p) => d.positions.indexOf(p)).filter((i) => i >= 0);
        by.set(edge, { signal: `${d.id}.position`, values });
      }
    if (d.kind === 'coil') {
      on(d.makes, `${d.id}.on`, 1);
      on(d.breaks, `${d.id}.on`, 0);
    }
    if (d.kind === 'transistor') on([d.edge], `${d.id}.position`, 1);
    if (d.kind === 'fuse') on([d.across.edge], `${d.id}.blown`, 0);
  }
  for (const relay of device.relays) {
    on(relay.no, `device.relay.${relay.id}`, 1);
    on(relay.nc, `device.relay.${relay.id}`, 0);
  }
  for (const d of devices)
    if (d.kind === 'switches')
      for (const i of d.thrown) by.set(d.switches[i].edge, { always: d.switches[i].g > 0 });
  return Object.fromEntries(
    [...by].map(([edge, when]) => [`${edges[edge].a}|${edges[edge].b}`, when]),
  );
}

/**
 * When an element works: a coil pulls in, a lamp is lit, an input sees its level, a supply gives its voltage; by its two
 * landings as the circuit diagram names it.
 *
 * @example worksWhen(installation)['device:D1|device:COM'] // { signal: 'device.D1', values: [1] }
 */
export function worksWhen({
  devices,
  device,
  edges,
}: Installation): Readonly<Record<string, ClosedWhen>> {
  const by = new Map<number, ClosedWhen>();
  for (const d of devices) {
    if (d.kind === 'coil') by.set(d.coil.edge, { signal: `${d.id}.on`, values: [1] });
    if (d.kind === 'load') by.set(d.across.edge, { signal: `${d.id}.lit`, values: [1] });
    if (d.kind === 'power') by.set(d.output.edge, { signal: `${d.id}.on`, values: [1] });
  }
  for (const { edge, terminal } of [...device.inputs, ...device.enables])
    by.set(edge, { signal: `device.${terminal}`, values: [1] });
  return Object.fromEntries(
    [...by].map(([edge, when]) => [`${edges[edge].a}|${edges[edge].b}`, when]),
  );
}
