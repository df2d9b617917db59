import { factorySettings, modelOf, type Profile } from '../catalogue/index.js';
import { hashOf, JOB_VERSION, type Envelope, type Evidence, type Job } from '../job/index.js';
import { keyingLines } from '../plan/index.js';
import { drawingSvg, layOut } from './drawing.js';
import { asBuiltTable, csv, keyingTable, linkTable, terminalTable, wireTable } from './tables.js';

/** The job file: job, the profile it is pinned to, evidence. */
export function envelopeOf(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[] = [],
  site?: Envelope['site'],
): Envelope {
  return {
    format: 'tactron-job',
    version: JOB_VERSION,
    job,
    profiles: { [job.profile.sha256]: profile as Record<string, unknown> },
    evidence: [...evidence],
    ...(site ? { site } : {}),
  };
}

/** All open-format files of a job's record by file name. */
export function recordFiles(
  job: Job,
  profile: Profile,
  evidence: readonly Evidence[] = [],
): Record<string, string> {
  const model = modelOf(profile, job.profile.model);
  const keyed = model ? keyingLines(job, profile, factorySettings(profile, model)) : [];
  const files: Record<string, string> = {
    'job.json': `${JSON.stringify(envelopeOf(job, profile, evidence), null, 2)}\n`,
    'wires.csv': csv(wireTable(job)),
    'terminals.csv': csv(terminalTable(job, profile)),
    'as-built.csv': csv(asBuiltTable(job)),
    'links.csv': csv(linkTable(job, profile)),
    'keying.csv': csv(keyingTable(profile, keyed)),
    'control.svg': drawingSvg(layOut(job, profile, 'control'), `${job.tag} control`),
    'power.svg': drawingSvg(layOut(job, profile, 'power'), `${job.tag} power`),
  };
  files['manifest.json'] =
    `${JSON.stringify({ job: job.id, tag: job.tag, sha256: Object.fromEntries(Object.entries(files).map(([name, text]) => [name, hashOf(text)])) }, null, 2)}\n`;
  return files;
}
