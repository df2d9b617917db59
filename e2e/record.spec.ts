import { expect, type Page } from '@playwright/test';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import yauzl from 'yauzl';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { missingSigns, runsOf } from '@tactron/core/printed';
import { open, test } from './helpers';

const { create } = createRequire(import.meta.url)('fontkit') as {
  create(file: Buffer): { hasGlyphForCodePoint(at: number): boolean };
};

const drum = '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a02';
const debark = '/jobs/0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a07';
const root = join(import.meta.dirname, '..');

/** What a person reads in the PDF, without what breaks its lines, and how it is marked. */
async function pdfOf(
  page: Page,
): Promise<{ text: string; pages: number; raw: string; outline: string[] }> {
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Record as PDF' }).click();
  const bytes = readFileSync(await (await download).path());
  const raw = bytes.toString('latin1');
  const doc = await getDocument({ data: new Uint8Array(bytes) }).promise;
  const texts: string[] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const content = await (await doc.getPage(n)).getTextContent();
    texts.push(content.items.map((item) => ('str' in item ? item.str : '')).join(' '));
  }
  const outline = ((await doc.getOutline()) ?? []).map(({ title }) => title);
  return { text: plain(texts.join(' ')), pages: doc.numPages, raw, outline };
}

const plain = (text: string): string => text.replaceAll('µ', 'μ').replace(/\s+/gu, '');

test('the record as PDF: every row of the screen, outline, page numbers, marked as PDF/A-2b; without the server too', async ({
  browser,
}) => {
  const page = await open(browser, `${drum}/handover`, {}, 'allow');
  const rows = page.locator('.record [data-part] tr');
  await expect(rows.nth(60)).toBeVisible({ timeout: 60_000 });
  const cells = await page.locator('.record [data-part] :is(td, th)').allInnerTexts();
  const titles = await page.locator('.record [data-part] h2').allInnerTexts();
  // The fonts and the maker of the PDF are kept in the browser before anybody asks for them.
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await page.reload();
  await expect(rows.nth(60)).toBeVisible({ timeout: 60_000 });
  await expect
    .poll(
      () =>
        page.evaluate(async () => {
          for (const name of await caches.keys())
            for (const { url: kept } of await (await caches.open(name)).keys())
              if (kept.includes('noto-sans-math')) return true;
          return false;
        }),
      { timeout: 60_000 },
    )
    .toBe(true);
  await page.context().setOffline(true);
  const { text, pages, raw, outline } = await pdfOf(page);
  await page.context().setOffline(false);
  expect(cells.length).toBeGreaterThan(400);
  const lost = [...new Set(cells.map((c) => c.trim()).filter((c) => !text.includes(plain(c))))];
  expect(lost).toEqual([]);
  expect(outline).toEqual(
    expect.arrayContaining([
      ...titles,
      'Signatures',
      'Circuit diagram, power, as built',
      'Circuit diagram, control, as built',
      'Connections, control, as built',
    ]),
  );
  expect(text).toContain(`page1of${pages}`);
  expect(text).toContain(`page${pages}of${pages}`);
  expect(text).toMatch(/Issue1,signedandclosed05Oct2026/u);
  expect(text).toContain('M.Stroud,maltingsengineer');
  expect(raw).toMatch(/<pdfaid:part>2<\/pdfaid:part>\s*<pdfaid:conformance>B/u);
  expect(text).not.toContain('□');

  // NFPA jobs print on Letter.
  await page.goto(page.url().replace(drum, debark));
  await expect(rows.nth(40)).toBeVisible({ timeout: 60_000 });
  expect((await pdfOf(page)).raw).toContain('[0 0 612 792]');
});

test('everything in one ZIP: job file, PDF, page, tables and drawings under their hashes, and it comes in again', async ({
  browser,
}) => {
  const page = await open(browser, `${drum}/handover`);
  await expect(page.locator('.record [data-part] tr').nth(60)).toBeVisible({ timeout: 60_000 });
  const cells = await page.locator('.record [data-part] :is(td, th)').allInnerTexts();
  for (const name of ['Hand list CSV', 'Connections SVG', 'Circuit SVG']) {
    const single = page.waitForEvent('download', { timeout: 60_000 });
    await page.getByRole('button', { name }).click();
    const text = readFileSync(await (await single).path(), 'utf8');
    expect(text.length).toBeGreaterThan(1000);
    expect(text.includes('S3'), name).toBe(true);
  }
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Everything, ZIP' }).click();
  const path = await (await download).path();
  const zip = await yauzl.openPromise(path, { lazyEntries: true, autoClose: false });
  const bytes = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry()) {
    const parts: Buffer[] = [];
    for await (const part of await zip.openReadStreamPromise(entry)) parts.push(part as Buffer);
    bytes.set(entry.fileName, Buffer.concat(parts));
  }
  const names = [...bytes.keys()];
  expect(names.at(-1)).toBe('manifest.json');
  for (const name of [
    'job.tactron.json',
    'record.html',
    'record.xlsx',
    'hand-list.csv',
    'connection.svg',
  ])
    expect(names).toContain(name);
  expect(names.some((n) => n.endsWith('.pdf'))).toBe(true);
  const { sha256 } = JSON.parse(String(bytes.get('manifest.json'))) as {
    sha256: Record<string, string>;
  };
  expect(Object.keys(sha256).sort()).toEqual(names.slice(0, -1).sort());
  for (const [name, hash] of Object.entries(sha256))
    expect(
      createHash('sha256')
        .update(bytes.get(name) ?? '')
        .digest('hex'),
    ).toBe(hash);
  // The page tells what the screen tells.
  const reader = await page.context().newPage();
  await reader.setContent(String(bytes.get('record.html')));
  const told = plain(await reader.locator('body').innerText());
  expect(cells.filter((c) => !told.includes(plain(c)))).toEqual([]);
  const answer = await fetch(new URL('/api/import', page.url()), {
    method: 'POST',
    headers: { 'content-type': 'application/zip' },
    body: readFileSync(path),
  });
  expect(answer.status).toBeLessThan(300);
});

/** Every file of a folder whose name ends so. */
const filesOf = (folder: string, end: string): string[] =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith(end) && !/^dist|spec\.ts$/u.test(name))
    .map((name) => readFileSync(join(root, folder, name), 'utf8'));

test('every sign of the words and of the shipped data has a glyph in the font it is printed in', () => {
  const font = (name: string) => {
    const made = create(readFileSync(join(root, 'node_modules/@fontsource', name)));
    return (sign: string): boolean => made.hasGlyphForCodePoint(sign.codePointAt(0) ?? 0);
  };
  const next = 'atkinson-hyperlegible-next/files/atkinson-hyperlegible-next';
  const has = {
    Next: [font(`${next}-latin-400-normal.woff`), font(`${next}-latin-700-normal.woff`)],
    NextExt: [font(`${next}-latin-ext-400-normal.woff`), font(`${next}-latin-ext-700-normal.woff`)],
    Maths: [font('noto-sans-math/files/noto-sans-math-latin-400-normal.woff')],
  };
  const all = [
    ...filesOf('core/words', '.ts'),
    ...filesOf('core/catalogue', '.json'),
    ...filesOf('demo', '.json'),
    ...filesOf('core/printed', '.ts'),
    'äöüÄÖÜßéèêàçñøåæłčěřžšőűțş€ µΩ°²³½×±≤≥≠→✓',
  ].join('');
  const signs = [...new Set(all)].filter((s) => !/[\r\n\t]/u.test(s)).join('');
  expect(missingSigns(signs)).toEqual([]);
  const without = runsOf(signs).flatMap(({ text, font: name }) =>
    [...text].filter((sign) => !has[name].every((h) => h(sign))),
  );
  expect(without).toEqual([]);
  // What nobody has a glyph for is named, not left out.
  expect(missingSigns('Ring 漢字 1')).toEqual(['漢', '字']);
  expect(
    runsOf('a漢b')
      .map((r) => r.text)
      .join(''),
  ).toBe('a□b');
});
