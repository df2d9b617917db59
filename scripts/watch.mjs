import { watch } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from './lib/run.mjs';
import { nodePackages, buildAll } from './lib/setup.mjs';

/** Serves the application for development: everything is built anew as it is saved, the server starts again by itself. */
const QUIET_MS = 400;
const node = process.execPath;
nodePackages();
buildAll();
const { startPostgres } = await import('./lib/postgres.mjs');
const { serve } = await import('./lib/serve.mjs');
const { loadDemo } = await import('./lib/demo.mjs');
const postgres = await startPostgres();
const children = [
  [
    'node_modules/typescript/bin/tsc',
    '-b',
    'core',
    'server',
    'cli',
    '--watch',
    '--preserveWatchOutput',
  ],
  ['node_modules/@angular/cli/bin/ng.js', 'build', 'web', '--watch'],
].map((args) =>
  spawn(node, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NG_CLI_ANALYTICS: 'false' },
  }),
);
let server = await serve(postgres);
await loadDemo(server.url);
console.log('Watching; reload the page after a build. Stop with Ctrl+C.');

let timer;
let working = Promise.resolve();
const again = () => {
  clearTimeout(timer);
  timer = setTimeout(() => {
    working = working.then(async () => {
      await server.stop();
      server = await serve(postgres);
    });
  }, QUIET_MS);
};
for (const folder of ['core/dist', 'server/dist'])
  watch(join(root, folder), { recursive: true }, (_event, file) => {
    if (file?.endsWith('.js')) again();
  });

const stop = async () => {
  children.forEach((child) => child.kill());
  await working;
  await server.stop();
  postgres.stop();
  process.exit(0);
};
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
