import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import {
  addNode,
  BLENDS,
  changeArt,
  corner,
  emptyArt,
  placedPicture,
  plainStroke,
  writeSvg,
  type Art,
  type ArtNode,
  type Gradient,
  type Path,
  type Shape,
} from '@mirrot/core';
import { createCanvas } from '@napi-rs/canvas';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { writePdf } from './pdf';

// Sources outside: the PDF drawn by poppler (pdftocairo) and by pdfjs-dist, beside the SVG of the same drawing drawn by resvg.

const square = (id: string, x: number, y: number, size: number): Path => ({
  id,
  closed: true,
  anchors: [corner(x, y), corner(x + size, y), corner(x + size, y + size), corner(x, y + size)],
});
const shape = (id: string, path: Path, values: Partial<Shape>): Shape => ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [path], ...values }); // prettier-ignore
const group = (id: string, children: ArtNode[], values: object): ArtNode => ({ id, type: 'group', name: id, shown: true, locked: false, opacity: 1, children, ...values }) as ArtNode; // prettier-ignore
const gradient = (values: Partial<Gradient>): Gradient => ({ kind: 'linear', placement: [60, 20, -20, 60, 10, 10], stops: [{ at: 0.1, colour: { hex: '#f6c945' }, opacity: 1 }, { at: 0.6, colour: { hex: '#d4561c' }, opacity: 1 }, { at: 1, colour: { hex: '#2f6b4f' }, opacity: 1 }], ...values }); // prettier-ignore
const art = (nodes: readonly ArtNode[], ground: string | null = '#fffdf8'): Art => {
  const empty = emptyArt({ width: 200, height: 120, unit: 'px' }, 'layer');
  const all = nodes.reduce((a, node) => changeArt(a, addNode('layer', node)).art, empty);
  return { ...all, sheet: { ...all.sheet, ground } };
};

const WIDTH = 600;
async function byPoppler(pdf: Buffer): Promise<Buffer> {
  const folder = mkdtempSync(join(tmpdir(), 'mirrot-pdf-'));
  try {
    writeFileSync(join(folder, 'a.pdf'), pdf);
    execFileSync('pdftocairo', ['-png', '-scale-to-x', String(WIDTH), '-scale-to-y', '-1', '-singlefile', join(folder, 'a.pdf'), join(folder, 'a')], { stdio: ['ignore', 'ignore', 'ignore'] }); // prettier-ignore
    return readFileSync(join(folder, 'a.png'));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
async function byPdfjs(pdf: Buffer): Promise<Buffer> {
  const { promise } = getDocument({ data: Uint8Array.from(pdf), verbosity: 0 });
  const page = await (await promise).getPage(1);
  const [, , across] = page.view;
  const viewport = page.getViewport({ scale: WIDTH / across! });
  const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
  await page.render({ canvas: canvas as never, viewport }).promise;
  return canvas.toBuffer('image/png');
}
const noPixels = (): Promise<Buffer> => Promise.reject(new Error('no picture was asked for'));

/** The share of coarse pixels, of nine each, that differ by more than 16 of 255 between PDF and SVG. */
async function differing(of: Art, href?: string, bytes?: Buffer, asDrawn = byPoppler): Promise<number> {
  const pdf = await writePdf(of, 'Test', { area: 'sheet', picture: true }, bytes ? () => Promise.resolve(bytes) : noPixels); // prettier-ignore
  const svg = new Resvg(writeSvg(of, { pictures: true, ...(href && { pictureHref: () => href }) }), { fitTo: { mode: 'width', value: WIDTH }, font: { loadSystemFonts: false } }).render().asPng(); // prettier-ignore
  const coarse = (png: Buffer): Promise<Buffer> => sharp(png).flatten({ background: '#ffffff' }).resize(WIDTH / 3, null, { kernel: 'linear' }).raw().toBuffer(); // prettier-ignore
  const [one, other] = [await coarse(await asDrawn(pdf)), await coarse(svg)];
  expect(one.length).toBe(other.length);
  let n = 0;
  for (let i = 0; i < one.length; i += 3)
    if (Math.max(...[0, 1, 2].map((k) => Math.abs(one[i + k]! - other[i + k]!))) > 16) n++;
  return n / (one.length / 3);
}

const CASES: Readonly<Record<string, readonly ArtNode[]>> = {
  'holes, strokes, dashes, joins, and a line beneath its fill': [
    shape('ring', square('a', 10, 10, 60), { fill: { hex: '#2f6b4f' }, paths: [square('a', 10, 10, 60), square('b', 25, 25, 30)] }), // prettier-ignore
    shape('dashed', square('c', 85, 15, 50), { stroke: { ...plainStroke({ hex: '#2340c7' }, 6), ends: 'butt', joins: 'miter', dash: [12, 5], dashOffset: 4 } }), // prettier-ignore
    shape('under', square('d', 145, 15, 40), { fill: { hex: '#f6c945' }, stroke: { ...plainStroke({ hex: '#a32a21' }, 12), under: true } }), // prettier-ignore
  ],
  'gradients, that fade and go on': [
    shape('linear', square('a', 5, 5, 50), { fill: gradient({}) }),
    shape('radial', square('b', 65, 5, 50), {
      fill: gradient({ kind: 'radial', placement: [30, 0, 8, 20, 90, 30] }),
    }),
    shape('fading', square('c', 125, 5, 60), { fill: gradient({ placement: [60, 0, 0, 60, 125, 5], stops: [{ at: 0, colour: { hex: '#6a3fa0' }, opacity: 1 }, { at: 1, colour: { hex: '#6a3fa0' }, opacity: 0 }] }) }), // prettier-ignore
    shape('back', square('d', 5, 65, 50), { fill: gradient({ placement: [14, 6, -6, 14, 20, 80], spread: 'reflect' }) }), // prettier-ignore
    shape('again', square('e', 65, 65, 50), { fill: gradient({ kind: 'radial', placement: [14, 0, 0, 14, 90, 90], spread: 'repeat' }) }), // prettier-ignore
    shape('line', square('f', 130, 75, 40), { stroke: plainStroke(gradient({ placement: [40, 0, 0, 40, 130, 75] }), 9) }), // prettier-ignore
  ],
  'opacity of a whole, groups in groups, clips': [
    shape('below', square('a', 10, 20, 100), { fill: { hex: '#c8d8b8' } }),
    shape('both', square('b', 20, 40, 50), { fill: { hex: '#d4561c' }, stroke: plainStroke({ hex: '#2a2722' }, 10), opacity: 0.5 }), // prettier-ignore
    group('faded', [group('inner', [shape('c1', square('c', 90, 30, 50), { fill: { hex: '#2340c7' } }), shape('c2', square('d', 110, 50, 50), { fill: { hex: '#2340c7' } })], { opacity: 0.7 })], { opacity: 0.6 }), // prettier-ignore
    group('cut', [shape('outline', square('e', 150, 10, 30), { paths: [square('e', 140, 10, 45), square('f', 152, 22, 20)] }), shape('cutted', square('g', 130, 0, 40), { fill: { hex: '#a32a21' } })], { clip: 'outline' }), // prettier-ignore
  ],
  'blur and soft shadow': [
    shape('soft', square('a', 20, 20, 50), { fill: { hex: '#a32a21' }, blur: 4 }),
    shape('cast', square('b', 100, 25, 60), { fill: { hex: '#f6c945' }, opacity: 0.8, shadow: { x: 5, y: 8, blur: 5, hex: '#22304a', opacity: 0.7 } }), // prettier-ignore
  ],
};

it.each(Object.keys(CASES))('draws %s as the SVG does', async (name) => {
  expect(await differing(art(CASES[name]!))).toBeLessThan(0.01);
  // Luminosity masks take filters of a browser in pdfjs: here it draws none.
  const unmasked = CASES[name]!.filter(({ id }) => id !== 'fading');
  expect(await differing(art(unmasked), undefined, undefined, byPdfjs)).toBeLessThan(0.01);
});

// Opaque, since cairo, which poppler draws with, takes hue and its like of what is half opaque otherwise.
it('blends by each of the standard’s modes as the SVG does', async () => {
  const nodes = BLENDS.flatMap((blend, i) => {
    const [x, y] = [5 + 24 * (i % 8), 8 + 55 * Math.floor(i / 8)];
    return [
      shape(`low-${blend}`, square(`l${i}`, x, y, 18), { fill: { hex: '#d4872c' } }),
      shape(`high-${blend}`, square(`h${i}`, x, y + 9, 18), {
        fill: { hex: '#3f6fa0' },
        blend,
      }),
    ];
  });
  expect(await differing(art(nodes))).toBeLessThan(0.01);
});

it('lays pictures in where they stand, cropped and turned, traced ones beneath or above', async () => {
  const pixels = Buffer.alloc(3 * 80 * 60);
  for (let i = 0; i < 80 * 60; i++) pixels.set([(i % 80) * 3, Math.floor(i / 80) * 4, 120], 3 * i);
  const bytes = await sharp(pixels, { raw: { width: 80, height: 60, channels: 3 } })
    .png()
    .toBuffer();
  const picture = placedPicture({ id: 'pic', source: 'src', name: 'Photo', width: 80, height: 60, placement: [1, 0.3, -0.3, 1, 50, 15], crop: { x0: 10, y0: 5, x1: 70, y1: 55 } }); // prettier-ignore
  const with_ = { ...art([shape('a', square('a', 80, 40, 60), { fill: { hex: '#2f6b4f' }, opacity: 0.6 })]), pictures: [picture], traced: 'pic' }; // prettier-ignore
  const href = `data:image/png;base64,${bytes.toString('base64')}`;
  expect(await differing(with_, href, bytes)).toBeLessThan(0.01);
  // Cut out with a soft edge and its shadow.
  const soft = group('soft', [shape('outline', square('e', 70, 30, 40), {}), { id: 'n', type: 'picture', name: 'Photo', picture: 'pic', shown: true, locked: false, opacity: 1 }], { clip: 'outline', edge: { by: 2, soft: 3, shadow: { side: 0.6, reach: 20, ground: 0.9 } } }); // prettier-ignore
  expect(
    await differing({ ...art([soft]), pictures: [{ ...picture, shown: false }] }, href, bytes),
  ).toBeLessThan(0.01);
  const above = { ...with_, pictures: [{ ...picture, above: true as const }] };
  expect(await differing(above, href, bytes)).toBeLessThan(0.01);
});

it('has a page of the sheet’s real size, clear where nothing lies, and is written of an empty drawing', async () => {
  const empty = { ...emptyArt({ width: 210 * (96 / 25.4), height: 297 * (96 / 25.4), unit: 'mm' }, 'layer') };
  const pdf = await writePdf(empty, 'Leer ∅', { area: 'drawing', picture: false }, noPixels);
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
  // Source: ISO 216, A4 is 210 × 297 mm; 72 points to the inch.
  const box = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf.toString('latin1'))!;
  expect(Number(box[1])).toBeCloseTo((210 / 25.4) * 72, 1);
  expect(Number(box[2])).toBeCloseTo((297 / 25.4) * 72, 1);
});
