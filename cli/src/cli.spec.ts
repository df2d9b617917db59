import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

const folder = mkdtempSync(join(tmpdir(), 'tactron cli '));
const demo = resolve('demo/fm-auger.tactron.json');
const put = (data: unknown, name = 'in.json'): string => {
  writeFileSync(join(folder, name), typeof data === 'string' ? data : JSON.stringify(data));
  return join(folder, name);
};
const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin/tactron.mjs', ...args], { encoding: 'utf8', maxBuffer: 1 << 26 });
  return { status, json: stdout ? (JSON.parse(stdout) as unknown) : undefined, stderr: stderr.replace(/^.*nodedir.*\n/gmu, '').trim() };
};
const job = (): Record<string, never> => (JSON.parse(readFileSync(demo, 'utf8')) as { job: Record<string, never> }).job;

describe('tactron', () => {
  it('solves a network, and a list of them in order', () => {
    const net = (volts: number) => ({ reference: '0V', nodes: ['+', '0V', 'X'], elements: [{ id: 'PS', kind: 'voltageSource', a: '+', b: '0V', volts }] });
    expect(run('solve', put(net(24))).json).toEqual({ nodeVolts: { '+': 24, '0V': 0, 'X': null }, elementAmps: { PS: 0 } });
    expect((run('solve', put([net(5), net(12)])).json as { nodeVolts: Record<string, number> }[]).map((r) => r.nodeVolts['+'])).toEqual([5, 12]);
  });

  it('exits 2 on bad input with its path', () => {
    const bad = run('solve', put({ reference: '0V', nodes: ['0V'], elements: [{ id: 'R', kind: 'coil', a: '0V', b: '0V' }] }));
    expect([bad.status, bad.stderr.startsWith('tactron: elements.0.kind:')]).toEqual([2, true]);
    expect(
      run(
        'drive',
        put([
          { control: { startMethod: 'levelForwardReverse' }, sampleMs: [0] },
          { control: {}, sampleMs: [] },
        ]),
      ).stderr,
    ).toMatch(/^tactron: 1\.control\.startMethod:/u);
    expect(run('plan', put('{ no')).status).toBe(2);
    expect(run('solve', join(folder, 'missing.json')).status).toBe(2);
    const fit = { powerKw: 37, lineV: 400, hz: 50, rpm: 1480, currentA: 66.8, powerFactor: 0.85, efficiency: 0.94, lockedCurrentRatio: 7.1, lockedTorqueRatio: 2.2, breakdownRatio: 2.7 }; // prettier-ignore
    expect(run('calc', 'fitMotor', put({ plate: { ...fit, rpm: 3600 } })).stderr).toContain('tactron: plate.rpm: plate.rpm must be below 3000 rpm');
    expect(run('calc', 'dcLinkVoltage', put({ supplyV: -3 })).stderr).toContain('tactron: supplyV: supplyV must be above 0 V');
  });

  it('says "not yet" with the path for what is understood and not built', () => {
    expect(run('drive', put({ control: { startMethod: 'levelForwardReverse', referenceSource: 'motorPot' }, sampleMs: [0] })).stderr).toMatch(
      /^tactron: control\.referenceSource: not yet/u,
    );
    expect(run('plan', put({ ...job(), scheme: { startStop: 'sealInRelay' } })).stderr).toMatch(/^tactron: scheme\.startStop: not yet/u);
    expect(run('calc', 'noSuchSum', put({})).stderr).toBe('tactron: name: there is no calculation "noSuchSum"');
  });

  it('checks the demo job, and exits 1 when a finding says stop', () => {
    const ok = run('check', demo);
    expect([ok.status, (ok.json as { key: string }[]).map((f) => f.key)]).toEqual([0, ['cable.reflectedWave:cable.length', 'restart.powerReturn']]);
    const exposed = job() as unknown as { scheme: { exposed: string } };
    exposed.scheme.exposed = 'atMachine';
    expect(run('check', put(exposed)).status).toBe(1);
  });

  it('rehearses a script at sample times', () => {
    const script = put([{ atMs: 0, do: 'supplyOn' }, { atMs: 100, do: 'dial', device: 'dial.speed', to: 1 }, { atMs: 3000, do: 'press', device: 'contact.forward' }, { atMs: 9000, do: 'breakWire', wire: '12' }], 's.json'); // prettier-ignore
    const { json } = run('rehearse', demo, '--script', script, '--sample', '2500,5005,14000');
    expect((json as { state: string }[]).map((s) => s.state)).toEqual(['ready', 'accelerating', 'ready']);
    expect((json as { hz: number }[])[1].hz).toBeCloseTo(25, 1);
    expect(run('rehearse', demo, '--script', put([{ atMs: 0, do: 'press', device: 'S9' }], 's.json')).stderr).toMatch(/^tactron: script\.0\.device:/u);
  });

  it('plans, lists the procedure and exports all files', () => {
    expect(Object.keys((run('plan', demo).json as { wiring: { wires: object } }).wiring.wires).length).toBe(16);
    expect((run('procedure', demo).json as unknown[]).length).toBe(20);
    expect(run('export', demo, '--to', join(folder, 'out dir')).status).toBe(0);
    expect(readdirSync(join(folder, 'out dir')).sort()).toEqual([
      'control.svg',
      'job.json',
      'keying.csv',
      'manifest.json',
      'power.svg',
      'terminals.csv',
      'wires.csv',
    ]);
  });

  it('lists its calculations with units and sources', () => {
    const list = run('calc', '--list').json as { name: string; source: string; args: object }[];
    expect(list.length).toBeGreaterThan(55);
    const page = readFileSync(resolve('docs/calculations.md'), 'utf8');
    for (const c of list) {
      expect([c.name, c.source.length > 5, Object.keys(c.args).length > 0]).toEqual([c.name, true, true]);
      const own = page.split(`### ${c.name}\n`)[1]?.split('### ')[0] ?? '';
      expect(Object.keys(c.args).filter((name) => !own.includes(`\`${name}\``)))
        .withContext(`${c.name}: run npm run formats`)
        .toEqual([]);
    }
  });
});
