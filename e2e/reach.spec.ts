import { expect, test } from './test';
import { apply, nearestOnPath, parsePathData, segmentIsLine, transformPath } from '@mirrot/core';
import { WATERING_CAN } from '../demo/originals/watering-can';
import { startFromShipped, zoomTo } from './desk';

// Truth: the vector original behind the picture.
const originalOf = (name: string) =>
  parsePathData(WATERING_CAN.layers.flatMap((l) => l.shapes).find((s) => s.name === name)!.d)[0]!;
const LEAF = originalOf('Right leaf');
const HANDLE = originalOf('Handle');

test('the next segment lies on the picture’s edge before it is clicked, at 600 %', async ({ page }) => {
  const h = await startFromShipped(page, 'Watering can', 'Reach closely');
  await h.key('2');
  const { placement } = (await h.art()).pictures[0]!;
  const truth = transformPath(LEAF, placement);
  await zoomTo(h, 6);
  // The leaf's tip comes to the middle of the bed.
  const tip = truth.anchors.toSorted((a, b) => a.y - b.y)[0]!;
  const box = (await h.bed.boundingBox())!;
  const at = await h.onPage(tip);
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.wheel(at.x - box.x - box.width / 2, at.y - box.y - box.height / 2);
  await h.move({ x: tip.x - 0.5, y: tip.y + 0.5 });
  const drawn = h.bed.locator('.reach');
  await h.click(tip);
  await expect(page.getByText('drawing, 1 anchor')).toBeVisible();
  // Along the edge: the segment is shown there, with its drift, and a tick farther on.
  const on = apply(placement, nearestOnPath(LEAF, { x: 1262, y: 872 })!.point);
  await h.move(on);
  await h.move({ x: on.x + 0.2, y: on.y });
  await expect(h.bed.locator('.beside')).toHaveText(/^0\.\d px, worst 0\.\d$/);
  await expect(drawn.locator('.tick')).toHaveAttribute('d', /^M/);
  await h.click({ x: on.x + 0.2, y: on.y });
  const { paths } = (await h.shapes())[0]!;
  expect(paths[0]!.anchors.length).toBe(2);
  expect(segmentIsLine(paths[0]!, 0)).toBe(false);
  // Picture pixels are 0.32 of a sheet pixel.
  for (const a of paths[0]!.anchors) expect(nearestOnPath(truth, a)!.distance).toBeLessThan(0.32 * 2);
  // C held gives the plain segment; one undo takes it back.
  const plain = apply(placement, nearestOnPath(LEAF, { x: 1200, y: 920 })!.point);
  await page.keyboard.down('c');
  await h.move(plain);
  await expect(h.bed.locator('.beside')).toHaveCount(0);
  await h.click(plain);
  await page.keyboard.up('c');
  expect(segmentIsLine((await h.shapes())[0]!.paths[0]!, 1)).toBe(true);
  await h.key('Control+z');
  await expect(page.getByText('drawing, 2 anchors')).toBeVisible();
  // The switch does the same.
  await page.getByRole('button', { name: 'Reach', exact: true }).click();
  await h.move({ x: plain.x + 0.2, y: plain.y });
  await page.waitForTimeout(300);
  await expect(h.bed.locator('.beside')).toHaveCount(0);
});

test('a chain is offered beyond the tick, taken by one click and taken back a segment at a time', async ({
  page,
}) => {
  const h = await startFromShipped(page, 'Watering can', 'A chain');
  await h.key('2');
  const { placement } = (await h.art()).pictures[0]!;
  const on = (x: number, y: number) => apply(placement, nearestOnPath(HANDLE, { x, y })!.point);
  await h.move(on(1565, 629));
  await h.click(on(1565, 629));
  await expect(page.getByText('drawing, 1 anchor')).toBeVisible();
  // Round the handle's bend: the hand goes along it.
  for (const [x, y] of [[1771, 563], [1983, 664], [2030, 794], [2010, 950], [1878, 1140]] as const) await h.move(on(x, y)); // prettier-ignore
  await expect(h.bed.locator('.beside')).toHaveText(/^[2-4] segments, 0\.\d px$/);
  const count = await h.bed.locator('.marks .chained').count();
  expect(count).toBeGreaterThan(0);
  await h.click(on(1878, 1140));
  await expect(page.getByText(`drawing, ${count + 2} anchors`)).toBeVisible();
  const whole = (await h.shapes())[0]!.paths[0]!;
  const truth = transformPath(HANDLE, placement);
  // Picture pixels are 0.32 of a sheet pixel.
  for (const a of whole.anchors) expect(nearestOnPath(truth, a)!.distance).toBeLessThan(0.32 * 2);
  await h.key('Backspace');
  await expect(page.getByText(`drawing, ${count + 1} anchors`)).toBeVisible();
  // Undo brings the segment back, then takes the whole chain away.
  await h.key('Control+z');
  await h.key('Control+z');
  await expect(page.getByText('drawing, 1 anchor')).toBeVisible();
  // The switch gives one segment only.
  await page.locator('summary', { hasText: 'Reach' }).click();
  await page.getByText('Chain beyond the tick').click();
  await h.move(on(1880, 1138));
  await expect(h.bed.locator('.beside')).toHaveText(/px, worst|off the edge/);
  await expect(h.bed.locator('.marks .chained')).toHaveCount(0);
});
