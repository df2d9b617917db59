import { chromium, type Browser } from '@playwright/test';
import { Hand, simpleJobs, toPanelCard, toSigned, type SimpleJob } from '../e2e/simple-jobs';
import { withDemo } from '../scripts/lib/testbed.mjs';
import type { Row } from './measure';

/** What a simple job may cost a person, from *new job* to its signed record. */
const most = { facts: 12, dead: 12, liveActs: 14, declarations: 3, minutes: 10 };

/** Six simple jobs, each done in the application by a script from the board to the last signature. */
export async function simpleRows(): Promise<Row[]> {
  return withDemo('tactron_bench_simple', async (url: string) => {
    const browser = await chromium.launch({
      executablePath: '/usr/bin/chromium',
      args: ['--no-sandbox', '--disable-dev-shm-usage', '--disable-gpu'],
    });
    const rows: Row[] = [];
    for (const simple of simpleJobs) rows.push(await simpleRow(browser, url, simple));
    await browser.close();
    return rows;
  });
}

async function simpleRow(browser: Browser, url: string, simple: SimpleJob): Promise<Row> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const author = JSON.stringify({ author: { name: 'B. Ench', role: 'electrician' } });
  await page.addInitScript((text) => localStorage.setItem('tactron.preferences', text), author);
  const begin = performance.now();
  await page.goto(`${url}/jobs`);
  const hand = new Hand(page);
  await toPanelCard(hand, simple);
  const asked = await toSigned(page);
  const minutes = (performance.now() - begin) / 60_000;
  await context.close();
  const { facts } = hand;
  const { dead, liveActs, declarations } = asked;
  return {
    what: `new job to signed: ${simple.name}`,
    measured: `${facts} facts, ${dead} dead entries, ${liveActs} live acts, ${declarations} declarations, ${minutes.toFixed(1)} min`,
    budget: `≤ ${most.facts}, ${most.dead}, ${most.liveActs}, ${most.declarations}, ${most.minutes}`,
    ok:
      facts <= most.facts &&
      dead <= most.dead &&
      liveActs <= most.liveActs &&
      declarations <= most.declarations &&
      minutes <= most.minutes,
  };
}
