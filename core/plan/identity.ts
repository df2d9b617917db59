import { hashOf, sortedEntries, type AdoptedWire, type Wiring } from '../job/index.js';
import type { RoutedWire } from './route.js';

/**
 * Gives ids and numbers: a wire keeps both from the previous wiring by exact ends, then by function and one end. The rest
 * are new; a number that was ever used is not used again, and wires that went away are kept as retired.
 *
 * @param seed what makes new ids differ from job to job
 */
export function identifyWires(
  routed: readonly RoutedWire[],
  previous: Wiring | undefined,
  seed: string,
): Pick<Wiring, 'wires' | 'retired'> {
  const old = sortedEntries(previous?.wires);
  const taken = new Map<number, string>();
  const free = new Set(old.map(([id]) => id));
  const claim = (fits: (wire: RoutedWire, before: AdoptedWire) => boolean): void => {
    routed.forEach((wire, i) => {
      if (taken.has(i)) return;
      const match = old.find(([id, before]) => free.has(id) && fits(wire, before));
      if (!match) return;
      taken.set(i, match[0]);
      free.delete(match[0]);
    });
  };
  claim(
    (wire, before) =>
      (wire.from === before.from && wire.to === before.to) ||
      (wire.from === before.to && wire.to === before.from),
  );
  claim(
    (wire, before) =>
      wire.function === before.function && (wire.from === before.from || wire.to === before.to),
  );
  const retired = { ...previous?.retired };
  for (const id of free) retired[id] = { number: (previous as Wiring).wires[id].number };
  const used = new Set([
    ...old.map(([, wire]) => wire.number),
    ...Object.values(retired).map((r) => r.number),
  ]);
  let next = 1;
  const wires: Wiring['wires'] = {};
  routed.forEach((wire, i) => {
    const known = taken.get(i);
    if (known !== undefined) {
      wires[known] = { ...wire, number: (previous as Wiring).wires[known].number, origin: 'plan' };
      return;
    }
    while (used.has(String(next))) next++;
    used.add(String(next));
    wires[newId(wire, seed, { ...wires, ...retired })] = {
      ...wire,
      number: String(next),
      origin: 'plan',
    };
  });
  return { wires, retired };
}

function newId(wire: RoutedWire, seed: string, there: Record<string, unknown>): string {
  for (let salt = 0; ; salt++) {
    const id = `w${hashOf([seed, wire.function, wire.from, wire.to, salt]).slice(0, 10)}`;
    if (!(id in there)) return id;
  }
}
