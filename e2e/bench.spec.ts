import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { readBundles, readHpgl, type PenStroke } from '@mirrot/core';
import sharp from 'sharp';
import { expectClean } from './axe';
import { openDemo } from './desk';
import { expect, test } from './test';

const written = async (page: Page): Promise<{ name: string; bytes: Buffer }> => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write the file' }).click(),
  ]);
  return { name: download.suggestedFilename(), bytes: readFileSync(await download.path()) };
};
const strokesOf = (bytes: Buffer): readonly PenStroke[] => readHpgl(bytes.toString()).strokes;
const figure = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Bench' }).locator('dl div', { hasText: name }).locator('dd');

test('labels are played on the bench as they are written; a knife cuts what lies inside first', async ({
  page,
}) => {
  const h = await openDemo(page, 'Plant labels');
  await h.key('6');
  const use = page.getByLabel('What the file is made for');
  await use.selectOption('a pen');
  await page.getByRole('button', { name: 'Bench' }).click();
  const bench = page.getByRole('region', { name: 'Bench' });
  await expect(figure(page, 'lifts')).toHaveText('17');
  await expect(figure(page, 'drawn twice')).toHaveText('0 mm');
  await expectClean(page, 'the bench');

  // In their order there is more travel; the file is the one that was played.
  const travel = async (): Promise<number> => parseFloat((await figure(page, 'travelled').textContent())!);
  const short = await travel();
  await page.getByLabel('Short way between strokes').locator('..').click();
  await expect.poll(travel).toBeGreaterThan(1.1 * short);
  const long = await travel();
  const kept = await written(page);
  expect(kept.name).toBe('Plant-labels.plt');
  const way = (strokes: readonly PenStroke[]): number => {
    let [at, sum] = [{ x: 0, y: 0 }, 0];
    for (const { points, closed } of strokes) {
      sum += Math.hypot(points[0]!.x - at.x, points[0]!.y - at.y);
      at = closed ? points[0]! : points.at(-1)!;
    }
    return sum;
  };
  expect(Math.abs(way(strokesOf(kept.bytes)) - long)).toBeLessThan(1);

  // Played to its end by the slider, then from the beginning, and left with Esc; the view's keys work as on the bed.
  const slider = bench.getByRole('slider', { name: 'Time on the bench' });
  await slider.fill((await slider.getAttribute('max'))!);
  await expect(slider).toHaveAttribute('aria-valuetext', /^(\d+:\d\d) of \1$/);
  await bench.getByRole('button', { name: 'Play' }).click();
  await expect(bench.getByRole('button', { name: 'Pause' })).toBeVisible();
  await bench.getByRole('button', { name: 'Pause' }).click();
  const view = await h.bed.getAttribute('data-view');
  await h.key('+');
  await expect(h.bed).not.toHaveAttribute('data-view', view!);
  await h.key('Escape');
  await expect(bench).toBeHidden();

  // Slower places than the curves ask for: the bench says so, and marks them.
  await page.getByRole('button', { name: 'Bench' }).click();
  await page.locator('summary', { hasText: 'The machine' }).click();
  await page.getByLabel('Places it takes a second').fill('20');
  await page.keyboard.press('Enter');
  await expect(bench).toContainText('places a second; this machine takes 20');
  await expect(bench.locator('.crowded').first()).toBeVisible();

  // These settings, kept under a name of one's own, are there after a reload.
  await page.getByRole('button', { name: 'Keep these settings' }).click();
  await page.getByLabel('Name of these settings').fill('the old plotter');
  await page.keyboard.press('Enter');
  await page.reload();
  await expect(h.bed).toBeVisible();
  await h.key('6');
  await use.selectOption('the old plotter');
  await expect(page.getByText('20 places/s').or(page.getByLabel('Places it takes a second'))).toBeAttached();
  await page.getByRole('button', { name: 'Forget “the old plotter”' }).click();
  await expect(use.locator('option', { hasText: 'the old plotter' })).toHaveCount(0);
});

test.describe('with the service worker, which keeps what writes files', () => {
  test.use({ serviceWorkers: 'allow' });

  test('a badge is cut from the inside out, and files are written while the server is away', async ({
    page,
    context,
  }) => {
    const h = await openDemo(page, 'Gate badge');
    await h.key('6');
    await page.getByLabel('What the file is made for').selectOption('a cutter');
    await expect(page.getByText(/mm cut, .* lifts?/)).toBeVisible();
    const cut = strokesOf((await written(page)).bytes);
    // Whatever lies within another is cut before it.
    const box = ({ points }: PenStroke): number[] => [Math.min(...points.map((p) => p.x)), Math.min(...points.map((p) => p.y)), -Math.max(...points.map((p) => p.x)), -Math.max(...points.map((p) => p.y))]; // prettier-ignore
    const within = (inner: PenStroke, outer: PenStroke): boolean =>
      box(inner).every((v, i) => v > box(outer)[i]!);
    expect(cut.filter((one) => within(one, cut.at(-1)!))).toHaveLength(cut.length - 1);
    cut.forEach((one, i) => expect(cut.slice(0, i).filter((before) => within(one, before))).toEqual([]));
    await page.getByLabel('Left for right').locator('..').click();
    await page.getByLabel('Marks to lay it by').locator('..').click();
    await expect.poll(async () => strokesOf((await written(page)).bytes).length).toBe(cut.length + 6);

    await page.evaluate(() => navigator.serviceWorker.ready);
    await context.setOffline(true);
    await expect(page.getByText(/all changes kept|away/).first()).toBeVisible();
    const kinds = page.getByRole('group', { name: 'Kind of file' });
    expect(strokesOf((await written(page)).bytes)).toHaveLength(cut.length + 6);
    await kinds.getByText('SVG', { exact: true }).click();
    const svg = await written(page);
    expect([svg.name, svg.bytes.toString()]).toEqual(['Gate-badge.svg', expect.stringContaining('<path')]);
    await kinds.getByText('PNG', { exact: true }).click();
    await page.getByLabel('What goes into the file').getByText('drawing', { exact: true }).click();
    const png = await written(page);
    const { data, info } = await sharp(png.bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect(info.width).toBeGreaterThan(300);
    // Clear at the corner, and in the upper screw hole; the plate between them is painted.
    const alpha = (x: number, y: number): number => data[4 * (Math.round(y * info.height) * info.width + Math.round(x * info.width)) + 3]!; // prettier-ignore
    expect(alpha(0.01, 0.01)).toBe(0);
    expect(alpha(0.5, 0.5)).toBe(255);
    expect(Math.min(...Array.from({ length: 40 }, (_, k) => alpha(0.5 + 0.003 * (k % 40), 0.035)))).toBe(0);
    await kinds.getByText('Bundle', { exact: true }).click();
    const bundle = await written(page);
    expect(bundle.name).toBe('Gate-badge.zip');
    await expect(page.getByText(/was written\. Its kept copies .* are not in it\./)).toBeVisible();
    const [read] = readBundles(bundle.bytes);
    expect([read!.name, read!.pictures.length]).toEqual(['Gate badge', 1]);
    // What takes the server says so, and nothing is written.
    await kinds.getByText('PDF', { exact: true }).click();
    await page.getByRole('button', { name: 'Write the file' }).click();
    await expect(page.getByText(/server cannot be reached/)).toBeVisible();
    await context.setOffline(false);
  });
});
