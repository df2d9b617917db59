/**
 * Measures the budgets that exist by now and prints them as a table and as JSON. Medians and 95th percentiles; ratios
 * where a peer runs beside. Run by `npm run bench`.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import { install, installedOf, type Installation } from '@tactron/core/installation';
import { planJob } from '@tactron/core/plan';
import { compareSchools, questionsFor } from '@tactron/core/compare';
import { rehearse } from '@tactron/core/rehearsal';
import { liveSteps } from '@tactron/core/procedure';
import { checkJob, Sweep } from '@tactron/core/hazards';
import { fitCircuit, runUpOf, type FitPlate } from '@tactron/core/motor';
import { plateFacts, plateFindings } from '@tactron/core/line';
import type { Act, Job } from '@tactron/core/job';
import { browserRows } from './browser';
import { bundleRows } from './bundle';
import { crowdRows } from './crowd';
import { drawingRows } from './drawings';
import { recordRows } from './record';
import { dialJob as job, drum, drumOf, drumProfile, profile } from './jobs';
import { killRows, modelRows } from './keeping';
import { manyContacts } from './many-contacts';
import { median, type Row } from './measure';
import { oddRows } from './odd';
import { rehearsalNetlist } from './netlist';
import { serverRows } from './server';
import { simpleRows } from './simple';
import { starterRows } from './starter';

/** How long an act is repeated before it is measured, so that the compiler has seen it, ms. */
const WARM_MS = 2500;

/** Runs of an act that is warm. The browser's rows tell what a first run costs. */
function times(runs: number, act: () => void): number[] {
  const begun = performance.now();
  for (let i = 0; i < 3 || performance.now() - begun < WARM_MS; i++) act();
  return Array.from({ length: runs }, () => {
    const begin = performance.now();
    act();
    return performance.now() - begin;
  });
}

const root = process.cwd();
const ms = (x: number): string => `${x.toFixed(2)} ms`;

/** A minute of work: starts, stops, dial moves, a power cut. */
const minute: Act[] = [
  { do: 'supplyOn', atMs: 0 },
  ...[0, 1, 2, 3, 4].flatMap((i): Act[] => [
    { do: 'dial', atMs: 2000 + 10_000 * i, device: 'dial.speed', to: 0.2 * (i + 1) },
    { do: 'press', atMs: 3000 + 10_000 * i, device: 'contact.forward' },
    { do: 'release', atMs: 8000 + 10_000 * i, device: 'contact.forward' },
  ]),
  { do: 'supplyOff', atMs: 54_000 },
  { do: 'supplyOn', atMs: 57_000 },
];

function coreRows(): Row[] {
  const rows: Row[] = [];
  const add = (what: string, x: number, budget: number): void =>
    void rows.push({ what, measured: ms(x), budget: `≤ ${budget} ms`, ok: x <= budget });
  for (const wires of [16, 60, 120]) {
    const installation = wires === 16 ? install(job, profile) : manyContacts(job, profile, wires);
    const closed = installation.devices.flatMap((d): Act[] =>
      d.id.startsWith('chain.') ? [{ do: 'press', atMs: 0, device: d.id }] : [],
    );
    const x = median(times(40, () => rehearse(installation, [...closed, ...minute], 60_000)));
    const count = wiresOf(installation);
    if (wires === 60) add(`rehearsal of 60 s, ${count} wires`, x, 2.5);
    else
      rows.push({
        what: `  growth: the same with ${count} wires`,
        measured: ms(x),
        budget: '–',
        ok: null,
      });
    if (wires === 60) rows.push(...spice(installation, x));
  }
  add('plan: assignment, wires and settings', median(times(60, () => planJob(job, profile))), 50);
  rows.push(...motorRows(), ...starterRows(times));
  add(
    'whole Plate after a keystroke: facts and findings',
    median(times(60, () => [plateFacts(drum, drumProfile), plateFindings(drum, drumProfile)])),
    30,
  );
  add(
    'plan of the drum: 5 functions, three relays, safe torque off',
    median(times(40, () => planJob({ ...drum, adopted: undefined }, drumProfile))),
    50,
  );
  for (const stations of [1, 2, 4]) {
    const swept = drumOf(stations);
    const wires = Object.keys(swept.adopted?.wires ?? {}).length;
    const faults = sweepAll(swept);
    const each = median(times(5, () => sweepAll(structuredClone(swept)))) / faults;
    add(`sweep, a fault of ${faults}, drum with ${wires} wires`, each, 6);
  }
  const cards = (): unknown => {
    const fresh = structuredClone(drum);
    return questionsFor(fresh.scheme).map((q) => compareSchools(fresh, drumProfile, q));
  };
  add('behaviour cards of every open question, drum', median(times(5, cards)), 350);
  add(
    'all findings after a keystroke, drum',
    median(times(12, () => checkJob(structuredClone(drum), drumProfile))),
    80,
  );
  rows.push({
    what: 'all live steps with expected values, drum',
    measured: ms(median(times(8, () => liveSteps(structuredClone(drum), drumProfile)))),
    budget: '–',
    ok: null,
  });
  return rows;
}

/** Every single fault in its four moments, and what hides behind the silent ones. @returns how many */
function sweepAll(swept: Job): number {
  const sweep = new Sweep(swept, drumProfile);
  const rows = sweep.faults.map((f) => sweep.judge(f));
  rows.forEach((row) => sweep.lookBehind(row, rows));
  return rows.length;
}

const wiresOf = (installation: Installation): number =>
  installedOf(installation, 'wires')[0].wires.length;

/** The crusher's motor: its fit, and a run-up at 300 % current. */
function motorRows(): Row[] {
  const plate: FitPlate = {
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
  const { circuit } = fitCircuit(plate);
  const load = { kind: 'square', constantNm: 19.1, torqueNm: 23.9, ratedRpm: 1500 } as const;
  const row = (what: string, x: number): Row => ({ what, measured: ms(x), budget: '–', ok: null });
  return [
    row('fit of the motor circuit', median(times(12, () => fitCircuit(plate)))),
    row(
      'run-up of 19 s at a current limit',
      median(
        times(40, () => runUpOf(circuit, 8.94, load, { kind: 'currentLimit', limitA: 200.4 })),
      ),
    ),
  ];
}

function spice(installation: ReturnType<typeof install>, ourMs: number): Row[] {
  if (!existsSync('/usr/bin/ngspice'))
    return [
      {
        what: '  against a SPICE transient',
        measured: 'no ngspice: apt-get install ngspice',
        budget: '≥ 300 ×',
        ok: null,
      },
    ];
  const file = '/tmp/tactron-bench.cir';
  writeFileSync(file, rehearsalNetlist(installation));
  const runs = Array.from({ length: 3 }, () => {
    const begin = performance.now();
    const { status } = spawnSync('/usr/bin/ngspice', ['-b', file], { stdio: 'ignore' });
    if (status !== 0) throw new Error('ngspice failed');
    return performance.now() - begin;
  });
  const ratio = median(runs) / ourMs;
  return [
    {
      what: '  against a SPICE transient of the same network',
      measured: `${ratio.toFixed(0)} × (${(median(runs) / 1000).toFixed(2)} s)`,
      budget: '≥ 300 ×',
      ok: ratio >= 300,
    },
  ];
}

function firstLoad(): Row[] {
  const folder = join(root, 'web/dist/browser');
  const html = readFileSync(join(folder, 'index.html'), 'utf8');
  const files = new Set(
    [...html.matchAll(/(?:src|href)="([^"]+\.(?:js|css))"/gu)].map((m) => m[1]),
  );
  const size =
    [...files].reduce((sum, name) => sum + gzipSync(readFileSync(join(folder, name))).length, 0) /
    1000;
  const all = readdirSync(folder).filter((f) => f.endsWith('.js')).length;
  return [
    {
      what: `first load, gzip of initial script and style (${files.size} of ${all} scripts)`,
      measured: `${size.toFixed(0)} kB`,
      budget: '≤ 300 kB',
      ok: size <= 300,
    },
  ];
}

/** Prints the table and keeps it as JSON. @returns whether every budget was held */
function report(rows: readonly Row[]): boolean {
  const width = Math.max(...rows.map((r) => r.what.length));
  for (const r of rows)
    console.log(
      `${r.ok === false ? '✗' : r.ok ? '✓' : ' '} ${r.what.padEnd(width)}  ${r.measured.padStart(16)}  ${r.budget}`,
    );
  mkdirSync(join(root, 'bench/results'), { recursive: true });
  writeFileSync(
    join(root, 'bench/results/latest.json'),
    `${JSON.stringify({ at: new Date().toISOString(), node: process.version, rows }, null, 2)}\n`,
  );
  return rows.every((r) => r.ok !== false);
}

/** Parts named on the command line, or all of them. */
const parts: Readonly<Record<string, () => readonly Row[] | Promise<readonly Row[]>>> = {
  core: coreRows,
  drawings: drawingRows,
  record: recordRows,
  bundle: bundleRows,
  load: firstLoad,
  server: serverRows,
  crowd: crowdRows,
  browser: browserRows,
  model: () => modelRows(),
  simple: simpleRows,
  odd: () => oddRows(),
  kill: () => killRows(),
};
const wanted = process.argv.slice(2);
const rows: Row[] = [];
for (const [name, part] of Object.entries(parts))
  if (wanted.length === 0 || wanted.includes(name)) rows.push(...(await part()));
process.exitCode = report(rows) ? 0 : 1;
