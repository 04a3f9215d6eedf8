import { expect, test } from './test';
import sharp from 'sharp';
import {
  BLENDS,
  corner,
  plainStroke,
  type ArtNode,
  type Gradient,
  type Path,
  type Shape,
} from '@mirrot/core';
import { openNew } from './desk';

// The same drawing on the bed and in the file: what has no controls yet is painted by both as the document says.

const square = (id: string, x: number, y: number, size: number): Path => ({
  id,
  closed: true,
  anchors: [corner(x, y), corner(x + size, y), corner(x + size, y + size), corner(x, y + size)],
});
const shape = (id: string, values: Partial<Shape>): Shape => ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [square(`${id}-p`, 0, 0, 100)], ...values }); // prettier-ignore
const group = (id: string, children: ArtNode[], values: object): ArtNode => ({ id, type: 'group', name: id, shown: true, locked: false, opacity: 1, children, ...values }); // prettier-ignore
const run = (kind: Gradient['kind'], placement: Gradient['placement']): Gradient => ({
  kind,
  placement,
  stops: [
    { at: 0, colour: { hex: '#f6c945' }, opacity: 1 },
    { at: 0.6, colour: { hex: '#d4561c' }, opacity: 1 },
    { at: 1, colour: { hex: '#2f6b4f' }, opacity: 0.2 },
  ],
});

const NODES: readonly ArtNode[] = [
  shape('linear', { fill: run('linear', [60, 60, -30, 30, 30, 30]), paths: [square('a', 20, 20, 120)] }),
  shape('radial', {
    fill: { ...run('radial', [40, 0, 10, 26, 220, 80]), spread: 'reflect' },
    shadow: { x: 4, y: 6, blur: 5, hex: '#2340c7', opacity: 0.6 },
    paths: [square('b', 160, 20, 120)],
  }),
  shape('dashed', { stroke: { ...plainStroke(run('linear', [100, 0, 0, 100, 310, 0]), 10), ends: 'butt', joins: 'miter', dash: [18, 7], dashOffset: 9 }, paths: [square('c', 310, 30, 90)] }), // prettier-ignore
  shape('under', {
    fill: { hex: '#c8d8b8' },
    stroke: { ...plainStroke({ hex: '#0f6b3c' }, 14), under: true },
    paths: [square('d', 20, 170, 120)],
  }),
  shape('blended', { fill: { hex: '#a05080' }, blend: 'multiply', paths: [square('e', 60, 210, 120)] }),
  group('faded', [shape('f1', { fill: { hex: '#2340c7' }, paths: [square('f', 210, 180, 70)] }), shape('f2', { fill: { hex: '#2340c7' }, paths: [square('g', 240, 210, 70)] })], { opacity: 0.4, shadow: { x: -3, y: 5, blur: 4, hex: '#2a2722', opacity: 0.9 } }), // prettier-ignore
  group('cut', [shape('outline', { paths: [square('h', 340, 190, 90), square('i', 370, 220, 30)] }), shape('soft', { fill: { hex: '#a32a21' }, blur: 5, paths: [square('j', 350, 200, 100)] })], { clip: 'outline' }), // prettier-ignore
  // Source outside: Chromium, each of the standard's modes (W3C Compositing and Blending, section 10).
  ...BLENDS.flatMap((blend, i) => [
    shape(`low-${blend}`, { fill: { hex: '#d4872c' }, paths: [square(`l${i}`, 12 + 28 * i, 340, 22)] }),
    shape(`high-${blend}`, {
      fill: { hex: '#3f6fa0' },
      blend,
      paths: [square(`m${i}`, 15 + 28 * i, 343, 16)],
    }),
  ]),
];

test('gradients, dashes, lines beneath fills, blends, groups, clips, blurs and shadows look on the bed as in the file', async ({
  page,
}) => {
  const h = await openNew(page, 'Painted', { width: 460, height: 390, unit: 'px' }, NODES as never);
  await h.key('6');
  await h.key('9');
  await h.key('0');
  await expect(h.bed).toHaveAttribute('data-view', /./);
  const [scale, tx, ty] = (await h.bed.getAttribute('data-view'))!.split(' ').map(Number) as [number, number, number]; // prettier-ignore
  const box = (await h.bed.boundingBox())!;
  await page.mouse.move(box.x + 5, box.y + 5);
  const { origin, pathname } = new URL(page.url());
  const answer = await page.request.get(
    `${origin}/api${pathname}/export.png?ppi=${96 * scale}&ground=%23fffdf8`,
  );
  const file = await answer.body();
  const { width, height } = await sharp(file).metadata();
  // The sheet to its edges, a tenth of its pixels: where an edge falls within a pixel is the raster's matter.
  const coarse = (image: Buffer): Promise<Buffer> =>
    sharp(image).removeAlpha().resize(Math.round(width / 10), Math.round(height / 10), { fit: 'fill', kernel: 'linear' }).raw().toBuffer(); // prettier-ignore
  const drawn = await coarse(file);
  const clip = { x: Math.round(box.x + tx), y: Math.round(box.y + ty), width, height };
  const differing = async (): Promise<number> => {
    const bed = await coarse(await page.screenshot({ clip }));
    let n = 0;
    for (let i = 0; i < drawn.length; i += 3)
      if (Math.max(...[0, 1, 2].map((k) => Math.abs(bed[i + k]! - drawn[i + k]!))) > 16) n++;
    return n / (drawn.length / 3);
  };
  await expect.poll(differing).toBeLessThan(0.005);
});
