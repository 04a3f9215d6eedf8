import sharp from 'sharp';
import { expectClean } from './axe';
import { expect, test } from './test';
import {
  cutoutParts,
  deepestPoint,
  nearestOnPath,
  pathArea,
  shapesOf,
  type Path,
  type Point,
  type Shape,
} from '@mirrot/core';
import { openDemo, openNew, URL, type Hands } from './desk';

const named = async (h: Hands, name: string): Promise<Shape> =>
  (await h.shapes()).find((shape) => shape.name === name)!;

test('an inked sketch: areas poured by click and drag, gaps bridged, kept up with their lines; pieces weeded by a swipe', async ({
  page,
}) => {
  const h = await openDemo(page, 'Seed packet');
  await h.key('4');
  const { width, height } = (await h.art()).sheet;
  const at = (x: number, y: number): Point => ({ x: x * width, y: y * height });
  const before = (await h.shapes()).length;
  // The demo's own areas are there; the foot and the ground are bare.
  await h.key('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('Pour');
  await page.getByRole('option', { name: /^Pour$/ }).click();
  await expect(page.getByText(/\d+ areas, \d+ gaps bridged/)).toBeVisible();
  // What a press would fill lights up before it.
  await h.move(at(0.5, 0.82));
  await expect(h.bed.locator('.lines .area')).toHaveCount(1);
  await h.click(at(0.5, 0.82));
  await expect.poll(async () => (await h.shapes()).length).toBe(before + 1);
  const foot = await named(h, 'Area 1');
  expect(foot.poured?.between.length).toBe(4);
  const lines = (await h.shapes()).filter((s) => foot.poured!.between.includes(s.id));
  for (const a of foot.paths[0]!.anchors)
    expect(Math.min(...lines.map((s) => nearestOnPath(s.paths[0]!, a)!.distance))).toBeLessThan(1e-6);
  // From the ground over the stem, which is filled: it gets the colour, and is not filled twice.
  await h.drag(at(0.28, 0.6), at(0.502, 0.57), 12);
  await expect.poll(async () => (await h.shapes()).length).toBe(before + 2);
  const ground = await named(h, 'Area 2');
  expect((await named(h, 'Stem')).fill).toEqual(ground.fill);

  // A line is refined: the area beside it keeps up, in the same step.
  await h.key('Escape');
  await h.key('3');
  const band = (await named(h, 'Band')).paths[0]!;
  const [start, end] = [band.anchors[0]!, band.anchors.at(-1)!];
  await h.click({ x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 });
  await expect(page.getByRole('row', { name: /^Band/ })).toHaveAttribute('aria-selected', 'true');
  const steps = page.locator('summary', { hasText: 'Steps' });
  const count = Number((await steps.innerText()).replace(/\D/g, ''));
  await h.drag({ x: start.x, y: start.y }, { x: start.x, y: start.y - 30 });
  await expect
    .poll(async () => pathArea((await named(h, 'Area 1')).paths[0]!))
    .toBeGreaterThan(pathArea(foot.paths[0]!) + 1000);
  expect(Number((await steps.innerText()).replace(/\D/g, ''))).toBe(count + 1);
  await h.key('Control+z');
  await expect
    .poll(async () => pathArea((await named(h, 'Area 1')).paths[0]!))
    .toBeCloseTo(pathArea(foot.paths[0]!), 6);

  // What sticks out past the corner at the foot goes by one swipe, dashed before it does.
  await h.key('Control+k');
  await page.getByRole('combobox', { name: 'Command' }).fill('Weed');
  await page.getByRole('option', { name: /^Weed$/ }).click();
  const left = (await named(h, 'Left side')).paths[0]!.anchors.at(-1)!;
  const footLine = (await named(h, 'Foot')).paths[0]!.anchors[0]!;
  await h.key('0');
  const far = { x: left.x - 20, y: left.y - 1 };
  await expect
    .poll(async () => {
      await h.move({ x: left.x, y: left.y - 1 });
      return h.bed.locator('.lines .gone').count();
    })
    .toBe(1);
  await h.move(far);
  await page.mouse.down();
  await h.move({ x: left.x + 20, y: left.y - 1 });
  await expect(h.bed.locator('.lines .gone')).toHaveCount(1);
  await page.mouse.up();
  await expect
    .poll(async () => (await named(h, 'Left side')).paths[0]!.anchors.at(-1)!.y)
    .toBeLessThan(left.y - 2);
  expect((await named(h, 'Foot')).paths[0]!.anchors[0]).toEqual(footLine);
});

test('a hose drawn as one thick line becomes its outline; a plate gets rings behind it, and is split by a line', async ({
  page,
}) => {
  const base = { type: 'shape' as const, shown: true, locked: false, opacity: 1 };
  const corner = (x: number, y: number): Path['anchors'][number] => ({
    x,
    y,
    kind: 'corner',
    in: null,
    out: null,
  });
  const stroke = {
    paint: { hex: '#2f6b4f' },
    width: 20,
    ends: 'butt' as const,
    joins: 'miter' as const,
    miterLimit: 4,
    dash: [],
  };
  const h = await openNew(page, 'Outlines', undefined, [
    { ...base, id: 'plate', name: 'Plate', fill: { hex: '#d4561c' }, stroke: null, paths: [{ id: 'p', closed: true, anchors: [corner(400, 100), corner(600, 100), corner(600, 300), corner(400, 300)] }] },
    { ...base, id: 'cut', name: 'Cut', fill: null, stroke: { ...stroke, width: 1 }, paths: [{ id: 'c', closed: false, anchors: [corner(380, 180), corner(620, 180)] }] },
    { ...base, id: 'hose', name: 'Hose', fill: null, stroke, paths: [{ id: 'h', closed: false, anchors: [corner(100, 100), corner(300, 100), corner(300, 300)] }] },
  ]); // prettier-ignore
  await h.key('4');
  await page.getByRole('row', { name: /^Hose/ }).click();
  await page.locator('summary', { hasText: 'Lines and areas' }).click();
  await page.getByRole('button', { name: 'Stroke to shape' }).click();
  await expect.poll(async () => (await named(h, 'Hose')).stroke).toBeNull();
  const hose = await named(h, 'Hose');
  expect(hose.fill).toEqual({ hex: '#2f6b4f' });
  expect(pathArea(hose.paths[0]!)).toBeCloseTo(200 * 20 + 200 * 20, 6);
  expect(hose.paths[0]!.anchors).toHaveLength(6);

  await page.getByRole('row', { name: /^Plate/ }).click();
  await page.locator('summary', { hasText: 'Widen' }).click();
  await page.getByRole('spinbutton', { name: /Widen by/ }).fill('10');
  await page.getByRole('spinbutton', { name: /rings/ }).fill('2');
  await h.key('Enter');
  await page.getByText('pointed', { exact: true }).click();
  const widen = page.getByRole('button', { name: 'Widen', exact: true });
  await widen.hover();
  await expect(h.bed.locator('.sheet ~ * [data-part], [data-part]')).not.toHaveCount(3);
  expect((await h.shapes()).length).toBe(3);
  await widen.click();
  await expect.poll(async () => (await h.shapes()).length).toBe(5);
  const sides = (await h.shapes()).slice(0, 3).map((s) => Math.round(Math.sqrt(pathArea(s.paths[0]!))));
  expect(sides).toEqual([240, 220, 200]);

  await page.getByRole('row', { name: /^Plate/ }).click();
  await page.getByRole('row', { name: /^Cut/ }).click({ modifiers: ['Shift'] });
  await page.locator('summary', { hasText: 'Combine' }).click();
  await page.getByRole('button', { name: 'Split up', exact: true }).click();
  await expect.poll(async () => (await h.shapes()).length).toBe(6);
  const pieces = (await h.shapes()).filter((s) => s.name.startsWith('Plate'));
  expect(pieces.map((s) => Math.round(pathArea(s.paths[0]!))).sort((a, b) => a - b)).toEqual([16000, 24000]);
});

test('the picture is cut out by a shape with a hole, written clear around it and in the hole, and given back', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('4');
  const before = (await h.art()).layers;
  const handle = await named(h, 'Handle');
  await page.getByRole('row', { name: /^Handle/ }).click();
  await page.locator('summary', { hasText: 'Lines and areas' }).click();
  await page.getByRole('button', { name: 'Cut out' }).click();
  await expect(page.getByRole('row', { name: /^Cutout 1/ })).toHaveAttribute('aria-selected', 'true');
  // Nothing but it is written.
  await h.key('Shift+H');
  const art = await h.art();
  const id = page.url().split('/').at(-1)!;
  const png = await page.request.get(`${URL()}/api/projects/${id}/export.png?area=sheet&ppi=96&ground=clear`);
  const { data, info } = await sharp(await png.body()).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  const k = info.width / art.sheet.width;
  const alpha = (p: Point): number => data[4 * (Math.round(p.y * k) * info.width + Math.round(p.x * k)) + 3]!;
  // Places well inside the outline and out of the hole, in the hole, and beside both.
  const hole = deepestPoint([handle.paths[1]!]);
  expect(alpha(deepestPoint(handle.paths))).toBe(255);
  expect(alpha(hole)).toBe(0);
  expect(alpha({ x: 20, y: 20 })).toBe(0);
  await h.key('Shift+H');
  await page.getByRole('row', { name: /^Cutout 1/ }).click();

  // Soft, with the shadow below it; alone as PNG, one pixel of the file for one of the picture.
  await page.locator('summary', { hasText: /^Cutout/ }).click();
  await page.getByLabel('Softness of the edge').fill('0.3');
  await page.keyboard.press('Enter');
  await page.getByLabel('Leave the soft shadow').selectOption({ label: 'stays below' });
  await expect(page.getByLabel('How far the shadow reaches')).toBeVisible();
  await expectClean(page, 'a cutout');
  const write = page.getByRole('button', { name: 'Write it as PNG' });
  await expect(write).toBeEnabled();
  const [download] = await Promise.all([page.waitForEvent('download'), write.click()]);
  const own = await sharp(await download.path()).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  const now = await h.art();
  const [picture] = now.pictures;
  const [pixel, , , , x0, y0] = picture!.placement;
  const group = now.layers.flatMap((layer) => layer.children).find((node) => node.name === 'Cutout 1')!;
  const cutout = cutoutParts(now, group.id)!;
  expect([own.info.width, own.info.height]).toEqual([cutout.width, cutout.height]);
  const source = await page.request.get(`${URL()}/api/pictures/${picture!.source}?size=full`);
  const photo = await sharp(await source.body()).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  const pixelAt = (of: typeof own, p: Point, from: Point): number[] => {
    const [column, row] = [Math.floor((p.x - from.x) / pixel), Math.floor((p.y - from.y) / pixel)];
    return [...of.data.subarray(4 * (row * of.info.width + column), 4 * (row * of.info.width + column) + 4)];
  };
  const inside = deepestPoint(handle.paths);
  const corner = { x: cutout.box.x0, y: cutout.box.y0 };
  const [cut, whole] = [pixelAt(own, inside, corner), pixelAt(photo, inside, { x: x0, y: y0 })];
  for (let i = 0; i < 4; i++) expect(Math.abs(cut[i]! - whole[i]!)).toBeLessThanOrEqual(2);
  expect(pixelAt(own, { x: hole.x, y: hole.y - 20 }, corner)[3]).toBeLessThan(60);

  // Another one, with two holes and the shadow below it.
  const projects = (await (await page.request.get(`${URL()}/api/projects`)).json()) as { id: string; name: string }[]; // prettier-ignore
  const tag = `${URL()}/api/projects/${projects.find(({ name }) => name === 'Can tag')!.id}`;
  const { art: tagArt } = (await (await page.request.get(`${tag}/art`)).json()) as { art: typeof now };
  const can = shapesOf(tagArt).find(({ shape }) => shape.id === 'can')!.shape;
  const { box } = cutoutParts(tagArt, 'can-cut-out')!;
  const alone = await sharp(await (await page.request.get(`${tag}/export.png?cutout=can-cut-out`)).body()).ensureAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  const seen = (p: Point): number => pixelAt(alone, p, { x: box.x0, y: box.y0 })[3]!;
  expect(seen(deepestPoint(can.paths))).toBe(255);
  for (const one of can.paths.slice(1)) expect(seen(deepestPoint([one]))).toBe(0);
  const foot = Math.max(...can.paths[0]!.anchors.map(({ y }) => y));
  expect(seen({ x: 219, y: foot + 16 })).toBeGreaterThan(20);
  expect(seen({ x: 219, y: foot + 16 })).toBeLessThan(235);

  await page.getByRole('button', { name: 'Release the cutout' }).click();
  await expect.poll(async () => JSON.stringify((await h.art()).layers)).toBe(JSON.stringify(before));
});
