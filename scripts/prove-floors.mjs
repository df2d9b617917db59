import { rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { spawnSync } from 'node:child_process';
import { root } from './lib/run.mjs';

/** Plants one violation of each boundary and sees that the rule catches it: a rule that catches nothing guards nothing. */
const plants = [
  [
    'core/numeric/planted.ts',
    "import { Circuit } from '../circuit/index.js';\nexport const planted = Circuit;\n",
    'core-floor-numeric',
  ],
  [
    'core/drive/planted.ts',
    "import { planJob } from '../plan/index.js';\nexport const planted = planJob;\n",
    'core-floor-drive',
  ],
  [
    'core/plan/planted.ts',
    "import { solve } from '../numeric/solve.js';\nexport const planted = solve;\n",
    'through-index',
  ],
  [
    'core/parts/planted.ts',
    "import { planJob } from '../plan/index.js';\nexport const planted = planJob;\n",
    'core-floor-parts',
  ],
  [
    'core/faults/planted.ts',
    "import { rehearse } from '../rehearsal/index.js';\nexport const planted = rehearse;\n",
    'core-floor-faults',
  ],
  [
    'core/rehearsal/planted.ts',
    "import { trialsOf } from '../trials/index.js';\nexport const planted = trialsOf;\n",
    'core-floor-rehearsal',
  ],
  [
    'core/trials/planted.ts',
    "import { checkJob } from '../hazards/index.js';\nexport const planted = checkJob;\n",
    'core-floor-trials',
  ],
  [
    'core/hazards/planted.ts',
    "import { say } from '../words/index.js';\nexport const planted = say;\n",
    'words-beside',
  ],
  [
    'core/job/planted.ts',
    "import { readFileSync } from 'node:fs';\nexport const planted = readFileSync;\n",
    'core-no-node',
  ],
  [
    'web/app/planted.ts',
    "import { planJob } from '@tactron/core/plan';\nexport const planted = planJob;\n",
    'web-values',
  ],
  [
    'core/printed/planted.ts',
    "import { derivedOf } from '../said/index.js';\nexport const planted = derivedOf;\n",
    'printed-light',
  ],
];
let missed = 0;
for (const [file, text, rule] of plants) {
  const path = join(root, file);
  writeFileSync(path, text);
  try {
    const { stdout } = spawnSync(
      process.execPath,
      [
        'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
        '--config',
        '.dependency-cruiser.cjs',
        file,
      ],
      {
        cwd: root,
        encoding: 'utf8',
      },
    );
    if (stdout.includes(rule)) continue;
    missed++;
    console.log(`! ${rule} did not catch ${file}\n${stdout}`);
  } finally {
    rmSync(path);
  }
}
console.log(`${plants.length - missed} of ${plants.length} planted violations caught`);
process.exit(missed ? 1 : 0);
