import { expect } from '@playwright/test';
import { copyOf, freshDrum, keyEverything, open, saved, settled, stage, test } from './helpers';

test('an isolator at the motor from Plate to its dead checks', async ({ browser }) => {
  const page = await open(browser, `/jobs/${await copyOf(freshDrum)}/plate`);
  await page.getByRole('button', { name: 'Add a block behind Motor cable' }).click();
  await page.getByRole('menuitem', { name: 'Isolator at the motor' }).click();
  const block = page.getByRole('region', { name: 'Isolator at the motor', exact: true });
  await expect(block).toContainText('no early-break contact to the drive');
  await block.getByRole('button', { name: 'no early-break contact' }).click();
  await expect(block).not.toContainText('no early-break contact to the drive');
  await settled(page);
  await stage(page, 'Land').click();
  await page.getByRole('radio', { name: 'Power wires' }).click();
  await expect(page.getByRole('row', { name: /motor U, to the isolator/u })).toContainText('W1');
  await page.getByRole('radio', { name: 'Control wires' }).click();
  const feed = page.getByRole('row', { name: /feed to Q\d/u });
  await expect(feed).toContainText(/Q\d:13/u);
  await stage(page, 'Rehearse').click();
  await expect(page.getByText(/Q\d isolator at the motor/u).first()).toBeVisible();
  await stage(page, 'Dead').click();
  await page.locator('[data-act="dead.power"]').click();
  await expect(
    page.getByText(/^Put Q\d to off: read ohms through each pole/u).first(),
  ).toBeVisible();
  await saved(page);
});

test('what is in for tests is counted, blocks handing over, and is put back: a jumper, and short ramps', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await copyOf(freshDrum)}/live`);
  const strip = page.locator('tac-temporary-button').first().getByRole('button');
  await page.getByRole('button', { name: 'Put something in for a test …' }).click();
  const dialog = page.getByRole('dialog');
  // The dialog has opened when its first field has the focus.
  await expect(dialog.getByLabel('Where')).toBeFocused();
  await dialog.getByLabel('Where').fill('T1:D3');
  await dialog.getByLabel('What for').fill('inhibit held closed for the bump');
  await page.keyboard.press('Enter');
  await expect(dialog).toContainText('put in by A. Hollis');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(strip).toHaveAccessibleName('1 in for tests');

  await stage(page, 'Key').click();
  await keyEverything(page);
  const values = page.getByRole('region', { name: 'Test values' });
  await expect(values).toContainText('Short ramps for the tests');
  await values.getByRole('button', { name: 'All keyed' }).click();
  await expect(values).toContainText('Test values are in the device');
  await expect(strip).toHaveAccessibleName('2 in for tests');
  await stage(page, 'Live').click();
  await expect(page.getByText('Test values are in the device')).toBeVisible();
  await stage(page, 'Hand over').click();
  await expect(page.getByRole('region', { name: 'What blocks hand-over' })).toContainText(
    '2 things put in for tests are still in',
  );

  await stage(page, 'Key').click();
  await values.getByRole('button', { name: 'All put back' }).click();
  await expect(values).not.toContainText('are in the device');
  await strip.click();
  await dialog.getByRole('button', { name: 'Taken out' }).click();
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByText('in for tests').first()).toBeHidden();
  await stage(page, 'Hand over').click();
  await expect(page.getByRole('region', { name: 'What blocks hand-over' })).not.toContainText(
    'for tests',
  );
  const record = page.locator('section', {
    has: page.getByRole('heading', { name: 'In for tests, and taken out again' }),
  });
  await expect(record.getByRole('row', { name: /jumper at T1:D3/u })).toContainText(
    /A\. Hollis.*A\. Hollis/u,
  );
  await expect(record).not.toContainText('still in');
  await saved(page);
});
