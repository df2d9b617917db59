import { createHash, randomBytes } from 'node:crypto';
import { request } from 'node:http';
import { serve } from '../../scripts/lib/serve.mjs';
import { cluster, freshUrls } from './testing/cluster.js';
import { damageDrill } from './testing/damage.js';

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

describe('a start', () => {
  it('on damaged data deletes nothing, says what is wrong and the way out, and goes on when it is put right', async () => {
    const found = await damageDrill();
    const refused = (fault: RegExp) => found.filter((f) => fault.test(f.fault));
    for (const f of found)
      expect([f.kept, f.comesBack]).withContext(`${f.fault}: ${f.said}`).toEqual([true, true]);
    for (const f of refused(/PG_VERSION|pg_control|passwords/u)) {
      expect(f.refused).withContext(f.fault).toBeTrue();
      expect(f.said)
        .withContext(f.fault)
        .toMatch(/npm run restore/u);
      expect(f.said)
        .withContext(f.fault)
        .toMatch(/Nothing was changed/u);
    }
    for (const f of refused(/killed|postmaster/u))
      expect([f.refused, f.said]).withContext(f.fault).toEqual([false, '']);
    expect(found.length).toBe(8);
  }, 120_000);

  it('that is stopped lets a request under way come to its end, and takes no further one', async () => {
    const urls = await freshUrls('tactron_stop');
    const server = (await serve(await cluster(), {
      port: 4690,
      quiet: true,
      urls,
    } as never)) as { port: number; url: string; stop(): Promise<void> };
    const body = randomBytes(200_000);
    const sha = createHash('sha256').update(body).digest('hex');
    const under = request(`${server.url}/api/files/${sha}`, {
      method: 'PUT',
      headers: { 'content-type': 'image/jpeg', 'content-length': body.length },
    });
    const answered = new Promise<number | undefined>((done, fail) => {
      under.once('error', fail);
      under.once('response', (answer) => done(answer.statusCode));
    });
    under.write(body.subarray(0, 100_000));
    await pause(200);
    const stopped = server.stop();
    await pause(300);
    await expectAsync(fetch(`${server.url}/api/health`)).toBeRejected();
    under.end(body.subarray(100_000));
    expect(await answered).toBe(201);
    await stopped;
  }, 30_000);
});
