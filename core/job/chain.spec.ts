import fc from 'fast-check';
import { changeHash, evidenceHash, verifyEvidence } from './chain.js';
import type { Evidence } from './evidence.js';

const piece = (n: number): Evidence => ({
  id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
  jobId: '11111111-1111-4111-8111-111111111111',
  jobRevision: n,
  kind: 'keyed',
  subject: String(200 + n),
  body: { code: String(200 + n), value: n },
  author: { name: 'T. Ester', role: 'electrician' },
  atClient: '2026-01-01T08:00:00.000Z',
  atServer: '2026-01-01T08:00:01.000Z',
  coreVersion: '0.1.0',
});

function chained(count: number): Evidence[] {
  let prevHash = '';
  return Array.from({ length: count }, (_, n) => {
    const e = { ...piece(n), prevHash } as Evidence;
    prevHash = evidenceHash(prevHash, e);
    return { ...e, hash: prevHash };
  });
}

describe('a chain of evidence', () => {
  it('holds as it was made, and says with which hash it ends', () => {
    const list = chained(5);
    expect(verifyEvidence(list)).toEqual({
      ok: true,
      count: 5,
      ends: list[4].hash as string,
      waiting: 0,
    });
  });

  it('shows any one thing that was changed, taken out, put elsewhere or put between', () => {
    const changes: readonly ((e: Evidence) => Evidence)[] = [
      (e) => ({ ...e, body: { code: '1', value: 99 } }) as Evidence,
      (e) => ({ ...e, author: { ...e.author, name: 'Somebody else' } }),
      (e) => ({ ...e, atClient: '2026-01-02T08:00:00.000Z' }),
      (e) => ({ ...e, atServer: '2026-01-02T08:00:00.000Z' }),
      (e) => ({ ...e, clockAheadS: 5 }),
      (e) => ({ ...e, supersedes: piece(0).id }),
    ];
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 8 }),
        fc.nat(),
        fc.nat(),
        fc.constantFrom('change', 'take', 'swap', 'insert'),
        (count, at, which, how) => {
          const list = chained(count);
          const i = at % count;
          if (how === 'change') list[i] = changes[which % changes.length](list[i]);
          // the last one taken out leaves a chain that holds: only its end tells
          else if (how === 'take') list.splice(i % (count - 1), 1);
          else if (how === 'swap')
            [list[i], list[(i + 1) % count]] = [list[(i + 1) % count], list[i]];
          else
            list.splice(i, 0, { ...piece(99), prevHash: list[i].prevHash, hash: 'f'.repeat(64) });
          const check = verifyEvidence(list);
          expect(check.ok).withContext(`${how} at ${i} of ${count}`).toBeFalse();
          expect(check.broken?.index).toBeLessThanOrEqual(i + 1);
        },
      ),
      { seed: 11 },
    );
  });

  it('taken off at its end still holds, and ends otherwise', () => {
    const list = chained(4);
    expect([verifyEvidence(list.slice(0, 3)).ok, verifyEvidence(list.slice(0, 3)).ends]).toEqual([
      true,
      list[2].hash as string,
    ]);
  });

  it('may be followed by pieces that no server has taken yet, and by nothing chained behind them', () => {
    const list = chained(3);
    expect(verifyEvidence([...list, piece(7), piece(8)])).toEqual(
      jasmine.objectContaining({ ok: true, count: 3, waiting: 2 }),
    );
    expect(verifyEvidence([list[0], piece(7), list[1]]).ok).toBeFalse();
  });

  it('is not the same for two jobs that begin with the same change', () => {
    const change = {
      id: 'c',
      jobId: 'a',
      revision: 1,
      patch: [],
      author: { name: 'x', role: '' },
      atClient: '',
    };
    expect(changeHash('', change)).not.toBe(changeHash('', { ...change, jobId: 'b' }));
  });
});
