import { expect } from '@playwright/test';
import { declare, open, stage, test } from './helpers';

test('dead checks: isolated first, a loop read at the device, a wrong reading kept and read again, printed', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a11/dead');
  await expect(page.getByText('Not to be seen dead, because a relay closes the way')).toContainText(
    'T1:IN1',
  );
  const current = page.getByRole('region', { name: 'Current test' });
  await expect(current).toContainText('Open Q1. Lock and tag');
  // Nothing is read before the panel is proved dead.
  await page.locator('[data-act="dead.loop.rampSelect"]').click();
  await expect(current).toContainText('Hold point. First: Isolate and prove dead');
  await current.getByRole('button', { name: 'Go there' }).click();
  await current.getByRole('button', { name: 'done', exact: true }).click();
  await current.getByRole('button', { name: 'dead', exact: true }).click();
  await expect(current).toContainText('T1:D+');
  await current.getByRole('textbox', { name: /^Reading/u }).fill('4');
  await page.keyboard.press('Enter');
  await page.locator('[data-act="dead.loop.rampSelect"]').click();
  await expect(current).toContainText('Leads at T1:P24 and T1:IN3, S1 at rest');
  await expect(current).not.toContainText('Hold point');
  // Every source with its lock is named before anything is read.
  await expect(current.getByRole('textbox', { name: 'at rest' })).toBeHidden();
  await expect(current.getByRole('button', { name: 'Declare DEAD' })).toBeDisabled();
  await current.getByRole('textbox', { name: 'Number of the lock on Q1' }).fill('47');
  await declare(page);
  await expect(page.getByRole('button', { name: 'State of isolation' })).toContainText('DEAD');
  await expect(current).toContainText('put S1 to on');
  const [rest, worked] = ['at rest', 'worked'].map((name) =>
    current.getByRole('textbox', { name, exact: true }),
  );
  await rest.fill('OL');
  await page.keyboard.press('Enter');
  await worked.fill('OL');
  await page.keyboard.press('Enter');
  await expect(current).toHaveAttribute('data-verdict', 'fail');
  // What would explain it is named, and its wires and contacts are asked for one by one.
  await expect(current.getByRole('region', { name: 'Likely causes' })).toContainText('S1', {
    timeout: 60_000,
  });
  await expect(page.locator('[data-act="dead.single"]')).toBeVisible();
  await rest.fill('ol');
  await page.keyboard.press('Enter');
  await worked.fill('0.6');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-act="dead.loop.rampSelect"]')).toContainText('pass');
  await expect(stage(page, 'Dead')).toContainText('4/');
  await page.getByRole('button', { name: 'State of isolation' }).click();
  await page.getByRole('menuitem', { name: 'Isolation card' }).click();
  await expect(page.getByRole('row', { name: /^Q1/u })).toContainText('47');
  await stage(page, 'Hand over').click();
  const record = page.locator('section', {
    has: page.getByRole('heading', { name: 'Dead checks' }),
  });
  await expect(record.getByRole('row', { name: /T1:IN3, S1 at rest/u })).toContainText(
    'earlier: at rest OL, worked OL (fail)',
  );
});
