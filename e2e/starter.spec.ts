import { expect } from '@playwright/test';
import { answerAsExpected, open, passOver, phoneStage, settled, stage, test } from './helpers';

const gate = '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a06';
const crusher = '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a05';

test('a soft starter with dials, on a phone: dials set dead, every live reading taken, the last one passed', async ({
  browser,
}) => {
  const page = await open(browser, `${gate}/key`);
  await page.setViewportSize({ width: 390, height: 844 });
  const current = page.getByRole('region', { name: 'Current line' });
  await expect(current).toContainText('Everything off, locked and proved dead');
  await page.getByRole('button', { name: /Dial 2 Begin at/u }).click();
  await expect(current).toContainText('The mark at 80 %: at its highest mark.');
  await expect(current).toContainText('First: Everything off');
  await current.getByRole('button', { name: 'Go there' }).click();
  for (let n = 0; n < 12 && !(await current.getByText('Every line is keyed.').isVisible()); n++) {
    await current.getByRole('button', { name: /^(?:Done|Set)$/u }).click();
    await settled(page);
  }
  await expect(current).toContainText('Every line is keyed.');

  await phoneStage(page, 'Live');
  await expect(page.getByRole('region', { name: 'Current test' })).toContainText(
    'Before anything is switched on',
  );
  const count = page.getByText(/ of \d+ answers passed/u);
  const total = Number((await count.textContent())?.match(/of (\d+)/u)?.[1]);
  expect(total).toBeGreaterThan(25);
  for (let n = 0; n < total; n++) {
    await settled(page);
    await answerAsExpected(page);
    await expect(count).toContainText(`${n + 1} of ${total} answers passed`);
  }
  await expect(page.getByText('hold point at its end').first()).toBeVisible();
});

test('a crusher on its soft starter: the start beside a direct one, run up on the bench, its limit too low found', async ({
  browser,
}) => {
  const page = await open(browser, `${crusher}/rehearse`);
  await page.getByRole('button', { name: 'Supply off' }).click();
  const state = page.locator('tac-device-face .state');
  await expect(state).toHaveText('ready', { timeout: 45_000 });
  const start = page.getByRole('button', { name: 'S3 start', exact: true });
  await start.hover();
  await page.mouse.down();
  await page.waitForTimeout(300);
  await page.mouse.up();
  await expect(state).toHaveText('ramping up');
  await expect(page.locator('tac-device-face .glass')).toContainText('Up 2');
  await expect(state).toHaveText('running at full voltage', { timeout: 90_000 });
  await expect(page.locator('.motor')).toContainText('149');

  await stage(page, 'Scheme').click();
  const panel = page.getByRole('region', { name: 'The start as planned' });
  await expect(panel).toContainText('at full voltage after 11.', { timeout: 60_000 });
  await expect(panel).toContainText('direct on line 474 A');
  const limit = page.getByLabel('Current limit, %');
  await limit.fill('150');
  await limit.press('Enter');
  // Its dead checks are done: what is planned otherwise is adopted by a person.
  await page.getByRole('button', { name: 'Adopt the change' }).click();
  const pocket = page.getByRole('complementary', { name: 'Pocket' });
  await expect(pocket).toContainText('must fix', { timeout: 60_000 });
  await expect(panel).toContainText(/The (?:overload|device) trips after/u, { timeout: 60_000 });
  for (let n = 0; n < 2; n++) {
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await settled(page);
  }
  await expect(panel).toContainText('at full voltage after 11.', { timeout: 60_000 });
});

test('a start that was recorded: the file laid over the simulation, its peak taken as the reading, the file kept', async ({
  browser,
}) => {
  const page = await open(browser, `${crusher}/live`);
  await page.getByText('A whole start: current and time').click();
  const current = page.getByRole('region', { name: 'Current test' });
  await expect(current).toContainText('Takes 1 start');
  await passOver(page, 'tried with the panel builder yesterday');
  const curve = page.getByRole('region', { name: 'Recorded curve' });
  const rows = Array.from({ length: 200 }, (_, i) => {
    const t = i / 10;
    const amps = t < 1 ? 0 : t < 12 ? 231 : Math.max(31, 231 - (t - 12) * 400);
    return `${(t * 1000).toFixed(0)};${amps.toFixed(1).replace('.', ',')}`;
  });
  const file = (text: string) => ({
    name: 'start.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(text),
  });
  const chooser = curve.locator('input[type=file]');
  await chooser.setInputFiles(file('no table\nin here'));
  await expect(curve.getByRole('alert')).toContainText('No table is found');
  await chooser.setInputFiles(file(['Zeit [ms];Strom [A]', ...rows].join('\n')));
  await expect(curve).toContainText('Recorded: peak 231 A, start over after 11.4 s.', {
    timeout: 60_000,
  });
  await curve.getByRole('button', { name: 'Enter 231 as the reading' }).click();
  await expect(page.locator('#reading-0')).toHaveValue('231');
  await settled(page);

  await page.reload();
  await page.getByText('A whole start: current and time').click();
  await expect(page.getByRole('region', { name: 'Recorded curve' })).toContainText(
    'Recorded: peak 231 A',
    { timeout: 60_000 },
  );
  await page.getByText('Enter the time from the start').click();
  const watch = page.getByRole('button', { name: 'Start the watch' });
  await watch.click();
  await page.waitForTimeout(700);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.locator('#reading-0')).toHaveValue(/^(?:0\.[6-9]|1(?:\.\d)?)$/u);
});
