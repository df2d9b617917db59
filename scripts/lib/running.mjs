import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { root } from './run.mjs';
import { writeWhole } from './postgres.mjs';

const file = join(root, '.data', 'running.json');

/** Whether a process is there and is a start of this application: a number may have gone to another process since. */
function isStart(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs');
  } catch {
    return false;
  }
}

function read() {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}

/**
 * Takes the one place from which this folder is served.
 *
 * @returns how to say the address and how to leave, or who is there already
 */
export function takePlace() {
  mkdirSync(dirname(file), { recursive: true, mode: 0o711 });
  for (;;) {
    try {
      const at = openSync(file, 'wx', 0o600);
      writeSync(at, JSON.stringify({ pid: process.pid }));
      closeSync(at);
      return {
        tell: (more) => writeWhole(file, JSON.stringify({ pid: process.pid, ...more })),
        leave: () => read()?.pid === process.pid && rmSync(file, { force: true }),
      };
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      const other = read();
      if (other?.pid && other.pid !== process.pid && isStart(other.pid)) return { other };
      rmSync(file, { force: true });
    }
  }
}

/** Address at which the other start serves; waits a while for one that is still setting up. */
export async function addressOf({ pid, url }) {
  for (let tries = 0; !url && tries < 240 && isStart(pid); tries++) {
    await new Promise((done) => setTimeout(done, 250));
    url = read()?.url;
  }
  return url;
}
