import { expect, type Locator, type Page } from '@playwright/test';
import { landingParts, type Job } from '@tactron/core/job';
import { open, saved, settled, stage, test } from './helpers';

/** What a person does from *new job* to the panel card on paper: things entered, and touches. */
class Hand {
  facts = 0;
  touches = 0;

  constructor(readonly page: Page) {}

  async touch(what: Locator): Promise<void> {
    await what.click();
    this.touches++;
  }

  /** A fact that is typed costs a touch of its field; one that is chosen from a list costs two. */
  async enter(field: Locator, text: string): Promise<void> {
    await field.fill(text);
    await field.press('Tab');
    this.facts++;
    this.touches++;
  }

  async choose(list: Locator, label: RegExp): Promise<void> {
    const option = list.locator('option', { hasText: label }).first();
    await list.selectOption((await option.getAttribute('value')) as string);
    this.facts++;
    this.touches += 2;
  }

  async wish(group: string, answer: string | RegExp): Promise<void> {
    const answers = this.page.getByRole('radiogroup', { name: group, exact: true });
    await this.touch(answers.getByRole('radio', { name: answer, exact: true }));
    this.facts++;
  }
}

type Wishes = readonly (readonly [group: string, answer: string | RegExp])[];
const forward = ['Which way', 'forward only'] as const;

/** The card names both ends of every wire of the plan. */
async function expectEveryWire(page: Page): Promise<void> {
  await saved(page);
  const id = /jobs\/([^/]+)/u.exec(page.url())?.[1];
  const file = await page.request.get(new URL(`/api/jobs/${id}/file`, page.url()).href);
  const { adopted } = ((await file.json()) as { job: Job }).job;
  const ends = Object.values(adopted?.wires ?? {}).flatMap((w) => [w.from, w.to]);
  expect(ends.length).toBeGreaterThan(10);
  const card = await page.locator('article.card').innerText();
  for (const end of ends) {
    const { device, terminal } = landingParts(end);
    expect(card).toContain(`${adopted?.devices[device].tag}:${terminal}`);
  }
}

/** Six arrangements as most of them are. */
const simple: readonly (readonly [name: string, family: RegExp, wishes: Wishes, dial?: string])[] =
  [
    [
      'one selector',
      /Marrowick F/u,
      [
        ['It starts and stops by', 'a contact that stays closed (two-wire)'],
        ['Start given by', 'selector 0–1'],
        forward,
        ['Speed from', 'keypad of the device'],
      ],
    ],
    [
      'a maintained button with the dial of the device',
      /Ondulet micro/u,
      [
        ['It starts and stops by', 'a contact that stays closed (two-wire)'],
        ['Start given by', 'maintained button'],
        forward,
        ['Speed from', 'dial of the device'],
      ],
    ],
    [
      'start and stop',
      /Marrowick F/u,
      [
        ['It starts and stops by', 'start and stop button (three-wire)'],
        ['Station wiring', 'start and stop fed separately'],
        forward,
        ['Speed from', 'keypad of the device'],
      ],
    ],
    [
      'a dial only',
      /Marrowick F/u,
      [['It starts and stops by', 'the keypad'], forward, ['Speed from', 'dial at the station']],
      '5',
    ],
    [
      'two directions',
      /Marrowick F/u,
      [
        ['It starts and stops by', 'a contact that stays closed (two-wire)'],
        ['Start given by', 'selector 0–1'],
        ['Which way', 'forward and reverse'],
        ['Direction given by', /^one selector/u],
        ['Speed from', 'keypad of the device'],
      ],
    ],
    [
      'a start contact with 0 … 10 V',
      /Ondulet N/u,
      [
        ['It starts and stops by', 'a controller'],
        ['The controller switches with', /relay/u],
        forward,
        ['Speed from', 'controller, 0–10 V'],
      ],
    ],
  ];

for (const [name, family, wishes, dial] of simple)
  test(`simple: ${name}, from a new job to the panel card in few touches`, async ({ browser }) => {
    const page = await open(browser, '/jobs');
    const hand = new Hand(page);
    await hand.touch(page.getByRole('button', { name: 'New job' }));
    await hand.enter(page.getByRole('textbox', { name: 'Tag' }), 'FM-SIMPLE');
    await hand.choose(page.locator('select[name=family]'), family);
    await hand.touch(page.getByRole('button', { name: 'Make the job' }));
    await expect(page.getByRole('heading', { name: 'FM-SIMPLE' })).toBeVisible();
    await hand.touch(stage(page, 'Scheme'));
    for (const [group, answer] of wishes) await hand.wish(group, answer);
    if (dial) await hand.enter(page.getByLabel('Dial', { exact: true }), dial);
    await settled(page);
    await hand.touch(stage(page, 'Land'));
    await hand.touch(page.getByRole('link', { name: 'Terminals and panel card' }));
    const card = page.getByRole('table', { name: 'Control terminals' });
    await expect(card.getByRole('row').nth(1)).toBeVisible({ timeout: 60_000 });
    await expect(page.getByRole('button', { name: 'Print' })).toBeVisible();
    await expectEveryWire(page);
    hand.touches++;
    console.log(`${name}: ${hand.facts} facts, ${hand.touches} touches`);
    expect(hand.facts).toBeLessThanOrEqual(12);
    expect(hand.touches).toBeLessThanOrEqual(25);
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
