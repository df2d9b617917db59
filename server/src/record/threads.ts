import pLimit from 'p-limit';
import { Worker } from 'node:worker_threads';
import { Problem } from '../http/problem.js';

/** Records that are made at once, and that may wait: each takes a thread for a second or two. */
const THREADS = 2;
const WAITING = 16;
/** A record that takes longer is given up, ms. */
const LONGEST_MS = 60_000;
/** What one record may hold, MB. */
const MOST_MB = 1024;

/** One order in a thread of its own, which ends with it: whatever it does there, the server goes on. */
function inThread<Order, Made>(worker: URL, order: Order, longestMs: number): Promise<Made> {
  return new Promise((done, fail) => {
    const thread = new Worker(worker, {
      workerData: order,
      resourceLimits: { maxOldGenerationSizeMb: MOST_MB },
    });
    const late = setTimeout(() => {
      fail(new Error(`it took longer than ${longestMs / 1000} s`));
      void thread.terminate();
    }, longestMs);
    thread.once('message', done);
    thread.once('error', fail);
    thread.once('exit', (code) => fail(new Error(`the thread ended with ${code}`)));
    thread.once('exit', () => clearTimeout(late));
  });
}

/**
 * Does orders in threads, a few at once, and says so where too many wait.
 *
 * @param worker what does one order, given as its data, and answers by a message
 * @example await threads<PrintOrder, Uint8Array>(worker)(order)
 */
export function threads<Order, Made>(
  worker: URL,
  longestMs = LONGEST_MS,
): (order: Order) => Promise<Made> {
  const limit = pLimit(THREADS);
  return (order) => {
    if (limit.pendingCount >= WAITING)
      throw new Problem(
        503,
        'busy',
        'Too many records are being made just now. Ask again in a moment.',
      );
    return limit(async () => {
      try {
        return await inThread<Order, Made>(worker, order, longestMs);
      } catch (error) {
        console.error(`record: ${error instanceof Error ? error.message : String(error)}`);
        throw new Problem(
          500,
          'notMade',
          'The record could not be made on the server. Make it in the browser, under Hand over.',
        );
      }
    });
  };
}
