import { chromium, expect, type BrowserContext, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadDemo } from '../scripts/lib/demo.mjs';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { serve } from '../scripts/lib/serve.mjs';
import { freshDatabase } from '../scripts/lib/testbed.mjs';
import { answerAsExpected, newJob, saved, settled, test, type, untouchedAuger } from './helpers';

const port = 4570;
const browserOf = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
  viewport: { width: 1280, height: 800 },
};

/** The same person's browser again: what it kept is there, nothing else. */
async function browserIn(folder: string): Promise<{ context: BrowserContext; page: Page }> {
  const context = await chromium.launchPersistentContext(folder, browserOf);
  const page = context.pages()[0] ?? (await context.newPage());
  page.setDefaultTimeout(10_000);
  await page.addInitScript(() => {
    const author = '{"author":{"name":"A. Hollis","role":"commissioning electrician"}}';
    if (!localStorage.getItem('tactron.preferences'))
      localStorage.setItem('tactron.preferences', author);
  });
  return { context, page };
}

/** A small picture, made in the page: a meter's reading as a camera would give it. */
const picture = (page: Page): Promise<string> =>
  page.evaluate(() => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [640, 480];
    const pen = canvas.getContext('2d') as CanvasRenderingContext2D;
    pen.fillStyle = '#dfe6d0';
    pen.fillRect(0, 0, 640, 480);
    pen.fillStyle = '#102018';
    pen.font = '120px monospace';
    pen.fillText('398.5 V', 60, 280);
    return canvas.toDataURL('image/jpeg').split(',')[1];
  });

test('the server killed: edits, readings, a picture and a new job are kept, survive closing the browser, and arrive once and in order', async () => {
  test.setTimeout(360_000);
  const postgres = await startPostgres('pg-test');
  const urls = await freshDatabase(postgres, 'tactron_offline');
  const start = () => serve(postgres, { port, quiet: true, urls });
  const folder = mkdtempSync(join(tmpdir(), 'tactron browser '));
  let server = await start();
  const base = server.url;
  await loadDemo(base);
  const auger = await untouchedAuger(base);
  let { context, page } = await browserIn(folder);
  try {
    await page.goto(`${base}/jobs`);
    // a server that has just begun reads its board for the first time
    await expect(page.getByRole('link', { name: 'FM-AUGER', exact: true })).toBeVisible({
      timeout: 60_000,
    });
    // the application itself is kept, and controls this page from the next load on
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.goto(`${base}/jobs/${auger}/plate`);
    await settled(page);
    await expect
      .poll(() => page.evaluate(() => navigator.serviceWorker.controller !== null), {
        timeout: 45_000,
      })
      .toBe(true);
    await expect
      .poll(
        () =>
          page.evaluate(async () => (await caches.keys()).some((k) => k.includes('application'))),
        { timeout: 45_000 },
      )
      .toBe(true);
    await page.reload();
    await expect(
      page.getByRole('region', { name: 'Motor cable' }).getByLabel('Length'),
    ).toHaveValue(/ m$/u);
    await settled(page);

    server.child.kill('SIGKILL');
    await new Promise((done) => server.child.once('exit', done));
    for (let n = 1; n <= 20; n++) await type(page, 'Motor cable', 'Length', `${40 + n} m`);
    await expect(page.locator('.save')).toContainText('kept here, waiting for server', {
      timeout: 60_000,
    });
    await page
      .getByRole('navigation', { name: 'Stages' })
      .getByRole('link', { name: /\d Live/u })
      .click();
    for (let n = 0; n < 7; n++) {
      await answerAsExpected(page);
      await page.waitForTimeout(600);
    }
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByText('Picture', { exact: true }).click(),
    ]);
    await chooser.setFiles({
      name: 'meter.jpg',
      mimeType: 'image/jpeg',
      buffer: Buffer.from(await picture(page), 'base64'),
    });
    await expect(page.getByRole('button', { name: 'Open meter.jpg' })).toBeVisible();
    await newJob(page, 'FM-OFFLINE', 'Malt lift without network', 'Marrowick F', 'F02');
    await type(page, 'Motor', 'Power', '1.5 kW');
    await page.waitForTimeout(300); // the strip says what it said before, until the field has been taken
    await expect(page.locator('.save')).toContainText('waiting for server', { timeout: 60_000 });
    await context.close();

    ({ context, page } = await browserIn(folder));
    await page.goto(`${base}/jobs`);
    await expect(page.getByText('The server does not answer.')).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('link', { name: 'FM-OFFLINE', exact: true })).toBeVisible();
    await page.getByRole('link', { name: 'FM-AUGER-N', exact: true }).click();
    await expect(
      page.getByRole('region', { name: 'Motor cable' }).getByLabel('Length'),
    ).toHaveValue('60 m');
    await page
      .getByRole('navigation', { name: 'Stages' })
      .getByRole('link', { name: /\d Rehearse/u })
      .click();
    await page.getByRole('button', { name: 'Supply off' }).click();
    await expect(page.getByRole('button', { name: 'Supply on' })).toBeVisible();

    server = await start();
    expect(server.port).toBe(port);
    await saved(page);
    const ask = async (path: string) =>
      (await (await fetch(`${base}/api/${path}`)).json()) as never;
    await expect
      .poll(async () => ((await ask('jobs?search=FM-OFFLINE')) as { total: number }).total, {
        timeout: 60_000,
      })
      .toBe(1);
    const history = (
      (await ask(`jobs/${auger}/history?size=200`)) as { revision: number }[]
    ).toReversed();
    const lengths: number[] = [];
    for (const { revision } of history) {
      const job = (await ask(`jobs/${auger}/at/${revision}`)) as {
        plate: { cable: { length: { v: number } } };
      };
      const { v } = job.plate.cable.length;
      if (v !== lengths.at(-1)) lengths.push(v);
    }
    expect(lengths.slice(1)).toEqual(Array.from({ length: 20 }, (_, n) => 41 + n));
    const evidence = (await ask(`jobs/${auger}/evidence`)) as {
      kind: string;
      body: { values: { value: unknown }[]; sha256?: string };
    }[];
    // The first reading is of what is ready; then it is declared what is live.
    const kinds = ['reading', 'isolation', ...Array.from({ length: 6 }, () => 'reading')];
    expect(evidence.map((e) => e.kind)).toEqual([...kinds, 'attachment']);
    expect([evidence[5].body.values[0].value, evidence[7].body.values[0].value]).toEqual([
      400, 565.7,
    ]);
    const file = await fetch(`${base}/api/files/${evidence[8].body.sha256}`);
    expect([file.status, file.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
    type Board = { rows: { job: { plate: { motor: { power: unknown } } } }[] };
    await expect
      .poll(
        async () => ((await ask('jobs?search=FM-OFFLINE')) as Board).rows[0].job.plate.motor.power,
        { timeout: 45_000 },
      )
      .toEqual({ v: 1.5, u: 'kW' });
  } finally {
    await context.close();
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  }
});
