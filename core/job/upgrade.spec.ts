import * as v from 'valibot';
import auger from './fixtures/format-1/fm-auger.tactron.json' with { type: 'json' };
import crush from './fixtures/format-1/fm-crush.tactron.json' with { type: 'json' };
import drum from './fixtures/format-1/fm-drum-1.tactron.json' with { type: 'json' };
import {
  evidenceHash,
  evidenceSchema,
  hashOf,
  isOfLaterRelease,
  jobSchema,
  readEnvelope,
  readingTold,
  upgradeJob,
  verifyEvidence,
  type Evidence,
  type Job,
} from './index.js';

type Plain = Record<string, unknown>;
const files = { auger, crush, drum } as unknown as Record<string, { job: Plain } & Plain>;

/** A reading and a mark as the first release kept them, chained by its formula. */
function firstEvidence(jobId: string): Evidence[] {
  const step = {
    key: 'supply.volts',
    part: 'live',
    do: { code: 'supply.volts', args: {} },
    must: { code: 'volts', args: { volts: 400 } },
    needs: [],
    cautions: ['liveWork'],
    expect: { kind: 'range', lo: 360, hi: 440, nominal: 400, unit: 'V' },
    from: { kind: 'standard', name: 'IEC 60038' },
    basis: 'b',
  };
  const piece = (n: number, kind: string, subject: string, body: unknown) => ({
    id: `00000000-0000-4000-8000-00000000000${n}`,
    jobId,
    jobRevision: 3,
    kind,
    subject,
    body,
    author: { name: 'A', role: 'electrician' },
    atClient: '2026-01-01T08:00:00.000Z',
    atServer: '2026-01-01T08:00:01.000Z',
    coreVersion: '0.1.0',
  });
  let prevHash = '';
  return [
    piece(1, 'reading', 'supply.volts', { step, reading: 398.5, unit: 'V', verdict: 'pass' }),
    piece(2, 'keyed', '212', { code: '212', value: 5 }),
  ].map((e) => {
    const chained = { ...e, prevHash } as unknown as Evidence;
    prevHash = hashOf([chained.prevHash, e]);
    return { ...chained, hash: prevHash };
  });
}

describe('a job file of the first format', () => {
  it('opens in this one: the plan is the plan, and every wire, setting and reading is what it was', () => {
    for (const [name, file] of Object.entries(files)) {
      const evidence = firstEvidence(file.job['id'] as string);
      const read = readEnvelope({ ...file, evidence });
      if (!read.ok) throw new Error(`${name}: ${read.issues[0].path} ${read.issues[0].message}`);
      const { job } = read.envelope;
      const before = file.job as unknown as Job;
      expect([job.version, read.envelope.version]).withContext(name).toEqual([2, 2]);
      for (const part of ['plate', 'scheme', 'scripts', 'profile'] as const)
        expect(hashOf(job[part])).withContext(`${name} ${part}`).toBe(hashOf(before[part]));
      for (const part of ['wires', 'settings', 'assignments', 'links', 'planHash'] as const)
        expect(hashOf(job.adopted?.[part] ?? null))
          .withContext(`${name} ${part}`)
          .toBe(hashOf(before.adopted?.[part] ?? null));
      expect(hashOf(read.envelope.evidence)).withContext(name).toBe(hashOf(evidence));
      expect(verifyEvidence(read.envelope.evidence)).toEqual(
        jasmine.objectContaining({ ok: true, count: 2 }),
      );
    }
  });

  it('names the device of its wiring, and holds contacts as data', () => {
    const job = upgradeJob(files['auger'].job) as Job;
    expect(job.adopted?.device).toBe('drive');
    const selector = Object.values(job.adopted?.devices ?? {}).find(
      (d) => d.kind === 'presetSelector',
    );
    expect(selector?.positions).toEqual(['1', '2', '3']);
    expect(selector?.contacts?.map((c) => [c.a, c.b])).toEqual([
      ['13', '14'],
      ['23', '24'],
    ]);
    expect(JSON.stringify(selector)).not.toContain('|');
  });

  it('is left alone when it is of this format, and comes out the same twice', () => {
    const once = upgradeJob(files['drum'].job);
    expect(hashOf(upgradeJob(once))).toBe(hashOf(once));
    expect(v.safeParse(jobSchema, once).success).toBeTrue();
  });

  it('turns what was noted of the panel into faults, and leaves what names no fault', () => {
    const noted = (where: object, actual: unknown) => ({ ord: 1, where, actual, why: 'found' });
    const job = upgradeJob({
      ...files['auger'].job,
      deviations: {
        a: noted({ kind: 'setting', id: '212' }, 9),
        b: noted({ kind: 'wire', id: 'w1' }, { to: 'drive:IN3' }),
        c: noted({ kind: 'wire', id: 'w2' }, 'cut'),
        d: noted({ kind: 'plate', id: 'motor' }, 'no plate'),
      },
    }) as Job;
    expect(
      Object.fromEntries(Object.entries(job.deviations).map(([k, d]) => [k, d.actual])),
    ).toEqual({
      a: { kind: 'setting', code: '212', value: 9 },
      b: { kind: 'landed', wire: 'w1', end: 'to', at: 'drive:IN3' },
      c: { kind: 'open', wire: 'w2' },
    });
  });
});

describe('evidence across releases', () => {
  const [first] = firstEvidence('11111111-1111-4111-8111-111111111111');

  it('is chained by the formula it was taken with; who sent it counts in the second', () => {
    const second = { ...first, formula: 2 } as Evidence;
    const by = (sentBy?: string): string =>
      evidenceHash('', { ...second, ...(sentBy ? { sentBy } : {}) } as Evidence);
    const account = '22222222-2222-4222-8222-222222222222';
    expect(by(account)).not.toBe(by());
    expect(evidenceHash('', { ...first, sentBy: account } as Evidence)).toBe(first.hash as string);
  });

  it('reads a reading of either release the same way', () => {
    if (first.kind !== 'reading') throw new Error('no reading');
    const now = {
      version: 2,
      step: first.body.step,
      values: [{ value: 398.5, unit: 'V', typed: '398,5' }],
      verdict: 'pass',
      instrument: { name: 'M1' },
    } as const;
    expect(readingTold(first.body).values[0]).toEqual({ value: 398.5, unit: 'V' });
    expect(readingTold(now as never)).toEqual({
      values: [{ value: 398.5, unit: 'V', typed: '398,5' }],
      instrument: 'M1',
    } as never);
    expect(v.safeParse(evidenceSchema, { ...first, body: now }).success).toBeTrue();
  });

  it('of a later release is known as such, and a mistake is not taken for it', () => {
    expect(isOfLaterRelease({ kind: 'hologram', body: {} })).toBeTrue();
    expect(isOfLaterRelease({ kind: 'reading', body: { version: 3 } })).toBeTrue();
    expect(isOfLaterRelease({ kind: 'reading', body: { version: 2 } })).toBeFalse();
    expect(isOfLaterRelease({ kind: 'keyed', body: { code: 1 } })).toBeFalse();
    expect(isOfLaterRelease(null)).toBeFalse();
  });
});
