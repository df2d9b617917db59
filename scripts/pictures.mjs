import { chromium as browserType } from '@playwright/test';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/run.mjs';
import { buildAll, chromium, nodePackages } from './lib/setup.mjs';
import { withDemo } from './lib/testbed.mjs';

/** Makes docs/screenshots anew from the demo data. */
const auger = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a11';
const drum = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01';
const folder = join(root, 'docs/screenshots');

nodePackages();
buildAll();
mkdirSync(folder, { recursive: true });
await withDemo('tactron_pictures', async (url) => {
  const browser = await browserType.launch({ executablePath: chromium(), args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'] });
  const open = async (theme, width = 1280, height = 800) => {
    const page = await (await browser.newContext({ viewport: { width, height } })).newPage();
    const stored = JSON.stringify({ theme, author: { name: 'A. Hollis', role: 'commissioning electrician' } });
    await page.addInitScript((text) => localStorage.setItem('tactron.preferences', text), stored);
    return page;
  };
  const shoot = async (page, path, name, prepare) => {
    await page.goto(url + path);
    await page.waitForTimeout(1500);
    await prepare?.(page);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    console.log(name);
  };
  const run = async (page) => {
    await page.getByRole('button', { name: 'Supply off' }).click();
    await page.waitForTimeout(1800);
    await page.getByRole('button', { name: '75', exact: true }).click();
    await page.getByRole('radio', { name: 'closed' }).click();
    await page.waitForTimeout(2600);
    await page.getByRole('button', { name: 'Pause' }).click();
  };
  const test = async (page) => {
    for (const reading of ['398.5', null, '561', null, '21.4']) {
      if (reading === null)
        await page
          .getByRole('region', { name: 'Current test' })
          .getByRole('button', { name: /^(ready|on)$/u })
          .click();
      else {
        await page.getByLabel(/^Reading/u).fill(reading);
        await page.getByLabel(/^Reading/u).press('Enter');
      }
      await page.waitForTimeout(700);
    }
  };
  const sum = async (page) => {
    await page.getByRole('button', { name: 'Example' }).click();
    await page.waitForTimeout(800);
  };
  const stage = (name) => `/jobs/${auger}/${name}`;
  const day = await open('day');
  await shoot(day, '/jobs', 'jobs');
  await shoot(day, `/jobs/${drum}/plate`, 'plate');
  await shoot(await open('plant'), `/jobs/${drum}/plate`, 'plate-curves-plant-room', (page) =>
    page.getByRole('region', { name: 'Motor at full voltage' }).scrollIntoViewIfNeeded(),
  );
  await shoot(day, `/jobs/${auger}/parts`, 'parts');
  await shoot(day, '/sums/dialChart', 'sums', sum);
  await shoot(await open('plant'), '/sums/braking', 'sums-plant-room', sum);
  await shoot(day, stage('scheme'), 'scheme');
  await shoot(day, stage('land'), 'land', (page) => page.getByRole('button', { name: '13', exact: true }).click());
  await shoot(day, stage('key'), 'key', async (page) => {
    await page.getByRole('button', { name: /212 Acceleration time/u }).click();
    await page.waitForTimeout(300);
  });
  await shoot(day, stage('rehearse'), 'rehearse', run);
  await shoot(day, stage('rehearse'), 'rehearse-sweep', async (page) => {
    await page.getByRole('button', { name: 'Break every wire' }).click();
    await page.getByRole('table', { name: 'Single faults' }).waitFor();
    await page.evaluate(() => document.querySelectorAll('main').forEach((m) => (m.scrollTop = 1e6)));
    await page.waitForTimeout(400);
  });
  await shoot(day, stage('dead'), 'dead');
  await shoot(day, '/library', 'library');
  await shoot(await open('plant'), stage('rehearse'), 'rehearse-plant-room', run);
  await shoot(day, stage('live'), 'live', test);
  await shoot(day, stage('handover'), 'handover');
  await shoot(await open('plant', 820, 1180), stage('live'), 'live-tablet');
  await shoot(await open('day', 390, 844), stage('live'), 'live-phone');
  await browser.close();
});
