import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** Where the inputs of the specs lie. */
export const folder = mkdtempSync(join(tmpdir(), 'tactron cli '));
export const demo = resolve('demo/fm-auger.tactron.json');
/** Writes an input. @returns its path */
export const put = (data: unknown, name = 'in.json'): string => {
  writeFileSync(join(folder, name), typeof data === 'string' ? data : JSON.stringify(data));
  return join(folder, name);
};
/** Runs the command line as it is installed. */
export const run = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['cli/bin/tactron.mjs', ...args], {
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  return {
    status,
    json: stdout ? (JSON.parse(stdout) as unknown) : undefined,
    stderr: stderr.replace(/^.*nodedir.*\n/gmu, '').trim(),
  };
};
