import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root, show, timed } from './lib/run.mjs';
import { buildAll, chromium, nodePackages } from './lib/setup.mjs';

/** Runs every test, part by part; a part that ran no spec has failed. Ends with one line of totals. */
const node = process.execPath;
const only = process.argv.slice(2);
const totals = { passed: 0, failed: 0 };

function count(part, { code, text }, read) {
  const { passed, failed } = read(text);
  const none = passed + failed === 0;
  totals.passed += passed;
  totals.failed += failed + (none || (code !== 0 && failed === 0) ? 1 : 0);
  if (none) console.log(`! ${part} ran no spec`);
}

const karma = (text) => {
  const lines = [...text.matchAll(/TOTAL: (?:(\d+) FAILED, )?(\d+) SUCCESS/g)];
  const last = lines.at(-1) ?? text.match(/Executed (\d+) of \d+/);
  return last
    ? { failed: Number(last[1] ?? 0), passed: Number(last[2] ?? 0) }
    : { passed: 0, failed: 0 };
};
const jasmine = (text) => {
  const last = [...text.matchAll(/(\d+) specs?, (\d+) failures?/g)].at(-1);
  return last
    ? { passed: Number(last[1]) - Number(last[2]), failed: Number(last[2]) }
    : { passed: 0, failed: 0 };
};
const playwright = (text) => ({
  passed: Number(/(\d+) passed/.exec(text)?.[1] ?? 0),
  failed: Number(/(\d+) failed/.exec(text)?.[1] ?? 0) + Number(/(\d+) flaky/.exec(text)?.[1] ?? 0),
});

async function part(name, step, read) {
  if (only.length && !only.includes(name)) return;
  count(name, await timed(name, step), read);
}

/** The core's specs in two halves of about the same length, each in a browser of its own. */
function halvesOfCore() {
  const folders = readdirSync(join(root, 'core'), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && entry.name !== 'dist')
    .map((entry) => entry.name);
  const long = folders.filter((name) => name === 'procedure' || name === 'printed');
  return [long, folders.filter((name) => !long.includes(name))].map((half) =>
    half.map((name) => `--include=${name}/**/*.spec.ts`),
  );
}

async function main() {
  nodePackages();
  process.env.CHROME_BIN = chromium();
  mkdirSync(join(root, '.data'), { recursive: true, mode: 0o711 });
  await timed('build', async () => buildAll());
  const ng = (project, ...more) =>
    show(node, ['node_modules/@angular/cli/bin/ng.js', 'test', project, ...more], {
      keep: true,
      env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
    });
  await Promise.all(halvesOfCore().map((half) => part('core', () => ng('core', ...half), karma)));
  await part('web', () => ng('web'), karma);
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { freshDatabase } = await import('./lib/testbed.mjs');
  const postgres = await startPostgres('pg-test');
  try {
    const urls = await freshDatabase(postgres, 'tactron_spec');
    const env = {
      ...process.env,
      TACTRON_DB_URL: urls.appUrl,
      TACTRON_DB_OWNER_URL: urls.ownerUrl,
      TSX_TSCONFIG_PATH: join(root, 'server/tsconfig.json'),
    };
    await part(
      'server',
      () =>
        show(
          node,
          [
            '--conditions=source',
            '--import',
            'tsx',
            'node_modules/jasmine/bin/jasmine.js',
            '--config=server/jasmine.json',
          ],
          { keep: true, env },
        ),
      jasmine,
    );
    await part(
      'e2e',
      () =>
        show(
          node,
          ['node_modules/@playwright/test/cli.js', 'test', '--config', 'e2e/playwright.config.ts'],
          {
            keep: true,
            env: { ...process.env, FORCE_COLOR: '0' },
          },
        ),
      playwright,
    );
  } finally {
    postgres.stop();
  }
  if (existsSync(join(root, '.data/spec'))) rmSync(join(root, '.data/spec'), { recursive: true });
  console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
  process.exit(totals.failed ? 1 : 0);
}

main().catch((error) => {
  console.error(error.message);
  console.log(`\n${totals.passed} passed, ${totals.failed + 1} failed`);
  process.exit(1);
});
