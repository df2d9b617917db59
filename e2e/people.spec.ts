import { expect, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { makeAdministrator } from '../server/dist/accounts/administrator.js';
import { startPostgres } from '../scripts/lib/postgres.mjs';
import { serve } from '../scripts/lib/serve.mjs';
import { freshDatabase } from '../scripts/lib/testbed.mjs';
import { newJob, saved, settled, test, type } from './helpers';

const password = 'three dull copper wires';

const signIn = async (page: Page, login: string): Promise<void> => {
  await page.getByLabel('Login').fill(login);
  await page.getByLabel('Password').fill(password);
  // The window begins anew with this person's own store.
  await Promise.all([
    page.waitForEvent('load'),
    page.getByRole('button', { name: 'Sign in' }).click(),
  ]);
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeHidden();
};

/** Signs out with work unsent: it is said, and then hidden. */
const signOut = async (page: Page, url: string, unsent: string): Promise<void> => {
  await page.goto(`${url}/settings`);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  await expect(page.getByText(`Not sent yet: ${unsent}.`)).toBeVisible();
  await page.getByRole('button', { name: 'Sign out all the same' }).click();
  await expect(page.getByText(`Not sent yet: ${unsent}.`)).toBeHidden();
};

test('two people on one tablet, both with unsent work: neither sees nor sends what is the other’s', async ({
  browser,
}) => {
  test.setTimeout(480_000);
  const postgres = await startPostgres('pg-test');
  const urls = await freshDatabase(postgres, 'tactron_people');
  process.env['TACTRON_ACCOUNTS'] = 'on';
  const start = () => serve(postgres, { port: 4590, quiet: true, urls });
  let server = await start();
  const { url } = server;
  const kill = async (): Promise<void> => {
    const gone = new Promise((done) => server.child.once('exit', done));
    server.child.kill('SIGKILL');
    await gone;
  };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  try {
    await makeAdministrator(urls.ownerUrl, {
      login: 'chief',
      name: 'C. Hief',
      trade: 'engineer',
      password,
    });
    const page = await context.newPage();
    page.setDefaultTimeout(15_000);
    await page.goto(`${url}/jobs`);
    await signIn(page, 'chief');
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    const ask = (path: string, body?: unknown) =>
      page.evaluate(
        async ([to, data]) => {
          const answer = await fetch(`/api/${to}`, {
            method: data ? 'POST' : 'GET',
            headers: { 'content-type': 'application/json' },
            body: data || undefined,
          });
          return (await answer.json()) as never;
        },
        [path, body ? JSON.stringify(body) : ''] as const,
      );
    await ask('sites', { id: randomUUID(), name: 'Bark hall' });
    await newJob(page, 'FM-SHARED', 'Bark drum of two people', 'Marrowick F', 'F02');
    await settled(page);
    await saved(page);
    const job = page.url();
    const [site] = (await ask('sites')) as { id: string }[];
    const invitation = { role: 'electrician', sites: [site.id] };
    const { token } = (await ask('accounts/invitations', invitation)) as { token: string };
    const accepted = await fetch(`${url}/api/session/invitations/${token}/accept`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login: 'bea', name: 'B. Ea', trade: 'fitter', password }),
    });
    expect(accepted.status).toBe(201);
    const cable = page.getByRole('region', { name: 'Motor cable' }).getByLabel('Length');

    await kill();
    await type(page, 'Motor cable', 'Length', '61 m');
    await expect(page.locator('.save')).toContainText('kept here', { timeout: 60_000 });
    await signOut(page, url, '1 change');
    await page.goto(`${url}/jobs`);
    await expect(page.getByRole('link', { name: 'FM-SHARED', exact: true })).toBeHidden();
    await page.goto(job);
    await expect(cable).toBeHidden();

    server = await start();
    await page.goto(`${url}/jobs`);
    await signIn(page, 'bea');
    await page.getByRole('link', { name: 'FM-SHARED', exact: true }).click();
    await expect(cable).not.toHaveValue('61 m');
    await settled(page);
    await kill();
    await type(page, 'Motor', 'Power', '2.2 kW');
    await expect(page.locator('.save')).toContainText('kept here', { timeout: 60_000 });
    await signOut(page, url, '1 change');

    server = await start();
    await page.goto(`${url}/jobs`);
    await signIn(page, 'chief');
    const changes = async () =>
      (
        (await ask(`jobs/${/jobs\/([^/]+)/u.exec(job)?.[1]}/history?size=50`)) as {
          author: { name: string };
          sentBy: string;
          places: string[];
        }[]
      )
        .filter((l) => l.places.some((p) => /length|power/u.test(p)))
        .map((l) => [l.author.name, l.sentBy]);
    await expect.poll(changes, { timeout: 60_000 }).toEqual([['C. Hief', 'C. Hief']]);
    await page.goto(job);
    await expect(cable).toHaveValue('61 m');
    await page.goto(`${url}/settings`);
    await page.getByRole('button', { name: 'Sign out', exact: true }).click();
    await expect(page.getByLabel('Login')).toBeVisible();
    await signIn(page, 'bea');
    await expect.poll(changes, { timeout: 60_000 }).toEqual([
      ['B. Ea', 'B. Ea'],
      ['C. Hief', 'C. Hief'],
    ]);
    await page.goto(job);
    await expect(cable).toHaveValue('61 m');
    await expect(
      page.getByRole('region', { name: 'Motor', exact: true }).getByLabel('Power', { exact: true }),
    ).toHaveValue('2.2 kW');
  } finally {
    delete process.env['TACTRON_ACCOUNTS'];
    await context.close();
    await server.stop();
  }
});
