import { spawn, spawnSync } from 'node:child_process';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  symlinkSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** What became of a start on a data folder to which something was done. */
export interface Damaged {
  readonly fault: string;
  /** Whether the start was refused, and in what words. */
  readonly refused: boolean;
  readonly said: string;
  /** Everything that was in the data folder is still there. */
  readonly kept: boolean;
  /** It starts again once the damage is undone, with what had been stored. */
  readonly comesBack: boolean;
}

const project = resolve(process.cwd());

/** A copy of the start scripts in a folder of its own, with a data folder of its own. */
function ownRoot(): string {
  const root = mkdtempSync(join(tmpdir(), 'tactron start '));
  // The postgres user goes through it on its way to the data.
  spawnSync('chmod', ['711', root]);
  mkdirSync(join(root, 'scripts'));
  cpSync(join(project, 'scripts/lib'), join(root, 'scripts/lib'), { recursive: true });
  symlinkSync(join(project, 'node_modules'), join(root, 'node_modules'));
  writeFileSync(
    join(root, 'scripts/try.mjs'),
    `import { startPostgres } from './lib/postgres.mjs';
     import pg from 'pg';
     try {
       const postgres = await startPostgres('pg', { port: 5700 });
       const client = new pg.Client({ connectionString: postgres.ownerUrl });
       await client.connect();
       await client.query('CREATE TABLE IF NOT EXISTS kept (x int)');
       await client.query('INSERT INTO kept VALUES (1)');
       const { rows } = await client.query('SELECT count(*)::int AS n FROM kept');
       await client.end();
       postgres.stop();
       console.log('rows ' + rows[0].n);
     } catch (error) {
       console.log('refused ' + error.message);
     }`,
  );
  return root;
}

function begin(root: string): { rows: number; said: string } {
  const { stdout } = spawnSync(process.execPath, ['scripts/try.mjs'], {
    cwd: root,
    encoding: 'utf8',
  });
  const rows = /rows (\d+)/u.exec(stdout);
  return { rows: rows ? Number(rows[1]) : 0, said: /refused ([^]*)/u.exec(stdout)?.[1] ?? '' };
}

/** Does one thing after the other to a data folder, and starts on it each time. */
export async function damageDrill(): Promise<readonly Damaged[]> {
  const root = ownRoot();
  const data = join(root, '.data/pg');
  const secrets = join(root, '.data/pg-secrets.json');
  const found: Damaged[] = [];
  try {
    found.push(await killedAtFirst(root, data));
    let rows = begin(root).rows;
    const entries = (): number =>
      readdirSync(data).filter((name) => !name.startsWith('postmaster')).length;
    const drill = (fault: string, harm: () => void, heal: () => void): void => {
      harm();
      const before = entries();
      const { said, rows: meanwhile } = begin(root);
      const kept = entries() >= before;
      heal();
      const after = begin(root);
      const comesBack = after.rows === (meanwhile || rows) + 1;
      rows = after.rows;
      found.push({ fault, refused: said !== '', said, kept, comesBack });
    };
    const away = (path: string) => (): void => renameSync(path, join(root, 'aside'));
    const back = (path: string) => (): void => {
      rmSync(path, { force: true });
      renameSync(join(root, 'aside'), path);
    };
    const copied = (path: string, harm: () => void) => (): void => {
      cpSync(path, join(root, 'aside'), { preserveTimestamps: true });
      spawnSync('chown', ['--reference', path, join(root, 'aside')]);
      harm();
    };
    const version = join(data, 'PG_VERSION');
    const control = join(data, 'global/pg_control');
    drill('PG_VERSION is missing', away(version), back(version));
    drill(
      'PG_VERSION is empty',
      copied(version, () => truncateSync(version)),
      back(version),
    );
    drill('pg_control is missing', away(control), back(control));
    const torn = (): void => {
      const bytes = readFileSync(control);
      bytes.fill(0x55, 40, 200);
      writeFileSync(control, bytes);
    };
    drill('pg_control is damaged', copied(control, torn), back(control));
    drill('the passwords are missing', away(secrets), back(secrets));
    drill(
      'the passwords are empty',
      copied(secrets, () => truncateSync(secrets)),
      back(secrets),
    );
    const pid = join(data, 'postmaster.pid');
    drill(
      'postmaster.pid names another living process',
      () => writeFileSync(pid, `${process.pid}\n${data}\n0\n5700\n`),
      () => undefined,
    );
    return found;
  } finally {
    rmSync(root, { recursive: true, force: true });
  }
}

/** A first start that is killed while it makes the database: the next one makes it anew and leaves nothing over. */
async function killedAtFirst(root: string, data: string): Promise<Damaged> {
  const child = spawn(process.execPath, ['scripts/try.mjs'], {
    cwd: root,
    stdio: 'ignore',
    detached: true,
  });
  const parent = join(root, '.data');
  for (let i = 0; i < 200; i++) {
    await new Promise((done) => setTimeout(done, 20));
    const making = existsSync(parent)
      ? readdirSync(parent).find((name) => name.includes('.making-'))
      : undefined;
    if (making && existsSync(join(parent, making, 'base'))) break;
  }
  const gone = new Promise((done) => child.once('exit', done));
  process.kill(-(child.pid as number), 'SIGKILL');
  await gone;
  await new Promise((done) => setTimeout(done, 300));
  const half = existsSync(data);
  const { rows, said } = begin(root);
  const left = readdirSync(parent).filter((name) => /making|^pw-/u.test(name));
  return {
    fault: 'the first start is killed while it makes the database',
    refused: said !== '',
    said: [said, ...left].filter(Boolean).join(' '),
    kept: !half,
    comesBack: rows === 1,
  };
}
