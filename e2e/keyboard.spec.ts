import { expect, test } from './test';
import type { Locator, Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import {
  cubicPoint,
  flatHex,
  paletteOf,
  parsePathData,
  segmentCubic,
  segmentIsLine,
  type Point,
} from '@mirrot/core';
import { WATERING_CAN } from '../demo/originals/watering-can';
import { hands, URL, type Hands } from './desk';

// The whole job without a pointer. Source outside the application: the vector original behind the shipped picture.

const BODY = WATERING_CAN.layers.flatMap((l) => l.shapes).find((s) => s.name === 'Body')!;

/** Presses Tab until the keyboard is on what is wanted. */
async function tabTo(page: Page, wanted: Locator): Promise<void> {
  for (let i = 0; i < 120; i++) {
    if (await wanted.evaluate((e) => e === document.activeElement).catch(() => false)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('Tab does not come there.');
}

/** Brings the crosshair to a point of the sheet by arrows, as near as a pixel. */
async function crossTo({ page, bed }: Hands, to: Point, from: Point): Promise<Point> {
  const [scale] = (await bed.getAttribute('data-view'))!.split(' ').map(Number) as [number];
  const steps = (far: number, on: string, back: string): string[] => {
    let left = Math.round(Math.abs(far * scale));
    const arrow = far > 0 ? on : back;
    return [100, 10, 1].flatMap((by) => {
      const count = Math.floor(left / by);
      left -= count * by;
      const held = { 100: 'Shift+', 10: '', 1: 'Alt+' }[by]!;
      return new Array<string>(count).fill(held + arrow);
    });
  };
  const keys = [
    ...steps(to.x - from.x, 'ArrowRight', 'ArrowLeft'),
    ...steps(to.y - from.y, 'ArrowDown', 'ArrowUp'),
  ];
  for (const key of keys) await page.keyboard.press(key);
  const moved = (far: number): number => (Math.sign(far) * Math.round(Math.abs(far * scale))) / scale;
  return { x: from.x + moved(to.x - from.x), y: from.y + moved(to.y - from.y) };
}

async function command(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: 'Command' })).toBeFocused();
  await page.keyboard.type(words);
  await expect(page.getByRole('option').first()).toHaveAttribute('data-highlighted', '');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

test('the whole job by keyboard alone, from the shelf to the file', async ({ page }) => {
  test.slow();
  await page.goto(URL());
  await tabTo(page, page.getByRole('button', { name: 'Watering can', exact: true }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'New project' }).getByLabel('name')).toBeFocused();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('By keys');
  await page.keyboard.press('Enter');
  const h = hands(page);
  await expect(h.bed).toBeFocused();
  const [k, , , , e, f] = (await h.art()).pictures[0]!.placement;
  const onSheet = (p: Point): Point => ({ x: p.x * k + e, y: p.y * k + f });

  // Block in: an anchor where each of the original's stands, closed on the first.
  await h.key('2');
  await command(page, 'reach');
  await h.key('.');
  const words = page.locator('#bed-says');
  await expect(words).toContainText('crosshair at');
  const size = (await h.bed.boundingBox())!;
  const [scale, tx, ty] = (await h.bed.getAttribute('data-view'))!.split(' ').map(Number) as [
    number,
    number,
    number,
  ];
  let cross = { x: (size.width / 2 - tx) / scale, y: (size.height / 2 - ty) / scale };
  const truth = parsePathData(BODY.d)[0]!;
  const { anchors } = truth;
  for (const a of [...anchors, anchors[0]!]) {
    cross = await crossTo(h, onSheet(a), cross);
    await h.key('Enter');
  }
  const drawn = (await h.shapes())[0]!.paths[0]!;
  expect([drawn.closed, drawn.anchors.length]).toEqual([true, anchors.length]);
  await h.key('Escape');

  // Refine: segments that bow are pulled onto the original's, pressed and held, moved by arrows, and let go.
  await h.key('3');
  await h.key('v');
  await h.key('.');
  await expect(words).toContainText('crosshair at');
  let at = { x: (size.width / 2 - tx) / scale, y: (size.height / 2 - ty) / scale };
  for (let i = 0; i < anchors.length; i++) {
    if (segmentIsLine(truth, i)) continue;
    at = await crossTo(h, cubicPoint(segmentCubic((await h.shapes())[0]!.paths[0]!, i), 0.5), at);
    await h.key('Shift+Enter');
    at = await crossTo(h, onSheet(cubicPoint(segmentCubic(truth, i), 0.5)), at);
    await h.key('Enter');
  }
  await h.key('Escape');

  // Colour: a pixel of the body.
  await h.key('4');
  await command(page, 'pixel');
  await h.key('.');
  const [x, y] = BODY.sample;
  const middle = { x: (size.width / 2 - tx) / scale, y: (size.height / 2 - ty) / scale };
  await crossTo(h, onSheet({ x, y }), middle);
  await h.key('Enter');
  await expect.poll(async () => (await h.shapes())[0]!.fill).not.toBeNull();
  expect(flatHex((await h.shapes())[0]!.fill, paletteOf((await h.art()).chips))).toMatch(/^#[0-9a-f]{6}$/);

  // Export: from the ledge.
  await h.key('Escape');
  await h.key('6');
  const write = page.getByRole('button', { name: 'Write the file' });
  await tabTo(page, write);
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  const svg = readFileSync(await download.path(), 'utf8');
  const covers = (text: string): Uint8Array =>
    new Resvg(text, { fitTo: { mode: 'width', value: 600 } }).render().pixels;
  const [mine, theirs] = [svg, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WATERING_CAN.width} ${WATERING_CAN.height}" width="${WATERING_CAN.width}" height="${WATERING_CAN.height}"><path d="${BODY.d}"/></svg>`].map(covers) as [Uint8Array, Uint8Array]; // prettier-ignore
  let [both, either] = [0, 0];
  for (let i = 3; i < mine.length; i += 4) {
    both += Math.min(mine[i]!, theirs[i]!);
    either += Math.max(mine[i]!, theirs[i]!);
  }
  expect(both / either).toBeGreaterThan(0.97);
});
