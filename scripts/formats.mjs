import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { apiPage } from './lib/api-page.mjs';
import { findingsPage } from './lib/findings-page.mjs';
import { root, run } from './lib/run.mjs';
import { calculationsPage } from './lib/calculations-page.mjs';
import { buildAll, nodePackages } from './lib/setup.mjs';

/** Writes what is published of the formats from the code itself: the JSON Schema of a job file, every calculation, every finding and trial, every route and problem. */
nodePackages();
buildAll();
const { jobFileSchema } = await import('../server/dist/http/app.js');
writeFileSync(
  join(root, 'docs/formats/job-file.schema.json'),
  `${JSON.stringify(jobFileSchema(), null, 2)}\n`,
);
const { calculationGroups } = await import('../core/dist/sums/index.js');
writeFileSync(join(root, 'docs/calculations.md'), calculationsPage(calculationGroups));
const [{ hazardRules }, { findingRules, sayFinding }, { trialGrammar }] = await Promise.all(
  ['hazards', 'words', 'trials'].map((name) => import(`../core/dist/${name}/index.js`)),
);
writeFileSync(
  join(root, 'docs/findings.md'),
  findingsPage({ hazardRules, findingRules, sayFinding, trialGrammar }),
);
writeFileSync(join(root, 'docs/api.md'), apiPage());
run(process.execPath, ['node_modules/prettier/bin/prettier.cjs', '--write', 'docs']);
