/** Sizes of the parts of both kinds of files, bytes. */
const WOFF = { head: 44, entry: 20 } as const;
const SFNT = { head: 12, entry: 16 } as const;
const SIGNATURE = 0x774f4646;

/** Unpacks a deflate stream with its zlib head. */
export type Inflate = (packed: Uint8Array) => Promise<Uint8Array>;

const padded = (length: number): number => (length + 3) & ~3;

/**
 * A packed font (WOFF 1.0) as the font that is packed in it (sfnt), so that whoever measures its letters does not unpack
 * it for every document. Source: W3C, WOFF File Format 1.0, sections 3 to 5; search fields after OpenType, table directory.
 *
 * @returns the file as it is where it is not packed
 * @throws RangeError where the file ends before its tables
 * @example (await unpackedFont(woff, inflate)).byteLength // as its head says it was
 */
export async function unpackedFont(file: Uint8Array, inflate: Inflate): Promise<Uint8Array> {
  const from = new DataView(file.buffer, file.byteOffset, file.byteLength);
  if (from.getUint32(0) !== SIGNATURE) return file;
  const count = from.getUint16(12);
  const tables = await Promise.all(
    Array.from({ length: count }, async (_, i) => {
      const at = WOFF.head + i * WOFF.entry;
      const [tag, offset, packed, length, sum] = [0, 4, 8, 12, 16].map((o) =>
        from.getUint32(at + o),
      );
      if (offset + packed > file.byteLength)
        throw new RangeError('the font file ends before its tables');
      const body = file.subarray(offset, offset + packed);
      return { tag, length, sum, body: packed < length ? await inflate(body) : body };
    }),
  );
  const size = tables.reduce((sum, t) => sum + padded(t.length), SFNT.head + count * SFNT.entry);
  const out = new Uint8Array(size);
  const to = new DataView(out.buffer);
  const power = Math.floor(Math.log2(count));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, 2 ** power * SFNT.entry);
  to.setUint16(8, power);
  to.setUint16(10, (count - 2 ** power) * SFNT.entry);
  let offset = SFNT.head + count * SFNT.entry;
  tables.forEach(({ tag, length, sum, body }, i) => {
    [tag, sum, offset, length].forEach((value, j) =>
      to.setUint32(SFNT.head + i * SFNT.entry + 4 * j, value),
    );
    out.set(body, offset);
    offset += padded(length);
  });
  return out;
}
