import { expect } from '@playwright/test';
import { declare, newSite, open, stage, test, untouchedAuger } from './helpers';

const OURS = 'Multimeter, MM-14, calibrated until 2020-03-31 – calibration has ended';

test('dead checks: isolated first, a loop read at the device, a wrong reading kept and read again, printed', async ({
  browser,
}) => {
  const site = await newSite('Yarrow Mill');
  const id = await untouchedAuger(undefined, site);
  const page = await open(browser, '/jobs');
  // The site has a meter, and settles who signs.
  await page
    .locator('section')
    .filter({ has: page.getByRole('heading', { name: 'Yarrow Mill' }) })
    .getByRole('link', { name: 'Who signs, tolerances, instruments' })
    .click();
  await expect(page.getByRole('heading', { name: 'Yarrow Mill' })).toBeVisible();
  await page.getByLabel('Instrument', { exact: true }).fill('Multimeter');
  await page.getByLabel('Its number').fill('MM-14');
  await page.getByLabel('Calibrated until').fill('2020-03-31');
  await page.getByLabel('volts', { exact: true }).check();
  await page.getByLabel('ohms', { exact: true }).check();
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('row', { name: /Multimeter/u })).toContainText('ended');
  await page.getByLabel('Role').fill('Checked by');
  await page.getByRole('button', { name: 'Add the role' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Checked by' })).toBeVisible();
  await page.getByRole('button', { name: 'Take out' }).click();
  await expect(page.getByText('Nothing is settled: Commissioned by, Accepted by.')).toBeVisible();
  await page.goto(new URL(`/jobs/${id}/dead`, page.url()).href);
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
  // What it is measured with is named once; an ended calibration is said and printed.
  await current.getByLabel('Measured with').selectOption({ label: OURS });
  await expect(current).toContainText('calibration has ended');
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
  await expect(record.getByRole('row', { name: /T1:IN3, S1 at rest/u })).toContainText('0.6');
  const instruments = page.locator('[data-part=instruments]');
  await expect(instruments.getByRole('row', { name: /Multimeter MM-14/u })).toContainText(
    'ended before it was used',
  );
  await expect(page.locator('[data-part=night] tr').nth(3)).toBeVisible({ timeout: 60_000 });
});

test('leads that are not marked are found out by ohms, and noted at the wires of the dial', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a10/dead');
  await page.getByText('Leads that are not marked: find out which').click();
  const find = page.getByRole('region', { name: 'Find out which' });
  await find.getByLabel(/^Its leads/u).fill('red, blue, white');
  await page.keyboard.press('Tab');
  const reads: Record<string, string> = {
    'red – blue, turned back': '4.9k',
    'red – white, turned back': '5k',
    'blue – white, turned back': '40',
    'red – blue, turned up': '4.9k',
    'red – white, turned up': '60',
  };
  for (const [name, ohm] of Object.entries(reads))
    await find.getByLabel(new RegExp(name, 'u')).fill(ohm);
  await find.getByRole('button', { name: 'Which is which?' }).click();
  await expect(find.getByRole('alert')).toContainText('blue – white, turned up to its stop');
  await find.getByLabel(/blue – white, turned up/u).fill('4.9k');
  await find.getByRole('button', { name: 'Which is which?' }).click();
  await expect(find).toContainText('white is the wiper, blue the lower end, red the upper end');
  await find.getByRole('button', { name: /Note it at the wires/u }).click();
  await expect(find).toContainText('Noted at the wires of R1 in Land.');
});
