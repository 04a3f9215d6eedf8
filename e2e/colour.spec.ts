import { deltaE2000, isGradient, parseHex, rgbToCielab, shapesOf, type Gradient } from '@mirrot/core';
import { expectClean } from './axe';
import { openDemo } from './desk';
import { expect, test } from './test';

test('a blocked in portrait gets its body tones at once, seen first; one shape shows its light and shade; covered ones say so', async ({
  page,
}) => {
  const h = await openDemo(page, 'Grower');
  await h.key('4');
  const fills = async (): Promise<Map<string, string | null>> => {
    const art = await h.art();
    return new Map(shapesOf(art).map(({ shape }) => [shape.name, shape.fill && 'hex' in shape.fill ? shape.fill.hex : null])); // prettier-ignore
  };
  await expect(page.getByRole('button', { name: /^Body tone/ })).toBeVisible();
  await h.key('b');
  await expect(page.getByText(/^Body tone of 3\d shapes/)).toBeVisible();
  // An offer: nothing is kept before it is taken.
  expect([...(await fills()).values()].every((fill) => fill === null)).toBe(true);
  await h.key('Enter');
  await expect(page.getByRole('button', { name: 'Undo: Body tone' })).toBeVisible();
  const taken = await fills();
  // The materials that the picture was drawn with, before light and lens: the vector original behind it.
  for (const [name, material] of [
    ['Bib', '#b25c34'],
    ['Hair', '#4a2f22'],
    ['Neck', '#bd8359'],
    ['Band', '#7c2f2a'],
    ['Face shade', '#a36d48'],
    ['Left collar', '#6a8fab'],
  ] as const)
    expect(deltaE2000(rgbToCielab(parseHex(taken.get(name)!)), rgbToCielab(parseHex(material))), name).toBeLessThan(6); // prettier-ignore

  await page.getByRole('row', { name: /^Crown,/ }).click({ position: { x: 90, y: 18 } });
  await h.key('b');
  await expect(page.getByText(/^Body tone of Crown: #\w+, from the 5\d % of it in sight/)).toBeVisible();
  await page.getByRole('button', { name: /^Light tone/ }).click();
  await expect(page.getByText(/^Light tone of Crown: #/)).toBeVisible();
  await h.key('Enter');
  const lighter = (await fills()).get('Crown')!;
  expect(lighter).not.toBe(taken.get('Crown'));
  await page.getByRole('slider', { name: 'Left out at either end' }).focus();
  await page.keyboard.press('ArrowRight');
  await h.key('Control+z');
  await h.key('Control+z');
  await expect.poll(async () => [...(await fills()).values()].every((fill) => fill === null)).toBe(true);
});

test('a gradient is put on, dragged by its string, given a stop, and fitted to the picture', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('4');
  await page.getByRole('row', { name: /^Spout,/ }).click({ position: { x: 90, y: 18 } });
  const spout = async (): Promise<Gradient | null> => {
    const { shape } = shapesOf(await h.art()).find((p) => p.shape.name === 'Spout')!;
    return shape.fill && isGradient(shape.fill) ? shape.fill : null;
  };
  await page.getByText('linear', { exact: true }).click();
  await expect.poll(async () => (await spout())?.stops.length).toBe(2);
  const [, , , , x, y] = (await spout())!.placement;
  const [w] = (await spout())!.placement;
  await h.drag({ x: x + w, y }, { x: x + w / 2, y: y - 60 });
  await expect.poll(async () => Math.round((await spout())!.placement[1])).toBe(-60);
  await h.click({ x: x + w / 4, y: y - 30 });
  await expect
    .poll(async () => (await spout())!.stops.map((s) => Number(s.at.toFixed(1))))
    .toEqual([0, 0.5, 1]);
  await page.getByRole('slider', { name: 'Opacity of the stop' }).focus();
  await page.keyboard.press('Home');
  await expect.poll(async () => (await spout())!.stops[1]!.opacity).toBe(0);
  await page.getByRole('button', { name: 'From the picture' }).click();
  await expect(
    page.getByText(/^Gradient from the picture for Spout: ΔE \d+\.\d from it; one colour would be ΔE/),
  ).toBeVisible();
  await h.key('Escape');
  await expect.poll(async () => (await spout())!.stops.length).toBe(3);
  // Taken off and put on again it is as it was.
  await page.getByText('none', { exact: true }).first().click();
  await expect.poll(spout).toBeNull();
  await page.getByText('flat', { exact: true }).click();
  await expect.poll(async () => (await spout())?.stops.length).toBe(3);
  for (let i = 0; i < 6; i++) await h.key('Control+z');
  await expect.poll(spout).toBeNull();
});

test('a mosaic is brushed, a range dealt over it, near chips merged', async ({ page }) => {
  const h = await openDemo(page, 'Gourd');
  await h.key('4');
  const fills = async (): Promise<string[]> => {
    const art = await h.art();
    return shapesOf(art).map(({ shape }) => art.chips.find((c) => shape.fill && 'chip' in shape.fill && c.id === shape.fill.chip)?.hex ?? 'none'); // prettier-ignore
  };
  const before = await fills();
  const chips = page.getByRole('region', { name: 'Palette' }).getByRole('listitem').getByRole('button');
  // Two chips that are hardly told apart come from elsewhere, and are merged.
  await page.locator('summary', { hasText: 'Work on the palette' }).click();
  const text = page.getByRole('textbox', { name: 'Palette as text' });
  await text.fill('#101010 Night\n#111111 Nearly night\n#nothing');
  await page.getByRole('button', { name: 'Take these colours' }).click();
  await expect(page.getByRole('alert')).toHaveText(/Line 3.*does not begin with a colour. Nothing was added/);
  const count = await chips.count();
  await text.fill('#101010 Night\n#111111 Nearly night');
  await page.getByRole('button', { name: 'Take these colours' }).click();
  await expect(chips).toHaveCount(count + 2);
  await page.getByRole('button', { name: 'Merge near chips' }).click();
  await expect(page.getByText(/^Merge \d+ chips into \d+$/)).toBeVisible();
  await h.key('Enter');
  await expect.poll(() => chips.count()).toBeLessThan(count + 2);

  // Dealt over all pieces by the picture's lightness, no two neighbours alike.
  await h.key('Control+a');
  await chips.first().click();
  await page.getByRole('button', { name: 'Deal the range' }).click();
  await expect(page.getByText(/^5 steps of .* dealt over 28 shapes$/)).toBeVisible();
  await h.key('Enter');
  await expect.poll(async () => new Set(await fills()).size).toBeLessThanOrEqual(5);

  // The brush: a swipe over a row of pieces.
  await page.getByRole('button', { name: /^Brush/ }).click();
  await page
    .getByRole('radio', { name: /Fill the next path with/ })
    .last()
    .click();
  const art = await h.art();
  const box = (i: number) => shapesOf(art)[i]!.shape.paths[0]!.anchors.reduce((s, a) => ({ x: s.x + a.x / 4, y: s.y + a.y / 4 }), { x: 0, y: 0 }); // prettier-ignore
  await h.drag(box(2), box(4), 6);
  await expect.poll(async () => new Set((await fills()).slice(2, 5)).size).toBe(1);
  await h.key('Escape');
  for (let i = 0; i < 5; i++) await h.key('Control+z');
  await expect.poll(fills).toEqual(before);
});

test('a colourway is seen on the bed, kept, put on, and written to files; holes are proved open', async ({
  page,
}) => {
  const h = await openDemo(page, 'Glasshouse');
  await h.key('4');
  await page.locator('summary', { hasText: 'Colourways' }).click();
  const bars = async (): Promise<string> => (await h.art()).chips.find((c) => c.name === 'Bars')!.hex;
  const first = await bars();
  const turned = page.getByRole('button', { name: 'Use the colourway Hue 120°' });
  await turned.hover();
  await expect(h.bed.locator(`path[stroke="${first}"]`)).toHaveCount(0);
  expect(await bars()).toBe(first);
  await page.mouse.move(5, 5);
  await page.getByRole('button', { name: 'Keep the colourway Hue 120°' }).click();
  await expect(page.getByRole('list', { name: 'Kept colourways' }).getByRole('listitem')).toHaveCount(4);
  await page.getByRole('button', { name: 'Use the colourway Evening' }).click();
  await expect.poll(bars).toBe('#f0c27a');
  const [zip] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Each its own file' }).click()]); // prettier-ignore
  expect(zip.suggestedFilename()).toBe('Glasshouse colourways.zip');
  const [sheet] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'All on one sheet' }).click()]); // prettier-ignore
  expect(sheet.suggestedFilename()).toBe('Glasshouse colourways.svg');
  await page.locator('summary', { hasText: 'See-through' }).click();
  await page.getByText('loud', { exact: true }).click();
  await expect(h.bed.locator('rect[fill="#ff2ea6"]')).toBeVisible();
  await page.getByText('Uncovered', { exact: true }).click();
  await expect(page.getByText(/% of the picture is covered by no shape/)).toBeVisible();
  await h.key('Control+z');
  await h.key('Control+z');
  await expect.poll(bars).toBe(first);
});

test('a colour is written as a word, sampled by a disc as wide as the wheel makes it, and what receives it is said', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('4');
  const written = page.getByRole('textbox', { name: 'hex or word' });
  await written.fill('rebeccapurple');
  await written.press('Enter');
  await expect(page.getByRole('button', { name: 'next fill: #663399' })).toBeVisible();
  await written.fill('carrot-ish');
  await written.press('Enter');
  await expect(page.getByRole('alert')).toHaveText(/is not a colour.*Nothing was changed/);
  await page.getByRole('button', { name: 'next fill: #663399' }).click();
  await expect(page.getByRole('button', { name: 'next fill: none' })).toBeVisible();
  await page.getByRole('button', { name: 'Picture only' }).click();
  await page.getByRole('button', { name: 'Disc', exact: true }).click();
  await h.move({ x: 60, y: 60 });
  await page.mouse.wheel(0, -200);
  await expect(page.getByText(/^[789] px radius$/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Loupe' }).getByText(/^#\w{6} middle$/)).toBeVisible();
  const middle = (await page.getByRole('region', { name: 'Loupe' }).getByText(/middle$/).textContent())!.trim().slice(0, 7); // prettier-ignore
  await h.click({ x: 60, y: 60 });
  await expect(page.getByRole('button', { name: `next fill: ${middle}` })).toBeVisible();
  await expect(page.getByRole('button', { name: `Recent colour ${middle}` })).toBeVisible();
});

test('body tones that a later shape covers are told, and looked for again when wished', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('4');
  await expect(page.getByRole('slider', { name: 'Lightness' })).toBeVisible();
  const told = page.getByRole('region', { name: 'Body tones to look at again' });
  await page.getByRole('row', { name: /^Body shade,/ }).click({ position: { x: 90, y: 18 } });
  // Without the shade above it, the body shows its dark side as well.
  await page.getByRole('button', { name: /^Hide Body shade/ }).click();
  await page.getByRole('button', { name: /^Hide Body light/ }).click();
  await expect(told.getByText(/Body/)).toBeVisible();
  await expectClean(page, 'hidden rows', true);
  await told.getByRole('button', { name: 'Look again' }).click();
  await expect(page.getByText(/^Body tone of 1 shape, looked for anew$/)).toBeVisible();
  await h.key('Enter');
  await expect(told).toHaveCount(0);
  for (let i = 0; i < 3; i++) await h.key('Control+z');
});
