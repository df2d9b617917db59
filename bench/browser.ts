import { chromium } from '@playwright/test';
import { withDemo } from '../scripts/lib/testbed.mjs';
import { median, p95, type Row } from './measure';

const drum = '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01';

/** First load to a usable board, and presses in Rehearse until the picture has changed. */
export async function browserRows(): Promise<Row[]> {
  return withDemo('tactron_bench_web', async (url: string) => {
    const browser = await chromium.launch({
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
    });
    const page = await (
      await browser.newContext({ viewport: { width: 1280, height: 800 } })
    ).newPage();
    const begin = performance.now();
    await page.goto(`${url}/jobs`);
    await page.getByRole('link', { name: 'FM-AUGER', exact: true }).waitFor();
    const usable = performance.now() - begin;
    await page.goto(`${url}/jobs/${drum}/rehearse`);
    await page.getByRole('button', { name: 'Supply off' }).click();
    await page.getByRole('button', { name: '100', exact: true }).click();
    await page.waitForTimeout(1500);
    // A motor under way all the time: every press comes during a ramp or a run.
    await page.getByRole('button', { name: 'S3 start' }).dispatchEvent('pointerdown');
    await page.waitForTimeout(300);
    const presses = await page.evaluate(async () => {
      const buttons = [
        ...document.querySelectorAll<HTMLButtonElement>(
          '[role=radiogroup][aria-label=S4] [role=radio]',
        ),
      ];
      const list: number[] = [];
      for (let i = 0; i < 200; i++) {
        const button = buttons[(i + 1) % buttons.length];
        const start = performance.now();
        button.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, cancelable: true }));
        while (button.getAttribute('aria-checked') !== 'true')
          await new Promise((done) => requestAnimationFrame(done));
        list.push(performance.now() - start);
        await new Promise((done) => setTimeout(done, 60));
      }
      return list;
    });
    await page.getByRole('button', { name: 'Pause' }).click();
    const sweeps: number[] = [];
    for (let i = 0; i < 4; i++) {
      const start = performance.now();
      await page
        .getByRole('button', { name: i === 0 ? 'Break every wire' : 'Sweep again' })
        .click();
      await page.getByRole('button', { name: 'Cancel' }).waitFor();
      await page.getByRole('button', { name: 'Sweep again' }).waitFor();
      sweeps.push(performance.now() - start);
    }
    await browser.close();
    const again = median(sweeps.slice(1));
    const press = p95(presses);
    return [
      {
        what: 'usable after first load, loopback',
        measured: `${(usable / 1000).toFixed(2)} s`,
        budget: '≤ 1.5 s',
        ok: usable <= 1500,
      },
      {
        what: 'sweep of the drum in the browser, first time',
        measured: `${(sweeps[0] / 1000).toFixed(2)} s`,
        budget: '–',
        ok: null,
      },
      {
        what: 'sweep of the drum in the browser, again',
        measured: `${(again / 1000).toFixed(2)} s`,
        budget: '≤ 1.5 s',
        ok: again <= 1500,
      },
      {
        what: 'press to picture, 95th percentile of 200 during ramps',
        measured: `${press.toFixed(0)} ms`,
        budget: '≤ 50 ms',
        ok: press <= 50,
      },
    ];
  });
}
