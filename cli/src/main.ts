import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { BadInput, type Outcome } from './bad-input.js';
import {
  calc,
  calcList,
  check,
  drive,
  exportFiles,
  plan,
  procedure,
  readings,
  solve,
  starter,
} from './calls.js';
import { rehearseJob, sweep, trial, trials } from './experiments.js';
import { verifyBundle } from './bundle.js';
import { verify } from './verify.js';

const usage = `tactron, the core without a screen

  tactron check JOB.json
  tactron plan JOB.json
  tactron rehearse JOB.json --script S.json [--sample 500,1500]
  tactron procedure JOB.json
  tactron readings JOB.json --panel PANEL.json [--seed N]
  tactron trials JOB.json
  tactron trial JOB.json ID [--sample 500,1500]
  tactron sweep JOB.json
  tactron export JOB.json --to DIR
  tactron verify JOB.json|BUNDLE.zip
  tactron solve NET.json
  tactron drive CASE.json
  tactron starter CASE.json
  tactron calc NAME ARGS.json
  tactron calc --list

JSON on standard output, messages on standard error. A JSON array as input gives an array of results in its order; a row
that cannot be done gives its error in its place.
Exit 0; 1 with findings of severity stop, or evidence that does not hold; 2 on bad input, with its path.
`;

/** Runs one call. @returns the exit code */
export async function main(args: readonly string[]): Promise<number> {
  try {
    const outcome = await call(args);
    if (!outcome) {
      process.stderr.write(usage);
      return 2;
    }
    process.stdout.write(`${JSON.stringify(outcome.output, null, 2)}\n`);
    return outcome.bad ? 2 : outcome.stop ? 1 : 0;
  } catch (error) {
    if (!(error instanceof BadInput)) throw error;
    process.stderr.write(`tactron: ${error.path ? `${error.path}: ` : ''}${error.message}\n`);
    return 2;
  }
}

async function call(args: readonly string[]): Promise<Outcome | undefined> {
  const [name, file, ...rest] = args;
  if (name === 'calc' && file === '--list') return calcList();
  if (name === 'calc' && file && rest[0])
    return each(await readJson(rest[0]), (data) => calc(file, data));
  if (!name || !file) return undefined;
  switch (name) {
    case 'check':
      return each(await readJson(file), check);
    case 'plan':
      return each(await readJson(file), plan);
    case 'procedure':
      return each(await readJson(file), procedure);
    case 'trials':
      return each(await readJson(file), trials);
    case 'sweep':
      return each(await readJson(file), sweep);
    case 'verify':
      return file.endsWith('.zip')
        ? verifyBundle(file)
        : each(await readJson(file), (d) => verify(d));
    case 'solve':
      return each(await readJson(file), solve);
    case 'drive':
      return each(await readJson(file), drive);
    case 'starter':
      return each(await readJson(file), starter);
    case 'rehearse': {
      const script = await readJson(option(rest, '--script') ?? '');
      const sample = samples(rest);
      return each(await readJson(file), (data) => rehearseJob(data, script, sample));
    }
    case 'readings': {
      const panel = await readJson(option(rest, '--panel') ?? '');
      const seed = option(rest, '--seed');
      if (seed !== undefined && !/^\d+$/u.test(seed))
        throw new BadInput('--seed', 'a whole number is needed');
      return each(await readJson(file), (data) =>
        readings(data, panel, seed === undefined ? undefined : Number(seed)),
      );
    }
    case 'trial': {
      const [id] = rest;
      if (!id || id.startsWith('--')) return undefined;
      const sample = samples(rest);
      return each(await readJson(file), (data) => trial(data, id, sample));
    }
    case 'export':
      return { output: await exportTo(await readJson(file), option(rest, '--to')) };
    default:
      return undefined;
  }
}

const samples = (args: readonly string[]): number[] | undefined =>
  option(args, '--sample')?.split(',').map(sampleTime);

function sampleTime(text: string): number {
  const ms = Number(text);
  if (text.trim() === '' || !Number.isFinite(ms) || ms < 0)
    throw new BadInput('--sample', `"${text}" is no time in milliseconds`);
  return ms;
}

function option(args: readonly string[], name: string): string | undefined {
  const at = args.indexOf(name);
  return at >= 0 ? args[at + 1] : undefined;
}

async function readJson(file: string): Promise<unknown> {
  let text: string;
  try {
    text = await readFile(file, 'utf8');
  } catch {
    throw new BadInput('', `cannot read "${file}"`);
  }
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new BadInput('', `"${file}" is no JSON: ${(error as Error).message}`);
  }
}

/** Runs a call on one input, or on each of a list; what cannot be done in a list gives its error in its place. */
function each(data: unknown, run: (data: unknown) => Outcome): Outcome {
  if (!Array.isArray(data)) return run(data);
  const outcomes = data.map((item, i): Outcome => {
    try {
      return run(item);
    } catch (error) {
      if (!(error instanceof BadInput)) throw error;
      const { path, message } = error;
      const place = path ? `${i}.${path}` : String(i);
      process.stderr.write(`tactron: ${place}: ${message}\n`);
      return { output: { error: { path, what: message } }, bad: true };
    }
  });
  return {
    output: outcomes.map((o) => o.output),
    stop: outcomes.some((o) => o.stop),
    bad: outcomes.some((o) => o.bad),
  };
}

async function exportTo(data: unknown, folder: string | undefined): Promise<string[]> {
  if (!folder) throw new BadInput('--to', 'a folder is needed');
  const files = await exportFiles(data);
  await mkdir(folder, { recursive: true });
  for (const [name, text] of Object.entries(files)) {
    await mkdir(dirname(join(folder, name)), { recursive: true });
    await writeFile(join(folder, name), text);
  }
  return Object.keys(files);
}
