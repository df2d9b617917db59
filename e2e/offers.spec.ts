import { expect } from '@playwright/test';
import { newSite, open, passOver, saved, settled, test, untouchedAuger } from './helpers';

/** A recorder's file: 0 to 50 Hz in `up` s, held, and down in `down` s; a semicolon between, commas in the numbers. */
const recorded = (up: number, down: number): string => {
  const comma = (x: number): string => x.toFixed(2).replace('.', ',');
  const rows = Array.from({ length: 400 }, (_, i) => {
    const t = i / 20;
    const f =
      t < 2 ? 0 : Math.min(50, (50 * (t - 2)) / up, Math.max(0, 50 - (50 * (t - 12)) / down));
    return `${comma(t)};${comma(f)}`;
  });
  return ['Messung', 't [s];f [Hz]', ...rows].join('\n');
};

test('offers of Live: tolerances of the site, an input by a jumper before its contact, ramps from a recorder', async ({
  browser,
}) => {
  const site = await newSite('Wickford Mill');
  const page = await open(browser, `/sites/${site}`);
  const ramps = page.getByLabel('ramps and warnings', { exact: true });
  await ramps.fill('90');
  await ramps.press('Tab');
  await expect(page.getByRole('alert')).toHaveText('At most 10 s.');
  await ramps.fill('0,5');
  await ramps.press('Tab');
  await expect(page.getByText('The tolerances are settled.')).toBeVisible();

  const id = await untouchedAuger(undefined, site);
  await page.goto(new URL(`/jobs/${id}/live`, page.url()).href);
  const current = page.getByRole('region', { name: 'Current test' });
  await page.locator('[data-act="ramps"]').click();
  await expect(current).toContainText('3.7 … 4.3 s');
  await expect(page.getByText('ramps and warnings ±0.5 s, here ±0.3 s.')).toBeVisible();
  await page.getByRole('button', { name: 'Take over the site’s' }).click();
  await expect(current).toContainText('3.5 … 4.5 s');
  await expect(page.getByText('here ±0.3 s')).toBeHidden();

  // What a recorder wrote is laid over the simulated run, and the number is entered from it.
  await current.locator('tac-recorder-panel input[type=file]').setInputFiles({
    name: 'ramps.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(recorded(4.2, 3.1)),
  });
  await expect(current).toContainText(/Recorded: up 4\.2 s, down 3\.1 s/u);
  await expect(current).toContainText(/Simulated: up 4 s, down 3 s/u);
  await expect(current.getByRole('button', { name: 'Enter 4.20 as the reading' })).toBeVisible();

  // An offer: nothing of it is asked for until it is taken.
  const answers = page.getByText(/of \d+ answers passed/u);
  const all = Number(/of (\d+)/u.exec((await answers.textContent()) ?? '')?.[1]);
  await page.getByRole('button', { name: /^Simulate them first/u }).click();
  await expect(answers).toContainText(`of ${all + 4} answers`);
  await page.locator('[data-act="simulated.rampSelect"]').click();
  await expect(current).toContainText('Put a jumper between T1:P24 and T1:IN3, in place of S1');
  await current.getByRole('button', { name: 'It is in', exact: true }).click();
  await expect(
    page.locator('tac-temporary-button').first().getByRole('button'),
  ).toHaveAccessibleName('1 in for tests');
  // As the real inputs, it waits until power is on and read.
  await expect(current).toContainText('Hold point. First: Power');
  await passOver(page, 'power was read by the panel builder');
  await current.getByRole('button', { name: 'on', exact: true }).click();
  await settled(page);
  await page.locator('[data-act="simulated.rampSelect"]').click();
  await expect(current).toHaveAttribute('data-verdict', 'pass');
  await current.getByRole('button', { name: 'It is out again' }).click();
  await expect(current).toContainText('not in.');
  await saved(page);
});
