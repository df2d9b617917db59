import { expect } from '@playwright/test';
import { open, passOver, settled, stage, test, untouchedAuger } from './helpers';

const drum = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01';

test('a finding is shown in the rehearsal; a plan that changes is told in words; readings of what is gone stay', async ({
  browser,
}) => {
  const page = await open(browser, `/jobs/${await untouchedAuger()}/live`);
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
  const bump = tests.locator('[data-act="bump.forward"]');
  await bump.click();
  const timed = tests.locator('[data-step="warning"]');
  await timed.click();
  await passOver(page, 'only the warning today');
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
  await bump.click();
  await expect(timed).toContainText('pass');

  // An emergency stop that is bridged in Land: it must be fixed, cannot be accepted, is shown, and no answer passes its test.
  await page.goto(new URL(`/jobs/${drum}/land`, page.url()).href);
  await settled(page);
  const wires = page.getByRole('table', { name: 'Hand list' });
  const mover = page.getByRole('region', { name: 'Move a wire end' });
  for (const [from, is, to] of [
    ['S1:12', 'estop:12', 'estop:11'],
    ['S1:22', 'estop:22', 'estop:21'],
  ]) {
    await wires.getByRole('row').filter({ hasText: from }).getByRole('button').first().click();
    // The mover shows the wire just chosen before its end is moved.
    await expect(mover.getByLabel('from', { exact: true })).toHaveValue(is);
    await mover.getByLabel('from', { exact: true }).selectOption(to);
    await expect(mover.getByLabel('from', { exact: true })).toHaveValue(to);
    await settled(page);
  }
  const dead = page
    .getByRole('complementary', { name: 'Pocket' })
    .locator('article', { hasText: 'Required: S1 stops the motor. As built it does not' });
  await expect(dead).toContainText('must fix', { timeout: 45_000 });
  await expect(dead).toContainText('cannot be accepted');
  await dead.getByRole('link', { name: 'Show me' }).click();
  await expect(trial).toBeVisible();
  await expect(page.locator('.motor')).toContainText('forward');
  await stage(page, 'Scheme').click();
  await expect(page.locator('[data-requirement="estop.stops"]')).toContainText('not met');
  await stage(page, 'Live').click();
  const estop = tests.locator('[data-act="estop"]');
  await estop.click();
  const press = tests.locator('[data-step="estop.stops"]');
  const now = page.getByRole('region', { name: 'Current test' });
  await expect(now).toContainText('this job does not have it: the motor runs forward instead');
  await passOver(page, 'tried before the others');
  await now
    .getByRole('button', { name: /not turning|does not turn|stopped|stops|stands/iu })
    .click();
  await expect(press).toContainText('fail');
  await stage(page, 'Land').click();
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: 'Undo' }).click();
  await settled(page);
  await expect(dead).toBeHidden();

  // The first turn goes the other way: two leads of the motor are exchanged, in the plan and in what is said of the machine.
  await stage(page, 'Live').click();
  await tests.locator('[data-act="bump.forward"]').click();
  await expect(now).toContainText('Forward, slowly');
  await passOver(page, 'tried before the others');
  await now.getByRole('button', { name: 'runs in reverse', exact: true }).click();
  await expect(now.locator('.verdict')).toContainText('fail');
  await now.getByRole('button', { name: 'Exchange V and W at the motor' }).click();
  await settled(page);
  await expect(waits).toContainText('M1:W');
  await waits.getByRole('button', { name: 'Adopt the change' }).click();
  await expect(waits).toBeHidden();
  await settled(page);
  await expect(now).toHaveAttribute('data-verdict', 'stale');
  await expect(
    page
      .getByRole('complementary', { name: 'Pocket' })
      .locator('article', { hasText: 'another order' }),
  ).toHaveCount(0);
  await stage(page, 'Rehearse').click();
  await page.getByRole('button', { name: 'Supply off' }).click();
  await expect(page.locator('tac-device-face .state')).toHaveText('ready', { timeout: 30_000 });
});
