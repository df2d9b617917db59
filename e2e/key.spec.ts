import { Buffer } from 'node:buffer';
import { expect } from '@playwright/test';
import { copyOf, freshDrum, keyEverything, open, saved, settled, stage, test } from './helpers';

/** A picture of one point. */
const point = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('a ready-made arrangement, the motor measured, a page read from a picture, and what is set elsewhere in the panel', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await copyOf(freshDrum)}/key`);
  const current = page.getByRole('region', { name: 'Current line' });
  await expect(current).toContainText('Hold point');
  await settled(page);

  // Ways to key it: presses compared, and what an arrangement wipes.
  const ways = page.getByRole('group', { name: 'Ways to key it' });
  await expect(ways).toContainText(/Setting by setting \d+ values, \d+ presses/u);
  await ways.getByRole('radio', { name: /Ready-made: three-wire/u }).check();
  await settled(page);
  const lines = page.getByRole('list', { name: 'All lines in order' });
  await expect(lines).toContainText('The arrangement may have given command to the terminals');
  await expect(lines.getByRole('button', { name: /M\/03/u })).toHaveCount(1);

  // The run waits for its holds, refuses what was not measured, and asks about what the plate does not let expect.
  await lines.getByRole('button', { name: /Identification run/u }).click();
  await expect(current).toContainText('First:');
  await expect(current.getByRole('button', { name: 'Measured' })).toHaveCount(0);
  await current.getByText('It ended with something else').click();
  await expect(current).toContainText('E-42');
  await lines.getByRole('button').first().click();
  for (let n = 0; n < 60; n++) {
    await settled(page);
    const next = current.getByRole('button', { name: /^(Keyed|Done|Measured)$/u });
    if ((await next.textContent())?.trim() === 'Measured') break;
    await next.click();
  }
  const result = current.getByLabel(/M\/09/u);
  const measured = current.getByRole('button', { name: 'Measured' });
  await measured.click();
  await expect(current.getByRole('alert')).toContainText('Type what M/09 shows now');
  await result.fill('0');
  await measured.click();
  await expect(current.getByRole('alert')).toContainText('nothing was measured');
  await result.fill('44');
  await measured.click();
  await expect(current.getByRole('alert')).toContainText('outside what the plate lets expect');
  const usual = /about ([\d.]+) Ω/u.exec((await current.textContent()) ?? '')?.[1] ?? '';
  await result.fill(usual);
  await measured.click();
  await expect(current).toContainText('Everything still again');
  await keyEverything(page);

  // As left: a page of the display by one picture; the panel beside the device.
  await page.getByRole('button', { name: 'Enter as left' }).click();
  const motor = page.locator('tr[data-setting="M/09"]');
  await expect(motor).toContainText('measured by the device');
  await motor.locator('input').fill(usual);
  await motor.locator('input').press('Tab');
  const others = page.locator('[data-page="ramps"]');
  const stand = others.getByRole('button', { name: /stands? so on the picture/u });
  await stand.click();
  await expect(page.getByRole('alert')).toContainText('take a picture of the page');
  await others
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'ramps.png', mimeType: 'image/png', buffer: point });
  await expect(others.getByRole('button', { name: /^Open ramps/u })).toBeVisible();
  await stand.click();
  await expect(stand).toHaveCount(0);
  await expect(page.getByRole('button', { name: '✓ by picture' }).first()).toBeVisible();
  const panel = page.getByRole('heading', { name: 'Set elsewhere in the panel' });
  if (await panel.isVisible()) {
    const row = panel.locator('+ div').getByRole('row').nth(1);
    await row.getByRole('button', { name: 'reads so' }).click();
    await expect(row).toContainText('✓ read');
  }
  await page.getByRole('button', { name: 'Keep as left' }).click();
  await stage(page, 'Hand over').click();
  const record = page.locator('main');
  await expect(record).toContainText('identification run, shaft at rest: A. Hollis');
  await expect(record).toContainText('Set elsewhere in the panel');
  await saved(page);
});
