import { expect, test, type Page } from '@playwright/test';
import { openDemo } from './desk';

/** The figure beside a shape's anchors in the stack, in picture pixels. */
const driftOf = async (page: Page, name: string): Promise<number> => {
  const row = page.locator('[role=treeitem], li, .row').filter({ hasText: name }).filter({ hasText: ' px' }).last(); // prettier-ignore
  return Number(/· ([\d.]+) px/.exec((await row.textContent()) ?? '')?.[1]);
};

test('Gate badge: the figure is seen, a shape settles, the figure falls, and one undo brings all back', async ({
  page,
}) => {
  const h = await openDemo(page, 'Gate badge');
  await h.key('3');
  const refine = page.getByRole('button', { name: /^Refine/ });
  await expect(refine).toContainText(/\d\.\d px/);
  await h.key('v');
  for (let k = 0; k < 8 && !/fill of Left post/.test((await page.locator('.status').textContent())!); k++)
    await h.key('v');
  await h.key('Shift+0');
  await expect(page.getByText('of what is chosen')).toBeVisible();
  await expect.poll(() => driftOf(page, 'Left post')).toBeGreaterThan(2);
  await expect(h.bed.locator('.whiskers .beyond').first()).toHaveAttribute('d', /^M/);
  const before = (await h.shapes()).find((s) => s.name === 'Left post')!.paths;
  // The offer says both figures; Esc leaves all as it was, Enter takes.
  await h.key('e');
  await expect(page.getByText(/^Settle Left post: mean drift 2\.\d\d → 0\.\d\d px/)).toBeVisible();
  await h.key('Escape');
  expect((await h.shapes()).find((s) => s.name === 'Left post')!.paths).toEqual(before);
  await h.key('e');
  await expect(page.getByText(/^Settle Left post/)).toBeVisible();
  await h.key('Enter');
  await expect.poll(() => driftOf(page, 'Left post')).toBeLessThan(0.5);
  await page.getByRole('button', { name: 'Undo: Settle' }).click();
  await expect.poll(() => driftOf(page, 'Left post')).toBeGreaterThan(2);
  expect((await h.shapes()).find((s) => s.name === 'Left post')!.paths).toEqual(before);
});

test('drift follows the hand: it is measured while an anchor is dragged, shown in a chart, and walked worst first', async ({
  page,
}) => {
  const h = await openDemo(page, 'Gate badge');
  await h.key('3');
  await page.getByText('Field', { exact: true }).click();
  await h.key('3');
  await h.key('v');
  for (let k = 0; k < 8 && !/fill of Plate/.test((await page.locator('.status').textContent())!); k++)
    await h.key('v');
  await expect.poll(() => driftOf(page, 'Plate')).toBeLessThan(1);
  const chart = page.getByLabel(/^Drift along Plate: mean/);
  await expect(chart).toBeVisible();
  // Pointing at the chart points on the bed.
  const box = (await chart.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await expect(h.bed.locator('.whiskers .pointed')).toHaveCount(1);
  await expect(page.getByText(/px there \(|No edge there/)).toBeVisible();
  const a = (await h.shapes()).find((s) => s.name === 'Plate')!.paths[0]!.anchors[0]!;
  await h.move(a);
  await page.mouse.down();
  await h.move({ x: a.x + 4, y: a.y + 1 });
  await h.move({ x: a.x + 5, y: a.y + 1 });
  await expect.poll(() => driftOf(page, 'Plate')).toBeGreaterThan(1);
  await h.key('Escape');
  await page.mouse.up();
  await expect.poll(() => driftOf(page, 'Plate')).toBeLessThan(1);
  await page.getByRole('button', { name: 'Worst first' }).click();
  await expect(page.getByText(/Spot 1 of \d+: \d+\.\d px off/)).toBeVisible();
  await page.getByRole('button', { name: 'Worst first' }).click();
  await expect(page.getByText(/Spot 2 of \d+/)).toBeVisible();
});
