import fc from 'fast-check';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import type { Evidence, EvidenceOf } from './evidence.js';
import { isolationNow, shiftEnd, standingIsolations } from './isolation.js';
import {
  arrivedAfter,
  contentHashOf,
  signable,
  signingOf,
  standsAsFrozen,
  usualRoles,
} from './signing.js';

const profile = marrowick();
const job = adopted(bareJob());
let count = 0;
const uuid = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;

const piece = (kind: Evidence['kind'], body: object, more: object = {}): Evidence =>
  ({
    id: uuid(),
    jobId: job.id,
    jobRevision: 3,
    kind,
    subject: kind,
    body,
    author: { name: 'A. Brandt', role: 'electrician' },
    atClient: `2026-03-02T08:00:${String(count % 60).padStart(2, '0')}.000Z`,
    coreVersion: '0.1.0',
    ...more,
  }) as Evidence;

const freeze = (evidence: readonly Evidence[], of = job, more: object = {}): EvidenceOf<'issue'> =>
  piece('issue', {
    version: 1,
    number: 1,
    contentHash: contentHashOf(of, profile, evidence),
    roles: [...usualRoles],
    covers: signable(evidence).map((e) => e.id),
    ...more,
  }) as EvidenceOf<'issue'>;
const sign = (frozen: EvidenceOf<'issue'>, role: string): Evidence =>
  piece('signature', { role, statement: '', documentHash: frozen.body.contentHash });
const keyed = (value: number): Evidence => piece('keyed', { code: '212', value });

describe('signing', () => {
  beforeEach(() => (count = 0));

  it('closes when every role has signed the same state, in whatever order the pieces arrive', () => {
    const evidence = [keyed(5), keyed(6)];
    const frozen = freeze(evidence);
    const [one, two] = usualRoles.map((role) => sign(frozen, role));
    expect(signingOf([...evidence, frozen, one]).missing).toEqual(['Accepted by']);
    fc.assert(
      fc.property(fc.shuffledSubarray([...evidence, frozen, one, two], { minLength: 5 }), (all) => {
        const { closed, number, signed } = signingOf(all);
        expect([closed, number, signed.length]).toEqual([true, 1, 2]);
        expect(standsAsFrozen(job, profile, all, frozen)).toBeTrue();
      }),
    );
  });

  it('asks for every signature again where something was changed and frozen anew before it closed', () => {
    const evidence = [keyed(5)];
    const first = freeze(evidence);
    const early = sign(first, usualRoles[0]);
    const changed = { ...job, machine: 'another' };
    expect(standsAsFrozen(changed, profile, evidence, first)).toBeFalse();
    const second = freeze(evidence, changed);
    const late = sign(second, usualRoles[1]);
    const state = signingOf([...evidence, first, early, second, late]);
    expect([state.closed, state.missing]).toEqual([false, [usualRoles[0]]]);
    // A signature under another hash, or twice under one role, closes nothing.
    const stray = [sign(first, usualRoles[0]), sign(second, usualRoles[1])];
    expect(signingOf([...evidence, first, early, second, late, ...stray]).closed).toBeFalse();
  });

  it('notices every change of what it covers: one value, a piece that is gone, another profile; not what came after', () => {
    const evidence = [keyed(5), keyed(6)];
    const frozen = freeze(evidence);
    const stands = (e: readonly Evidence[], p: unknown = profile): boolean =>
      standsAsFrozen(job, p, e, frozen);
    const later = keyed(7);
    expect(stands([...evidence, later])).toBeTrue();
    expect(arrivedAfter([...evidence, later, frozen], frozen)).toEqual([later]);
    expect(stands(evidence.slice(1))).toBeFalse();
    expect(
      stands([{ ...evidence[0], body: { code: '212', value: 5.1 } } as Evidence, evidence[1]]),
    ).toBeFalse();
    expect(stands(evidence, { ...profile, title: 'x' })).toBeFalse();
    // What a server notes of its arrival is no change.
    const noted = evidence.map(
      (e) => ({ ...e, atServer: 'x', hash: 'y', prevHash: 'z' }) as Evidence,
    );
    expect(stands(noted)).toBeTrue();
  });

  it('opens the next issue of a closed record only, and then every role signs again', () => {
    const frozen = freeze([]);
    const opens = (): Evidence =>
      piece('issue', { ...frozen.body, number: 2, opens: true }, { why: 'another ramp' });
    expect(signingOf([frozen, opens()])).toEqual(signingOf([frozen]));
    const closed = [frozen, ...usualRoles.map((role) => sign(frozen, role))];
    const next = signingOf([...closed, opens()]);
    expect([next.number, next.closed, next.missing, next.opened?.why]).toEqual([
      2,
      false,
      usualRoles,
      'another ramp',
    ] as never);
  });
});

describe('isolation', () => {
  beforeEach(() => (count = 0));
  const declare = (state: string, supersedes: string[] = [], until?: string): Evidence =>
    piece(
      'isolation',
      { version: 2, state, ...(until ? { until } : {}) },
      supersedes.length ? { supersedes } : {},
    );
  const at = (iso: string): number => Date.parse(iso);
  const noon = at('2026-03-02T12:00:00.000Z');

  it('stands as declared last by who knew the one before, until it runs out', () => {
    const dead = declare('DEAD', [], '2026-03-02T14:00:00.000Z');
    expect(isolationNow([], noon)).toBeUndefined();
    expect(isolationNow([dead], noon)).toEqual(
      jasmine.objectContaining({ state: 'DEAD', expired: false }),
    );
    expect(isolationNow([dead], at('2026-03-02T14:00:00.000Z'))?.expired).toBeTrue();
    const live = declare('MAIN LIVE', standingIsolations([dead]));
    expect(isolationNow([dead, live], noon)).toEqual(
      jasmine.objectContaining({ state: 'MAIN LIVE', contradicted: false }),
    );
  });

  it('shows the more live one of two that did not know of each other, whichever arrives last', () => {
    const [dead, live] = [declare('DEAD'), declare('CONTROL LIVE')];
    for (const all of [
      [dead, live],
      [live, dead],
    ])
      expect(isolationNow(all, noon)).toEqual(
        jasmine.objectContaining({ state: 'CONTROL LIVE', contradicted: true }),
      );
    const again = declare('DEAD', standingIsolations([dead, live]));
    expect(isolationNow([dead, live, again], noon)).toEqual(
      jasmine.objectContaining({ state: 'DEAD', contradicted: false }),
    );
  });

  it('reads what the first release kept as one after the other', () => {
    const old = ['MAIN LIVE', 'DEAD'].map((state) => piece('isolation', { state }));
    expect(isolationNow(old, noon)).toEqual(
      jasmine.objectContaining({ state: 'DEAD', contradicted: false }),
    );
  });

  it('prefills the end of the shift that goes on', () => {
    const end = (hour: number): [number, number] => {
      const from = new Date(2026, 2, 2, hour, 30);
      const to = shiftEnd(from);
      return [to.getHours(), to.getDate() - from.getDate()];
    };
    expect([5, 6, 13, 14, 22, 23].map(end)).toEqual([
      [6, 0],
      [14, 0],
      [14, 0],
      [22, 0],
      [6, 1],
      [6, 1],
    ]);
  });
});
