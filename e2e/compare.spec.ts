import { differenceCiede2000 } from 'culori';
import sharp, { type Sharp } from 'sharp';
import { openDemo, URL } from './desk';
import { expect, test } from './test';

test.use({ hasTouch: true });

test('picture and drawing lie side by side and move as one: by mouse, keys and touch', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await page.getByText('Side by side', { exact: true }).click();
  const halves = page.locator('.bed .half');
  await expect(halves).toHaveCount(2);
  await expect(page.getByText('the picture', { exact: true }).first()).toBeVisible();
  const bed = (await h.bed.boundingBox())!;
  const boxes = async () => Promise.all([0, 1].map(async (i) => (await halves.nth(i).boundingBox())!));
  for (const { width, height } of await boxes()) {
    expect(width).toBeCloseTo(bed.width / 2, 0);
    expect(height).toBeCloseTo(bed.height, 0);
  }
  // Where the picture and the drawing's sheet lie within their halves.
  const places = (): Promise<number[][]> =>
    page.evaluate(() =>
      [...document.querySelectorAll('.bed .half')].map((half) => {
        const a = half.getBoundingClientRect();
        const b = half.querySelector('.sheet')!.getBoundingClientRect();
        return [b.x - a.x, b.y - a.y, b.width].map((v) => Math.round(10 * v) / 10);
      }),
    );
  const asOne = async (before: number[][]): Promise<void> => {
    await expect.poll(async () => JSON.stringify(await places())).not.toBe(JSON.stringify(before));
    await expect.poll(async () => { const [a, b] = await places(); return Math.max(...a!.map((v, i) => Math.abs(v - b![i]!))); }).toBeLessThan(0.3); // prettier-ignore
  };
  // The wheel in either half zooms both about the same place of the sheet; the pointer is seen in both.
  for (const side of [0.2, 0.8]) {
    const before = await places();
    await page.mouse.move(bed.x + side * bed.width, bed.y + 0.4 * bed.height);
    await page.keyboard.down('Control');
    await page.mouse.wheel(0, -200);
    await page.keyboard.up('Control');
    await asOne(before);
    const pointer = (await page.locator('.half svg:not(.labels) .halo').locator('..').boundingBox())!;
    const wanted = bed.x + ((side + 0.5) % 1) * bed.width;
    expect(Math.abs(pointer.x - wanted)).toBeLessThan(12);
  }
  // By keys.
  await h.bed.focus();
  let before = await places();
  await h.key('-');
  await asOne(before);
  // By two fingers that begin in the second half.
  before = await places();
  const client = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', ...xs: number[]) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: xs.map((x, id) => ({ x: bed.x + x * bed.width, y: bed.y + 0.5 * bed.height, id, radiusX: 5, radiusY: 5 })) }); // prettier-ignore
  const under = async (x: number): Promise<number> => { const [scale, tx] = (await h.bed.getAttribute('data-view'))!.split(' ').map(Number); return ((x - 0.5) * bed.width - tx!) / scale!; }; // prettier-ignore
  const pinched = await under(0.75);
  await touch('touchStart', 0.7);
  await touch('touchStart', 0.7, 0.8);
  await touch('touchMove', 0.62, 0.9);
  await touch('touchEnd');
  await asOne(before);
  // What lay between the fingers lies there still.
  expect(Math.abs((await under(0.76)) - pinched)).toBeLessThan(3);
  // The other way round, and one above the other; a kept copy in the picture's place.
  const leftOf = async (text: string): Promise<number> => (await page.locator('.half').getByText(text, { exact: true }).boundingBox())!.x; // prettier-ignore
  expect(await leftOf('the picture')).toBeLessThan(await leftOf('the drawing'));
  await page.getByRole('button', { name: 'The other way round' }).click();
  await expect.poll(async () => (await leftOf('the picture')) > (await leftOf('the drawing'))).toBe(true);
  await page.getByText('one above the other').click();
  await expect.poll(async () => (await halves.first().boundingBox())!.height).toBeCloseTo(bed.height / 2, 0);
  // What is chosen in the one is chosen: a press means the same place in both.
  await h.key('0');
  const [first, second] = await boxes();
  const can = await h.onPage({ x: 0.5 * (await h.art()).sheet.width, y: 0.6 * (await h.art()).sheet.height });
  await page.mouse.click(can.x, can.y - first!.y + second!.y);
  await expect(page.locator('#bed-says')).not.toHaveText('nothing chosen');
  await page.getByText('Side by side', { exact: true }).click();
  await expect(halves).toHaveCount(1);
});

test('the wipe is dragged and turned by a finger', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await page.getByText('Wipe', { exact: true }).click();
  const tab = page.getByRole('slider', { name: 'Wipe' });
  const client = await page.context().newCDPSession(page);
  const drag = async (from: { x: number; y: number }, dx: number, dy: number): Promise<void> => {
    const at = (k: number) => [{ x: from.x + k * dx, y: from.y + k * dy, id: 1, radiusX: 5, radiusY: 5 }];
    await client.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) });
    for (const k of [0.3, 0.7, 1]) await client.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(k) }); // prettier-ignore
    await client.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  };
  const middleOf = ({ x, y, width, height }: { x: number; y: number; width: number; height: number }) => ({ x: x + width / 2, y: y + height / 2 }); // prettier-ignore
  const before = middleOf((await tab.boundingBox())!);
  await drag(before, -120, 0);
  await expect.poll(async () => Math.round(middleOf((await tab.boundingBox())!).x - before.x)).toBe(-120);
  const angle = await tab.getAttribute('aria-valuenow');
  await drag(middleOf((await page.locator('.wipe .knob').boundingBox())!), 140, -60);
  await expect(tab).not.toHaveAttribute('aria-valuenow', angle!);
  await expect(page.getByText('all changes kept')).toBeVisible();
});

test('the difference is that of the drawing’s file and the picture, and any view is written as an image', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await page.getByText('Difference', { exact: true }).click();
  const figures = page.locator('dl[aria-label="Difference"]');
  await expect(figures).toBeVisible();
  const shown = (await figures.locator('dd').allTextContents()).map((text) =>
    Number(/[\d.]+/.exec(text)![0]),
  );

  // Source outside: the PNG and the picture as they lie on the server, compared with culori.
  const { sheet, pictures } = await h.art();
  const project = page.url().split('/').at(-1)!;
  const [width, height] = [900, Math.round((900 * sheet.height) / sheet.width)];
  const get = async (path: string): Promise<Buffer> => (await page.request.get(`${URL()}${path}`)).body();
  const raw = (image: Sharp): Promise<Buffer> => image.ensureAlpha().raw().toBuffer();
  const drawn = await raw(sharp(await get(`/api/projects/${project}/export.png?ppi=${(96 * 900) / sheet.width}`)).resize(width, height, { fit: 'fill' })); // prettier-ignore
  const [picture] = pictures;
  const [a, b, c, d, e, f] = picture!.placement;
  expect([b, c]).toEqual([0, 0]);
  const k = 900 / sheet.width;
  const laid = { width: Math.round(k * a * picture!.width), height: Math.round(k * d * picture!.height) };
  const resized = await raw(sharp(await get(`/api/pictures/${picture!.source}?size=full`)).resize(laid.width, laid.height, { fit: 'fill' })); // prettier-ignore
  const deltaE = differenceCiede2000();
  const colour = (data: Buffer, i: number) => ({ mode: 'rgb' as const, r: data[i]! / 255, g: data[i + 1]! / 255, b: data[i + 2]! / 255 }); // prettier-ignore
  let [sum, count, beyond] = [0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [px, py] = [x - Math.round(k * e), y - Math.round(k * f)];
      if (drawn[4 * (y * width + x) + 3]! < 250 || px < 0 || py < 0 || px >= laid.width || py >= laid.height)
        continue;
      const far = deltaE(colour(drawn, 4 * (y * width + x)), colour(resized, 4 * (py * laid.width + px)));
      sum += far;
      count++;
      if (far > 5) beyond++;
    }
  // Browser and sharp make pictures smaller each in their way.
  expect(Math.abs(shown[0]! - sum / count)).toBeLessThan(0.15);
  expect(Math.abs(shown[1]! - (100 * beyond) / count)).toBeLessThan(1.5);
  expect(Math.abs(shown[2]! - (100 * count) / (width * height))).toBeLessThan(0.3);

  // Written, the view shows the map: the middle of the can is neither paper nor desk.
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the view' }).click();
  const file = await (await download).path();
  const bed = (await h.bed.boundingBox())!;
  const image = sharp(file);
  const meta = await image.metadata();
  expect([meta.width, meta.height]).toEqual([Math.round(2 * bed.width), Math.round(2 * bed.height)]);
  const at = await h.onPage({ x: 0.62 * sheet.width, y: 0.36 * sheet.height });
  const patch = async (image: Sharp, x: number, y: number): Promise<number[]> => [...(await image.extract({ left: Math.round(x), top: Math.round(y), width: 1, height: 1 }).removeAlpha().raw().toBuffer())]; // prettier-ignore
  const onScreen = await patch(sharp(await page.screenshot()), at.x, at.y);
  const written = await patch(sharp(file), 2 * (at.x - bed.x), 2 * (at.y - bed.y));
  written.forEach((v, i) => expect(Math.abs(v - onScreen[i]!)).toBeLessThan(40));
  // Copied, it is the same image.
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.getByRole('button', { name: 'Copy the view' }).click();
  await expect(page.getByText('The view is on the clipboard.')).toBeVisible();
  const copied = await page.evaluate(async () => { const [item] = await navigator.clipboard.read(); const { width, height } = await createImageBitmap(await item!.getType('image/png')); return [width, height]; }); // prettier-ignore
  expect(copied).toEqual([meta.width, meta.height]);
  // Lines only, and grey.
  await page.getByText('Difference', { exact: true }).click();
  await page.getByText('Lines only', { exact: true }).click();
  await expect(page.locator('.fills').first()).toBeHidden();
  await page.getByText('Lines only', { exact: true }).click();
  await page.getByLabel('Seen with').selectOption('grey');
  await expect.poll(async () => { const [r, g, b] = await patch(sharp(await page.screenshot()), at.x, at.y); return Math.max(r!, g!, b!) - Math.min(r!, g!, b!); }).toBeLessThan(4); // prettier-ignore
});
