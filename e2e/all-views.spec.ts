import AxeBuilder from '@axe-core/playwright';
import { expect } from '@playwright/test';
import { auger, open, test, url } from './helpers';

test('every view is clean for assistive technology in both themes, and fits tablet and phone', async ({
  browser,
}) => {
  test.setTimeout(600_000);
  const views = [
    '/jobs',
    '/library',
    '/settings',
    '/sites/5b0c6c5e-2f0e-4f55-9a55-3b4f5a1e0a01',
    '/sums/dialChart',
    '/sums/runUp',
    ...[
      'plate',
      'devices',
      'scheme',
      'land',
      'card',
      'key',
      'rehearse',
      'dead',
      'live',
      'handover',
      'history',
      'isolation',
      'operator',
      'labels',
    ].map((s) => `/jobs/${auger}/${s}`),
    // A job that is handed over and signed.
    '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a02/handover',
    '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a02/isolation',
  ];
  for (const theme of ['day', 'plant']) {
    const page = await open(browser, '/jobs', { theme });
    for (const view of views) {
      await page.goto(url() + view);
      await expect(page.locator('main').first()).not.toContainText(/Reading [\w ]+ …/u, {
        timeout: 30_000,
      });
      if (view.startsWith('/jobs/'))
        await expect(page.locator('main h2').first()).toBeAttached({ timeout: 45_000 });
      await page.waitForTimeout(500);
      const { violations } = await new AxeBuilder({ page })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
        .analyze();
      expect(
        violations.map((v) => `${theme} ${view} ${v.id}: ${v.nodes[0].html.slice(0, 160)}`),
      ).toEqual([]);
    }
    await page.context().close();
  }
  const page = await open(browser, '/jobs');
  for (const width of [820, 390]) {
    await page.setViewportSize({ width, height: 1000 });
    for (const view of views) {
      await page.goto(url() + view);
      await page.waitForTimeout(400);
      const over = await page.evaluate(() => {
        const main = document.querySelector('main');
        const { scrollWidth, clientWidth } = document.documentElement;
        return Math.max(scrollWidth - clientWidth, main ? main.scrollWidth - main.clientWidth : 0);
      });
      expect(over, `${view} at ${width}`).toBeLessThanOrEqual(0);
    }
  }
});
