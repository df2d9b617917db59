import { expect, type Page } from '@playwright/test';
import { copyOf, freshDrum, newJob, open, saved, stage, test, url } from './helpers';

const demo = (end: string): string => `0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a${end}`;

/** The bench of one job, driven as an electrician would. */
class Bench {
  constructor(private readonly page: Page) {}

  async at(id: string): Promise<void> {
    await this.page.goto(`${url()}/jobs/${id}/rehearse`);
    await this.begin();
  }

  async begin(): Promise<void> {
    await this.page.getByLabel('How fast time goes').selectOption({ label: '5 ×' });
    await this.page.getByRole('button', { name: 'Supply off' }).click();
  }

  async press(name: string): Promise<void> {
    const button = this.page.getByRole('button', { name, exact: true });
    await button.hover();
    await this.page.mouse.down();
    await this.page.waitForTimeout(150);
    await this.page.mouse.up();
  }

  put(tag: string, position: string): Promise<void> {
    return this.page
      .getByRole('radiogroup', { name: tag, exact: true })
      .getByRole('radio', { name: position, exact: true })
      .click();
  }

  full(): Promise<void> {
    return this.page.getByRole('button', { name: '100', exact: true }).click();
  }

  state(text: string): Promise<void> {
    return expect(this.page.locator('tac-device-face .state')).toHaveText(text, {
      timeout: 60_000,
    });
  }

  turns(how: 'forward' | 'reverse' | 'stands still'): Promise<void> {
    return expect(this.page.locator('.motor')).toContainText(how, { timeout: 60_000 });
  }

  async cutAndReturn(): Promise<void> {
    await this.page.getByRole('button', { name: 'Supply on' }).click();
    await this.state('off');
    await this.page.getByRole('button', { name: 'Supply off' }).click();
  }
}

test('six arrangements: start, stop, emergency stop and power return, each as its scheme says', async ({
  browser,
}) => {
  test.setTimeout(360_000);
  const page = await open(browser, '/jobs');
  const b = new Bench(page);

  // Three-wire with direction selector and safe torque off.
  await b.at(demo('01'));
  await b.state('ready');
  await b.full();
  await b.press('S3 start');
  await b.turns('forward');
  await b.press('S2 stop');
  await b.turns('stands still');
  await b.put('S4', 'reverse');
  await b.press('S3 start');
  await b.turns('reverse');
  await b.put('S1', 'in');
  await b.state('enable open');
  await b.put('S1', 'out');
  await b.state('ready');
  await b.press('S3 start');
  await b.turns('reverse');
  await b.cutAndReturn();
  await b.state('ready');
  await b.turns('stands still');

  // Two-wire from a level contact: a warning first, and a restart that is stated.
  await b.at(demo('11'));
  await b.state('ready');
  await b.put('B1', 'closed');
  await expect(page.locator('tac-station-panel li', { hasText: 'Horn' })).toContainText('H1 on');
  await b.turns('forward');
  await expect(page.locator('tac-station-panel li', { hasText: 'Horn' })).toContainText('H1 off');
  await b.cutAndReturn();
  await b.turns('forward');
  await b.put('B1', 'open');
  await b.turns('stands still');

  // A maintained button behind a line contactor, dropped by the emergency stop together with the output.
  await b.at(demo('03'));
  await b.press('S3 power on');
  await b.state('ready');
  await b.full();
  await b.put('S4', 'in');
  await b.turns('forward');
  await b.put('S1', 'in');
  await b.turns('stands still');
  await b.state('off');
  await b.put('S1', 'out');
  await b.put('S4', 'out');
  await b.state('off');
  await b.press('S3 power on');
  await b.state('ready');

  // A seal-in relay on its own supply, 4–20 mA.
  await b.at(demo('04'));
  await b.state('ready');
  await b.full();
  await b.press('S3 start');
  await b.turns('forward');
  await b.press('S2 stop');
  await b.turns('stands still');
  await b.press('S3 start');
  await b.turns('forward');
  await b.put('S1', 'in');
  await b.state('enable open');

  // Two starts, a guard contact, 0–10 V.
  await b.at(demo('07'));
  await b.state('ready');
  await b.full();
  await b.press('S3 start forward');
  await b.turns('forward');
  await b.put('B1', 'open');
  await b.turns('stands still');
  await b.put('B1', 'shut');
  await b.press('S4 start reverse');
  await b.turns('reverse');
  await b.cutAndReturn();
  await b.state('ready');
  await b.turns('stands still');

  // Run and direction, made by hand.
  await page.goto(`${url()}/jobs`);
  await newJob(page, 'T-RUNDIR', 'Sack hoist', 'Marrowick F', 'F02');
  await stage(page, 'Scheme').click();
  await page.getByRole('radio', { name: 'a contact that stays closed (two-wire)' }).click();
  await page.getByRole('radio', { name: 'forward and reverse' }).click();
  await page.getByRole('radio', { name: 'run contact and direction selector' }).click();
  await page.getByRole('radio', { name: 'line contactor and inhibit' }).click();
  await page.getByRole('radio', { name: 'dial at the station' }).click();
  await saved(page);
  await stage(page, 'Rehearse').click();
  await b.begin();
  await b.press('S3 power on');
  await b.state('ready');
  await b.full();
  await b.put('S4', 'on');
  await b.turns('forward');
  await b.put('S5', 'reverse');
  await b.turns('reverse');
  await b.put('S1', 'in');
  await b.turns('stands still');
});

test('cards, why, meter, bridge, scripts: one school taken, one wire broken and found', async ({
  browser,
}) => {
  const job = await copyOf(freshDrum);
  const page = await open(browser, `/jobs/${job}/scheme`);
  const shipped = page.getByLabel('Start from an arrangement');
  const chosen = (name: string) =>
    expect(page.getByRole('radio', { name, exact: true })).toBeChecked({ timeout: 45_000 });
  await shipped.selectOption({ label: 'start warning before a level contact starts it' });
  await chosen('a contact that stays closed (two-wire)');
  await chosen('safe torque off, two channels');
  await shipped.selectOption({ label: 'three-wire, start fed through stop' });
  await chosen('start fed through stop');
  await chosen('safe torque off, two channels');
  await expect(page.getByText('There is no plan.')).toBeHidden();
  await page.locator('body').click({ position: { x: 5, y: 400 } });
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await chosen('start and stop fed separately');
  const relay = page.getByRole('group', { name: 'Seal-in relay, two-wire run' });
  await expect(relay).toContainText('With S3 held or welded', { timeout: 60_000 });
  await page.getByRole('radio', { name: 'What the emergency stop acts on' }).click();
  const one = page.getByRole('group', { name: 'Safe torque off, one contact' });
  await expect(one).toContainText('Both channels of safe torque off hang on one contact', {
    timeout: 60_000,
  });
  await one.getByRole('button', { name: 'Choose this' }).click();
  await expect(page.getByRole('complementary', { name: 'Pocket' })).toContainText(
    'Both channels of safe torque off',
  );
  await page.keyboard.press('Control+z');
  await expect(
    page
      .getByRole('group', { name: 'Safe torque off, two channels' })
      .getByRole('button', { name: 'Chosen' }),
  ).toBeVisible({ timeout: 60_000 });
  const b = new Bench(page);
  await b.at(job);
  await b.state('ready');
  await b.full();
  const why = page.locator('tac-why-panel');
  await why.getByRole('button', { name: 'Ask' }).click();
  await expect(why).toContainText('press S3');
  const bench = page.locator('tac-bench-tools');
  await expect
    .poll(() => bench.locator('.wires select').first().locator('option').count())
    .toBeGreaterThan(30);
  await bench.getByLabel('Lead +').selectOption({ label: 'S2:11' });
  await bench.getByLabel('Lead −').selectOption({ label: 'S2:12' });
  await bench.getByRole('radio', { name: 'Ω' }).click();
  await expect(bench).toContainText('Refused: something is live');
  await bench.getByRole('radio', { name: 'V', exact: true }).click();
  await expect(bench.locator('.reading')).toHaveText(/^0 V DC$/u);
  await page.getByLabel('presses stay in').check();
  await page.getByRole('button', { name: 'S2 stop', exact: true }).click();
  await expect(bench.locator('.reading')).toHaveText(/^2[34].*V DC$/u);
  await bench.getByRole('button', { name: 'Bridge the leads' }).click();
  await expect(bench.locator('.reading')).toHaveText(/^0 V DC$/u);
  await expect(page.getByRole('button', { name: 'Take the bridge away' })).toBeVisible();
  await page.getByRole('button', { name: 'Take the bridge away' }).click();
  await page.getByLabel('presses stay in').uncheck();

  await why.getByRole('button', { name: /S3 is open/u }).click();
  await page.getByRole('radio', { name: 'Scripts' }).click();
  await page.getByLabel('Keep what was done').fill('Stop bridged');
  await page.getByRole('button', { name: /^Keep \d+ acts/u }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export Stop bridged' }).click();
  expect((await download).suggestedFilename()).toBe('FM-DRUM-1 (copy) Stop bridged.script.json');
  await page.getByRole('button', { name: 'Stop bridged', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Supply on' })).toBeVisible();

  await page.getByRole('radio', { name: 'Lanes' }).click();
  await page.getByRole('button', { name: 'Mark' }).click();
  await expect(page.locator('tac-lanes')).toContainText('⚑ 1 at');
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.getByRole('button', { name: 'Next event' }).click();
});
