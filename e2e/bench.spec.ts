import { expect } from '@playwright/test';
import { open, test, untouchedAuger } from './helpers';

const drum = '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01/rehearse';
const fields = ['Power', 'Station', 'Device and voltages', 'Motor', 'Why', 'Meter and tools'];

for (const [width, height] of [
  [1280, 800],
  [1280, 680],
] as const)
  test(`the bench stands still at ${width} × ${height}: start, frequency, lanes, meter and why are seen together`, async ({
    browser,
  }) => {
    const page = await open(browser, drum);
    await page.setViewportSize({ width, height });
    await page.getByRole('button', { name: 'Supply off' }).click();
    const main = page.locator('main');
    expect(await main.evaluate((m) => m.scrollHeight - m.clientHeight)).toBeLessThanOrEqual(0);
    const inside = async (what: ReturnType<typeof page.locator>): Promise<void> => {
      const box = await what.boundingBox();
      expect(box).not.toBeNull();
      if (!box) return;
      expect(box.y).toBeGreaterThanOrEqual(0);
      expect(box.y + box.height).toBeLessThanOrEqual(height);
      expect(box.x + box.width).toBeLessThanOrEqual(width);
    };
    for (const name of fields) await inside(page.getByRole('region', { name, exact: true }));
    for (const name of ['S2 stop', 'S3 start', 'S5 jog forward'])
      await inside(page.getByRole('button', { name, exact: true }));
    await inside(page.locator('tac-device-face .hz'));
    await inside(page.locator('tac-bench-tools .reading'));
    const lanes = page.locator('tac-lanes .lane');
    for (let i = 0; i < 3; i++) await inside(lanes.nth(i));
    // Every terminal in use says what it is there for and what is on it.
    await expect(page.getByRole('button', { name: /^D1 stop on 24/u })).toBeVisible();
  });

test('the bench plays the acts of the tests one by one and tells what to expect', async ({
  browser,
}) => {
  const page = await open(browser, drum);
  await page.getByRole('button', { name: 'Play the acts' }).click();
  const shown = page.getByRole('status', { name: 'Trial shown' });
  await expect(shown).toContainText('Close QB1');
  await page.getByRole('button', { name: 'Next act' }).click();
  await expect(shown).toContainText('close Q0');
  await page.getByRole('button', { name: 'Next act' }).click();
  await expect(shown).toContainText('press S3 and hold it');
  await expect(
    page.getByRole('radiogroup', { name: 'S1' }).getByRole('radio', { name: 'in' }),
  ).toBeChecked({
    timeout: 45_000,
  });
  await page.getByRole('button', { name: 'Leave the trial' }).click();
  await expect(page.getByRole('button', { name: 'Supply off' })).toBeVisible();
});

test('the panel card tells every terminal with wire, task, setting and volts, and prints on one sheet', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await untouchedAuger()}/land`);
  await page.getByRole('link', { name: 'Terminals and panel card' }).click();
  const control = page.getByRole('table', { name: 'Control terminals' });
  const row = control.getByRole('row', { name: /T1:IN1/u });
  await expect(row).toContainText('run forward');
  await expect(row).toContainText('K1:28');
  await expect(row).toContainText('311 = 1');
  await expect(row).toContainText(/at rest.0 V.*B1 closed.24 V/u);
  await expect(page.getByRole('list', { name: 'Power terminals' })).toContainText('T1:U – M1:U');
  await expect(page.getByRole('table', { name: 'To be keyed' })).toContainText('SET × 2');
  const pdf = (await page.pdf({ format: 'A4' })).toString('latin1');
  expect(pdf.match(/\/Type\s*\/Page\b/gu)?.length).toBe(1);
});
