import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/run.mjs';
import { calculationsPage } from './lib/calculations-page.mjs';
import { buildAll, nodePackages } from './lib/setup.mjs';

/** Writes what is published of the formats from the code itself: the JSON Schema of a job file, and every calculation. */
nodePackages();
buildAll();
const { jobFileSchema } = await import('../server/dist/http/app.js');
writeFileSync(
  join(root, 'docs/formats/job-file.schema.json'),
  `${JSON.stringify(jobFileSchema(), null, 2)}\n`,
);
const { calculationGroups } = await import('../core/dist/sums/index.js');
writeFileSync(join(root, 'docs/calculations.md'), calculationsPage(calculationGroups));
