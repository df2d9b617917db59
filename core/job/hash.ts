import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';

/**
 * SHA-256 over the canonical JSON form (RFC 8785) of a value, in hexadecimal.
 *
 * @example hashOf({ b: 1, a: 2 }) === hashOf({ a: 2, b: 1 }) // true
 */
export function hashOf(value: unknown): string {
  const text = (canonicalize as unknown as (input: unknown) => string | undefined)(value);
  return bytesToHex(sha256(utf8ToBytes(text ?? 'null')));
}

/** SHA-256 over bytes, in hexadecimal: the name under which a picture or file is stored. */
export function hashOfBytes(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}
