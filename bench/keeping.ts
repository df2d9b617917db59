import { spawnSync } from 'node:child_process';
import type { Damaged } from '../server/src/testing/damage.js';
import type { KillReport } from '../server/src/testing/kill-run.js';
import type { Row } from './measure';

/** Runs a script that prints JSON on its last line. */
function told<T>(tsconfig: string, ...args: string[]): T {
  const env = { ...process.env, TSX_TSCONFIG_PATH: tsconfig };
  const { stdout, stderr, status } = spawnSync(
    process.execPath,
    ['--conditions=source', '--import', 'tsx', ...args],
    {
      encoding: 'utf8',
      env,
      maxBuffer: 1 << 26,
    },
  );
  if (status !== 0)
    throw new Error(`${args.join(' ')} ended with ${status}: ${stderr.slice(-2000)}`);
  return JSON.parse(stdout.trim().split('\n').at(-1) as string) as T;
}

/** Two clients of the model on many seeds: whatever goes wrong is counted. */
export function modelRows(runs = 1000): Row[] {
  const { seconds, wrongs } = told<{ seconds: number; wrongs: string[] }>(
    'bench/tsconfig.json',
    'bench/two-clients.ts',
    String(runs),
  );
  for (const text of wrongs.slice(0, 10)) console.error(`! ${text}`);
  return [
    {
      what: `two clients, loss, duplication, restart, undo: ${runs} seeded runs (${seconds.toFixed(0)} s)`,
      measured: `${wrongs.length} wrong`,
      budget: '0',
      ok: wrongs.length === 0,
    },
  ];
}

/** Server and database killed under load; what was acknowledged must be there. */
export function killRows(servers = 200, databases = 50): Row[] {
  const r = told<KillReport>(
    'server/tsconfig.json',
    'bench/kill.ts',
    String(servers),
    String(databases),
  );
  const ok =
    r.lost === 0 &&
    r.wrong === 0 &&
    r.diedAlone === 0 &&
    r.serverKills === servers &&
    r.databaseKills === databases;
  return [
    {
      what: `${r.serverKills} kills of the server, ${r.databaseKills} of the database, 50 saving; ${r.acknowledged} acknowledged`,
      measured: `${r.lost} lost, ${r.wrong} wrong`,
      budget: '0 lost',
      ok,
    },
    ...damageRows(),
  ];
}

/** Starts on data folders that were damaged: nothing deleted, told, and back when the damage is undone. */
function damageRows(): Row[] {
  return told<readonly Damaged[]>('server/tsconfig.json', 'bench/damage.ts').map((d) => ({
    what: `  start where ${d.fault}`,
    measured: d.refused ? 'refused, kept' : 'goes on',
    budget: 'nothing deleted',
    ok: d.kept && d.comesBack,
  }));
}
