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
): Promise<Page> {
  const page = await (
    await browser.newContext({ acceptDownloads: true, serviceWorkers: 'block' })
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

export const stage = (page: Page, name: string) =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`\\d ${name}`, 'u') });
export const saved = (page: Page) =>
  expect(page.locator('.save')).toContainText('kept on server', { timeout: 15_000 });
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
