import { threads } from './threads.js';

/** A worker written here. */
const worker = (text: string): URL => new URL(`data:text/javascript,${encodeURIComponent(text)}`);
const answers = worker(
  `import { parentPort, workerData } from 'node:worker_threads';
   setTimeout(() => parentPort.postMessage(workerData * 2), 20);`,
);

describe('orders in threads of their own', () => {
  beforeEach(() => spyOn(console, 'error'));

  it('are answered each with its own, more than run at once', async () => {
    const twice = threads<number, number>(answers);
    expect(await Promise.all([1, 2, 3, 4, 5].map(twice))).toEqual([2, 4, 6, 8, 10]);
  });

  for (const [what, text] of [
    ['cannot be read', 'import "node:no-such-thing";'],
    ['throws', 'throw new Error("no font");'],
    ['ends without an answer', 'process.exit(0);'],
    ['never ends', 'setInterval(() => undefined, 1000);'],
  ] as const)
    it(`are refused in words where the thread ${what}, and the next order is not`, async () => {
      await expectAsync(threads<number, number>(worker(text), 1000)(1)).toBeRejectedWith(
        jasmine.objectContaining({ status: 500, type: 'notMade' }),
      );
      expect(await threads<number, number>(answers)(4)).toBe(8);
    });

  it('are refused where too many wait', async () => {
    const twice = threads<number, number>(answers);
    const taken = Array.from({ length: 18 }, (_, i) => twice(i));
    expect(() => twice(18)).toThrow(jasmine.objectContaining({ status: 503, type: 'busy' }));
    expect((await Promise.all(taken)).at(-1)).toBe(34);
    expect(await twice(9)).toBe(18);
  }, 60_000);
});
