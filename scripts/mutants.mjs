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
  { name: 'the link never trips on a stop', file: 'drive/step.ts', find: "if (s.motion.kind === 'ramp' && t >= (s.motion.tripUs ?? Infinity))", put: "if (s.motion.kind === 'ramp' && t >= Infinity)", spec: 'rehearsal/link-lane.spec.ts' },
  { name: 'a chopper burns nothing', file: 'drive/link-rise.ts', find: '(watts - b.chopper.watts) * time', put: 'watts * time', spec: 'drive/link-rise.spec.ts' },
  { name: 'the test of a stop that trips asks for nothing', file: 'procedure/live/speed.ts', find: "} else if (s.fault === 'overvoltage') wishedStop(t, args, second);", put: '}', spec: 'rehearsal/link-lane.spec.ts' },
  { name: 'stop loses dominance: an open stop does not unlatch', file: 'drive/latches.ts', find: "if (edges.stop === 'fall') s = { ...s, latch: 0, carried: 0 };", put: '', spec: 'drive/behaviour.spec.ts' },
  { name: 'a start is taken while stop is open', file: 'drive/latches.ts', find: 's.levels.stop === 0 ||', put: '', spec: 'drive/behaviour.spec.ts' },
  { name: 'enable needs one channel instead of both', file: 'drive/step.ts', find: "if (s.levels.enableA === 0 || s.levels.enableB === 0) return 'enableOpen';", put: "if (s.levels.enableA === 0 && s.levels.enableB === 0) return 'enableOpen';", spec: 'drive/behaviour.spec.ts' },
  { name: 'the input filter is ignored', file: 'drive/step.ts', find: 'const filterUs = Math.round(control.filterMs * 1000);', put: 'const filterUs = 0;', spec: 'drive/drive.spec.ts' },
  { name: 'reversal without the pause at zero', file: 'drive/motion.ts', find: 'if (arrived && control.reverseDeadMs > 0)', put: 'if (arrived && control.reverseDeadMs > 1e9)', spec: 'drive/behaviour.spec.ts' },
  { name: 'start contacts are fed through the wrong contact', file: 'scheme/stations.ts', find: "chained ? 'stop' : 'feed',", put: "chained ? 'feed' : 'stop',", spec: 'compare/compare.spec.ts' },
  { name: 'the basis leaves what is expected out', file: 'procedure/context.ts', find: 'const rests = [s.key, s.do, s.must, s.expect ?? null, circuitOf(c, functions)];', put: 'const rests = [s.key, circuitOf(c, functions)];', spec: 'procedure/procedure.spec.ts' },
  { name: 'the halves of a pair are keyed apart', file: 'plan/keying.ts', find: '.sort((x, y) => pairRank(profile, planned[x].value) - pairRank(profile, planned[y].value))', put: '', spec: 'procedure/arrangements.spec.ts' },
  { name: 'a stale reading still passes', file: 'records/verdict.ts', find: "? 'stale'", put: '? reading.body.verdict', spec: 'records/records.spec.ts' },
  { name: 'wires already landed may move for nothing', file: 'plan/assign.ts', find: 'x.moved - y.moved ||', put: 'y.moved - x.moved ||', spec: 'plan/plan.spec.ts' },
  { name: 'load inertia is not referred through the gear', file: 'line/inertia.ts', find: 'loadKgm2 / (gearRatio * gearRatio)', put: 'loadKgm2 / gearRatio', spec: 'line/acceleration.spec.ts' },
  { name: 'the thermal image trips by plain I²t', file: 'motor/thermal.ts', find: 'if (k2 <= limit) return null;', put: 'if (k2 <= 1) return null;', spec: 'motor/motor.spec.ts' },
  { name: 'a broken wire keeps conducting', file: 'parts/behaviour/contacts.ts', find: 's.broken.includes(wire.id) ? 0 : 1 / wire.ohm', put: 's.broken.includes(wire.id) ? 1 / wire.ohm : 1 / wire.ohm', spec: 'rehearsal/as-built.spec.ts' },
  { name: 'a relay keeps in when its coil is dead', file: 'parts/behaviour/coil.ts', find: 'band === 0 ? false : s.on', put: 'band === 0 ? s.on : s.on', spec: 'rehearsal/coil.spec.ts' },
  { name: 'a fault first felt later is taken for none', file: 'hazards/sweep/healthy.ts', find: 'if (differs(course[i].network)) return course[i].t;', put: 'if (differs(course[i].network)) return undefined;', spec: 'hazards/sweep/sweep.spec.ts' },
  { name: 'both channels of an emergency stop hang on one contact', file: 'scheme/line-side.ts', find: "[['estop', '21', '22']], 'enable.B'", put: "[['estop', '11', '12']], 'enable.B'", spec: 'hazards/sweep/sweep.spec.ts' },
  { name: 'presets are coded from the wrong bit', file: 'scheme/speed.ts', find: '(preset >> bit) & 1', put: '(preset >> (bit + 1)) & 1', spec: 'requirements/requirements.spec.ts' },
  { name: 'the school with the most hazards is recommended', file: 'compare/cards.ts', find: 'weight(y) < weight(x) ? y : x', put: 'weight(y) > weight(x) ? y : x', spec: 'compare/compare.spec.ts' },
  { name: 'an unknown policy is tried one way only', file: 'hazards/rule.ts', find: 'values.map((value) =>', put: 'values.slice(0, 1).map((value) =>', spec: 'procedure/arrangements.spec.ts' },
  { name: 'resistance is measured on a live circuit', file: 'rehearsal/ohms.ts', find: "if (engine.isLive()) return { ok: false, why: 'live' };", put: '', spec: 'rehearsal/why.spec.ts' },
  { name: 'a change of evidence goes unnoticed', file: 'job/chain.ts', find: 'return hashOf([prevHash, told]);', put: 'return hashOf([prevHash, told.id]);', spec: 'job/chain.spec.ts' },
  { name: 'what was found of the panel is ignored', file: 'installation/panel.ts', find: '(panel, [, { actual }]) => applyFault(panel, actual)', put: '(panel) => panel', spec: 'rehearsal/as-built.spec.ts' },
  { name: 'a fault as a switch is another fault than the one built', file: 'faults/switches.ts', find: 'g: closed ? 1 / CONTACT_OHM : 0', put: 'g: closed ? 0 : 1 / CONTACT_OHM', spec: 'rehearsal/as-built.spec.ts' },
  { name: 'an open isolator lets the motor be driven', file: 'motor/shaft.ts', find: 'from.isolatorClosed(peers(d.isolator))', put: 'true', spec: 'motor/shaft.spec.ts' },
  { name: 'what was taken out after a test counts as still in', file: 'job/temporary.ts', find: 'removed: of.find((e) => e.body.removed)', put: 'removed: undefined', spec: 'records/records.spec.ts' },
  { name: 'a test value that was keyed back is still expected', file: 'records/held.ts', find: '([code, value]) => held[code] === value', put: '([code]) => held[code] !== undefined', spec: 'plan/test-values.spec.ts' },
  { name: 'a hot braking resistor leaves the contactor in', file: 'scheme/line-side.ts', find: '...trips]', put: ']', spec: 'plan/braking-resistor.spec.ts' },
  { name: 'an overhauling load pulls forward', file: 'motor/shaft.ts', find: 'dy: -pullHzPerS,', put: 'dy: pullHzPerS,', spec: 'motor/shaft.spec.ts' },
  { name: 'a shaft of unknown inertia stands at once', file: 'motor/shaft.ts', find: 'if (hz === 0) return still;', put: 'if (hz === 0 || !table) return still;', spec: 'motor/shaft.spec.ts' },
  { name: 'the order of keys is a difference of the plan', file: 'plan/adoption.ts', find: 'hashOf(was[1]) === hashOf(is[1])', put: 'JSON.stringify(was[1]) === JSON.stringify(is[1])', spec: 'formats/every-arrangement.spec.ts' },
  { name: 'a window of a trace is joined to solutions that no longer stand', file: 'trace/window.ts', find: '...solutions.slice(0, keptSolutions)', put: '...solutions', spec: 'trace/trace.spec.ts' },
  { name: 'the brake is let go at one speed and never taken back', file: 'drive/logic.ts', find: 'spec.brakeReleaseHz - 2 * BRAKE_HYSTERESIS_HZ, t', put: 'spec.brakeReleaseHz, t', spec: 'rehearsal/brake.spec.ts' },
  { name: 'what is expected live is taken from the job, however it is wired', file: 'procedure/live/stops.ts', find: 'expect: state(must),\n      requirement,', put: "expect: state(must === 'stopped' ? turning(t) : starts(t)),\n      requirement,", spec: 'requirements/requirements.spec.ts' },
  { name: 'an answer passes a function that the job does not have', file: 'job/step.ts', find: "if (!expect || requirement?.unmet !== undefined || readings.length === 0) return 'fail';", put: "if (!expect || readings.length === 0) return 'fail';", spec: 'requirements/requirements.spec.ts' },
  { name: 'a jog is fed ahead of the guard', file: 'scheme/arrange.ts', find: "if (sketch.has('permit')) return 'permit';", put: '', spec: 'requirements/requirements.spec.ts' },
  { name: 'contacts of a head are tried first, and never last', file: 'trials/lay.ts', find: 'firsts.length < 3 ? []', put: 'firsts.length < 99 ? []', spec: 'requirements/requirements.spec.ts' },
  { name: 'a stop that stops nothing counts as met', file: 'requirements/judge.ts', find: "return { does, met: does === 'stands' };", put: 'return { does, met: true };', spec: 'requirements/requirements.spec.ts' },
  { name: 'a cut end of the evidence is signed all the same', file: 'job/seal.ts', find: "if (evidence.length < count) return 'cut';", put: "if (evidence.length < count) return 'signed';", spec: 'job/seal.spec.ts' },
  { name: 'the sender does not count in the chain', file: 'job/chain.ts', find: 'said.formula === 2 ?', put: 'said.formula === undefined ?', spec: 'job/upgrade.spec.ts' },
  { name: 'a caution is dropped where the motor turns', file: 'procedure/sequence/tests.ts', find: "if (moved) return untried.includes(section) ? ['turns', 'freeToTurn'] : ['turns'];", put: "if (moved && untried.includes(section)) return ['turns', 'freeToTurn'];", spec: 'procedure/sequence.spec.ts' },
  { name: 'an act ends with its start still kept', file: 'procedure/sequence/sequence.ts', find: 'if (drives() || this.latched) {', put: 'if (drives() && this.nowMs < 0) {', spec: 'procedure/sequence.spec.ts' },
  { name: 'full speed comes before the stops', file: 'procedure/live/index.ts', find: '  stopTests,\n  motionTests,\n  cutWhileStoppingTest,\n  speedTests,', put: '  speedTests,\n  stopTests,\n  motionTests,\n  cutWhileStoppingTest,', spec: 'procedure/sequence.spec.ts' },
  { name: 'nothing waits for the hold point of the stops', file: 'procedure/live/index.ts', find: "motions: ['bump', 'stops'],", put: "motions: ['top'],", spec: 'procedure/sequence.spec.ts' },
  { name: 'a guard is not looked at before anything turns', file: 'procedure/live/inputs.ts', find: '  ...a.interlocks,\n', put: '', spec: 'procedure/sequence.spec.ts' },
  { name: 'the protective conductor is left out', file: 'hazards/rules/protective-conductor.ts', find: 'return has.includes(PROTECTIVE) && !givesPe(panel.devices[id].kind)', put: 'return has.length < 0', spec: 'hazards/planted.spec.ts' },
  { name: 'the order of the motor leads turns nothing', file: 'installation/motor-leads.ts', find: 'return { order: even ? 1 : -1, missing: [] };', put: 'return { order: even ? 1 : 1, missing: [] };', spec: 'hazards/planted.spec.ts' },
  { name: 'mains at an output is borne', file: 'rehearsal/device-model.ts', find: 'if (ac > PICK_UP_V) return i + 1;', put: 'if (ac > 1e9) return i + 1;', spec: 'rehearsal/destroyed.spec.ts' },
  { name: 'a control supply is tapped ahead of the disconnecting device', file: 'scheme/supplies.ts', find: 'const from: PointRef = this.isolated', put: 'const from: PointRef = this.isolated && phase.length > 9', spec: 'requirements/limits.spec.ts' },
  { name: 'a longer time to rest is expected than is required', file: 'procedure/live/rest-time.ts', find: 'Math.min(must.s, time + tolerance)', put: '(time + tolerance)', spec: 'requirements/limits.spec.ts' },
  { name: 'a dead check comes before the panel is proved dead', file: 'procedure/dead/index.ts', find: 'needs: i < first.length ? [] : needs,', put: 'needs: i < 0 ? needs : [],', spec: 'procedure/dead.spec.ts' },
  { name: 'one cause is told with its consequences', file: 'hazards/check.ts', find: 'left = left.filter((f) => rule.test(f.rule) || !explains(f));', put: 'left = left.filter((f) => rule.test(f.rule) || explains !== undefined);', spec: 'hazards/planted.spec.ts' },
  { name: 'an emergency stop that does nothing is stated away', file: 'hazards/rules/required-functions.ts', find: 'mayBeStated(requirement) ? job.decisions', put: 'requirement.length > 0 ? job.decisions', spec: 'requirements/requirements.spec.ts' },
  { name: 'a setting that no device holds goes into the drive', file: 'catalogue/questions.ts', find: "return value < (min ?? -Infinity) || value > (max ?? Infinity) ? 'range' : undefined;", put: 'return undefined;', spec: 'formats/every-accepted.spec.ts' },
  { name: 'a figure out of its range is silent', file: 'line/plate/not-judged.ts', find: 'return because === undefined', put: 'return because !== undefined', spec: 'line/plate/line.spec.ts' },
  { name: 'a link that is planned is not tested', file: 'procedure/live/power.ts', find: '  linkTests(t);\n', put: '', spec: 'formats/every-arrangement.spec.ts' },
  { name: 'a wire lies in neither drawing', file: 'drawings/connection.ts', find: "powerClasses.includes(w.class) === (drawing === 'power')", put: "powerClasses.includes(w.class) && drawing === 'power'", spec: 'drawings/every-drawing.spec.ts' },
  { name: 'a foreign source at a terminal is taken for none', file: 'installation/harm.ts', find: 'if (at.foreign || earthed?.[w.landing]?.foreign) return true;', put: '', spec: 'rehearsal/destroyed.spec.ts' },
  { name: 'a loop hides what lies behind its landing', file: 'installation/harm.ts', find: 'both(holds, reach[head])', put: 'holds', spec: 'rehearsal/destroyed.spec.ts' },
  { name: 'the hand list forgets the links', file: 'records/hand-tasks.ts', find: '    ...links(job, adopted, profile),\n', put: '', spec: 'records/hand-tasks.spec.ts' },
  { name: 'a tick stands for what is planned otherwise since', file: 'job/hand-tick.ts', find: 'of: (line) => stands.get(line),', put: 'of: (line) => [...stands].find(([x]) => idOf(x) === idOf(line))?.[1],', spec: 'records/hand-tasks.spec.ts' },
  { name: 'a model that carries too little is said to fit', file: 'plan/fits.ts', find: 'carries: amps === undefined || ratedA >= amps,', put: 'carries: true,', spec: 'plan/fits.spec.ts' },
]; // prettier-ignore

/** Defects of keeping, each of which the model of two people on a bad network must notice. */
const keepingDefects = [
  { name: 'the same field is overwritten in silence', file: 'rebase.ts', find: 'if (mine) return', put: 'if (mine && mine.order < 0) return' },
  { name: 'a change is said to be kept and is not', file: 'steps.ts', find: 'changes: outbox.filter((c) => c.id === action.changeId)', put: 'changes: []' },
  { name: 'an answer that was lost makes the change count twice', file: 'courier.ts', find: '          ...change,\n          base: base.revision,', put: '          ...change,\n          id: `${change.id}.${Math.random()}`,\n          base: base.revision,' },
  { name: 'what went in beside the changes of others forgets theirs', file: 'courier.ts', find: 'const all = [...since, change];', put: 'const all = [change];' },
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
