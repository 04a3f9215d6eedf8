import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addNode, setClip, setSheet, together } from '../../art/edits';
import { emptyArt } from '../../art/blank';
import { plainStroke, type Gradient } from '../../art/paint';
import type { Art, ArtNode, Shape } from '../../art/schema';
import { groupOf, shapeOf } from '../../art/testing';
import { circlePath, squarePath } from '../../testing';
import { writeSvg } from '../svg/write';
import { writeEps } from './write';

const drawn = (...nodes: ArtNode[]): Art =>
  changeArt(emptyArt({ width: 200, height: 120, unit: 'px' }, 'layer'), together(setSheet({ ground: '#fffdf8' }), ...nodes.map((n) => addNode('layer', n)))).art; // prettier-ignore
const shape = (id: string, values: Partial<Shape>): Shape => shapeOf(id, { fill: null, ...values });
const gradient = (values: Partial<Gradient> = {}): Gradient => ({ kind: 'linear', placement: [60, 20, -20, 60, 10, 10], stops: [{ at: 0.1, colour: { hex: '#f6c945' }, opacity: 1 }, { at: 0.6, colour: { hex: '#d4561c' }, opacity: 1 }, { at: 1, colour: { hex: '#2f6b4f' }, opacity: 1 }], ...values }); // prettier-ignore

/** The EPS as Ghostscript draws it, so many pixels to the sheet's. */
const SCALE = 3;
/** Ghostscript does not smooth the edges of clips: so many times finer it need not. */
const FINER = 3;
function asDrawn(eps: string, finer = FINER): Buffer {
  const folder = mkdtempSync(join(tmpdir(), 'mirrot-eps-'));
  try {
    writeFileSync(join(folder, 'a.eps'), eps);
    execFileSync('gs', ['-q', '-dSAFER', '-dBATCH', '-dNOPAUSE', '-dEPSCrop', '-sDEVICE=png16m', `-r${96 * SCALE * finer}`, '-dGraphicsAlphaBits=4', `-sOutputFile=${join(folder, 'a.png')}`, join(folder, 'a.eps')], { stdio: ['ignore', 'ignore', 'pipe'] }); // prettier-ignore
    return readFileSync(join(folder, 'a.png'));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The share of coarse pixels, of nine each, that differ by more than 16 of 255 from the SVG as resvg draws it. */
async function differing(art: Art): Promise<number> {
  const png = new Resvg(writeSvg(art), { fitTo: { mode: 'width', value: 200 * SCALE } }).render().asPng();
  const coarse = (of: Buffer): Promise<Buffer> => sharp(of).flatten({ background: '#ffffff' }).resize(200, 120, { kernel: 'linear', fit: 'fill' }).raw().toBuffer(); // prettier-ignore
  const [one, other] = [await coarse(asDrawn(writeEps(art))), await coarse(png)];
  let n = 0;
  for (let i = 0; i < one.length; i += 3)
    if (Math.max(...[0, 1, 2].map((k) => Math.abs(one[i + k]! - other[i + k]!))) > 16) n++;
  return n / (one.length / 3);
}

const CASES: Readonly<Record<string, readonly ArtNode[]>> = {
  'holes, strokes, dashes, ends, joins, and a line beneath its fill': [
    shape('ring', {
      fill: { hex: '#2f6b4f' },
      paths: [circlePath(40, 40, 30, 'a'), circlePath(40, 40, 14, 'b')],
    }),
    shape('dashed', { paths: [squarePath(85, 15, 50)], stroke: { ...plainStroke({ hex: '#2340c7' }, 6), ends: 'butt', joins: 'miter', dash: [12, 5], dashOffset: 4 } }), // prettier-ignore
    shape('under', { paths: [squarePath(150, 20, 34)], fill: { hex: '#f6c945' }, stroke: { ...plainStroke({ hex: '#a32a21' }, 12), under: true } }), // prettier-ignore
    shape('open', { paths: [{ ...squarePath(90, 80, 30), closed: false }], stroke: { ...plainStroke({ hex: '#6a3fa0' }, 7), ends: 'square', joins: 'bevel' } }), // prettier-ignore
  ],
  gradients: [
    shape('linear', { paths: [squarePath(5, 5, 50)], fill: gradient() }),
    shape('radial', { paths: [squarePath(65, 5, 50)], fill: gradient({ kind: 'radial', placement: [30, 0, 8, 20, 90, 30] }) }), // prettier-ignore
    shape('fading', { paths: [squarePath(125, 5, 60)], fill: gradient({ placement: [60, 0, 0, 60, 125, 5], stops: [{ at: 0, colour: { hex: '#6a3fa0' }, opacity: 1 }, { at: 1, colour: { hex: '#6a3fa0' }, opacity: 0 }] }) }), // prettier-ignore
    shape('back', { paths: [squarePath(5, 65, 50)], fill: gradient({ placement: [14, 6, -6, 14, 20, 80], spread: 'reflect' }) }), // prettier-ignore
    shape('again', { paths: [squarePath(65, 65, 50)], fill: gradient({ kind: 'radial', placement: [14, 0, 0, 14, 90, 90], spread: 'repeat' }) }), // prettier-ignore
    shape('line', { paths: [squarePath(130, 75, 40)], stroke: plainStroke(gradient({ placement: [40, 0, 0, 40, 130, 75] }), 9) }), // prettier-ignore
  ],
  'clips in groups, and see-through shapes on white': [
    groupOf('cut', shape('edge', { paths: [squarePath(20, 20, 80, 'e'), squarePath(40, 40, 30, 'h')] }), shape('in', { paths: [squarePath(10, 30, 70, 'i')], fill: { hex: '#a32a21' } })), // prettier-ignore
    shape('faint', { paths: [squarePath(120, 30, 60)], fill: { hex: '#2340c7' }, opacity: 0.4 }),
  ],
};

// Source outside: Ghostscript, beside the SVG of the same drawing drawn by resvg.
describe('writing EPS', () => {
  it.each(Object.keys(CASES))('draws %s as the SVG does', async (name) => {
    const art = drawn(...CASES[name]!);
    const cut = name.startsWith('clips') ? changeArt(art, together(setClip('cut', 'edge'), setSheet({ ground: '#ffffff' }))).art : art; // prettier-ignore
    expect(await differing(cut)).toBeLessThan(0.01);
  });

  it('has its real size, and its box says so', async () => {
    const a4 = changeArt(emptyArt({ width: 210 * (96 / 25.4), height: 297 * (96 / 25.4), unit: 'mm' }, 'layer'), addNode('layer', shape('a', { fill: { hex: '#000000' } }))).art; // prettier-ignore
    const text = writeEps(a4);
    // Source: ISO 216, A4 is 210 × 297 mm; 72 points to the inch.
    const [, w, h] = /HiResBoundingBox: 0 0 ([\d.]+) ([\d.]+)/.exec(text)!;
    expect(Number(w)).toBeCloseTo((210 / 25.4) * 72, 4);
    expect(Number(h)).toBeCloseTo((297 / 25.4) * 72, 4);
    const { width, height } = await sharp(asDrawn(text, 1)).metadata();
    expect(Math.abs(width / (210 / 25.4) / (96 * SCALE) - 1)).toBeLessThan(0.001);
    expect(Math.abs(height / (297 / 25.4) / (96 * SCALE) - 1)).toBeLessThan(0.001);
  });

  it('refuses an empty drawing on clear ground', () => {
    expect(() => writeEps(emptyArt({ width: 10, height: 10, unit: 'px' }, 'layer'))).toThrow(
      /nothing in this drawing/,
    );
  });
});
