import { cpSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from './lib/run.mjs';
import { nodePackages } from './lib/setup.mjs';

/**
 * Plants defects one at a time in a copy of the core; each must make the spec named beside it fail. A defect that no
 * longer fits the code is a failure too: it proves nothing any more.
 */
const defects = [
  { name: 'stop loses dominance: an open stop does not unlatch', file: 'drive/latches.ts', find: "if (edges.stop === 'fall') s = { ...s, latch: 0, carried: 0 };", put: '', spec: 'drive/behaviour.spec.ts' },
  { name: 'a start is taken while stop is open', file: 'drive/latches.ts', find: 'if (s.levels.stop === 0 || barred', put: 'if (barred', spec: 'drive/behaviour.spec.ts' },
  { name: 'enable needs one channel instead of both', file: 'drive/step.ts', find: "if (s.levels.enableA === 0 || s.levels.enableB === 0) return 'enableOpen';", put: "if (s.levels.enableA === 0 && s.levels.enableB === 0) return 'enableOpen';", spec: 'drive/behaviour.spec.ts' },
  { name: 'the input filter is ignored', file: 'drive/step.ts', find: 'const filterUs = Math.round(control.filterMs * 1000);', put: 'const filterUs = 0;', spec: 'drive/drive.spec.ts' },
  { name: 'reversal without the pause at zero', file: 'drive/motion.ts', find: 'if (arrived && control.reverseDeadMs > 0)', put: 'if (arrived && control.reverseDeadMs > 1e9)', spec: 'drive/behaviour.spec.ts' },
  { name: 'start contacts are fed through the wrong contact', file: 'scheme/stations.ts', find: "sketch.join(chained ? 'stop' : 'feed',", put: "sketch.join(chained ? 'feed' : 'stop',", spec: 'compare/compare.spec.ts' },
  { name: 'the basis leaves the settings out', file: 'procedure/bench.ts', find: 'basis: hashOf([s.key, s.do, s.must, s.expect ?? null, circuit])', put: 'basis: hashOf([s.key, circuit])', spec: 'procedure/procedure.spec.ts' },
  { name: 'the halves of a pair are keyed apart', file: 'plan/keying.ts', find: '.sort((x, y) => pairRank(profile, planned[x].value) - pairRank(profile, planned[y].value))', put: '', spec: 'procedure/arrangements.spec.ts' },
  { name: 'a stale reading still passes', file: 'records/verdict.ts', find: "reading.body.step.basis !== step.basis ? 'stale' : ", put: '', spec: 'procedure/procedure.spec.ts' },
  { name: 'wires already landed may move for nothing', file: 'plan/assign.ts', find: 'return x.moved - y.moved || ', put: 'return y.moved - x.moved || ', spec: 'plan/plan.spec.ts' },
  { name: 'load inertia is not referred through the gear', file: 'power/inertia.ts', find: 'loadKgm2 / (gearRatio * gearRatio)', put: 'loadKgm2 / gearRatio', spec: 'power/power.spec.ts' },
  { name: 'the thermal image trips by plain I²t', file: 'motor/thermal.ts', find: 'if (k2 <= limit) return null;', put: 'if (k2 <= 1) return null;', spec: 'motor/motor.spec.ts' },
  { name: 'a broken wire keeps conducting', file: 'rehearsal/models/passive.ts', find: 's.broken.includes(wire.id) ? 0 : 1 / wire.ohm', put: 's.broken.includes(wire.id) ? 1 / wire.ohm : 1 / wire.ohm', spec: 'hazards/sweep/sweep.spec.ts' },
  { name: 'a relay keeps in when its coil is dead', file: 'rehearsal/models/coil.ts', find: 'band === 0 ? false : s.on', put: 'band === 0 ? s.on : s.on', spec: 'rehearsal/models/coil.spec.ts' },
  { name: 'a fault first felt later is taken for none', file: 'hazards/sweep/sweep.ts', find: 'c.t > faultUs && differs[c.network]', put: 'c.t < faultUs && differs[c.network]', spec: 'hazards/sweep/sweep.spec.ts' },
  { name: 'both channels of an emergency stop hang on one contact', file: 'scheme/line-side.ts', find: "[['estop', '21', '22']], 'enable.B'", put: "[['estop', '11', '12']], 'enable.B'", spec: 'hazards/sweep/sweep.spec.ts' },
  { name: 'presets are coded from the wrong bit', file: 'scheme/speed.ts', find: '(preset >> bit) & 1', put: '(preset >> (bit + 1)) & 1', spec: 'procedure/matrix.spec.ts' },
  { name: 'the school with the most hazards is recommended', file: 'compare/cards.ts', find: 'weight(y) < weight(x) ? y : x', put: 'weight(y) > weight(x) ? y : x', spec: 'compare/compare.spec.ts' },
  { name: 'an unknown policy is tried one way only', file: 'hazards/rules/context.ts', find: 'values.map((value) =>', put: 'values.slice(0, 1).map((value) =>', spec: 'procedure/arrangements.spec.ts' },
  { name: 'resistance is measured on a live circuit', file: 'rehearsal/ohms.ts', find: "if (engine.isLive()) return { ok: false, why: 'live' };", put: '', spec: 'rehearsal/why.spec.ts' },
  { name: 'a change of evidence goes unnoticed', file: 'job/chain.ts', find: 'return hashOf([prevHash, told]);', put: 'return hashOf([prevHash, told.id]);', spec: 'job/chain.spec.ts' },
]; // prettier-ignore

/** Defects of keeping, each of which the model of two people on a bad network must notice. */
const keepingDefects = [
  { name: 'the same field is overwritten in silence', file: 'rebase.ts', find: 'if (mine) return', put: 'if (mine && mine.order < 0) return' },
  { name: 'a change is said to be kept and is not', file: 'steps.ts', find: 'changes: outbox.filter((c) => c.id === action.changeId)', put: 'changes: []' },
  { name: 'an answer that was lost makes the change count twice', file: 'courier.ts', find: 'const { revision } = await this.api.change(jobId, { ...change, base: base.revision });', put: 'const { revision } = await this.api.change(jobId, { ...change, id: `${change.id}.${Math.random()}`, base: base.revision });' },
]; // prettier-ignore

nodePackages();
const folder = mkdtempSync(join(tmpdir(), 'tactron mutants '));
const missed = [];
try {
  cpSync(join(root, 'core'), join(folder, 'core'), {
    recursive: true,
    filter: (path) => !/\/(dist|node_modules)(\/|$)/u.test(path),
  });
  for (const part of ['web/app/job-state', 'bench'])
    cpSync(join(root, part), join(folder, part), { recursive: true });
  symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
  for (const name of ['package.json', 'tsconfig.base.json'])
    cpSync(join(root, name), join(folder, name));
  writeFileSync(
    join(folder, 'jasmine.json'),
    JSON.stringify({ spec_dir: 'core', spec_files: [], random: false }),
  );
  const fails = (spec) => {
    const args = [
      '--conditions=source',
      '--import',
      'tsx',
      'node_modules/jasmine/bin/jasmine.js',
      '--config=jasmine.json',
      `core/${spec}`,
    ];
    const { status, stdout } = spawnSync(process.execPath, args, {
      cwd: folder,
      encoding: 'utf8',
      maxBuffer: 1 << 26,
      timeout: 120_000,
    });
    const specs = Number(/(\d+) specs?, /u.exec(stdout ?? '')?.[1] ?? 0);
    return { failed: status !== 0, specs };
  };
  const planted = (name, path, find, put, notices) => {
    const healthy = readFileSync(path, 'utf8');
    if (healthy.split(find).length !== 2)
      return missed.push(
        `${name}: ${path.slice(folder.length + 1)} does not hold its text exactly once`,
      );
    writeFileSync(
      path,
      healthy.replace(find, () => put),
    );
    const { caught, by } = notices();
    writeFileSync(path, healthy);
    console.log(`${caught ? '✓' : '✗'} ${name} (${by})`);
    if (!caught) missed.push(`${name}: ${by} noticed nothing`);
  };
  for (const { name, file, find, put, spec } of defects) {
    planted(name, join(folder, 'core', file), find, put, () => {
      const { failed, specs } = fails(spec);
      return { caught: failed && specs > 0, by: spec };
    });
  }
  const model = () => {
    const env = { ...process.env, TSX_TSCONFIG_PATH: join(folder, 'bench/tsconfig.json') };
    const { stdout, status } = spawnSync(
      process.execPath,
      ['--conditions=source', '--import', 'tsx', 'bench/two-clients.ts', '25'],
      {
        cwd: folder,
        encoding: 'utf8',
        env,
        timeout: 120_000,
      },
    );
    const report = status === 0 ? JSON.parse(stdout.trim().split('\n').at(-1)) : undefined;
    return {
      caught: (report?.wrongs.length ?? 0) > 0,
      held: report?.wrongs.length === 0,
      by: 'two-clients',
    };
  };
  if (!model().held) missed.push('the model of two clients does not hold without any defect');
  for (const { name, file, find, put } of keepingDefects)
    planted(name, join(folder, 'web/app/job-state', file), find, put, model);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
for (const text of missed) console.error(`! ${text}`);
const count = defects.length + keepingDefects.length;
console.log(`${count - missed.length} of ${count} planted defects caught`);
process.exit(missed.length ? 1 : 0);
