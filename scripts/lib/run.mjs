import { spawn, spawnSync } from 'node:child_process';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Folder of the project; it may hold spaces. */
export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
export const isRoot = process.getuid?.() === 0;

/** Runs a command to its end and gives back what it printed; throws with its last words when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1 << 26,
    ...options,
  });
  if (done.error) throw done.error;
  if (done.status !== 0)
    throw new Error(
      `${command} ${args.join(' ')} failed:\n${(done.stderr || done.stdout || '').trim().split('\n').slice(-15).join('\n')}`,
    );
  return done.stdout ?? '';
}

/** Runs a command showing what it prints. @returns its exit code and, with `keep`, its output */
export function show(command, args, options = {}) {
  const { keep, ...rest } = options;
  return new Promise((done, fail) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: keep ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
      ...rest,
    });
    let text = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream?.on('data', (data) => {
        text += data;
        process.stdout.write(data);
      });
    }
    child.on('error', fail);
    child.on('close', (code) => done({ code: code ?? 1, text }));
  });
}

/** Runs what a step does and says how long it took. */
export async function timed(name, step) {
  const begin = Date.now();
  const result = await step();
  console.log(`· ${name}: ${((Date.now() - begin) / 1000).toFixed(1)} s`);
  return result;
}
