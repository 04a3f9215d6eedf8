import { expect, test } from './test';
import type { PlacedPicture, Point } from '@mirrot/core';
import { BADGE_CORNERS } from '../demo/scene';
import { openDemo, startFromShipped, URL, type Hands } from './desk';

const picture = async (h: Hands): Promise<PlacedPicture> => (await h.art()).pictures[0]!;
/** A point of the picture's own pixels on the sheet, while it is not squared up. */
const onSheet = (p: PlacedPicture, { x, y }: Point): Point => ({
  x: p.placement[0] * x + p.placement[2] * y + p.placement[4],
  y: p.placement[1] * x + p.placement[3] * y + p.placement[5],
});
const degrees = (p: PlacedPicture): number => (Math.atan2(p.placement[1], p.placement[0]) * 180) / Math.PI;
const taken = (page: Hands['page']) => page.getByRole('button', { name: /^Take Enter/ });

test('a picture is levelled by its strongest edges, and by a line drawn over it', async ({ page }) => {
  const h = await openDemo(page, 'Gate badge');
  const before = (await h.shapes())[0]!.paths[0]!.anchors[0]!;
  await page.getByRole('button', { name: 'Level', exact: true }).click();
  // The boards were hung 1.2° off level: see demo/originals/gate-badge.ts.
  await expect(page.getByText(/^Turn by 1\.[123]°/)).toBeVisible();
  await h.key('Enter');
  expect(Math.abs(degrees(await picture(h)) - 1.2)).toBeLessThan(0.1);
  // What was traced on it went along, and one undo brings all back.
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]!.x).not.toBe(before.x);
  await h.key('Control+z');
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]).toEqual(before);

  await page.getByRole('button', { name: 'Level', exact: true }).click();
  const p = await picture(h);
  await h.click(onSheet(p, { x: 400, y: 600 }));
  await expect(page.getByRole('alert')).toContainText('too short to level by');
  await h.drag(onSheet(p, { x: 400, y: 600 }), onSheet(p, { x: 1400, y: 650 }));
  expect(Math.abs(degrees(await picture(h)) + (Math.atan2(50, 1000) * 180) / Math.PI)).toBeLessThan(0.15);
  await h.key('Control+z');
});

test('a picture is seen straight on, and what was traced goes along', async ({ page }) => {
  const h = await openDemo(page, 'Gate badge');
  await page.getByRole('button', { name: 'Square up' }).click();
  const dialog = page.getByRole('dialog', { name: 'Square up' });
  const spots = dialog.getByRole('group', { name: 'The picture as it was taken' });
  await expect(spots.getByRole('button')).toHaveCount(4);
  const frame = (await spots.locator('.frame').boundingBox())!;
  const k = frame.width / 2000;
  const [a] = (await spots.getByRole('button').allTextContents()) as [string];
  expect(a).toBe('1');
  for (const [i, c] of BADGE_CORNERS.entries()) {
    const label = (await spots.getByRole('button').nth(i).getAttribute('aria-label'))!;
    const [x, y] = /: (-?\d+), (-?\d+)$/.exec(label)!.slice(1).map(Number) as [number, number];
    await page.mouse.move(frame.x + x * k, frame.y + y * k);
    await page.mouse.down();
    await page.mouse.move(frame.x + c.x * k, frame.y + c.y * k, { steps: 3 });
    await page.mouse.up();
  }
  await dialog.getByText('circle', { exact: true }).click();
  await dialog.getByRole('button', { name: 'See it straight on' }).click();
  await expect(page.getByText(/seen straight on.*6 shapes went along, 0\.\d+ px off at most/)).toBeVisible();
  const { square } = await picture(h);
  square!.corners.forEach((c, i) =>
    expect(Math.hypot(c.x - BADGE_CORNERS[i]!.x, c.y - BADGE_CORNERS[i]!.y)).toBeLessThan(3),
  );
  expect(square!.width).toBe(square!.height);
  // The plate is a circle again.
  const plate = (await h.shapes()).find((s) => s.name === 'Plate')!.paths[0]!.anchors;
  const [e, s, w, n] = plate as unknown as [Point, Point, Point, Point];
  expect(Math.abs((e.x - w.x) / (s.y - n.y) - 1)).toBeLessThan(0.01);
  // Its pixels are shown from the worker, and sampled straight.
  await expect(h.bed.locator('image').first()).toHaveAttribute('href', /^blob:/);
  // Corners that fold over are refused in words, and nothing can be taken.
  await page.getByRole('button', { name: 'Square up', exact: true }).click();
  await spots.getByRole('button').first().focus();
  for (let i = 0; i < 120; i++) await page.keyboard.press('Shift+ArrowRight');
  await expect(dialog.getByRole('alert')).toContainText('fold over themselves');
  await expect(dialog.getByRole('button', { name: 'See it straight on' })).toBeDisabled();
  await h.key('Escape');
  // The file holds the straight picture when asked for it.
  const id = page.url().split('/').at(-1)!;
  const svg = await (await page.request.get(`${URL()}/api/projects/${id}/export.svg?picture=1`)).text();
  expect(svg).toContain(`width="${square!.width}" height="${square!.height}"`);
  await h.key('Control+z');
  expect((await picture(h)).square).toBeNull();
});

test('crop, real size, origin and numbers place a picture; each is one step', async ({ page }) => {
  const h = await startFromShipped(page, 'Watering can', 'Placing');
  let p = await picture(h);
  await page.getByRole('button', { name: 'Crop' }).click();
  await h.drag(onSheet(p, { x: 2400, y: 1800 }), onSheet(p, { x: 1200, y: 900 }));
  await taken(page).click();
  p = await picture(h);
  expect(p.crop!.x1).toBeGreaterThan(1190);
  expect(p.crop!.x1).toBeLessThan(1210);
  await expect(h.bed.locator('clipPath rect')).toHaveCount(1);
  await h.key('Control+z');

  await page.getByRole('button', { name: 'Real size' }).click();
  await h.drag(onSheet(p, { x: 400, y: 900 }), onSheet(p, { x: 1400, y: 900 }));
  const dialog = page.getByRole('dialog', { name: 'Real size' });
  await dialog.getByLabel('Real length').fill('0');
  await dialog.getByRole('button', { name: 'Scale the picture' }).click();
  await expect(dialog.getByRole('alert')).toContainText('above 0. Nothing was changed.');
  await dialog.getByLabel('Real length').fill('50,8');
  await dialog.getByRole('button', { name: 'Scale the picture' }).click();
  p = await picture(h);
  expect(Math.abs(p.placement[0] * 1000 - 192)).toBeLessThan(0.6);
  await expect(page.getByRole('button', { name: /^Mount/ })).toContainText('500 ppi');

  await page.getByRole('button', { name: 'Origin' }).click();
  await h.click(onSheet(p, { x: 1200, y: 900 }));
  const { sheet } = await h.art();
  p = await picture(h);
  const at = onSheet(p, { x: 1200, y: 900 });
  expect(Math.hypot(at.x - sheet.width / 2, at.y - sheet.height / 2)).toBeLessThan(1);

  await page.getByLabel('Width of the picture').fill('100');
  await page.getByLabel('Width of the picture').press('Enter');
  await page.getByLabel('Turn of the picture').fill('30');
  await page.getByLabel('Turn of the picture').press('Enter');
  // A turn moves where it lies: the number there is written over once it is the new one.
  await expect.poll(async () => degrees(await picture(h))).toBeCloseTo(30, 6);
  // A field without the keyboard shows and says what has become of its number.
  const x = String(Number((((await picture(h)).placement[4] * 25.4) / 96).toFixed(2)));
  await expect(page.getByLabel('Picture x')).toHaveValue(x);
  await expect(page.getByLabel('Picture x')).toHaveAttribute('aria-valuenow', x);
  await page.getByLabel('Picture x').fill('5');
  await page.getByLabel('Picture x').press('Enter');
  p = await picture(h);
  expect(degrees(p)).toBeCloseTo(30, 6);
  expect(Math.hypot(p.placement[0], p.placement[1]) * 2400).toBeCloseTo((100 * 96) / 25.4, 3);
  expect(p.placement[4]).toBeCloseTo((5 * 96) / 25.4, 3);
  for (const command of ['fill the', 'actual', 'flip across', 'quarter']) {
    await h.key('Control+k');
    await page.getByRole('combobox', { name: 'Command' }).fill(command);
    await expect(page.getByRole('option').first()).toHaveAttribute('data-highlighted', '');
    await h.key('Enter');
  }
  p = await picture(h);
  expect(
    96 / Math.sqrt(Math.abs(p.placement[0] * p.placement[3] - p.placement[1] * p.placement[2])),
  ).toBeCloseTo(300, 6);
  expect(p.placement[0] * p.placement[3] - p.placement[1] * p.placement[2]).toBeLessThan(0);
});

test('the picture is seen by tones, edges, lines and greys; the file and samples are not', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  const image = h.bed.locator('image').first();
  const plain = await image.getAttribute('href');
  for (const view of ['grey', 'tones', 'edges', 'lines']) {
    const before = await image.getAttribute('href');
    await page.getByText(view, { exact: true }).click();
    await expect.poll(() => image.getAttribute('href')).not.toBe(before);
  }
  await page.getByText('tones', { exact: true }).click();
  await expect(page.getByRole('slider', { name: 'Boundary 3' })).toBeVisible();
  const href = await image.getAttribute('href');
  await page.getByRole('slider', { name: 'Boundary 2' }).focus();
  await h.key('ArrowRight');
  await expect.poll(() => image.getAttribute('href')).not.toBe(href);
  expect((await picture(h)).tones.bounds).toHaveLength(3);
  // A sample is the picture's own colour, whatever it is seen by.
  await h.move(onSheet(await picture(h), { x: 1160, y: 1100 }));
  await expect(page.getByLabel('Loupe')).toContainText(/#[0-9A-F]{6}/);
  expect(await page.getByLabel('Loupe').textContent()).not.toMatch(/#(..)\1\1/);
  await page.getByText('plain', { exact: true }).click();
  await expect(image).toHaveAttribute('href', plain!);
  // Two undo steps a choice at most: each is one.
  await h.key('Control+z');
  await expect(page.getByRole('slider', { name: 'Boundary 3' })).toBeVisible();
  await page.getByText('plain', { exact: true }).click();
});

test('the sheet takes sizes by name, a ground, and the drawing’s own size', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  const first = (await h.shapes())[0]!.paths[0]!.anchors[0]!;
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Sheet' });
  await dialog.getByLabel('Size by name').selectOption('A5');
  // Source: ISO 216.
  await expect(dialog.getByLabel('Width of the sheet')).toHaveValue('148');
  await expect(dialog.getByLabel('Height of the sheet')).toHaveValue('210');
  await dialog.getByText('Coloured ground').click();
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]).toEqual(first);
  expect((await h.art()).sheet.ground).toMatch(/^#/);
  await dialog.getByLabel('Margin round the drawing').fill('3');
  await dialog.getByLabel('Margin round the drawing').press('Enter');
  await dialog.getByRole('button', { name: 'Sheet to the drawing' }).click();
  const shapes = await h.shapes();
  const xs = shapes.flatMap((s) => s.paths.flatMap((p) => p.anchors.map((a) => a.x)));
  expect(Math.min(...xs)).toBeGreaterThan((3 * 96) / 25.4 - 1);
  expect(Math.min(...xs)).toBeLessThan((3 * 96) / 25.4 + 30);
  await h.key('Escape');
  for (let i = 0; i < 3; i++) await h.key('Control+z');
  expect((await h.shapes())[0]!.paths[0]!.anchors[0]).toEqual(first);
});

test('guides are pulled out of the rulers, moved, and pushed back', async ({ page }) => {
  const h = await startFromShipped(page, 'Gate badge', 'Guides');
  const box = (await h.bed.boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 300, box.y + 200, { steps: 4 });
  await page.mouse.up();
  const [k, , ty] = (await h.bed.getAttribute('data-view'))!.split(' ').map(Number) as [
    number,
    number,
    number,
  ];
  let { lines } = (await h.art()).guides;
  expect(lines).toMatchObject([{ angle: 0 }]);
  expect(lines[0]!.y).toBeCloseTo((200 - ty) / k, 3);
  await page.mouse.move(box.x + 500, box.y + 201);
  await page.mouse.down();
  await page.mouse.move(box.x + 500, box.y + 261, { steps: 4 });
  await page.mouse.up();
  ({ lines } = (await h.art()).guides);
  expect(lines[0]!.y).toBeCloseTo((260 - ty) / k, 3);
  await page.mouse.move(box.x + 500, box.y + 260);
  await page.mouse.down();
  await page.mouse.move(box.x + 500, box.y + 5, { steps: 4 });
  await page.mouse.up();
  expect((await h.art()).guides.lines).toEqual([]);
});

test('a better picture takes the old one’s place by three points; the drawing stays', async ({ page }) => {
  const h = await startFromShipped(page, 'Watering can', 'Swapping');
  const before = await picture(h);
  await page.getByRole('button', { name: 'Swap', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Swap the picture' });
  const choosing = page.waitForEvent('filechooser');
  await dialog.getByRole('button', { name: 'Choose the new picture' }).click();
  await (await choosing).setFiles('demo/pictures/watering-can.jpg');
  await expect(dialog.getByRole('group', { name: 'The new picture' })).toBeVisible();
  // The same picture with its points on the same spots: it must come to lie exactly where the old one lay.
  await dialog.getByRole('button', { name: 'Swap', exact: true }).click();
  const after = await picture(h);
  expect(after.source).not.toBe(before.source);
  after.placement.forEach((v, i) => expect(v).toBeCloseTo(before.placement[i]!, 6));
  expect((await h.art()).pictures).toHaveLength(1);
  // And a version twice as large lies where it lay.
  await h.key('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('twice as large');
  await expect(page.getByRole('option').first()).toHaveAttribute('data-highlighted', '');
  await h.key('Enter');
  await expect(page.getByText('4800 × 3600 px now')).toBeVisible({ timeout: 30_000 });
  const large = await picture(h);
  expect(large.placement[0] * 4800).toBeCloseTo(before.placement[0] * 2400, 6);
});

test('the stand-ins take a scan and a phone photo to practise on', async ({ page }) => {
  await page.goto(URL());
  for (const [button, name] of [
    ['Scan of Gate badge', 'Gate badge scan'],
    ['Phone photo of Gate badge', 'Gate badge photo'],
  ] as const) {
    await page.getByRole('button', { name: button }).click();
    const dialog = page.getByRole('dialog', { name: 'New project' });
    await expect(dialog.getByLabel('name')).toHaveValue(name, { timeout: 20_000 });
    await dialog.getByRole('button', { name: 'Leave it' }).click();
    await expect(dialog).toHaveCount(0);
  }
});

test('where it comes from is kept with the picture', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await page.getByText('Where it comes from').click();
  await expect(page.getByLabel('author')).toHaveValue('Quillmere Seed Room');
  await page.getByLabel('licence').fill('CC BY 4.0');
  await page.getByLabel('licence').press('Tab');
  expect((await picture(h)).credit.licence).toBe('CC BY 4.0');
  await h.bed.focus();
  await h.key('Control+z');
});
