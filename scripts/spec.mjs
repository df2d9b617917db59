import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { root, show } from './lib/run.mjs';
import { nodePackages } from './lib/setup.mjs';

/** Runs spec files by themselves, without a browser: `npm run spec -- core/drive/behaviour.spec.ts [--filter="text"]`. */
nodePackages();
const files = process.argv.slice(2);
const missing = files.filter(
  (f) => !f.startsWith('--') && !f.includes('*') && !existsSync(join(root, f)),
);
if (files.length === 0 || missing.length) {
  console.error(
    missing.length
      ? `There is no ${missing.join(', ')}.`
      : 'Name a spec file of core, server or cli.',
  );
  process.exit(1);
}
const { code } = await show(process.execPath, [
  '--conditions=source',
  '--import',
  'tsx',
  'node_modules/jasmine/bin/jasmine.js',
  ...files,
]);
process.exit(code);
