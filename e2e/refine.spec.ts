import type { Page } from '@playwright/test';
import { expect, test } from './test';
import { openDemo, openNew, zoomTo, type Hands } from './desk';

async function drawn(page: Page, name: string): Promise<Hands> {
  const h = await openNew(page, name, { width: 400, height: 300, unit: 'px' });
  await h.key('2');
  for (const [x, y] of [
    [100, 100],
    [200, 100],
    [200, 200],
    [100, 200],
    [100, 100],
  ] as const) {
    await h.click({ x, y });
    await page.waitForTimeout(320);
  }
  await h.key('3');
  return h;
}
const spots = async (h: Hands, shape = 0, path = 0): Promise<number[][]> =>
  (await h.shapes())[shape]!.paths[path]!.anchors.map((a) => [Math.round(a.x), Math.round(a.y)]);

test('a path is cut, its ends joined again, neighbours merged, each one undo', async ({ page }) => {
  const h = await drawn(page, 'Cut');
  await h.click({ x: 200, y: 200 });
  await page.getByRole('button', { name: 'Cut here' }).click();
  expect((await h.shapes())[0]!.paths[0]!.closed).toBe(false);
  await h.key('Control+a');
  await page.getByRole('button', { name: 'Reverse' }).click();
  await h.key('n');
  expect(await spots(h)).toHaveLength(5);
  for (let i = 0; i < 2; i++) await h.key('Control+z');
  expect((await h.shapes())[0]!.paths[0]!.closed).toBe(true);
  await h.click({ x: 100, y: 100 });
  await page.keyboard.down('Shift');
  await h.click({ x: 200, y: 100 });
  await page.keyboard.up('Shift');
  await page.getByRole('button', { name: 'Merge' }).click();
  expect(await spots(h)).toEqual([
    [150, 100],
    [200, 200],
    [100, 200],
  ]);
  // The list of steps says what was done, and goes back along it.
  await page.locator('summary', { hasText: 'Steps' }).click();
  await page.getByRole('button', { name: 'Close the path' }).click();
  expect(await spots(h)).toHaveLength(4);
  await page.getByRole('button', { name: 'Merge the anchors', exact: true }).click();
  expect(await spots(h)).toHaveLength(3);
});

for (const zoom of [0.25, 1, 16])
  test(`arrow keys nudge by a screen pixel at ${zoom * 100} %, in a row as one step`, async ({ page }) => {
    const h = await drawn(page, `Nudge ${zoom}`);
    await h.key('v');
    await h.key('n');
    await zoomTo(h, zoom);
    for (let i = 0; i < 4; i++) await h.key('ArrowRight');
    await h.key('Shift+ArrowDown');
    await h.key('Alt+ArrowUp');
    const a = (await h.shapes())[0]!.paths[0]!.anchors[0]!;
    expect(a.x).toBeCloseTo(100 + 4 / zoom, 1);
    expect(a.y).toBeCloseTo(100 + 9.9 / zoom, 1);
    await h.key('Control+z');
    expect(await spots(h)).toEqual([
      [100, 100],
      [200, 100],
      [200, 200],
      [100, 200],
    ]);
  });

test('shapes are placed, sized and turned by numbers about a point of their box', async ({ page }) => {
  const h = await drawn(page, 'Numbers');
  await h.click({ x: 150, y: 150 });
  await page.getByRole('radio', { name: 'top left', exact: true }).click();
  await page.getByLabel('Shape x').fill('50');
  await page.getByLabel('Shape x').press('Enter');
  await page.getByLabel('Shape width').fill('60');
  await page.getByLabel('Shape width').press('Enter');
  expect(await spots(h)).toEqual([
    [50, 100],
    [110, 100],
    [110, 200],
    [50, 200],
  ]);
  await page.getByText('In proportion').click();
  await page.getByLabel('Shape height').fill('50');
  await page.getByLabel('Shape height').press('Enter');
  expect(await spots(h)).toEqual([
    [50, 100],
    [80, 100],
    [80, 150],
    [50, 150],
  ]);
  // Arrows step, ten times as far with Shift; in a row they are one undo. A comma is a decimal sign too.
  const x = page.getByRole('spinbutton', { name: 'Shape x' });
  await x.focus();
  for (const key of ['ArrowUp', 'ArrowUp', 'Shift+ArrowDown']) await x.press(key);
  await expect(x).toHaveValue('42');
  expect((await spots(h))[0]).toEqual([42, 100]);
  await h.bed.focus();
  await h.key('Control+z');
  expect((await spots(h))[0]).toEqual([50, 100]);
  // Undone in the field too: what is typed while it changes would be joined to it.
  await expect(x).toHaveValue('50');
  await x.fill('12,5');
  await x.press('Enter');
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]!.x).toBeCloseTo(12.5, 9);
  await h.key('Control+z');
  await page.getByLabel('turn by').fill('90');
  await page.getByLabel('turn by').press('Enter');
  expect(await spots(h)).toEqual([
    [50, 100],
    [50, 130],
    [0, 130],
    [0, 100],
  ]);
});

test('the right button lists what lies at a spot by its thumbnail; keys and drags choose and order there; haze fills what is shaped', async ({
  page,
}) => {
  const h = await openDemo(page, 'Gate badge');
  await h.key('3');
  const box = (await h.bed.locator('.sheet').boundingBox())!;
  await page.mouse.click(box.x + box.width * 0.497, box.y + box.height * 0.47, { button: 'right' });
  const list = page.getByRole('list', { name: 'What lies here, topmost first' });
  await expect(list).toBeVisible();
  const names = await list.locator('.choose').allTextContents();
  expect(names.map((n) => n.trim())).toEqual(['Sun', 'Field', 'Plate']);
  await expect(list.locator('.choose').first()).toBeFocused();
  const order = async (): Promise<string> => (await list.locator('.choose').allTextContents()).join(' ');
  await h.key('Control+ArrowDown');
  await expect.poll(order).toBe('Field Sun Plate');
  await expect(list.getByRole('button', { name: 'Sun', exact: true })).toBeFocused();
  await list
    .getByRole('button', { name: 'Sun', exact: true })
    .dragTo(list.locator('li').first(), { targetPosition: { x: 60, y: 3 } });
  await expect.poll(order).toBe('Sun Field Plate');
  await list.locator('.choose').first().focus();
  await h.key('ArrowDown');
  await h.key('Enter');
  await expect(list).toHaveCount(0);
  await expect(page.locator('#bed-says')).toHaveText('Field');
  await h.key('z');
  await expect(h.bed.locator('.haze')).toHaveCount(1);
  await h.key('z');
  await expect(h.bed.locator('.haze')).toHaveCount(0);
});

test('a handle is turned and stretched by numbers, mirrored across, measured while dragged; bends show as a comb', async ({
  page,
}) => {
  const h = await openNew(page, 'Handles', { width: 400, height: 300, unit: 'px' });
  await h.key('2');
  await h.click({ x: 80, y: 200 });
  await h.drag({ x: 200, y: 100 }, { x: 260, y: 100 });
  await page.waitForTimeout(320);
  await h.click({ x: 320, y: 200 });
  await h.key('Enter');
  await h.key('3');
  await h.click({ x: 200, y: 100 });
  await expect(page.locator('#bed-says')).toHaveText(/^anchor 2 of 3, smooth, x 200\.0 px, y 100\.0 px$/);
  const from = await h.onPage({ x: 260, y: 100 });
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  const to = await h.onPage({ x: 260, y: 40 });
  await page.mouse.move(to.x, to.y, { steps: 3 });
  await expect(page.getByText(/^84\.\d px, 45\.0°$/)).toBeVisible();
  await page.mouse.up();
  await page.getByLabel('Length of the handle').fill('50');
  await page.getByLabel('Length of the handle').press('Enter');
  await page.getByLabel('Angle of the handle').fill('0');
  await page.getByLabel('Angle of the handle').press('Enter');
  const middle = async () => (await h.shapes())[0]!.paths[0]!.anchors[1]!;
  expect((await middle()).out!.x).toBeCloseTo(50, 6);
  expect((await middle()).out!.y).toBeCloseTo(0, 6);
  expect((await middle()).in!.x).toBeCloseTo(-60, 0);
  await page.getByRole('button', { name: 'Mirror across' }).click();
  expect((await middle()).in!.x).toBeCloseTo(-50, 6);
  await page.getByText('Curvature comb').click();
  await expect(h.bed.locator('.comb')).toHaveCount(1);
});

test('a crowded outline is thinned out: offered with figures, followed by the slider, taken, one undo', async ({
  page,
}) => {
  const h = await openNew(page, 'Crowd', { width: 400, height: 300, unit: 'px' });
  await page.getByRole('button', { name: 'Block in' }).click();
  await page.getByText('ellipse', { exact: true }).click();
  await h.drag({ x: 80, y: 60 }, { x: 320, y: 240 });
  await h.key('3');
  await h.click({ x: 200, y: 60 });
  await h.key('Control+a');
  await page.getByRole('button', { name: 'Add three evenly' }).click();
  await h.key('Control+a');
  await page.getByRole('button', { name: 'Add three evenly' }).click();
  const anchors = async (): Promise<number> => (await h.shapes())[0]!.paths[0]!.anchors.length;
  expect(await anchors()).toBe(64);
  await h.key('x');
  const offer = page.getByText(/^Thin out: 64 → \d+ anchors, \d\.\d\d px off at worst/);
  await expect(offer).toBeVisible({ timeout: 15_000 });
  await expect(h.bed.locator('.spare').first()).toBeVisible();
  const first = (await offer.textContent())!;
  await page.getByRole('slider', { name: 'Thin out within' }).focus();
  for (let i = 0; i < 12; i++) await h.key('ArrowRight');
  await expect(offer).not.toHaveText(first);
  await h.bed.focus();
  await h.key('Enter');
  const left = await anchors();
  expect(left).toBeLessThanOrEqual(5);
  await h.key('Control+z');
  expect(await anchors()).toBe(64);
});
