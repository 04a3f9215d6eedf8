import { expect, test } from './test';
import { readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import DxfParser from 'dxf-parser';
import {
  readHpgl,
  PX_PER,
  pathBounds,
  cubicPoint,
  flatHex,
  nearestOnPath,
  paletteOf,
  parsePathData,
  segmentCubic,
  segmentIsLine,
  type Path,
  type Point,
} from '@mirrot/core';
import { WATERING_CAN } from '../demo/originals/watering-can';
import { startFromShipped, type Hands } from './desk';

// Source outside the application: the vector original behind the shipped picture, and resvg, which draws both files.

const TRACED = ['Body', 'Handle', 'Spout'];
const truth = WATERING_CAN.layers.flatMap((l) => l.shapes).filter((s) => TRACED.includes(s.name));
const truthPaths = (name: string): Path[] => parsePathData(truth.find((s) => s.name === name)!.d);

/** How far a person's press lies off, in picture pixels: seeded, so that a failure comes back. */
let seed = 7;
const unsteady = (p: Point): Point => {
  const off = (): number => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return (seed / 2147483648 - 0.5) * 3;
  };
  return { x: p.x + off(), y: p.y + off() };
};

/** Draws an outline as a person does: a click where it has a corner, a drag where it curves. */
async function blockIn(h: Hands, path: Path, onSheet: (p: Point) => Point): Promise<void> {
  const { anchors } = path;
  for (const a of anchors) {
    const at = unsteady(a);
    const end = a.out && { x: at.x + a.out.x, y: at.y + a.out.y };
    // With Alt only the leaving handle is pulled out: a corner from which the line curves away.
    if (end && a.kind === 'corner') await h.page.keyboard.down('Alt');
    if (end) await h.drag(onSheet(at), onSheet(end));
    else await h.click(onSheet(at));
    await h.page.keyboard.up('Alt');
  }
  const { x, y } = (await h.shapes()).at(-1)!.paths[0]!.anchors[0]!;
  await h.click({ x, y });
}

/** Pulls every curved segment onto where it should run, in rounds, as smooth neighbours turn along. */
async function refine(
  h: Hands,
  path: Path,
  onSheet: (p: Point) => Point,
  offSheet: (p: Point) => Point,
  nth: number,
  outline = 0,
): Promise<void> {
  for (let round = 0; round < 3; round++)
    for (let i = 0; i < path.anchors.length; i++) {
      if (segmentIsLine(path, i)) continue;
      for (const t of [0.35, 0.65]) {
        const drawn = (await h.shapes())[nth]!.paths[outline]!;
        const from = cubicPoint(segmentCubic(drawn, i), t);
        const to = nearestOnPath({ ...path, closed: false, anchors: [path.anchors[i]!, path.anchors[(i + 1) % path.anchors.length]!] }, offSheet(from))!; // prettier-ignore
        if (to.distance > 0.7) await h.drag(from, onSheet(to.point));
      }
    }
}

/** Share of pixels that both cover, of those that either covers. */
function overlap(one: string, other: string): number {
  const coverage = (svg: string): Uint8Array =>
    new Resvg(svg, { fitTo: { mode: 'width', value: 1200 } }).render().pixels;
  const a = coverage(one);
  const b = coverage(other);
  expect(a.length).toBe(b.length);
  let both = 0;
  let either = 0;
  for (let i = 3; i < a.length; i += 4) {
    both += Math.min(a[i]!, b[i]!);
    either += Math.max(a[i]!, b[i]!);
  }
  return both / either;
}

test('the whole job: from a shipped picture to a clean SVG', async ({ page }) => {
  test.setTimeout(180_000);
  const h = await startFromShipped(page, 'Watering can', 'Traced by hand');
  const placement = (await h.art()).pictures[0]!.placement;
  const onSheet = (p: Point): Point => ({
    x: p.x * placement[0] + placement[4],
    y: p.y * placement[3] + placement[5],
  });

  const offSheet = (p: Point): Point => ({
    x: (p.x - placement[4]) / placement[0],
    y: (p.y - placement[5]) / placement[3],
  });

  // Block in: outlines one after the other, the handle's hole as an outline of its own, made a hole with the ledge.
  await h.key('2');
  // This hand shapes everything itself: what Reach offers in time would depend on how quick the machine is.
  await page.getByRole('button', { name: 'Reach', exact: true }).click();
  await blockIn(h, truthPaths('Handle')[0]!, onSheet);
  await blockIn(h, truthPaths('Handle')[1]!, onSheet);
  await page.getByRole('button', { name: 'Make it a hole' }).click();
  await blockIn(h, truthPaths('Spout')[0]!, onSheet);
  await blockIn(h, truthPaths('Body')[0]!, onSheet);
  let shapes = await h.shapes();
  expect(shapes.map((s) => s.paths.length)).toEqual([2, 1, 1]);

  // Refine: pull segments onto the edge.
  await h.key('3');
  await refine(h, truthPaths('Handle')[0]!, onSheet, offSheet, 0);
  await refine(h, truthPaths('Handle')[1]!, onSheet, offSheet, 0, 1);
  await refine(h, truthPaths('Spout')[0]!, onSheet, offSheet, 1);
  await refine(h, truthPaths('Body')[0]!, onSheet, offSheet, 2);

  // Colour: sample the picture where the original says the colour lies.
  await h.key('4');
  for (const [i, name] of ['Handle', 'Spout', 'Body'].entries()) {
    const [x, y] = truth.find((s) => s.name === name)!.sample;
    await page.getByRole('row', { name: new RegExp(`^Shape ${i + 1}`) }).click();
    await page.getByRole('button', { name: 'Disc', exact: true }).click();
    await h.drag(onSheet({ x, y }), onSheet({ x: x + 12, y }));
    await h.key('Escape');
    await h.key('Escape');
    await h.key('Escape');
  }
  shapes = await h.shapes();
  const palette = paletteOf((await h.art()).chips);
  for (const s of shapes) expect(flatHex(s.fill, palette), s.name).toMatch(/^#[0-9a-f]{6}$/);

  // Export: the picture stays out, the ground is clear.
  await h.key('6');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Write the file' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Traced-by-hand.svg');
  const svg = readFileSync(await download.path(), 'utf8');
  expect(svg).not.toContain('<image');
  await expect(page.getByText('the traced picture', { exact: true })).toBeVisible();

  // The same for CAD and for a pen, each as large as on the sheet.
  const written = async (use: string): Promise<string> => {
    await page.getByLabel('What the file is made for').selectOption(use);
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Write the file' }).click(),
    ]);
    return readFileSync(await file.path(), 'utf8');
  };
  const paths = shapes.flatMap((s) => s.paths).length;
  expect(new DxfParser().parseSync(await written('CAD'))!.entities).toHaveLength(paths);
  const { strokes } = readHpgl(await written('a pen'));
  await expect(page.getByText(/^\d+ mm drawn, \d+ mm travelled, 4 lifts; \d+ mm saved$/)).toBeVisible();
  expect(strokes.filter((stroke) => stroke.closed)).toHaveLength(paths);
  const { width } = (await h.art()).sheet;
  const right = Math.max(...strokes.flatMap(({ points }) => points.map(({ x }) => x)));
  const drawn = Math.max(...shapes.flatMap((s) => s.paths).map((path) => pathBounds(path).x1));
  expect(right).toBeLessThanOrEqual(width / PX_PER.mm);
  expect(right).toBeCloseTo(drawn / PX_PER.mm, 1);

  const original = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WATERING_CAN.width} ${WATERING_CAN.height}" width="${WATERING_CAN.width}" height="${WATERING_CAN.height}">${[
    'Handle',
    'Spout',
    'Body',
  ]
    .map((n) => `<path fill-rule="evenodd" d="${truth.find((s) => s.name === n)!.d}"/>`)
    .join('')}</svg>`;
  const anchors = shapes.flatMap((s) => s.paths).reduce((n, p) => n + p.anchors.length, 0);
  const least = TRACED.flatMap(truthPaths).reduce((n, p) => n + p.anchors.length, 0);
  const share = overlap(svg, original);
  console.log(`overlap ${share.toFixed(4)}, ${anchors} anchors, the original ${least}`);
  expect(share).toBeGreaterThanOrEqual(0.97);
  expect(anchors).toBeLessThanOrEqual(least + 2);
});
