/**
 * Entries of a record by their keys, in one fixed order. A record has no order of its own: files, the store and the
 * browser may each give back another, and nothing that is reckoned may depend on it.
 *
 * @example sortedEntries({ b: 1, a: 2, a10: 3, a9: 4 }).map(([key]) => key) // ['a', 'a9', 'a10', 'b']
 */
export function sortedEntries<T>(record: Readonly<Record<string, T>> | undefined): [string, T][] {
  return Object.entries(record ?? {}).sort(([x], [y]) => compareKeys(x, y));
}

/** Number before letters, digits by their value: 9 before 10. */
function compareKeys(x: string, y: string): number {
  const [a, b] = [x, y].map((key) => key.split(/(\d+)/u));
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (a[i] === b[i]) continue;
    const numeric = i % 2 === 1 ? Number(a[i]) - Number(b[i]) : 0;
    return numeric || (a[i] < b[i] ? -1 : 1);
  }
  return a.length - b.length;
}
