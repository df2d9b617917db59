import fc from 'fast-check';
import { unpackedFont } from './font-file.js';

/** A file of tables, one of every two packed by a packing of its own: each byte said twice is said once. */
function woffOf(tables: readonly (readonly number[])[]): Uint8Array {
  const head = 44 + 20 * tables.length;
  const bodies = tables.map((t, i) => (i % 2 && t.length > 1 ? t.slice(0, t.length - 1) : t));
  const size = bodies.reduce((sum, b) => sum + b.length, head);
  const out = new Uint8Array(size);
  const view = new DataView(out.buffer);
  view.setUint32(0, 0x774f4646);
  view.setUint32(4, 0x00010000);
  view.setUint16(12, tables.length);
  let at = head;
  bodies.forEach((body, i) => {
    [0x41414141 + i, at, body.length, tables[i].length, 77 + i].forEach((value, j) =>
      view.setUint32(44 + 20 * i + 4 * j, value),
    );
    out.set(body, at);
    at += body.length;
  });
  return out;
}

describe('a packed font', () => {
  it('is unpacked table by table, each on a boundary of four, and named as it was', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(fc.nat(255), { minLength: 1, maxLength: 9 }), {
          minLength: 1,
          maxLength: 7,
        }),
        async (tables) => {
          const unpacked: number[] = [];
          const out = await unpackedFont(woffOf(tables), async (packed) => {
            const whole = tables.find(
              (t) => t.length === packed.length + 1 && packed.every((x, i) => x === t[i]),
            ) as number[];
            unpacked.push(whole.length);
            return Promise.resolve(new Uint8Array(whole));
          });
          const view = new DataView(out.buffer);
          expect([view.getUint32(0), view.getUint16(4)]).toEqual([0x00010000, tables.length]);
          // Entries to be halved, and those that are left: together they are all.
          expect(view.getUint16(6) + view.getUint16(10)).toBe(16 * tables.length);
          expect(2 ** view.getUint16(8) * 16).toBe(view.getUint16(6));
          tables.forEach((table, i) => {
            const [tag, sum, offset, length] = [0, 4, 8, 12].map((o) =>
              view.getUint32(12 + 16 * i + o),
            );
            expect([tag, sum, length, offset % 4]).toEqual([
              0x41414141 + i,
              77 + i,
              table.length,
              0,
            ]);
            const body = [...out.subarray(offset, offset + length)];
            // Two tables that are packed alike may stand for each other here.
            if (i % 2 === 0) expect(body).toEqual([...table]);
            else expect(body.slice(0, -1)).toEqual(table.slice(0, -1));
          });
          expect(unpacked.length).toBe(tables.filter((t, i) => i % 2 && t.length > 1).length);
        },
      ),
    );
  });

  it('is left as it is where it is not packed, and refused where it is cut short', async () => {
    const plain = new Uint8Array([0, 1, 0, 0, 0, 0]);
    const never = (): Promise<Uint8Array> => Promise.reject(new Error('nothing is packed'));
    expect(await unpackedFont(plain, never)).toBe(plain);
    const cut = woffOf([[1, 2, 3, 4]]).subarray(0, 66);
    await expectAsync(unpackedFont(cut, never)).toBeRejectedWithError(RangeError);
  });
});
