import { applyPatch as applyOperations, createPatch } from 'rfc6902';
import * as v from 'valibot';

const pointer = v.pipe(
  v.string(),
  v.regex(/^(\/([^/~]|~[01])*)+$/u, 'a JSON Pointer'),
  v.maxLength(400),
);
export const operationSchema = v.variant('op', [
  v.strictObject({ op: v.literal('add'), path: pointer, value: v.unknown() }),
  v.strictObject({ op: v.literal('remove'), path: pointer }),
  v.strictObject({ op: v.literal('replace'), path: pointer, value: v.unknown() }),
  v.strictObject({ op: v.literal('test'), path: pointer, value: v.unknown() }),
]);
export type Operation = v.InferOutput<typeof operationSchema>;
export const patchSchema = v.pipe(v.array(operationSchema), v.minLength(1), v.maxLength(5000));
export type Patch = Operation[];

/** A deep copy of plain JSON data. */
const clone = <T>(data: T): T => JSON.parse(JSON.stringify(data)) as T;

/** A patch that cannot be applied to this document; `path` is where. */
export class PatchError extends Error {
  constructor(
    readonly path: string,
    reason: string,
  ) {
    super(reason);
  }
}

/**
 * The document after a patch (RFC 6902, operations add, remove, replace and test). The given document stays as it is.
 *
 * @throws PatchError naming the path that is missing or whose test failed
 */
export function applyPatch<T>(document: T, patch: readonly Operation[]): T {
  const copy = clone(document);
  applyInPlace(copy, patch);
  return copy;
}

/**
 * The document after many changes, one after the other; as `applyPatch` on each, with one copy for all of them.
 *
 * @param patches in order; a patch whose one operation replaces the whole document (path "") starts anew from its value
 * @throws PatchError naming the path that is missing or whose test failed
 */
export function replayPatches<T>(document: T, patches: readonly (readonly Operation[])[]): T {
  let copy = clone(document);
  for (const patch of patches) {
    const [first] = patch;
    if (patch.length === 1 && first.op === 'replace' && first.path === '')
      copy = clone(first.value as T);
    else applyInPlace(copy, patch);
  }
  return copy;
}

function applyInPlace(document: unknown, patch: readonly Operation[]): void {
  const failures = applyOperations(document, clone(patch) as never);
  const at = failures.findIndex((failure) => failure !== null);
  if (at >= 0)
    throw new PatchError(patch[at].path, failures[at]?.message ?? 'the patch does not apply');
}

/** The operations that turn one document into another; lists are replaced whole. */
export function patchBetween(before: unknown, after: unknown): Patch {
  return createPatch(before, after, (x: unknown, y: unknown, at: { toString(): string }) =>
    Array.isArray(x) && Array.isArray(y)
      ? JSON.stringify(x) === JSON.stringify(y)
        ? []
        : [{ op: 'replace', path: at.toString(), value: y }]
      : undefined,
  ) as Patch;
}

/** The patch that takes a change back, guarded by tests so that it never undoes what came later. */
export function invertPatch(before: unknown, after: unknown): Patch {
  const back = patchBetween(after, before);
  const guards: Patch = [];
  for (const operation of back) {
    if (operation.op === 'add' || operation.op === 'test') continue;
    guards.push({ op: 'test', path: operation.path, value: clone(valueAt(after, operation.path)) });
  }
  return [...guards, ...back];
}

/** Two patches touch nothing in common: no path of one is a prefix of a path of the other. */
export function disjoint(x: readonly Operation[], y: readonly Operation[]): boolean {
  const inside = (a: string, b: string): boolean => a === b || b.startsWith(`${a}/`);
  return x.every((p) => y.every((q) => !inside(p.path, q.path) && !inside(q.path, p.path)));
}

/** The value a JSON Pointer leads to; undefined where it leads nowhere. */
export function valueAt(document: unknown, path: string): unknown {
  let at = document;
  for (const raw of path.split('/').slice(1)) {
    if (typeof at !== 'object' || at === null) return undefined;
    at = (at as Record<string, unknown>)[raw.replaceAll('~1', '/').replaceAll('~0', '~')];
  }
  return at;
}
