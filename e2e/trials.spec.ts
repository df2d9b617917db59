import { expect } from '@playwright/test';
import { auger, open, settled, stage, test } from './helpers';

test('a finding is shown in the rehearsal; a plan that changes is told in words; readings of what is gone stay', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${auger}/live`);
  await settled(page);

  // The finding opens the trial that shows it, at its moment: power is back and the auger runs.
  await page
    .getByRole('complementary', { name: 'Pocket' })
    .locator('article', { hasText: 'If power returns' })
    .getByRole('link', { name: 'Show me' })
    .click();
  const trial = page.getByRole('status', { name: 'Trial shown' });
  await expect(trial).toContainText('power back');
  await expect(page.locator('tac-device-face')).toContainText('at speed');
  await expect(page.locator('.motor')).toContainText('forward');
  await trial.getByRole('button', { name: 'power cut' }).click();
  await page.getByRole('button', { name: 'Leave the trial' }).click();
  await expect(trial).toBeHidden();
  await expect(page.getByRole('button', { name: 'Supply off' })).toBeVisible();

  // The start warning is timed; then it is wished away.
  await stage(page, 'Live').click();
  const tests = page.getByRole('region', { name: 'All tests' });
  const timed = tests.getByRole('button', { name: /time from there until the shaft/u });
  await timed.click();
  await page.getByRole('textbox', { name: /^Reading/u }).fill('5,1');
  await page.getByRole('button', { name: 'Accept reading' }).click();
  await expect(timed).toContainText('pass');
  await stage(page, 'Scheme').click();
  const warning = page.getByRole('textbox', { name: 'Start warning, s' });
  await warning.fill('');
  await warning.press('Tab');
  await settled(page);
  const waits = page.locator('section.notice', { hasText: 'The plan has changed' });
  await expect(waits).toContainText(/wire \d+ goes/u);
  await waits.getByRole('button', { name: 'Adopt the change' }).click();
  await expect(waits).toBeHidden();
  await stage(page, 'Live').click();
  const past = page.locator('li.past', { hasText: 'time from there' });
  await expect(past).toContainText('earlier procedure');
  await expect(past).toContainText('5.1 s');
  await stage(page, 'Hand over').click();
  await expect(page.getByText('Readings of an earlier procedure')).toBeVisible();

  // Two steps back, adoption and wish: the panel is built as it was, and the reading counts again.
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
  await settled(page);
  await stage(page, 'Live').click();
  await expect(past).toBeHidden();
  await expect(timed).toContainText('pass');
});
