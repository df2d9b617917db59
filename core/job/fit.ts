import type { PathIssue } from './envelope.js';

/** Largest job document that is kept, as JSON, bytes: the drum with 46 wires takes 40 kB. */
export const MAX_JOB_BYTES = 1_000_000;
/** Largest piece of evidence, as JSON, bytes. */
export const MAX_EVIDENCE_BYTES = 200_000;
/** Deepest nesting of anything that is sent or read. */
const MAX_DEPTH = 40;

/**
 * What no store can hold, whatever a schema says of it: half a character (an unpaired surrogate), a null character, or
 * values nested without end.
 *
 * @param data anything that came as JSON
 * @returns the first place that does not fit, its keys joined by dots; undefined when all of it does
 * @example unfit({ serial: '\ud83d' }) // { path: 'serial', message: 'half a character: …' }
 */
export function unfit(data: unknown): PathIssue | undefined {
  return unfitAt(data, []);
}

function unfitAt(data: unknown, path: string[]): PathIssue | undefined {
  if (typeof data === 'string') return unfitText(data, path);
  if (typeof data !== 'object' || data === null) return undefined;
  if (path.length >= MAX_DEPTH)
    return { path: path.slice(0, 6).join('.'), message: `nested deeper than ${MAX_DEPTH} levels` };
  if (Array.isArray(data)) {
    for (let i = 0; i < data.length; i++) {
      const found = unfitAt(data[i], [...path, String(i)]);
      if (found) return found;
    }
    return undefined;
  }
  for (const key of Object.keys(data)) {
    const found =
      unfitText(key, path) ?? unfitAt((data as Record<string, unknown>)[key], [...path, key]);
    if (found) return found;
  }
  return undefined;
}

/** Surrogates that stand alone: read by code points, those of a pair are none. */
const HALF = /\p{Surrogate}/u;

function unfitText(text: string, path: readonly string[]): PathIssue | undefined {
  const at = path.join('.');
  if (text.includes('\0')) return { path: at, message: 'a null character: take it out' };
  if (HALF.test(text)) return { path: at, message: 'half a character: type it again' };
  return undefined;
}

/** Bytes of a value as JSON in UTF-8. */
export function jsonBytes(data: unknown): number {
  return new TextEncoder().encode(JSON.stringify(data)).length;
}
