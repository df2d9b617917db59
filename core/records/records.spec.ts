import { factorySettings, modelOf } from '../catalogue/index.js';
import {
  punchClosed,
  punchList,
  punchOf,
  takenOut,
  temporaryRegister,
  handLine,
  tickOf,
  type Evidence,
  type ProcedureStep,
} from '../job/index.js';
import { adopted, bareJob, marrowick } from '../testing/jobs.js';
import {
  foundValues,
  handList,
  handOverObstacles,
  landedSection,
  heldValues,
  keyedShare,
  keyedSince,
  keySessionSince,
  pastRecords,
  settingRows,
  stepRecords,
} from './index.js';

const step = (key: string, basis = 'b1'): ProcedureStep => ({
  key,
  part: 'live',
  do: { code: key, args: {} },
  must: { code: key, args: {} },
  needs: [],
  cautions: [],
  expect: { kind: 'state', is: 'on' },
  from: { kind: 'formula', name: 'f' },
  basis,
});
let minute = 0;
const piece = (kind: string, subject: string, body: object, more: object = {}): Evidence =>
  ({
    id: `e${++minute}`,
    kind,
    subject,
    body,
    author: { name: 'A', role: '' },
    atClient: new Date(Date.UTC(2026, 0, 1, 8, minute)).toISOString(),
    ...more,
  }) as unknown as Evidence;
const reading = (key: string, verdict: 'pass' | 'fail', more: object = {}, of = step(key)) =>
  piece('reading', key, { version: 2, step: of, values: [{ value: 'on' }], verdict }, more);

describe('readings and their steps', () => {
  const [a, b] = [step('a'), step('b')];

  it('follow what was read just before: the link by the supply as it is, once that is within its own limits', () => {
    const ranged = (key: string, lo: number, nominal: number, hi: number): ProcedureStep => ({
      ...step(key),
      expect: { kind: 'range', lo, nominal, hi, unit: 'V' },
    });
    const supply = ranged('supply.volts', 360, 400, 440);
    const link = ranged('link.volts', 548.7, 565.7, 582.7);
    const read = (verdict: 'pass' | 'fail', ...volts: number[]): Evidence =>
      piece('reading', 'supply.volts', {
        version: 2,
        step: supply,
        values: volts.map((value) => ({ value, unit: 'V' })),
        verdict,
      });
    const expected = (...list: Evidence[]) => stepRecords([supply, link], list)[1].step;
    expect(expected().expect).toEqual(link.expect);
    const followed = expected(read('pass', 414, 416, 418));
    expect(followed.expect).toEqual({
      kind: 'range',
      lo: 570.6,
      nominal: 588.3,
      hi: 606,
      unit: 'V',
    });
    expect([followed.basis, followed.must.args['read']]).toEqual([link.basis, 416]);
    expect(expected(read('fail', 300, 300, 300)).expect).toEqual(link.expect);
    expect(expected(read('pass', 400, 400, 400))).toEqual(link);
  });

  it('one stands for those it supersedes, one or several, in whatever order they arrive', () => {
    const r1 = reading('a', 'fail');
    const r2 = reading('a', 'fail');
    const r3 = reading('a', 'pass', { supersedes: [r1.id, r2.id] });
    for (const list of [
      [r1, r2, r3],
      [r3, r2, r1],
      [r2, r3, r1],
    ]) {
      const [record] = stepRecords([a], list);
      expect([record.state, record.reading?.id]).toEqual(['pass', r3.id]);
      expect(record.earlier.map((r) => r.id)).toEqual([r1.id, r2.id]);
      expect(record.beside).toEqual([]);
    }
  });

  it('two people who read apart from each other both stand: the later counts, the other is told', () => {
    const [r1, r2] = [reading('a', 'pass'), reading('a', 'fail')];
    for (const list of [
      [r1, r2],
      [r2, r1],
    ]) {
      const [record] = stepRecords([a], list);
      expect([record.state, record.beside.map((r) => r.id)]).toEqual(['fail', [r1.id]]);
    }
  });

  it('is stale on another basis, and of an earlier procedure where the step is gone; it stays either way', () => {
    const stale = reading('a', 'pass', {}, step('a', 'b0'));
    const gone = reading('c', 'fail');
    expect(stepRecords([a, b], [stale, gone]).map((r) => r.state)).toEqual(['stale', 'open']);
    expect(pastRecords([a, b], [stale, gone]).map((r) => [r.step.key, r.state])).toEqual([
      ['c', 'past'],
    ]);
  });
});

describe('settings in three sets', () => {
  const profile = marrowick();
  const job = adopted(bareJob());
  const model = modelOf(profile, 'F02');
  if (!model) throw new Error('no model');
  const factory = factorySettings(profile, model);
  const row = (code: string, evidence: Evidence[]) =>
    settingRows(job, profile, factory, evidence).find((r) => r.code === code);
  const [code] = Object.keys(job.adopted?.settings ?? {}).filter(
    (c) => job.adopted?.settings[c].value !== factory[c],
  );
  const planned = job.adopted?.settings[code].value;

  it('a setting is to be keyed until it was read back as planned, and differs where it was read otherwise', () => {
    const left = (values: object) =>
      piece('snapshot', 'asLeft', { which: 'asLeft', source: 'typed', values });
    expect(row(code, [])?.state).toBe('toKey');
    expect(row(code, [left({ [code]: planned })])?.state).toBe('asPlanned');
    expect(row(code, [left({ [code]: factory[code] })])?.state).toBe('differs');
  });

  it('what was found is of the newest snapshot; nothing was found before there is one', () => {
    expect(foundValues(job, profile, [])).toBeUndefined();
    expect(settingRows(job, profile, factory, []).map((r) => r.found)).toEqual(
      Object.keys(factory).map(() => undefined),
    );
    const found = (value: unknown) =>
      piece('snapshot', 'asFound', {
        which: 'asFound',
        source: 'typed',
        values: { [code]: value },
      });
    expect(foundValues(job, profile, [found(1), found(2)])?.[code]).toBe(2);
  });

  it('a mark that was taken back is no mark, until it is set again', () => {
    const keyed = (value: number, undone?: boolean) =>
      piece('keyed', '212', { code: '212', value, ...(undone ? { undone } : {}) });
    const since = '2026-01-01T00:00:00.000Z';
    expect(keyedSince([keyed(4)], since)).toEqual({ 212: 4 });
    expect(keyedSince([keyed(4), keyed(4, true)], since)).toEqual({});
    expect(keyedSince([keyed(4), keyed(4, true), keyed(5)], since)).toEqual({ 212: 5 });
    expect(keyedSince([keyed(4)], undefined)).toEqual({});
  });

  it('the device holds what was found and keyed since, in the order in which it was done; a reset forgets it', () => {
    const keyed = (line: string, value: number) => piece('keyed', line, { code: line, value });
    const session = (state: string) =>
      piece('keySession', 'key', { version: 1, state, basis: 'b' });
    const found = piece('snapshot', 'asFound', {
      which: 'asFound',
      source: 'typed',
      values: { 211: 9, 710: 1 },
    });
    const first = [found, session('begun'), keyed('710.makeSafe', 0), keyed('211', 4)];
    const held = (e: Evidence[], until?: string) => heldValues(job, profile, e, until) ?? {};
    expect([held(first)['710'], held(first)['211']]).toEqual([0, 4]);
    // While a session goes on, what its lines start from is what was held when it began.
    const since = keySessionSince(first);
    expect([held(first, since)['710'], held(first, since)['211']]).toEqual([1, 9]);
    expect(keyedSince(first, since)).toEqual({ '710.makeSafe': 0, 211: 4 });
    const left = [...first, session('interrupted')];
    expect(keySessionSince(left)).toBeUndefined();
    expect(keyedSince(left, keySessionSince(left))).toEqual({});
    expect(keySessionSince([...left].reverse())).toBeUndefined();
    const reset = piece('snapshot', 'asFound', { which: 'asFound', source: 'factory', values: {} });
    expect(held([...left, reset])).toEqual(factory as never);
    expect(held([...left, reset, keyed('211', 6)])['211']).toBe(6);
    const rows = settingRows(job, profile, factory, [...left, reset]);
    expect(rows.every((r) => r.byReset && r.found === undefined)).toBeTrue();
  });

  it('of the settings that had to be changed, says how many the device holds', () => {
    const planned = { 211: { value: 4 }, 212: { value: 5 }, 310: { value: 0 } };
    const start = { 211: 9, 212: 5, 310: 0 };
    expect(keyedShare(planned, start, start)).toEqual({ done: 0, of: 1 });
    expect(keyedShare(planned, start, { ...start, 211: 4 })).toEqual({ done: 1, of: 1 });
    // A value that was right and was keyed away is due again.
    expect(keyedShare(planned, start, { ...start, 211: 4, 310: 1 })).toEqual({ done: 1, of: 2 });
  });

  it('each thing against hand-over is named with the stage where it is put right', () => {
    const rows = settingRows(job, profile, factory, []);
    const records = stepRecords([step('a'), step('b')], [reading('b', 'fail')]);
    const stop = {
      key: 'k',
      rule: 'r',
      severity: 'stop',
      rank: 'protects',
      stage: 'plate',
      where: [],
      args: {},
      source: '',
      basis: '',
    } as const;
    const named = (j = job, findings = [stop] as never, r = rows, e: Evidence[] = []) =>
      handOverObstacles(j, findings, records, r, e).map((o) => [o.key, o.stage]);
    expect(named()).toEqual([
      ['k', 'plate'],
      ['steps.fail', 'live'],
      ['steps.open', 'live'],
      ['settings.left', 'key'],
    ]);
    expect(named({ ...job, adopted: undefined })[0]).toEqual(['plan', 'land']);
    expect(named(job, [{ ...stop, severity: 'warn' }] as never).map(([k]) => k)).not.toContain('k');
    const left = piece('snapshot', 'asLeft', {
      which: 'asLeft',
      values: { [code]: factory[code] },
    });
    const differing = settingRows(job, profile, factory, [left]);
    expect(named(job, [] as never, differing, [left]).map(([k]) => k)).toEqual([
      'steps.fail',
      'steps.open',
      'settings.differ',
      'settings.unread',
    ]);
  });

  it('is blocked by dead checks that are open or have failed', () => {
    const blocked = (...states: Evidence[]): string[] =>
      handOverObstacles(job, [], [], [], [], stepRecords([step('a'), step('b')], states))
        .filter((o) => o.stage === 'dead')
        .map((o) => o.key);
    expect(blocked()).toEqual(['dead.open']);
    expect(blocked(reading('b', 'fail'))).toEqual(['dead.fail', 'dead.open']);
    expect(blocked(reading('a', 'pass'), reading('b', 'pass'))).toEqual([]);
  });
});

describe('hand list', () => {
  const job = adopted(bareJob());
  const ids = handList(job, []).map((l) => l.id);
  const tick = (of: typeof job, wires: readonly string[], undone = false): Evidence =>
    piece(
      'handTick',
      'hand',
      tickOf(
        wires.map((id) => handLine(id, of)),
        'landed',
        'line',
        undone,
      ),
    );

  it('keeps what is landed by line or cable, takes it back, and merges two people in any order', () => {
    const first = tick(job, ids.slice(0, 3));
    const second = tick(job, ids.slice(2, 5));
    const back = tick(job, [ids[0]], true);
    for (const all of [
      [first, second, back],
      [back, second, first],
    ])
      expect(
        handList(job, all)
          .filter((l) => l.landed)
          .map((l) => l.id),
      ).toEqual(ids.slice(1, 5));
  });

  it('is a section only while some wires are landed and others are not', () => {
    expect(landedSection(job, [])).toBeUndefined();
    expect([...(landedSection(job, [tick(job, ids.slice(1))]) ?? [])]).toEqual(ids.slice(1));
    expect(landedSection(job, [tick(job, ids)])).toBeUndefined();
    const codes = (evidence: Evidence[]): string[] =>
      handOverObstacles(job, [], [], [], evidence).map((o) => o.key);
    expect(codes([tick(job, ids.slice(1))])).toContain('hand.open');
    expect(codes([tick(job, ids)])).not.toContain('hand.open');
    expect(codes([])).not.toContain('hand.open');
  });

  it('asks for a wire again that is planned otherwise since', () => {
    const all = tick(job, ids);
    const wires = job.adopted?.wires ?? {};
    const moved = {
      ...job,
      adopted: {
        ...(job.adopted as NonNullable<typeof job.adopted>),
        wires: { ...wires, [ids[0]]: { ...wires[ids[0]], to: 'device:IN6' } },
      },
    };
    const line = handList(moved, [all]).find((l) => l.id === ids[0]);
    expect([line?.landed, line?.stale]).toEqual([undefined, true]);
    expect(landedSection(moved, [all])?.has(ids[0])).toBeFalse();
  });
});

describe('open points', () => {
  const point = (subject: string, category: 'beforePower' | 'beforeProduction' | 'later') =>
    piece('punch', subject, punchOf(`${subject} is missing`, category, { owner: 'M. Stroud' }));
  const blocks = (evidence: readonly Evidence[]) =>
    handOverObstacles(adopted(bareJob()), [], [], [], evidence)
      .filter((o) => o.code === 'obstacle.punch')
      .map((o) => [o.args['count'], o.mayStay]);

  it('are listed by when they are due, stay closed, and block until then; what power waits for is never left open', () => {
    const [label, guard, paint] = [
      point('label', 'beforeProduction'),
      point('guard', 'beforePower'),
      point('paint', 'later'),
    ];
    const all = [paint, label, guard];
    expect(punchList(all).map((p) => p.subject)).toEqual(['guard', 'label', 'paint']);
    expect(blocks(all)).toEqual([[2, false]]);
    const closes = piece('punch', 'guard', punchClosed(punchList(all)[0]));
    for (const order of [
      [...all, closes],
      [closes, ...all],
    ]) {
      expect(blocks(order)).toEqual([[1, true]]);
      expect(punchList(order)[0].closed).toBeDefined();
    }
    expect(blocks([paint])).toEqual([]);
    // Points of before there were categories keep their place by their rank.
    const old = piece('punch', 'old', { version: 1, text: 'x', rank: 'mustFix' });
    expect(punchList([paint, old])[0].category).toBe('beforePower');
  });
});

describe('what is in for tests', () => {
  const put = (subject: string, what: string, more: object = {}) =>
    piece('temporary', subject, { version: 1, kind: 'jumper', where: 'T1:D3', what, ...more });
  const blocks = (evidence: readonly Evidence[]): string[] =>
    handOverObstacles(adopted(bareJob()), [], [], [], evidence).map((o) => o.code);

  it('stays in until it is taken out, whichever arrives first, and blocks handing over until then', () => {
    const one = put('temporary.1', 'inhibit held closed');
    const two = put('temporary.2', 'level contact bridged');
    const out = put('temporary.1', 'inhibit held closed', { removed: true });
    for (const evidence of [
      [one, two, out],
      [out, two, one],
    ]) {
      const register = temporaryRegister(evidence);
      expect(register.map((t) => [t.what, t.removed?.id])).toEqual([
        ['inhibit held closed', out.id],
        ['level contact bridged', undefined],
      ]);
      expect(blocks(evidence)).toContain('obstacle.temporary');
    }
    const other = put('temporary.2', 'level contact bridged', { removed: true });
    expect(blocks([one, two, out, other])).not.toContain('obstacle.temporary');
    expect(blocks([])).not.toContain('obstacle.temporary');
  });

  it('is told by what and where, by whom it was put in and taken out', () => {
    const one = put('temporary.1', 'inhibit held closed');
    const [t] = temporaryRegister([one]);
    expect([t.kind, t.where, t.put.author.name]).toEqual(['jumper', 'T1:D3', 'A']);
    expect(takenOut(t)).toEqual({
      version: 1,
      kind: 'jumper',
      where: 'T1:D3',
      what: 'inhibit held closed',
      removed: true,
    });
  });
});
