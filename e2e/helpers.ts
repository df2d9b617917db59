import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { expect, test as base, type Browser, type Page } from '@playwright/test';

/** A test whose pages are closed at its end: a rehearsal left open would go on turning beside the next. */
export const test = base.extend<{ tidy: void }>({
  tidy: [
    async ({ browser }, use) => {
      await use();
      await Promise.all(browser.contexts().map((c) => c.close()));
    },
    { auto: true },
  ],
});

export const url = (): string => process.env['TACTRON_URL'] as string;
export const auger = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a11';

/** A person's browser at a place. What is intercepted must not go through a service worker: those journeys that are about one allow it. */
export async function open(
  browser: Browser,
  path: string,
  preferences: object = {},
  serviceWorkers: 'block' | 'allow' = 'block',
): Promise<Page> {
  const page = await (
    await browser.newContext({ acceptDownloads: true, serviceWorkers })
  ).newPage();
  const author = { name: 'A. Hollis', role: 'commissioning electrician' };
  await page.addInitScript(
    (stored) =>
      localStorage.getItem('tactron.preferences') ??
      localStorage.setItem('tactron.preferences', stored),
    JSON.stringify({ author, ...preferences }),
  );
  await page.goto(url() + path);
  return page;
}

/** A job of the demo once more, under an id of its own: what is done to it disturbs nobody else. @returns its id */
export async function copyOf(job: string): Promise<string> {
  const file = await (await fetch(`${url()}/api/jobs/${job}/file`)).text();
  const answer = await fetch(`${url()}/api/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: file,
  });
  return ((await answer.json()) as { id: string }).id;
}

/**
 * The auger of the demo before anything was done at it, under an id and a tag of its own.
 *
 * @returns its id; its tag is FM-AUGER-N
 */
export async function untouchedAuger(base = url(), siteId?: string): Promise<string> {
  const { job, ...file } = JSON.parse(readFileSync('demo/fm-auger.tactron.json', 'utf8')) as {
    job: object;
  };
  const own = {
    ...file,
    job: { ...job, id: randomUUID(), tag: 'FM-AUGER-N', ...(siteId ? { siteId } : {}) },
    evidence: [],
  };
  const answer = await fetch(`${base}/api/import`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(own),
  });
  return ((await answer.json()) as { id: string }).id;
}

/** A site of its own: what a journey settles there disturbs no other. @returns its id */
export async function newSite(name: string): Promise<string> {
  const id = randomUUID();
  const answer = await fetch(`${url()}/api/sites`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id, name }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return id;
}

/** The drum of the demo that nobody has worked on yet. */
export const freshDrum = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01';

export const stage = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`\\d ${name}`, 'u') });
/** Goes to a stage in the one row of a phone. */
export async function phoneStage(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^Stage \d/u }).click();
  await page.getByRole('menuitem', { name: new RegExp(`\\d ${name}`, 'u') }).click();
}
export const saved = (page: Page) =>
  expect(page.locator('.save')).toContainText('kept on server', { timeout: 45_000 });
/** The reckoning has caught up with the last change. */
export const settled = (page: Page) => expect(page.locator('main[aria-busy=false]')).toBeVisible();

export async function type(page: Page, block: string, label: string, text: string): Promise<void> {
  const field = page
    .getByRole('region', { name: block, exact: true })
    .getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** Makes a job in the application, with the first site there is. */
export async function newJob(
  page: Page,
  tag: string,
  machine: string,
  family: string,
  model: string,
  practice = 'IEC',
): Promise<void> {
  await page.goto(new URL('/jobs', page.url()).href);
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByRole('textbox', { name: 'Tag' }).fill(tag);
  await page.getByRole('textbox', { name: 'Machine' }).fill(machine);
  await page.locator('select[name=practice]').selectOption(practice);
  const option = page.locator('select[name=family] option', { hasText: family });
  await page
    .locator('select[name=family]')
    .selectOption((await option.getAttribute('value')) as string);
  await page.locator('select[name=model]').selectOption(model);
  await page.getByRole('button', { name: 'Make the job' }).click();
  await expect(page.getByRole('heading', { name: tag })).toBeVisible();
}

/** What a person answers to the words of what must be seen; the first that the page offers. */
const answers: readonly [RegExp, readonly string[]][] = [
  [/^All of it is so|open and locked|time is over|^Nothing loose/u, ['done']],
  [/^Open: /u, ['open']],
  [/^Nothing happens/u, ['nothing happens']],
  [/and nothing else/u, ['only these']],
  [/^Nothing broken|stands? at “/u, ['as planned']],
  [/stays off|goes off|drops out|is dark|sees no signal|is closed and holds/u, ['off']],
  [/is on\b|is lit|pulls in|sees its signal|is open: its magnet/u, ['on']],
  [/starts, and stops again/u, ['worked']],
  [/runs in reverse/u, ['runs in reverse']],
  [/does not turn|stays stopped/u, ['does not turn', 'stays stopped']],
  [/starts by itself/u, ['starts by itself']],
  [/comes to rest/u, ['comes to rest']],
  [/runs forward|goes on forward/u, ['runs forward']],
  [/(?:display says|lights say): ready/u, ['ready']],
  [/lights say: no supply/u, ['no supply']],
  [/clockwise/u, ['clockwise']],
  [/^No voltage/u, ['dead']],
  [/^Not picked up/u, ['off']],
  [/^Picked up/u, ['on']],
];

/** Declares the state of isolation that the shown step asks for, every source ticked; nothing where none is asked for. */
export async function declare(page: Page): Promise<void> {
  const gate = page.locator('tac-isolation-gate');
  await expect(gate.or(page.locator('tac-reading-entry')).first()).toBeVisible();
  if (!(await gate.isVisible())) return;
  for (const source of await gate.getByRole('checkbox').all()) await source.check();
  await gate.getByRole('button', { name: /^Declare/u }).click();
  await expect(gate).toBeHidden();
}

/** Passes over what holds the shown test back, by name and with a reason, and declares the isolation it needs then. */
export async function passOver(page: Page, reason: string): Promise<void> {
  const gate = page.locator('tac-hold-gate');
  const entry = page.locator('tac-reading-entry').or(page.locator('tac-isolation-gate'));
  await expect(gate.or(entry).first()).toBeVisible();
  if (await gate.isVisible()) {
    await gate.getByRole('button', { name: 'Pass it over …' }).click();
    await gate.getByLabel('Why it is passed over').fill(reason);
    await gate.getByRole('button', { name: 'Pass it over, by my name' }).click();
    await expect(gate).toBeHidden();
  }
  await declare(page);
}

/** Answers the shown test as it is expected, or with a wrong number. */
export async function answerAsExpected(page: Page, wrong?: string): Promise<void> {
  const current = page.getByRole('region', { name: 'Current test' });
  await expect(current.locator('.expected')).toBeVisible({ timeout: 45_000 });
  await declare(page);
  const lines = await current.locator('.value').allTextContents();
  if (lines.length > 0) {
    const numbers = lines.map((line) =>
      line.includes('no way') ? 'OL' : (/[−-]?\d[\d.,]*/u.exec(line) ?? [''])[0].replace('−', '-'),
    );
    const [expected] = numbers;
    const fields = current.locator('input.reading');
    for (let i = 0; i < (await fields.count()); i++)
      await fields.nth(i).fill(wrong ?? numbers[i] ?? expected);
    await fields.last().press('Enter');
    // A mark before three digits is asked about: what is meant is the decimal one.
    if (!wrong)
      for (let n = await fields.count(); n > 0 && /^[1-9]\d{0,2}[.]\d{3}$/u.test(expected); n--)
        await current.locator('.problem button').first().click();
    return;
  }
  const words = (await current.locator('.words').textContent()) ?? '';
  const offered = answers.find(([pattern]) => pattern.test(words))?.[1] ?? [];
  for (const name of offered) {
    const button = current.getByRole('button', { name, exact: true });
    if (await button.isVisible()) return button.click();
  }
  throw new Error(`nothing to answer to "${words}"`);
}

/** Signs in both roles with the dead checks left open by name, and opens the next issue of the closed record. */
export async function signed(page: Page): Promise<void> {
  const panel = page.getByRole('region', { name: 'Signatures' });
  await expect(panel.getByRole('button', { name: /^Sign:/u })).toBeDisabled();
  await panel
    .getByLabel(/dead checks are not done/u)
    .fill('read by the panel builder, his sheet is kept');
  for (const role of ['Commissioned by', 'Accepted by']) {
    await panel.getByRole('button', { name: `Sign: ${role}` }).click();
    await expect(panel.getByRole('row', { name: role })).toContainText('1 open point named');
  }
  await expect(panel).toContainText('Issue 1 is closed: every role has signed.');
  await expect(page.locator('.record header')).toContainText('Issue 1, signed and closed');
  await panel.getByLabel('What will be changed, and why').fill('ramp up too short for the seals');
  await saved(page);
  await panel.getByRole('button', { name: 'Open issue 2' }).click();
  await expect(panel).toContainText('Issue 2, opened by');
}

/** What a device was said to have measured of its motor, Ω: it is read back as it was noted. */
let measuredOhm = '';

/** Goes through the keying sheet from its first line to its last. */
export async function keyEverything(page: Page): Promise<void> {
  await expect(page.getByRole('region', { name: 'Current line' })).toBeVisible();
  const current = page.getByRole('region', { name: 'Current line' });
  for (;;) {
    await settled(page);
    const button = current.getByRole('button', { name: /^(Keyed|Done|Measured)$/u });
    if (!(await button.isVisible())) break;
    const usual = /about ([\d.]+) Ω/u.exec((await current.textContent()) ?? '')?.[1];
    if (usual !== undefined) {
      measuredOhm = usual;
      await current.getByLabel(/\(Ω\)/u).fill(usual);
    }
    const done = Number(
      (await page.getByText(/lines done/u).textContent())?.match(/(\d+) of/u)?.[1],
    );
    await button.click();
    await expect(
      page.getByText(new RegExp(`^\\s*${done + 1} of \\d+ lines done`, 'u')),
    ).toBeVisible();
  }
  await expect(page.getByText('Every line is keyed.')).toBeVisible();
}

/** Reads back what the plan keys or rests on, each line by itself; what somebody relies on is typed. */
export async function readEverythingBack(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Enter as left' }).click();
  // Nothing counts as read that nobody has read: what the plan rests on is confirmed line by line.
  await expect(page.getByText(/^0 of \d+ read$/u)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep as left' })).toBeDisabled();
  const relied = page
    .getByRole('heading', { name: 'What the plan keys or rests on' })
    .locator('+ div');
  const unread = relied.getByRole('button', { name: 'reads so' });
  for (let left = await unread.count(); left > 0; left--) {
    await unread.first().click();
    await expect(unread).toHaveCount(left - 1);
  }
  const panel = page
    .getByRole('heading', { name: 'Set elsewhere in the panel' })
    .locator('+ div')
    .getByRole('button', { name: 'reads so' });
  for (let left = await panel.count(); left > 0; left--) {
    await panel.first().click();
    await expect(panel).toHaveCount(left - 1);
  }
  for (const measured of await relied
    .getByRole('row')
    .filter({ hasText: 'measured by the device' })
    .all()) {
    await measured.locator('input').fill(measuredOhm);
    await measured.locator('input').press('Tab');
  }
  // What somebody relies on hides the plan until it is typed as it stands there.
  const {
    job: { adopted },
  } = (await (
    await page.request.get(new URL(`/api/jobs/${page.url().split('/')[4]}`, page.url()).href)
  ).json()) as { job: { adopted: { settings: Record<string, { value: unknown }> } } };
  const blind = relied.getByRole('row').filter({ hasText: 'shown when it is typed' });
  for (let left = await blind.count(); left > 0; left--) {
    const row = blind.first();
    const code = (await row.getAttribute('data-setting')) ?? '';
    const value = String(adopted.settings[code].value);
    const choices = row.locator('select');
    if (await choices.count()) await choices.selectOption(value);
    else {
      await row.locator('input').fill(value);
      await row.locator('input').press('Tab');
    }
    await expect(blind).toHaveCount(left - 1);
  }
}

/** How many answers of the open stage have passed, and of how many. */
export async function counted(page: Page): Promise<[done: number, all: number]> {
  const text = (await page.getByText(/ of \d+ answers passed/u).textContent()) ?? '';
  const [, done, all] = /(\d+) of (\d+)/u.exec(text) ?? [];
  return [Number(done), Number(all)];
}

/** Answers the shown test as it is expected, and waits until it counts. */
export async function answerNext(page: Page): Promise<void> {
  const [done] = await counted(page);
  await answerAsExpected(page);
  await expect(page.getByText(new RegExp(`^\\s*${done + 1} of \\d+ answers`, 'u'))).toBeVisible();
}

/** Answers one after the other as expected, up to a count or to the last. */
export async function answerUpTo(page: Page, wanted = Infinity): Promise<void> {
  for (;;) {
    await settled(page);
    const [done, all] = await counted(page);
    if (done >= Math.min(wanted, all)) return;
    await answerNext(page);
  }
}

/** Signs in every role, each open point named with a reason. */
export async function signEveryRole(page: Page): Promise<void> {
  const panel = page.getByRole('region', { name: 'Signatures' });
  await expect(panel.getByRole('button', { name: /^Sign:/u })).toBeVisible();
  for (const reason of await panel.locator('[data-open]').all())
    await reason.fill('looked at with the owner');
  for (const role of ['Commissioned by', 'Accepted by']) {
    await panel.getByRole('button', { name: `Sign: ${role}` }).click();
    await expect(panel.getByRole('row', { name: role })).toBeVisible();
  }
  await expect(panel).toContainText('Issue 1 is closed: every role has signed.');
}
