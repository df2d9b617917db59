import { expect, type Page } from '@playwright/test';
import { landingParts } from '@tactron/core/job';
import { open, saved, test } from './helpers';
import { fileOf, Hand, simpleJobs, toPanelCard, toSigned, type SimpleJob } from './simple-jobs';

/** The card names both ends of every wire of the plan. */
async function expectEveryWire(page: Page): Promise<void> {
  await saved(page);
  const { adopted } = (await fileOf(page)).job;
  const ends = Object.values(adopted?.wires ?? {}).flatMap((w) => [w.from, w.to]);
  expect(ends.length).toBeGreaterThan(10);
  const card = await page.locator('article.card').innerText();
  for (const end of ends) {
    const { device, terminal } = landingParts(end);
    expect(card).toContain(`${adopted?.devices[device].tag}:${terminal}`);
  }
}

for (const simple of simpleJobs)
  test(`simple: ${simple.name}, from a new job to the panel card in few touches`, async ({
    browser,
  }) => {
    const page = await open(browser, '/jobs');
    const hand = new Hand(page);
    await toPanelCard(hand, simple);
    await expect(page.getByRole('button', { name: 'Print' })).toBeVisible();
    await expectEveryWire(page);
    hand.touches++;
    console.log(`${simple.name}: ${hand.facts} facts, ${hand.touches} touches`);
    expect(hand.facts).toBeLessThanOrEqual(12);
    expect(hand.touches).toBeLessThanOrEqual(25);
  });

test('simple: start and stop, from a new job to the signed record', async ({ browser }) => {
  const page = await open(browser, '/jobs');
  const hand = new Hand(page);
  await toPanelCard(hand, simpleJobs.find((s) => s.name === 'start and stop') as SimpleJob);
  const asked = await toSigned(page);
  expect(hand.facts).toBeLessThanOrEqual(12);
  expect(asked.dead).toBeGreaterThan(5);
  expect(asked.dead).toBeLessThanOrEqual(12);
  expect(asked.liveActs).toBeGreaterThan(5);
  expect(asked.liveActs).toBeLessThanOrEqual(14);
  expect(asked.declarations).toBeLessThanOrEqual(3);
});

test('the sample is walked through in ten stops, by keyboard, and ended at any time', async ({
  browser,
}) => {
  const page = await open(browser, '/jobs');
  await page.getByRole('button', { name: 'Walk through a sample' }).click();
  const stop = page.locator('.tour-stop');
  const places = ['jobs', 'plate', 'scheme', 'scheme', 'land', 'land', 'key', 'rehearse', 'dead'];
  for (const [i, place] of places.entries()) {
    await expect(stop).toContainText(`${i + 1} of 10`, { timeout: 30_000 });
    expect(page.url()).toContain(place);
    await expect(stop.getByRole('button', { name: 'Next' })).toBeFocused();
    await page.keyboard.press('Enter');
  }
  await expect(stop).toContainText('10 of 10', { timeout: 30_000 });
  await stop.getByRole('button', { name: 'Back' }).click();
  await expect(stop).toContainText('9 of 10', { timeout: 30_000 });
  await page.keyboard.press('Escape');
  await expect(stop).toBeHidden();
  await expect(page.getByRole('heading', { name: 'FM-DRUM-1' })).toBeVisible();
});
