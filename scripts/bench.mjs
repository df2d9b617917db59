import { nodePackages, buildAll, chromium } from './lib/setup.mjs';
import { show } from './lib/run.mjs';

nodePackages();
chromium();
buildAll();
const { code } = await show(process.execPath, [
  '--import',
  'tsx',
  'bench/bench.ts',
  ...process.argv.slice(2),
]);
process.exit(code);
