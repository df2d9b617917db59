import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/run.mjs';
import { buildAll, nodePackages } from './lib/setup.mjs';

/** Writes the published JSON Schema of a job file from the schemas that check it. */
nodePackages();
buildAll();
const { jobFileSchema } = await import('../server/dist/http/app.js');
writeFileSync(join(root, 'docs/formats/job-file.schema.json'), `${JSON.stringify(jobFileSchema(), null, 2)}\n`);
