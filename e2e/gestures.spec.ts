import { expect, test } from './test';
import { flatHex, type Point } from '@mirrot/core';
import { openDemo, openNew, zoomTo, type Hands } from './desk';

const viewOf = async (h: Hands): Promise<number[]> =>
  (await h.bed.getAttribute('data-view'))!.split(' ').map(Number);
const sheetAt = ([k, tx, ty]: number[], p: Point): Point => ({ x: (p.x - tx!) / k!, y: (p.y - ty!) / k! });

test('wheel, Ctrl+wheel, Space and the middle button move the view, nothing jumps', async ({ page }) => {
  const h = await openNew(page, 'View');
  const box = (await h.bed.boundingBox())!;
  const at = { x: 300, y: 200 };
  await page.mouse.move(box.x + at.x, box.y + at.y);
  const first = await viewOf(h);
  const under = sheetAt(first, at);
  await page.keyboard.down('Control');
  for (let i = 0; i < 8; i++) await page.mouse.wheel(0, -60);
  await page.keyboard.up('Control');
  const near = await viewOf(h);
  expect(near[0]! / first[0]!).toBeGreaterThan(3);
  expect(sheetAt(near, at).x).toBeCloseTo(under.x, 6);
  expect(sheetAt(near, at).y).toBeCloseTo(under.y, 6);

  await page.mouse.wheel(0, 50);
  await expect.poll(async () => (await viewOf(h))[2]).toBeCloseTo(near[2]! - 50, 6);
  await page.keyboard.down('Shift');
  await page.mouse.wheel(0, 50);
  await page.keyboard.up('Shift');
  await expect.poll(async () => (await viewOf(h))[1]).toBeCloseTo(near[1]! - 50, 6);

  const before = await viewOf(h);
  await page.keyboard.down(' ');
  await page.mouse.down();
  await page.mouse.move(box.x + at.x + 40, box.y + at.y + 30, { steps: 3 });
  await page.mouse.up();
  await page.keyboard.up(' ');
  await page.mouse.down({ button: 'middle' });
  await page.mouse.move(box.x + at.x, box.y + at.y, { steps: 3 });
  await page.mouse.up({ button: 'middle' });
  (await viewOf(h)).forEach((v, i) => expect(v).toBeCloseTo(before[i]!, 6));
  expect(await h.shapes()).toHaveLength(0);

  await h.key('0');
  const fitted = await viewOf(h);
  expect(fitted).toEqual(first);
  await h.key('w');
  expect(await viewOf(h)).not.toEqual(fitted);

  // At rest the layers are drawn where they are: no transform is left.
  await expect
    .poll(() =>
      h.bed
        .locator('.moving')
        .first()
        .evaluate((e) => getComputedStyle(e).transform),
    )
    .toMatch(/^(none|matrix\(1, 0, 0, 1, 0, 0\))$/);
});

test('folding the columns keeps the middle of the bed where it was', async ({ page }) => {
  const h = await openNew(page, 'Columns');
  const box = (await h.bed.boundingBox())!;
  const middle = sheetAt(await viewOf(h), { x: box.width / 2, y: box.height / 2 });
  await h.key('u');
  await h.key('i');
  await expect.poll(async () => (await h.bed.boundingBox())!.width).toBeGreaterThan(box.width + 400);
  const wide = (await h.bed.boundingBox())!;
  const now = sheetAt(await viewOf(h), { x: wide.width / 2, y: wide.height / 2 });
  expect(now.x).toBeCloseTo(middle.x, 6);
  await h.click({ x: 50, y: 50 });
  await h.key('2');
  await h.click({ x: 50, y: 60 });
  await h.click({ x: 150, y: 60 });
  await h.key('Enter');
  expect((await h.shapes())[0]!.paths[0]!.anchors.map((a) => [Math.round(a.x), Math.round(a.y)])).toEqual([
    [50, 60],
    [150, 60],
  ]);
});

for (const zoom of [0.3, 1, 4])
  test(`drawing and shaping land where they were meant at ${zoom * 100} %`, async ({ page }) => {
    const h = await openNew(page, `Zoom ${zoom}`, { width: 400, height: 300, unit: 'px' });
    await zoomTo(h, zoom);
    // A triangle about the middle, 90 screen pixels to each side.
    const c = { x: 200, y: 150 };
    const s = (n: number): number => n / zoom;
    await h.key('2');
    await h.click({ x: c.x - s(90), y: c.y + s(60) });
    await h.drag({ x: c.x, y: c.y - s(60) }, { x: c.x + s(40), y: c.y - s(60) });
    await h.click({ x: c.x + s(90), y: c.y + s(60) });
    await h.click({ x: c.x - s(90) + s(5), y: c.y + s(60) });
    let [path] = (await h.shapes())[0]!.paths;
    expect(path!.closed).toBe(true);
    const near = (v: number, to: number): void => expect(Math.abs(v - to)).toBeLessThan(s(1));
    near(path!.anchors[0]!.x, c.x - s(90));
    near(path!.anchors[1]!.out!.x, s(40));
    // Pull the base down: it passes through the pointer.
    await h.key('3');
    await h.drag({ x: c.x, y: c.y + s(60) }, { x: c.x, y: c.y + s(80) });
    [path] = (await h.shapes())[0]!.paths;
    near(path!.anchors[2]!.y + 0.75 * path!.anchors[2]!.out!.y, c.y + s(80));
    // Undo and redo, one step a gesture.
    await h.key('Control+z');
    expect((await h.shapes())[0]!.paths[0]!.anchors[2]!.out).toBeNull();
    await h.key('Control+y');
    expect((await h.shapes())[0]!.paths[0]!.anchors[2]!.out).not.toBeNull();
    // Arrow keys nudge the chosen anchor by a screen pixel.
    await h.click({ x: c.x - s(90), y: c.y + s(60) });
    await h.key('ArrowRight');
    near((await h.shapes())[0]!.paths[0]!.anchors[0]!.x, c.x - s(89));
  });

test('a click with the pointer on a button gives the keyboard back to the bed', async ({ page }) => {
  const h = await openNew(page, 'Focus');
  await h.key('2');
  await h.click({ x: 100, y: 100 });
  await h.click({ x: 300, y: 100 });
  await page.getByRole('button', { name: 'Carry' }).click();
  await expect(h.bed).toBeFocused();
  await h.key('Enter');
  expect((await h.shapes())[0]!.paths[0]!.closed).toBe(false);
  // Reached by keyboard, a control keeps Enter and arrows.
  await page.getByRole('slider', { name: 'Glass' }).focus();
  await h.key('ArrowRight');
  await expect(page.getByRole('slider', { name: 'Glass' })).toHaveAttribute('aria-valuenow', '1');
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]!.x).toBeCloseTo(100, 0);
});

test('the finder runs a command by its words, the keys sheet lists keys, Esc closes them', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('open colour');
  await expect(page.getByRole('option').first()).toHaveAttribute('data-highlighted', '');
  await h.key('Enter');
  await expect(page.getByRole('button', { name: /^Colour/ })).toHaveAttribute('aria-current', 'step');
  await h.key('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('Peek: the bare picture');
  await h.key('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Colour/ })).toHaveAttribute('aria-current', 'step');
  // As soon as a hand can, before the dialog has heard of its keys: it is not left open behind what comes next.
  await h.key('?');
  await h.key('Escape');
  await h.key('Control+k');
  await expect(page.getByRole('dialog')).toHaveCount(1);
  await expect(page.getByRole('dialog', { name: 'Find a command' })).toBeVisible();
});

test('Glass, Peek, show and hide decide what is seen', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  const fills = h.bed.locator('.fills');
  const picture = h.bed.locator('image').first().locator('xpath=ancestor::*[@opacity][1]');
  await expect(picture).toHaveAttribute('opacity', '0');
  await page.getByRole('button', { name: 'Both' }).click();
  await expect(picture).toHaveAttribute('opacity', '1');
  await expect(fills).toHaveAttribute('opacity', '1');
  await page.keyboard.down('q');
  await expect(fills).toBeHidden();
  await page.keyboard.up('q');
  await expect(fills).toBeVisible();
  await page.keyboard.down('Shift');
  await page.keyboard.down('Q');
  await expect(picture).toHaveAttribute('opacity', '0');
  await page.keyboard.up('Q');
  await page.keyboard.up('Shift');
  await h.key('g');
  await expect(picture).toHaveAttribute('opacity', '0');
  const leaf = h.bed.locator('[data-part=right-leaf]');
  await page.getByRole('button', { name: 'Hide Right leaf' }).click();
  await expect(leaf).toHaveCount(0);
  await h.key('Control+z');
  await expect(leaf).toHaveCount(1);
});

test('a colour is typed, kept as a chip, given to strokes, and wrong ones are refused', async ({ page }) => {
  const h = await openNew(page, 'Colours');
  await h.key('2');
  for (const [x, y] of [
    [100, 100],
    [300, 100],
    [200, 250],
  ] as const)
    await h.click({ x, y });
  await h.click({ x: 100, y: 100 });
  await h.key('4');
  await page.getByLabel('hex').fill('2F6B4F');
  await page.getByLabel('hex').press('Enter');
  await page.getByRole('button', { name: 'Keep as a chip' }).click();
  await page.getByLabel('hex').fill('leaf');
  await page.getByLabel('hex').press('Enter');
  await expect(page.getByRole('alert')).toContainText('is not a colour');
  await page.getByText('stroke', { exact: true }).click();
  await page.getByRole('button', { name: /#2F6B4F, 1 in use/ }).click();
  await page.getByLabel('weight').fill('5');
  await page.getByLabel('weight').press('Enter');
  let [shape] = await h.shapes();
  // Both take their colour from the chip.
  const [chip] = (await h.art()).chips;
  expect(chip!.hex).toBe('#2f6b4f');
  expect(shape).toMatchObject({ fill: { chip: chip!.id }, stroke: { paint: { chip: chip!.id }, width: 5 } });
  await page.getByText('fill', { exact: true }).click();
  await page.getByText('none', { exact: true }).first().click();
  await page.getByText('stroke', { exact: true }).click();
  await page.getByRole('slider', { name: 'Lightness' }).focus();
  await h.key('ArrowRight');
  [shape] = await h.shapes();
  expect(shape!.fill).toBeNull();
  expect(flatHex(shape!.stroke!.paint, new Map())).not.toBe('#2f6b4f');
  expect(shape!.stroke!.paint).toHaveProperty('hex');
});

test('corners first, curve later: F makes a rough path flow, its sharp corner stays', async ({ page }) => {
  const h = await openNew(page, 'Fern');
  await h.key('2');
  for (const [x, y] of [[80, 300], [160, 220], [250, 190], [340, 220], [340, 420], [440, 470], [560, 440]] as const) await h.click({ x, y }); // prettier-ignore
  await h.key('Enter');
  await h.key('f');
  await expect(page.getByText('4 more anchors flow.')).toBeVisible();
  const [path] = (await h.shapes())[0]!.paths;
  expect(path!.anchors.map((a) => a.kind[0]).join('')).toBe('cffcffc');
  await page.getByText('Flowing clicks').click();
  await h.drag({ x: 600, y: 100 }, { x: 600, y: 100 });
  await h.click({ x: 680, y: 160 });
  await h.click({ x: 740, y: 80 });
  await h.key('Escape');
  expect((await h.shapes())[1]!.paths[0]!.anchors.map((a) => a.kind)).toEqual([
    'flowing',
    'flowing',
    'flowing',
  ]);
  // Dragging one in Refine bends its neighbours along.
  await h.key('3');
  const before = (await h.shapes())[0]!.paths[0]!.anchors[2]!;
  await h.drag({ x: 160, y: 220 }, { x: 150, y: 160 });
  const after = (await h.shapes())[0]!.paths[0]!.anchors[2]!;
  expect(after.in).not.toEqual(before.in);
  expect(after.kind).toBe('flowing');
});
