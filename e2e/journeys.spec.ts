import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import {
  answerAsExpected,
  open,
  saved,
  settled,
  signed,
  stage,
  test,
  type,
  url,
  keyEverything,
  readEverythingBack,
  untouchedAuger,
} from './helpers';

async function enterPlates(page: Page): Promise<void> {
  await page
    .getByRole('region', { name: 'Supply' })
    .getByRole('radio', { name: '3-phase' })
    .click();
  await type(page, 'Supply', 'Voltage', '400');
  await type(page, 'Supply', 'Frequency', '50 Hz');
  await type(page, 'Motor cable', 'Length', '20 m');
  await page.getByRole('region', { name: 'Motor cable' }).getByLabel('Conductor').fill('1,5 mm²');
  await page.getByRole('region', { name: 'Motor cable' }).getByLabel('Conductor').press('Tab');
  await page.getByRole('radio', { name: 'Δ / Y' }).click();
  for (const [label, text] of [
    ['Power', '1,5 kW'],
    ['Frequency', '50'],
    ['Voltage Δ', '230'],
    ['Current Δ', '5,8'],
    ['Voltage Y', '400'],
    ['Current Y', '3,35'],
    ['Speed', '1430'],
    ['cos φ', '0,79'],
    ['Efficiency η', '0,82'],
  ] as const)
    await type(page, 'Motor', label, text);
  await page.getByRole('radio', { name: 'Y star' }).click();
  await page.getByRole('radio', { name: 'inverter duty' }).click();
  await type(page, 'Gear and load', 'Torque, % of rated', '60');
}

test('a new job by hand: planned, a wire moved, keyed, rehearsed, tested with a retest, reloaded, handed over', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.locator('select[name=site]').selectOption('new');
  await page.getByLabel('Name of the site').fill('Brackenhill Dairy');
  await page.getByRole('textbox', { name: 'Tag' }).fill('BD-PRESS');
  await page.getByRole('textbox', { name: 'Machine' }).fill('Curd press');
  const marrowick = page.locator('select[name=family] option', { hasText: 'Marrowick F' });
  await page
    .locator('select[name=family]')
    .selectOption((await marrowick.getAttribute('value')) ?? '');
  await page.locator('select[name=model]').selectOption('F01');
  await page.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByRole('heading', { name: 'BD-PRESS' })).toBeVisible();

  await enterPlates(page);
  await expect(page.getByRole('button', { name: /link, stopped 566 V/u })).toBeVisible();
  await expect(page.getByRole('button', { name: /link star/u })).toBeVisible();
  await type(page, 'Motor', 'Speed', '4130');
  await expect(page.locator('.problem')).toContainText('Most likely 1430 rpm');
  await type(page, 'Motor', 'Speed', '1430');
  await expect(page.locator('.problem')).toHaveCount(0);

  await stage(page, 'Scheme').click();
  await page.getByRole('radio', { name: 'a contact that stays closed (two-wire)' }).click();
  await page.getByRole('radio', { name: 'forward and reverse' }).click();
  await page.getByRole('radio', { name: /^one selector/u }).click();
  await page.getByRole('radio', { name: 'the same selector' }).click();
  await page.getByRole('radio', { name: 'dial at the station' }).click();
  await page.getByLabel('Dial', { exact: true }).fill('4,7 kΩ');
  await page.getByLabel('Dial', { exact: true }).press('Enter');
  await page.getByLabel('Up to it in, s').fill('3');
  await page.getByLabel('Up to it in, s').press('Enter');
  await page.getByRole('radio', { name: /^stays stopped/u }).click();
  await page.getByRole('radio', { name: 'people at the machine' }).click();
  await expect(page.getByRole('group', { name: 'Two-wire', exact: true })).toContainText(
    'Power back: stays stopped',
    { timeout: 45_000 },
  );

  await stage(page, 'Land').click();
  const wires = page.getByRole('table', { name: 'Hand list' });
  await expect(wires.getByRole('row', { name: /run reverse while closed/u })).toContainText(
    'T1:IN2',
  );
  await saved(page);
  await settled(page);
  await wires.getByRole('button', { name: '15', exact: true }).click();
  await expect(async () => {
    const held = page.locator('circle.end.chosen[data-end$=".to"]');
    // The list lies below the drawing.
    await held.scrollIntoViewIfNeeded();
    const end = await held.boundingBox();
    const target = await page.locator('circle[data-landing="device:IN4"]').boundingBox();
    if (!end || !target) throw new Error('the drawing shows no wire 15');
    await page.mouse.move(end.x + end.width / 2, end.y + end.height / 2);
    await page.mouse.down();
    await page.mouse.move(target.x + target.width / 2, target.y + target.height / 2, { steps: 8 });
    await page.mouse.up();
    await expect(wires.getByRole('row', { name: /run reverse while closed/u })).toContainText(
      'T1:IN4',
      { timeout: 8000 },
    );
  }).toPass({ timeout: 36_000 });
  await expect(page.getByText('run reverse while closed on T1:IN4')).toBeVisible();

  await stage(page, 'Key').click();
  await expect(page.getByRole('region', { name: 'Current line' })).toContainText(
    'Open every run contact',
  );
  await keyEverything(page);
  await readEverythingBack(page);
  await page.getByRole('button', { name: 'Keep as left' }).click();
  await expect(page.getByText('as left is recorded')).toBeVisible();

  await stage(page, 'Rehearse').click();
  await page.getByRole('button', { name: 'Supply off' }).click();
  await page.getByRole('button', { name: '100', exact: true }).click();
  await expect(page.locator('tac-device-face .state')).toHaveText('ready', { timeout: 30_000 });
  await page.getByRole('radio', { name: 'reverse' }).click();
  await expect(page.getByRole('button', { name: /^IN4 .*\bon\b/u })).toContainText('24 V');
  await expect(page.locator('tac-device-face .state')).toHaveText('at speed', { timeout: 45_000 });
  await expect(page.locator('.motor')).toContainText('reverse');
  await page.getByRole('radio', { name: 'Scripts' }).click();
  await page.getByLabel('Keep what was done').fill('Reverse by hand');
  await page.getByRole('button', { name: /^Keep \d+ acts/u }).click();
  await expect(page.getByRole('button', { name: 'Reverse by hand', exact: true })).toBeVisible();

  await stage(page, 'Live').click();
  await expect(page.getByRole('region', { name: 'Current test' })).toContainText(
    'Before anything is switched on',
  );
  const total = Number(
    (await page.getByText(/ of \d+ answers passed/u).textContent())?.match(/of (\d+)/u)?.[1],
  );
  expect(total).toBeGreaterThan(18);
  for (let passed = 0, failed = false; passed < total;) {
    await settled(page);
    const volts = page.getByRole('region', { name: 'Current test' }).locator('.value');
    const wrong = !failed && (await volts.isVisible());
    await answerAsExpected(page, wrong ? '3' : undefined);
    if (wrong) {
      failed = true;
      await expect(
        page.getByRole('region', { name: 'Current test' }).locator('.verdict'),
      ).toContainText('fail');
      continue;
    }
    await expect(page.getByText(`${++passed} of ${total} answers passed`)).toBeVisible();
  }
  await saved(page);

  await page.reload();
  await stage(page, 'Hand over').click();
  await expect(page.getByRole('region', { name: 'What blocks hand-over' })).toContainText(
    /^What blocks hand-over\s*\d+ dead checks are not done/u,
  );
  await expect(page.locator('.record')).toContainText('earlier: L1–L2 3 V');
  await signed(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Job file' }).click();
  const file = JSON.parse(readFileSync(await (await download).path(), 'utf8')) as {
    job: { tag: string };
    evidence: unknown[];
  };
  expect(file.job.tag).toBe('BD-PRESS');
  expect(file.evidence.length).toBeGreaterThan(total);

  await stage(page, 'Scheme').click();
  await page.getByLabel('Up to it in, s').fill('6');
  await page.getByLabel('Up to it in, s').press('Enter');
  await page.getByRole('button', { name: 'Adopt the change' }).click();
  await stage(page, 'Live').click();
  await expect(page.getByText('stale, test again')).toHaveCount(1);
  await expect(page.getByText(`${total - 1} of ${total} answers passed`)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(`${total} of ${total} answers passed`)).toBeVisible();
});

test('by keyboard alone: stages, a wire end, a reading, undo and the list of keys', async ({
  browser,
}) => {
  await untouchedAuger();
  const page = await open(browser, '/jobs?search=AUGER-N');
  await page.getByRole('link', { name: 'FM-AUGER-N' }).first().focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'FM-AUGER-N' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(page.getByRole('table', { name: 'Hand list' })).toBeVisible();
  const run = page
    .getByRole('table', { name: 'Hand list' })
    .getByRole('row', { name: /run forward while closed/u });
  await run.getByRole('button').first().focus();
  await page.keyboard.press('Enter');
  await page
    .getByRole('region', { name: 'Move a wire end' })
    .getByLabel('to', { exact: true })
    .focus();
  await page.keyboard.type('T1:IN6');
  await expect(page.getByText('run forward while closed on T1:IN6')).toBeVisible();
  await page.locator('body').click({ position: { x: 5, y: 400 } });
  await page.keyboard.press('Control+z');
  await expect(page.getByText('run forward while closed on T1:IN6')).toBeHidden();
  await page.keyboard.press('5');
  await page.getByRole('button', { name: 'Supply off' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Supply on' })).toBeVisible();
  await expect(page.locator('tac-device-face .state')).toHaveText('ready', { timeout: 30_000 });
  await page.getByRole('radiogroup', { name: 'B1' }).getByRole('radio', { name: 'closed' }).focus();
  await page.keyboard.press('Space');
  await expect(page.locator('.motor')).toContainText('forward', { timeout: 45_000 });
  await page.keyboard.press('7');
  await answerAsExpected(page);
  await settled(page);
  await answerAsExpected(page);
  for (const link of ['IL', 'SA']) {
    await expect(page.getByRole('region', { name: 'Current test' })).toContainText(link);
    await page.getByRole('button', { name: 'as planned', exact: true }).focus();
    await page.keyboard.press('Enter');
  }
  await page.getByLabel(/^L1–L2/u).focus();
  for (const volts of ['398,5', '400', '401']) {
    await page.keyboard.type(volts);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText(/^\s*5 of \d+ answers passed/u)).toBeVisible();
  await page.locator('body').click({ position: { x: 5, y: 700 } });
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('open a stage');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('g');
  await page.getByRole('combobox', { name: 'Go to' }).fill('T1:IN4');
  await expect(page.getByRole('option').first()).toContainText('T1:IN4');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Move a wire end' })).toContainText('Wire');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('g');
  await page.getByRole('combobox', { name: 'Go to' }).fill('jobs');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
});

test('two windows on one job: disjoint edits merge live, the same field asks', async ({
  browser,
}) => {
  const auger = await untouchedAuger();
  const first = await open(browser, `/jobs/${auger}/plate`);
  const second = await open(browser, `/jobs/${auger}/plate`, {
    author: { name: 'B. Orrin', role: '' },
  });
  await expect(second.getByRole('region', { name: 'Motor', exact: true })).toBeVisible();
  await type(first, 'Motor cable', 'Length', '44 m');
  await expect(
    second.getByRole('region', { name: 'Motor cable' }).getByLabel('Length'),
  ).toHaveValue('44 m');
  await type(second, 'Gear and load', 'Gear ratio i', '9.8');
  await expect(
    first.getByRole('region', { name: 'Gear and load' }).getByLabel('Gear ratio i'),
  ).toHaveValue('9.8');

  await first.route('**/changes', (route) => route.abort());
  await type(first, 'Protection', 'Rated', '16 A');
  await expect(first.locator('.save')).toContainText('waiting');
  await type(second, 'Protection', 'Rated', '20 A');
  await saved(second);
  await first.unroute('**/changes');
  await expect(first.getByRole('alert')).toContainText('Two people changed the same thing', {
    timeout: 45_000,
  });
  await expect(first.getByRole('alert')).toContainText('B. Orrin');
  await first.getByRole('button', { name: 'Keep mine' }).click();
  await saved(first);
  await expect(second.getByRole('region', { name: 'Protection' }).getByLabel('Rated')).toHaveValue(
    '16 A',
  );
});

test('jobs: search in the address, copy, archive, export and import, a file that does not fit, an unknown job', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs?search=auger');
  await expect(page.getByRole('link', { name: 'FM-AUGER', exact: true })).toBeVisible();
  await page.getByRole('searchbox').fill('nothing like it');
  await expect(page.getByText('Nothing fits these filters.')).toBeVisible();
  await expect(page).toHaveURL(/search=nothing/u);
  await page.getByRole('searchbox').fill('T1:D3');
  await expect(page.getByLabel('Found in').first()).toContainText('wire');
  // What is found of a job finds it, once somebody has had it open.
  const told = page.waitForResponse((r) => r.url().endsWith('/findings'));
  await page.goto(`${url()}/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a04/plate`);
  await settled(page);
  expect((await told).status()).toBe(200);
  await page.goto(`${url()}/jobs?search=Combustible%20dust`);
  await expect(page.getByLabel('Found in')).toContainText('Combustible dust can be here');
  await page.getByRole('searchbox').fill('nothing like it');
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('button', { name: 'More for FM-AUGER', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Copy' }).click();
  await expect(page.getByRole('link', { name: 'FM-AUGER-copy' })).toBeVisible();
  await page.getByRole('button', { name: 'More for FM-AUGER-copy' }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(page.getByRole('link', { name: 'FM-AUGER-copy' })).toBeHidden();
  const job = JSON.parse(readFileSync('demo/fm-auger.tactron.json', 'utf8')) as {
    version: number;
    job: { tag: string };
  };
  const importFile = (data: unknown) =>
    page.locator('input[type=file]').setInputFiles({
      name: 'job.json',
      mimeType: 'application/json',
      buffer: Buffer.from(typeof data === 'string' ? data : JSON.stringify(data)),
    });
  await importFile({ ...job, version: 4 });
  await expect(page.getByRole('status')).toContainText('this release reads up to 2');
  await importFile('{');
  await expect(page.getByRole('status')).toContainText('neither JSON nor a bundle');
  await importFile({ ...job, job: { ...job.job, tag: '<img src=x onerror=alert(1)>' } });
  await expect(page.getByRole('link', { name: '<img src=x' })).toBeVisible();
  await page.goto(`${url()}/jobs/00000000-0000-4000-8000-000000000000/plate`);
  await page.getByRole('link', { name: 'Back to all jobs' }).click();
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
});

test('what was found, what is accepted by name, and a job under another name', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await untouchedAuger()}/key`);
  await page.getByRole('radio', { name: 'As found' }).click();
  await page.getByLabel('110 Motor rated power').fill('lots');
  await page.getByLabel('110 Motor rated power').press('Tab');
  await expect(page.getByRole('alert')).toContainText('110');
  await page.getByLabel('110 Motor rated power').fill('7,5');
  await page.getByLabel('110 Motor rated power').press('Tab');
  await page.getByRole('button', { name: 'Keep as found' }).click();
  await expect(
    page
      .getByRole('list', { name: 'All lines in order' })
      .getByRole('button', { name: /110 Motor rated power 2.2 kW/u }),
  ).toBeVisible();

  await stage(page, 'Scheme').click();
  await page.getByRole('button', { name: 'Accept with a reason…' }).first().click();
  await expect(page.getByRole('button', { name: 'Accept by name' })).toBeDisabled();
  await page.getByLabel('Reason').fill('Behind a fixed guard, with a notice.');
  await page.getByRole('button', { name: 'Accept by name' }).click();
  await expect(page.getByRole('complementary', { name: 'Pocket' })).toContainText(
    'A. Hollis: “Behind a fixed guard, with a notice.”',
  );
  await saved(page);
  await stage(page, 'Hand over').click();
  await expect(page.locator('.record')).toContainText('Behind a fixed guard, with a notice.');

  await page.goto(`${url()}/jobs`);
  await page.getByRole('button', { name: 'More for FM-AUGER', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByRole('textbox', { name: 'Machine' }).fill('Green-malt auger, floor 2');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByText('Green-malt auger, floor 2')).toBeVisible();
});
