import { expect, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { copyOf, freshDrum, newJob, open, saved, settled, test, type } from './helpers';

const block = (page: Page, name: string) => page.getByRole('region', { name, exact: true });
const choose = (page: Page, where: string, what: string) =>
  block(page, where).getByRole('radio', { name: what, exact: true }).click();
const findings = async (page: Page, count: string) => {
  await settled(page);
  await expect(page.locator('header')).toContainText(count);
};

/** Types a plate, field by field, as the person reads it off the metal. */
async function plate(
  page: Page,
  supply: readonly string[],
  connection: string,
  motor: readonly (readonly [string, string])[],
  cable: readonly [string, string],
  load: readonly (readonly [string, string])[],
): Promise<void> {
  await choose(page, 'Supply', supply[0]);
  await type(page, 'Supply', 'Voltage', supply[1]);
  await type(page, 'Supply', 'Frequency', supply[2]);
  await choose(page, 'Motor', connection);
  for (const [label, text] of motor) await type(page, 'Motor', label, text);
  await type(page, 'Motor cable', 'Length', cable[0]);
  await type(page, 'Motor cable', 'Conductor', cable[1]);
  for (const [label, text] of load) await type(page, 'Gear and load', label, text);
}

test('three motors from their plates to no open finding: a wrong link, a device too small, a cable too long', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs');
  await newJob(page, 'T-DRUM', 'Drum turner', 'Ondulet N', 'N0750');
  await plate(
    page,
    ['3-phase', '400', '50'],
    'Δ / Y',
    [
      ['Power', '7,5 kW'],
      ['Frequency', '50'],
      ['Voltage Δ', '400'],
      ['Current Δ', '14,4'],
      ['Voltage Y', '690'],
      ['Current Y', '8,3'],
      ['Speed', '1460'],
      ['cos φ', '0,83'],
      ['Efficiency η', '0,907'],
      ['Inertia J', '0,036'],
    ],
    ['35 m', '2,5 mm²'],
    [
      ['Torque, % of rated', '70'],
      ['To break loose, %', '130'],
      ['Gear ratio i', '730'],
      ['Inertia at load', '14200'],
    ],
  );
  await choose(page, 'Motor', 'Y star');
  await expect(block(page, 'Motor').locator('.problem')).toContainText(
    'The links are in star; this supply needs delta.',
  );
  await expect(page.getByRole('contentinfo')).toContainText('The links are in star');
  await choose(page, 'Motor', 'Δ delta');
  await expect(block(page, 'Motor').locator('.problem')).toHaveCount(0);
  await expect(block(page, 'Motor cable').locator('.problem')).toContainText(
    'beyond the critical length of 15 m',
  );
  await choose(page, 'Motor', 'inverter duty');
  await findings(page, '0 findings');
  await expect(page.getByRole('region', { name: 'Motor at full voltage' })).toContainText(
    'Direct on line it runs up in',
  );

  await newJob(page, 'T-DOSE', 'Dosing screw', 'Ondulet micro', 'u04');
  await plate(
    page,
    ['1-phase', '230', '50'],
    'Δ / Y',
    [
      ['Power', '0.75'],
      ['Frequency', '50'],
      ['Voltage Δ', '230'],
      ['Current Δ', '3'],
      ['Voltage Y', '400'],
      ['Current Y', '1.72'],
      ['Speed', '1420'],
      ['cos φ', '0.76'],
      ['Efficiency η', '0.826'],
    ],
    ['12 m', '1.5'],
    [['Torque, % of rated', '60']],
  );
  await choose(page, 'Motor', 'Δ delta');
  await expect(block(page, 'Device').locator('.problem')).toContainText(
    'The motor draws 3 A; u04 gives 2.2 A here for ever',
  );
  await block(page, 'Device').getByRole('combobox').selectOption('u07');
  await findings(page, '0 findings');
  await expect(block(page, 'Supply').getByRole('button', { name: /input current/u })).toContainText(
    '6.63 A',
  );

  await newJob(page, 'T-DEBARK', 'Feed rolls', 'Quernstone T', 'T15', 'NFPA');
  await plate(
    page,
    ['3-phase', '480', '60'],
    '9-lead',
    [
      ['Power', '15 hp'],
      ['Frequency', '60'],
      ['Voltage parallel', '230'],
      ['Current parallel', '37.6'],
      ['Voltage series', '460'],
      ['Current series', '18.8'],
      ['Speed', '1770'],
      ['cos φ', '0.81'],
      ['Efficiency η', '0.924'],
    ],
    ['1800 ft', '10 AWG'],
    [
      ['Torque, % of rated', '70'],
      ['To break loose, %', '150'],
    ],
  );
  await choose(page, 'Motor', 'series');
  await choose(page, 'Motor', 'inverter duty');
  await expect(block(page, 'Motor cable')).toContainText(
    '1800 ft is longer than Quernstone T allows (394 ft).',
  );
  await expect(block(page, 'Motor cable')).toContainText(
    'At most 609 ft of this size, or at least 15.5 mm²',
  );
  await type(page, 'Motor cable', 'Length', '180 ft');
  await findings(page, '0 findings');
  await expect(block(page, 'Motor cable').getByLabel('Length', { exact: true })).toHaveValue(
    '180 ft',
  );
  await saved(page);
});

test('blocks are added where they sit, by mouse and by keys, judged at once, and taken out again', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await copyOf(freshDrum)}/plate`);
  await page.getByRole('button', { name: 'Add a block behind Device' }).click();
  await page.getByRole('menuitem', { name: 'Braking resistor' }).click();
  await expect(block(page, 'Braking resistor')).toContainText(
    'no thermal contact that trips the supply',
  );
  await type(page, 'Braking resistor', 'Resistance', '10');
  await expect(block(page, 'Braking resistor')).toContainText(
    '10 Ω is below the smallest resistor',
  );
  await block(page, 'Braking resistor')
    .getByRole('button', { name: /at least/u })
    .click();
  await expect(page.getByRole('complementary', { name: 'Pocket' })).toContainText(
    'R_min = U/I_max',
  );
  await page.getByRole('button', { name: 'Add a block behind Input filter' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('menuitem', { name: 'Residual-current device' }).focus();
  await page.keyboard.press('Enter');
  await choose(page, 'Residual-current device', 'A');
  await expect(block(page, 'Residual-current device')).toContainText('Fit type B.');
  await page
    .getByRole('button', { name: 'Add a block behind Residual-current device' })
    .or(page.getByRole('button', { name: 'Add a block behind Input filter' }))
    .click();
  await page.getByRole('menuitem', { name: 'Line reactor' }).click();
  await type(page, 'Line reactor', 'Reactance, %', '20');
  await expect(block(page, 'Line reactor').getByRole('alert')).toContainText('This does not fit');
  await expect(block(page, 'Line reactor').getByLabel('Reactance, %')).toHaveValue('20');
  await page.getByRole('button', { name: 'Take out Line reactor' }).click();
  await page.getByRole('button', { name: 'Take out Residual-current device' }).click();
  await page.getByRole('button', { name: 'Take out Braking resistor' }).click();
  await expect(block(page, 'Braking resistor')).toBeHidden();
  await page.locator('body').click({ position: { x: 5, y: 400 } });
  await page.keyboard.press('Control+z');
  await expect(block(page, 'Braking resistor').getByLabel('Resistance')).toHaveValue('10 Ω');

  const arrival = block(page, 'On arrival');
  await arrival.getByRole('radio', { name: 'interlock' }).click();
  await arrival.getByLabel('What you see').fill('Hatch switch bridged with a wire');
  await arrival.getByRole('button', { name: 'Note it' }).click();
  await expect(arrival).toContainText('Hatch switch bridged with a wire');
  await saved(page);
  await page.getByRole('link', { name: 'Parts and tools' }).click();
  await expect(page.getByRole('table', { name: 'Parts' })).toContainText('Braking resistor, 10 Ω');
  await expect(page.getByRole('table', { name: 'Tools' })).toContainText('DC link up to 566 V');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain(
    'Motor cable 4 × 2.5 mm², screened',
  );
});

test('a sum: example, a field out of range, kept, found again, and carried into a job', async ({
  browser,
}) => {
  const page = await open(browser, '/sums');
  await page.getByPlaceholder('Search a sum').fill('resistor');
  await page.getByRole('link', { name: 'Braking resistor' }).click();
  await page.getByRole('button', { name: 'Example' }).click();
  const result = page.getByRole('region', { name: 'Result' });
  await expect(result).toContainText('a resistor fits');
  await page.getByLabel('share that comes back to the DC link').fill('1,4');
  await expect(page.getByRole('alert')).toHaveText(
    '“share that comes back to the DC link” must be at most 1',
  );
  await page.getByLabel('share that comes back to the DC link').fill('0,8');
  await page.getByLabel('deceleration time').fill('2,5');
  await expect(result.locator('dd').filter({ hasText: 'Ω' }).first()).toHaveText('50 Ω');
  await page.getByRole('button', { name: 'Carry into a job' }).click();
  await page
    .getByRole('combobox', { name: 'Number' })
    .selectOption({ label: 'time to slow down: 2.5' });
  await page
    .getByRole('combobox', { name: 'Job' })
    .selectOption({ label: 'FM-DRUM-1 · Germination drum 1, turner' });
  await page.getByRole('button', { name: 'Carry', exact: true }).click();
  await expect(page.getByText('FM-DRUM-1 now has time to slow down 2.5.')).toBeVisible();

  await page.keyboard.press('Escape');
  await page.getByPlaceholder('Search a sum').fill('insulation');
  await page.getByRole('link', { name: 'Insulation at 40 °C' }).click();
  await page.getByLabel('reading').fill('200');
  await page.getByLabel('winding').fill('20');
  await expect(result).toContainText('50 MΩ');
  await page.reload();
  await page
    .getByRole('region', { name: 'Kept sums' })
    .getByRole('button', { name: /Braking resistor/u })
    .click();
  await expect(page.getByLabel('deceleration time')).toHaveValue('2,5');
  await page.goto(new URL('/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01/scheme', page.url()).href);
  await expect(page.getByLabel('Down from it in, s')).toHaveValue('2.5');
});
