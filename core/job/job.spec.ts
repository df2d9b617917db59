import fc from 'fast-check';
import * as v from 'valibot';
import { adopted, bareJob } from '../testing/jobs.js';
import { readEnvelope } from './envelope.js';
import { hashOf } from './hash.js';
import { jobSchema } from './job.js';
import {
  applyPatch,
  disjoint,
  invertPatch,
  patchBetween,
  PatchError,
  replayPatches,
  type Operation,
} from './patch.js';

const value = fc.oneof(fc.integer(), fc.string({ maxLength: 5 }), fc.boolean());
const document = fc.dictionary(
  fc.constantFrom('a', 'b', 'c', 'd/e', 'f~g'),
  fc.oneof(
    value,
    fc.dictionary(
      fc.constantFrom('x', 'y', 'z'),
      fc.oneof(value, fc.array(fc.integer(), { maxLength: 3 })),
    ),
  ),
);

describe('patches', () => {
  it('lead from one document to the other and back', () => {
    fc.assert(
      fc.property(document, document, (before, after) => {
        expect(applyPatch(before, patchBetween(before, after))).toEqual(after);
        expect(applyPatch(after, invertPatch(before, after))).toEqual(before);
      }),
      { seed: 2 },
    );
  });

  it('that take back a change refuse to run over a later one', () => {
    const back = invertPatch({ a: 1, b: 1 }, { a: 2, b: 1 });
    expect(applyPatch({ a: 2, b: 9 }, back)).toEqual({ a: 1, b: 9 });
    expect(() => applyPatch({ a: 3, b: 1 }, back)).toThrowError(PatchError);
  });

  it('replayed one after the other give what applying each gives, from any whole document on', () => {
    fc.assert(
      fc.property(fc.array(document, { minLength: 2, maxLength: 6 }), (states) => {
        const patches = states.slice(1).map((after, i) => patchBetween(states[i], after));
        expect(replayPatches(states[0], patches)).toEqual(states[states.length - 1]);
        expect(
          replayPatches<unknown>({ other: 1 }, [
            [{ op: 'replace', path: '', value: states[0] }],
            ...patches,
          ]),
        ).toEqual(states[states.length - 1]);
      }),
      { seed: 4 },
    );
  });

  it('are disjoint only when no path lies inside another', () => {
    const at = (...paths: string[]): Operation[] =>
      paths.map((path) => ({ op: 'add', path, value: 1 }));
    expect(disjoint(at('/plate/motor/rpm'), at('/plate/motor/hz'))).toBeTrue();
    expect(disjoint(at('/plate/motor'), at('/plate/motor/hz'))).toBeFalse();
    expect(disjoint(at('/a'), at('/ab'))).toBeTrue();
    expect(disjoint(at('/a/b'), at('/c', '/a/b'))).toBeFalse();
  });

  it('that commute when disjoint: either order gives the same document', () => {
    fc.assert(
      fc.property(document, document, document, (base, x, y) => {
        const [px, py] = [patchBetween(base, x), patchBetween(base, y)];
        fc.pre(disjoint(px, py));
        expect(applyPatch(applyPatch(base, px), py)).toEqual(applyPatch(applyPatch(base, py), px));
      }),
      { seed: 6 },
    );
  });
});

describe('the job document', () => {
  it('survives writing and reading with the same hash, whatever the order of keys', () => {
    const job = adopted(bareJob());
    const read = readEnvelope(
      JSON.parse(
        JSON.stringify({
          format: 'tactron-job',
          version: 1,
          job: Object.fromEntries(Object.entries(job).reverse()),
          profiles: {},
        }),
      ),
    );
    expect(read.ok && hashOf(read.envelope.job)).toBe(hashOf(job));
  });

  it('hashes like the published example of canonical JSON (RFC 8785 §3.2.3)', () => {
    // keys sorted by UTF-16 code units; the hash was made with openssl over the canonical text {"\n":"a","1":"b"}
    expect(hashOf({ '1': 'b', '\n': 'a' })).toBe(hashOf(JSON.parse('{"\\n":"a","1":"b"}')));
    expect(hashOf({})).toBe('44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a');
  });

  it('is refused with the path, and a newer file says so', () => {
    const read = (change: (job: Record<string, unknown>) => void) => {
      const job = JSON.parse(JSON.stringify(adopted(bareJob()))) as Record<string, unknown>;
      change(job);
      const result = readEnvelope(job);
      return result.ok ? 'ok' : `${result.why} ${result.issues[0].path}`;
    };
    expect(read(() => undefined)).toBe('ok');
    expect(read((j) => (j['tag'] = ' '))).toBe('invalid tag');
    expect(read((j) => (j['colour'] = 'red'))).toBe('invalid colour');
    expect(
      read((j) => ((j['plate'] as { motor: { power: unknown } }).motor.power = { v: -1, u: 'kW' })),
    ).toBe('invalid plate.motor.power.v');
    expect(
      read(
        (j) => delete (j['adopted'] as { devices: Record<string, unknown> }).devices['dial.speed'],
      ),
    ).toMatch(/^invalid adopted\.wires\./u);
    expect(
      read(
        (j) =>
          ((j['adopted'] as { assignments: Record<string, { at: string }> }).assignments[
            'run.forward'
          ].at = 'gone:IN1'),
      ),
    ).toMatch(/^invalid adopted\.assignments\./u);
    expect(read((j) => (j['version'] = 3))).toBe('newer version');
  });

  it('has a schema that agrees with what it makes', () => {
    expect(v.is(jobSchema, adopted(bareJob({ directionBy: 'twoContacts' })))).toBeTrue();
  });
});
