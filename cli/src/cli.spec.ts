import { generateKeyPairSync, sign } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { hazardRules } from '@tactron/core/hazards';
import { evidenceHash, hashOf, hashOfBytes, keyName, sealedText } from '@tactron/core/job';
import { isTrialId, trialGrammar } from '@tactron/core/trials';
import { findingRules } from '@tactron/core/words';
import { demo, folder, put, run } from './testing/run.js';

const job = (): Record<string, never> =>
  (JSON.parse(readFileSync(demo, 'utf8')) as { job: Record<string, never> }).job;

describe('tactron', () => {
  it('solves a network, and a list of them in order', () => {
    const net = (volts: number) => ({
      reference: '0V',
      nodes: ['+', '0V', 'X'],
      elements: [{ id: 'PS', kind: 'voltageSource', a: '+', b: '0V', volts }],
    });
    expect(run('solve', put(net(24))).json).toEqual({
      nodeVolts: { '+': 24, '0V': 0, 'X': null },
      elementAmps: { PS: 0 },
    });
    expect(
      (run('solve', put([net(5), net(12)])).json as { nodeVolts: Record<string, number> }[]).map(
        (r) => r.nodeVolts['+'],
      ),
    ).toEqual([5, 12]);
  });

  it('verifies the chain, the profiles and the files of a job file, and exits 1 where one does not hold', () => {
    const file = JSON.parse(readFileSync(demo, 'utf8')) as {
      job: { id: string };
      profiles: Record<string, object>;
      evidence: unknown[];
      files?: object;
    };
    const text = Buffer.from('t;V\n0;398.5');
    const sha256 = hashOfBytes(text);
    const piece = (n: number, kind: string, body: object) => ({
      id: `00000000-0000-4000-8000-00000000000${n}`,
      jobId: file.job.id,
      jobRevision: 0,
      kind,
      subject: 's',
      body,
      author: { name: 'T. Ester', role: '' },
      atClient: '2026-01-01T08:00:00.000Z',
      atServer: '2026-01-01T08:00:01.000Z',
      coreVersion: '0.1.0',
    });
    let prevHash = '';
    file.evidence = [
      piece(1, 'isolation', { state: 'DEAD' }),
      piece(2, 'attachment', { sha256, name: 'log.csv', type: 'text/csv', bytes: text.length }),
    ].map((e) => {
      const chained = { ...e, prevHash };
      prevHash = evidenceHash(prevHash, chained as never);
      return { ...chained, hash: prevHash };
    });
    file.files = { [sha256]: { type: 'text/csv', base64: text.toString('base64') } };
    const good = run('verify', put(file));
    expect([good.status, good.json]).toEqual([
      0,
      jasmine.objectContaining({
        ok: true,
        count: 2,
        ends: prevHash,
        waiting: 0,
        signature: 'unsigned',
        wrong: [],
        missingFiles: [],
      }),
    ]);
    const { privateKey, publicKey } = generateKeyPairSync('ed25519');
    const said = {
      jobId: file.job.id,
      revision: 3,
      document: hashOf(file.job),
      changes: '',
      evidence: { count: 2, ends: prevHash },
      at: '2026-01-01T09:00:00.000Z',
      key: publicKey.export({ format: 'der', type: 'spki' }).toString('base64'),
    };
    const signature = sign(null, Buffer.from(sealedText(said)), privateKey).toString('base64');
    const sealed = (more: object): ReturnType<typeof run> =>
      run('verify', put({ ...file, seal: { ...said, signature }, ...more }));
    const whole = sealed({});
    expect([whole.status, whole.json]).toEqual([
      0,
      jasmine.objectContaining({
        signature: 'signed',
        signedEntries: 2,
        documentAsSigned: true,
        key: keyName(said.key),
      }),
    ]);
    const cut = sealed({ evidence: (file.evidence as object[]).slice(0, 1) });
    expect([cut.status, cut.json]).toEqual([
      1,
      jasmine.objectContaining({ ok: false, signature: 'cut' }),
    ]);
    const other = sealed({ seal: { ...said, revision: 4, signature } });
    expect([other.status, other.json]).toEqual([
      1,
      jasmine.objectContaining({ ok: false, signature: 'false' }),
    ]);
    const changed = (
      change: (f: {
        evidence: { body: object }[];
        files: Record<string, { base64: string }>;
        profiles: Record<string, { title: string }>;
      }) => void,
    ) => {
      const copy = JSON.parse(JSON.stringify(file)) as Parameters<typeof change>[0];
      change(copy);
      const { status, json } = run('verify', put(copy));
      return { status, ...(json as { broken?: object; wrong: string[]; missingFiles: string[] }) };
    };
    expect(changed((f) => (f.evidence[0].body = { state: 'MAIN LIVE' }))).toEqual(
      jasmine.objectContaining({
        status: 1,
        broken: jasmine.objectContaining({ index: 0, why: 'content' }),
      }),
    );
    expect(changed((f) => (f.files[sha256].base64 = 'AAAA'))).toEqual(
      jasmine.objectContaining({ status: 1, wrong: [`files.${sha256}`] }),
    );
    expect(changed((f) => (Object.values(f.profiles)[0].title = 'Another'))).toEqual(
      jasmine.objectContaining({ status: 1 }),
    );
    expect(changed((f) => (f.files = {}))).toEqual(
      jasmine.objectContaining({ status: 0, missingFiles: [sha256] }),
    );
  });

  it('exits 2 on bad input with its path', () => {
    const bad = run(
      'solve',
      put({
        reference: '0V',
        nodes: ['0V'],
        elements: [{ id: 'R', kind: 'coil', a: '0V', b: '0V' }],
      }),
    );
    expect([bad.status, bad.stderr.startsWith('tactron: elements.0.kind:')]).toEqual([2, true]);
    const batch = run(
      'drive',
      put([
        { control: { startMethod: 'levelForwardReverse' }, sampleMs: [0] },
        { control: {}, sampleMs: [] },
      ]),
    );
    expect([batch.status, batch.json]).toEqual([
      2,
      [
        [jasmine.objectContaining({ atMs: 0, state: 'ready' })],
        {
          error: jasmine.objectContaining({ path: 'control.startMethod' }) as unknown,
        },
      ],
    ]);
    expect(batch.stderr).toMatch(/^tactron: 1\.control\.startMethod:/u);
    expect(run('plan', put('{ no')).status).toBe(2);
    expect(run('solve', join(folder, 'missing.json')).status).toBe(2);
    const fit = {
      powerKw: 37,
      lineV: 400,
      hz: 50,
      rpm: 1480,
      currentA: 66.8,
      powerFactor: 0.85,
      efficiency: 0.94,
      lockedCurrentRatio: 7.1,
      lockedTorqueRatio: 2.2,
      breakdownRatio: 2.7,
    };
    expect(run('calc', 'fitMotor', put({ plate: { ...fit, rpm: 3600 } })).stderr).toContain(
      'tactron: plate.rpm: plate.rpm must be below 3000 rpm',
    );
    expect(run('calc', 'dcLinkVoltage', put({ supplyV: -3 })).stderr).toContain(
      'tactron: supplyV: supplyV must be above 0 V',
    );
  });

  it('says "not yet" with the path for what is understood and not built', () => {
    expect(
      run(
        'drive',
        put({
          control: { startMethod: 'levelForwardReverse', commandSource: 'bus' },
          sampleMs: [0],
        }),
      ).stderr,
    ).toMatch(/^tactron: control\.commandSource: not yet/u);
    expect(run('calc', 'noSuchSum', put({})).stderr).toBe(
      'tactron: name: there is no calculation "noSuchSum"',
    );
  });

  it('names the wishes that exclude each other, and exits 2', () => {
    const wished = run(
      'plan',
      put({ ...job(), adopted: undefined, scheme: { startStop: 'threeWire', startWarningS: 4 } }),
    );
    expect([wished.status, wished.stderr]).toEqual([
      2,
      jasmine.stringMatching(
        /How it starts and stops \+ start warning: A start warning delays a run/u,
      ),
    ]);
  });

  it('checks the demo job, and exits 1 when a finding says stop', () => {
    const ok = run('check', demo);
    expect([ok.status, (ok.json as { key: string }[]).map((f) => f.key)]).toEqual([
      0,
      ['cable.reflectedWave:cable.length', 'restart.powerReturn'],
    ]);
    const exposed = job() as unknown as { scheme: { exposed: string } };
    exposed.scheme.exposed = 'atMachine';
    expect(run('check', put(exposed)).status).toBe(1);
  });

  it('rehearses a script at sample times', () => {
    const { adopted } = job() as unknown as {
      adopted: {
        wires: Record<string, { number: string; function: string }>;
        assignments: Record<string, { at: string }>;
      };
    };
    const wire = Object.values(adopted.wires).find((w) => w.function === 'run.forward')?.number;
    const states = (acts: object[], sample: string) =>
      run('rehearse', demo, '--script', put(acts, 's.json'), '--sample', sample).json as {
        state: string;
        hz: number;
      }[];
    const on = { atMs: 0, do: 'supplyOn' };
    const heard = states(
      [
        on,
        { atMs: 3000, do: 'press', device: 'contact.forward' },
        { atMs: 12_000, do: 'breakWire', wire },
      ],
      '2500,7900,9020,11900,18000',
    );
    // A warning of 5 s, then 12.5 Hz/s up to the first preset.
    expect(heard.map((s) => s.state)).toEqual([
      'ready',
      'ready',
      'accelerating',
      'atSpeed',
      'ready',
    ]);
    expect([heard[2].hz, heard[3].hz].map(Math.round)).toEqual([13, 20]);
    const bridged = states(
      [
        on,
        {
          atMs: 3000,
          do: 'hook',
          a: 'device:P24',
          b: adopted.assignments['run.forward'].at,
          as: 'short',
        },
      ],
      '2900,9000',
    );
    expect(bridged.map((s) => s.state)).toEqual(['ready', 'atSpeed']);
    expect(
      run('rehearse', demo, '--script', put([{ atMs: 0, do: 'press', device: 'S9' }], 's.json'))
        .stderr,
    ).toMatch(/^tactron: script\.0\.device:/u);
  });

  it('rehearses the panel as it is built, and samples the shaft', () => {
    const acts = [
      { atMs: 0, do: 'supplyOn' },
      { atMs: 3000, do: 'press', device: 'contact.forward' },
    ];
    const shaft = (deviations: object) =>
      run(
        'rehearse',
        put({ ...job(), deviations }),
        '--script',
        put(acts, 's.json'),
        '--sample',
        '2500,14000',
      ).json as { shaft: { rpm: number; direction: string; state: string } }[];
    const [rest, turns] = shaft({}).map((s) => s.shaft);
    expect(rest).toEqual({ rpm: 0, direction: 'still', state: 'still' });
    expect([turns.direction, turns.state]).toEqual(['forward', 'driven']);
    // 20 Hz on four poles: 600 rpm less the slip.
    expect(turns.rpm).toBeGreaterThan(520);
    expect(turns.rpm).toBeLessThan(600);
    const { adopted } = job() as unknown as {
      adopted: { wires: Record<string, { function: string }> };
    };
    const wire = Object.entries(adopted.wires).find(([, w]) => w.function === 'run.forward')?.[0];
    const broken = {
      d1: { ord: 1, where: { kind: 'wire', id: wire }, actual: { kind: 'open', wire }, why: 'cut' },
    };
    expect(shaft(broken)[1].shaft.state).toBe('still');
  });

  it('lists its trials, runs one, and sweeps every single fault', () => {
    const all = run('trials', demo).json as { id: string; acts: object[]; endMs: number }[];
    expect(all.map((t) => t.id)).toEqual(
      jasmine.arrayContaining(['supply.on', 'input.run.forward.1', 'preset.2', 'power.return']),
    );
    expect(all.map((t) => t.id).filter((id) => !isTrialId(id))).toEqual([]);
    const { looks } = run('trial', demo, 'preset.2').json as {
      looks: { mark: string; hz: number }[];
    };
    expect(looks.map((l) => [l.mark, Math.round(l.hz)])).toEqual([
      ['ready', 0],
      ['start', 35],
    ]);
    expect(run('trial', demo, 'no.such').stderr).toBe(
      'tactron: trial: there is no trial "no.such" in this job',
    );
    const rows = run('sweep', demo).json as { key: string; worst: string; shows: string | null }[];
    expect(new Set(rows.map((r) => r.key)).size).toBe(rows.length);
    expect(rows[0]).toEqual(
      jasmine.objectContaining({ worst: 'startsByItself', shows: jasmine.any(String) as unknown }),
    );
  });

  it('plans, lists the procedure and exports all files', () => {
    expect(
      Object.keys((run('plan', demo).json as { wiring: { wires: object } }).wiring.wires).length,
    ).toBe(25);
    const { dead, live, offered } = run('procedure', demo).json as {
      offered: { key: string; says: { do: string } }[];
      dead: { key: string }[];
      live: { key: string }[];
    };
    expect(dead.map((s) => s.key)).toContain('dead.isolate.proved');
    expect(offered.length).toBeGreaterThan(0);
    expect(
      offered.every((s) => s.key.startsWith('simulated.') && s.says.do.length > 20),
    ).toBeTrue();
    const keys = live.map((s) => s.key);
    expect(keys).toEqual(
      jasmine.arrayContaining([
        'supply.volts',
        'input.run.forward',
        'warning',
        'preset.1',
        'preset.2',
        'preset.3',
        'ramp.up',
        'power.return',
      ]),
    );
    expect(run('export', demo, '--to', join(folder, 'out dir')).status).toBe(0);
    expect(readdirSync(join(folder, 'out dir')).sort()).toEqual([
      'as-built.csv',
      'circuit.svg',
      'connection.svg',
      'hand-list.csv',
      'job.json',
      'keying.csv',
      'links.csv',
      'manifest.json',
      'operator.html',
      'record.html',
      'sheets',
      'tables',
      'terminals.csv',
      'wires.csv',
    ]);
    const tables = readdirSync(join(folder, 'out dir', 'tables'));
    for (const part of ['plates', 'wishes', 'requirements', 'settings', 'dead', 'live', 'labels'])
      expect(tables).toContain(`${part}.csv`);
    const file = (name: string): string => readFileSync(join(folder, 'out dir', name), 'utf8');
    const lines = (svg: string): string[] =>
      [...svg.matchAll(/data-wire="([^"]+)"/gu)].flatMap(([, ids]) => ids.split(' '));
    expect(new Set(lines(file('connection.svg'))).size).toBe(25);
    expect(file('tables/live.csv').split('\r\n').length).toBeGreaterThan(keys.length);
    expect(file('record.html')).toContain('<section id="live">');
    const manifest = JSON.parse(file('manifest.json')) as { sha256: Record<string, string> };
    expect(Object.keys(manifest.sha256)).toContain('tables/live.csv');
    // On sheets of their own the drawings have the same wires.
    const onSheets = readdirSync(join(folder, 'out dir', 'sheets')).flatMap((name) =>
      name.includes('connection') ? lines(file(`sheets/${name}`)) : [],
    );
    expect(new Set(onSheets)).toEqual(new Set(lines(file('connection.svg'))));
    for (const name of ['connection.svg', 'circuit.svg'])
      for (const mark of ['data-net=', 'data-landing=', 'data-label='])
        expect(file(name)).withContext(name).toContain(mark);
  });

  it('has every rule and every kind of trial on the page of findings', () => {
    const page = readFileSync(resolve('docs/findings.md'), 'utf8');
    const ids = [
      ...hazardRules.flatMap((rule) => Object.keys(rule.finds)),
      ...findingRules,
      ...trialGrammar.map((t) => t.id),
    ];
    expect(ids.filter((id) => !page.includes(`\`${id}\``)))
      .withContext('run npm run formats')
      .toEqual([]);
  });

  it('lists its calculations with units and sources', () => {
    const list = run('calc', '--list').json as { name: string; source: string; args: object }[];
    expect(list.length).toBeGreaterThan(55);
    const page = readFileSync(resolve('docs/calculations.md'), 'utf8');
    for (const c of list) {
      expect([c.name, c.source.length > 5, Object.keys(c.args).length > 0]).toEqual([
        c.name,
        true,
        true,
      ]);
      const own = page.split(`### ${c.name}\n`)[1]?.split('### ')[0] ?? '';
      expect(Object.keys(c.args).filter((name) => !own.includes(`\`${name}\``)))
        .withContext(`${c.name}: run npm run formats`)
        .toEqual([]);
    }
  });
});
