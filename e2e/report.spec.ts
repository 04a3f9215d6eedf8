import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Shape } from '@mirrot/core';
import { expectClean } from './axe';
import { openDemo, openNew, URL } from './desk';
import { expect, test } from './test';

const open: Shape = { id: 'leaf', type: 'shape', name: 'Leaf', shown: true, locked: false, opacity: 1, fill: { hex: '#2f6b4f' }, stroke: null, paths: [{ id: 'leaf-p', closed: false, anchors: [[100, 100], [300, 120], [200, 300]].map(([x, y]) => ({ x: x!, y: y!, kind: 'corner', in: null, out: null })) }] }; // prettier-ignore

test('a report tells of one project, or of several, as a page and as a PDF', async ({ page }) => {
  const h = await openNew(page, 'Žlutý list 🌱', undefined, [open]);
  const own = page.url().split('/').at(-1)!;
  await h.key('5');
  await expect(page.getByText('1 thing looks like a mistake.')).toBeVisible();
  const opened = page.waitForEvent('popup');
  await page.getByRole('link', { name: 'Report' }).click();
  const report = await opened;
  await expect(report.getByRole('heading', { name: 'Žlutý list 🌱' })).toBeVisible();
  await expect(report.getByRole('heading', { name: 'Findings left: 1' })).toBeVisible();
  await expect(report.getByRole('row', { name: /Filled, left open Leaf/ })).toBeVisible();
  await report.close();

  // Put aside, it is told as such, with the reason.
  await page.locator('summary', { hasText: 'Filled, left open' }).click();
  await page.getByRole('button', { name: 'Put aside' }).click();
  await page.getByLabel('Why it is put aside').fill('the stalk joins it');
  await page.keyboard.press('Enter');
  await expect(page.getByText('all changes kept')).toBeVisible();

  const can = await openDemo(page, 'Watering can');
  const demo = page.url().split('/').at(-1)!;
  const shapes = await can.shapes();
  await page.goto(`${URL()}/report?of=${demo},${own}`);
  const first = page.getByRole('article', { name: 'Watering can' });
  // Figures against counts made another way: of the shapes as the server tells them.
  const value = (what: string) => first.locator('dt', { hasText: new RegExp(`^${what}$`) }).locator('xpath=following-sibling::dd[1]'); // prettier-ignore
  await expect(value('shapes')).toHaveText(String(shapes.filter(({ shown }) => shown).length));
  await expect(value('anchors')).toHaveText(String(shapes.flatMap(({ paths }) => paths.flatMap(({ anchors }) => anchors)).length)); // prettier-ignore
  await expect(page.getByText('aside: the stalk joins it')).toBeVisible();
  for (const name of ['The picture of Watering can', 'The drawing of Watering can'])
    await expect.poll(() => page.getByAltText(name).evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBeGreaterThan(0); // prettier-ignore
  await expectClean(page, 'Report');

  // As a PDF (source outside: poppler): a page each, with the same words.
  const pdf = await (await page.request.get(`${URL()}/api/report.pdf?of=${demo},${own}`)).body();
  const file = join(mkdtempSync(join(tmpdir(), 'mirrot-e2e-')), 'report.pdf');
  writeFileSync(file, pdf);
  expect(execFileSync('pdfinfo', [file], { encoding: 'utf8' })).toMatch(/Pages:\s+2/);
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' });
  expect(text).toMatch(/Watering can[\s\S]*anchors\s+65[\s\S]*Nothing is left/);
  expect(text).toMatch(/Filled, left open\s+Leaf\s+the stalk joins it/);

  // What is no project is said in a sentence.
  const refused = await page.request.get(`${URL()}/api/report.pdf?of=nobody`);
  expect(refused.status()).toBe(404);
  expect((await page.request.get(`${URL()}/api/report.pdf?of=a,,b`)).status()).toBe(400);
  for (const path of ['projects', 'bin']) await page.request.delete(`${URL()}/api/${path}/${own}`);
});
