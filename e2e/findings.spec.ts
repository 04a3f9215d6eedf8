import { plainStroke, type Anchor, type Shape } from '@mirrot/core';
import { expectClean } from './axe';
import sharp from 'sharp';
import { openDemo, openNew } from './desk';
import { expect, test } from './test';

const corner = (x: number, y: number, into: readonly [number, number] | null = null, out: readonly [number, number] | null = null): Anchor => ({ x, y, kind: 'corner', in: into && { x: into[0], y: into[1] }, out: out && { x: out[0], y: out[1] } }); // prettier-ignore
const idOf = (name: string): string => name.replaceAll(' ', '-');
const shape = (name: string, closed: boolean, anchors: readonly Anchor[], filled: boolean): Shape => ({ id: idOf(name), type: 'shape', name, shown: true, locked: false, opacity: 1, fill: filled ? { hex: '#2f6b4f' } : null, stroke: filled ? null : plainStroke({ hex: '#22252b' }, 4), paths: [{ id: `${idOf(name)}-p`, closed, anchors }] }); // prettier-ignore

test('an open path, a gap, a kink and a doubled line are found where they are, mended, and put aside with a reason', async ({
  page,
}) => {
  const h = await openNew(page, 'With mistakes', undefined, [
    shape('Open leaf', false, [corner(100, 100), corner(200, 110), corner(160, 200)], true),
    shape('First half', false, [corner(300, 100), corner(400, 140)], false),
    shape('Second half', false, [corner(400.5, 140.4), corner(420, 260)], false),
    shape('Kinked', false, [corner(100, 400, null, [20, -40]), corner(200, 380, [-30, 0], [30, 1.5]), corner(300, 430, [-10, -30], null)], false), // prettier-ignore
    shape('Line', false, [corner(500, 300), corner(650, 380)], false),
    shape('Line again', false, [corner(650, 381.2), corner(500, 301.2)], false),
    shape('Left box', true, [corner(100, 500), corner(160, 500), corner(160, 560), corner(100, 560)], true),
    shape(
      'Right box',
      true,
      [corner(160.6, 500), corner(220, 500), corner(220, 560), corner(160.6, 560)],
      true,
    ),
    shape('Whole', true, [corner(500, 450), corner(600, 450), corner(600, 550), corner(500, 550)], true),
  ]);
  await h.key('5');
  await expect(page.getByText('5 things look like a mistake.')).toBeVisible();
  await expect(page.getByRole('button', { name: /Proof/ })).toContainText('5 findings');
  await expect(page.locator('.labels g')).toHaveCount(5);
  await expectClean(page, 'Proof with findings');

  // Shown: the shape is chosen, and the view goes there.
  const fold = (title: string) => page.locator('details', { hasText: title });
  const open = (title: string) => page.locator('summary', { hasText: title }).click();
  await open('Filled, left open');
  await fold('Filled, left open')
    .getByRole('button', { name: /Open leaf/ })
    .click();
  await expect(page.locator('#bed-says')).toHaveText('Open leaf');
  // Mended as an offer: Esc leaves it, Enter takes it, one undo brings all back.
  const closed = async (name: string): Promise<boolean> => (await h.shapes()).find((s) => s.name === name)!.paths[0]!.closed; // prettier-ignore
  const offered = page.getByRole('button', { name: /^Take Enter/ });
  await fold('Filled, left open').getByRole('button', { name: 'Mend' }).click();
  await expect(offered).toBeVisible();
  await h.key('Escape');
  await expect(offered).toHaveCount(0);
  expect(await closed('Open leaf')).toBe(false);
  await fold('Filled, left open').getByRole('button', { name: 'Mend' }).click();
  await expect(offered).toBeVisible();
  await h.key('Enter');
  await expect(page.getByText('4 things look like a mistake.')).toBeVisible();
  await expect.poll(() => closed('Open leaf')).toBe(true);
  await h.key('Control+z');
  await expect(page.getByText('5 things look like a mistake.')).toBeVisible();
  await h.key('Control+Shift+z');
  await expect(page.getByText('4 things look like a mistake.')).toBeVisible();

  for (const [title, left] of [
    ['Ends that nearly meet', '3 things look'],
    ['Gaps between neighbours', '2 things look'],
    ['Kinks', '1 thing looks'],
  ] as const) {
    await open(title);
    await fold(title).getByRole('button', { name: 'Mend' }).click();
    await expect(offered).toBeVisible();
    await h.key('Enter');
    await expect(page.getByText(`${left} like a mistake.`)).toBeVisible();
  }
  // The gap is closed by the neighbour's own border: the same places, exactly.
  const [left, right] = (await h.shapes()).filter(({ name }) => / box$/.test(name)).map(({ paths: [path] }) => path!.anchors); // prettier-ignore
  const borders = [left!, right!].map((anchors) => anchors.filter(({ x }) => x > 159 && x < 162).map(({ x, y }) => `${x} ${y}`).sort()); // prettier-ignore
  expect(borders[0]).toEqual(borders[1]);
  const ends = (await h.shapes())
    .filter(({ name }) => / half$/.test(name))
    .map(({ paths: [path] }) => path!.anchors);
  expect([ends[0]!.at(-1)!.x, ends[0]!.at(-1)!.y]).toEqual([ends[1]![0]!.x, ends[1]![0]!.y]);

  // Put aside with a reason, which is remembered; Export tells of what is left.
  await h.key('6');
  await page.getByRole('button', { name: '1 finding in Proof' }).click();
  await open('Lines drawn twice');
  await page.getByRole('button', { name: 'Put aside' }).click();
  await page.getByLabel('Why it is put aside').fill('the brush is wide');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Nothing is left that looks like a mistake.')).toBeVisible();
  await expect(page.locator('.labels .aside')).toHaveCount(1);
  await expect(page.getByText('all changes kept')).toBeVisible();
  await page.reload();
  await h.key('5');
  await open('Lines drawn twice');
  await expect(page.getByText('aside: the brush is wide')).toBeVisible();
  await page.getByRole('button', { name: 'Take up again' }).click();
  await page.getByRole('button', { name: 'Mend', exact: true }).click();
  await h.key('Enter');
  await expect(page.getByText('Nothing is left that looks like a mistake.')).toBeVisible();
  expect((await h.shapes()).map(({ name }) => name)).not.toContain('Line again');
});

test('the drawing is seen small on light and dark, and by turns with its picture', async ({ page }) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await expect(page.getByText('Nothing is left that looks like a mistake.')).toBeVisible();
  await page.locator('summary', { hasText: 'Small sizes' }).click();
  const small = page.getByAltText('The drawing at 16 pixels on dark');
  await expect(page.getByAltText(/The drawing at \d+ pixels on/)).toHaveCount(12);
  await expect.poll(() => small.evaluate((image) => (image as HTMLImageElement).complete && (image as HTMLImageElement).naturalWidth > 0)).toBe(true); // prettier-ignore
  const { width, height } = (await small.boundingBox())!;
  expect(Math.max(width, height)).toBe(16);
  // It is painted: not all of its pixels are alike.
  const { data } = await sharp(await page.getByAltText('The drawing at 128 pixels on light').screenshot()).raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
  expect(new Set(data).size).toBeGreaterThan(30);

  await page.getByText('Side by side', { exact: true }).click();
  await expect(page.locator('.bed .half')).toHaveCount(2);
  await expectClean(page, 'Side by side');
  await page.getByText('Side by side', { exact: true }).click();
  const fills = page.locator('.fills').first();
  await page.getByText('Blink', { exact: true }).click();
  await expect(fills).toBeHidden();
  await expect(fills).toBeVisible();
  // With motion reduced it turns by hand alone.
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.getByRole('button', { name: /^The (picture|drawing)$/ }).click();
  await page.getByText('Blink', { exact: true }).click();
  await expect(fills).toBeVisible();
});

test('a line parts picture and drawing: dragged by its tab, turned by its knob, moved by keys', async ({
  page,
}) => {
  const h = await openDemo(page, 'Watering can');
  await h.key('5');
  await page.getByText('Wipe', { exact: true }).click();
  const tab = page.getByRole('slider', { name: 'Wipe' });
  await expect(tab).toBeVisible();
  // The drawing is cut off at the line: left of it there is drawing, right of it the photograph with its bench.
  const pixels = async (x: number, y: number): Promise<number[]> => {
    const { x: px, y: py } = await h.onPage({ x, y });
    const { data } = await sharp(await page.screenshot({ clip: { x: px - 1, y: py - 1, width: 2, height: 2 } })).removeAlpha().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
    return [...data.subarray(0, 3)];
  };
  const { sheet } = await h.art();
  const corner = [0.04 * sheet.width, 0.5 * sheet.height] as const;
  const before = await pixels(...corner);
  const far = await pixels(sheet.width - corner[0], corner[1]);
  const box = (await tab.boundingBox())!;
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const to = await h.onPage({ x: 0, y: 0 });
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(to.x + 4, middle.y, { steps: 5 });
  await page.mouse.up();
  // The line stands at the sheet's left now: there the photograph is seen as well.
  await expect.poll(async () => pixels(...corner)).not.toEqual(before);
  expect(await pixels(sheet.width - corner[0], corner[1])).toEqual(far);
  const turned = await tab.getAttribute('aria-valuenow');
  const knob = (await page.locator('.wipe .knob').boundingBox())!;
  await page.mouse.move(knob.x + 9, knob.y + 9);
  await page.mouse.down();
  await page.mouse.move(knob.x + 120, knob.y - 30, { steps: 4 });
  await page.mouse.up();
  await expect(tab).not.toHaveAttribute('aria-valuenow', turned!);
  await tab.focus();
  const angle = Number(await tab.getAttribute('aria-valuenow'));
  await page.keyboard.press('Shift+ArrowRight');
  await expect(tab).toHaveAttribute('aria-valuenow', String(angle + 5));
  const at = (await tab.boundingBox())!.x;
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await tab.boundingBox())!.x).not.toBe(at);
  // Nothing of the drawing was touched, and in other steps all is as the Glass has it.
  await expect(page.getByText('all changes kept')).toBeVisible();
  await h.key('4');
  await expect(tab).toBeHidden();
});
