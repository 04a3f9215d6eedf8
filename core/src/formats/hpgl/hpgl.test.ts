import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addLayer, addNode, together } from '../../art/edits';
import { emptyArt } from '../../art/blank';
import { plainStroke } from '../../art/paint';
import { paintList } from '../../art/paint-list';
import { shapeOf } from '../../art/testing';
import { PX_PER } from '../../art/units';
import { nearestOnPath } from '../../path/path-measure';
import { blob } from '../../path/testing';
import type { PenStroke } from '../../path/pen-stroke';
import { plotStrokes } from '../../plot/strokes';
import { circlePath, seeded, squarePath } from '../../testing';
import { outlinesOf } from '../outlines';
import { readHpgl } from './read';
import { writeHpgl } from './write';

const stroke = (points: readonly (readonly [number, number])[], closed = false, pen = 1): PenStroke => ({ pen, closed, points: points.map(([x, y]) => ({ x, y })) }); // prettier-ignore
const HEIGHT_MM = 60;
const sheet = { x0: 0, y0: 0, x1: 200, y1: HEIGHT_MM * PX_PER.mm };

describe('HP-GL', () => {
  it('puts the pen down once for each stroke, in units of 0.025 mm', () => {
    expect(writeHpgl([stroke([[0, 0], [10, 0.5]]), stroke([[1, 1], [2, 1], [2, 2]], true, 2)])).toBe(
      'IN;\nSP1;\nPU0,0;\nPD400,20;\nPU;\nSP2;\nPU40,40;\nPD80,40,80,80,40,40;\nPU;\nSP0;\n',
    ); // prettier-ignore
  });

  it('read again is what was written, to half a plotter unit', () => {
    const random = seeded(3);
    const strokes = Array.from(
      { length: 40 },
      (_, k) =>
      stroke(Array.from({ length: 2 + (k % 90) }, () => [random() * 300, random() * 200] as const), k % 3 === 0 && k % 90 > 0, 1 + (k % 4)), // prettier-ignore
    );
    const { strokes: read, left } = readHpgl(writeHpgl(strokes));
    expect(left).toEqual([]);
    expect(read.map(({ pen, closed, points }) => [pen, closed, points.length])).toEqual(strokes.map(({ pen, closed, points }) => [pen, closed, points.length])); // prettier-ignore
    read.forEach(({ points }, i) =>
      points.forEach((p, k) => {
        expect(Math.abs(p.x - strokes[i]!.points[k]!.x)).toBeLessThanOrEqual(0.0125 + 1e-9);
        expect(Math.abs(p.y - strokes[i]!.points[k]!.y)).toBeLessThanOrEqual(0.0125 + 1e-9);
      }),
    );
  });

  it('is carried out as a plotter would: relative moves, pens put away, words it does not know', () => {
    const { strokes, left } = readHpgl('in;sp3;PA400,400;PD;PR40,0,0,40;PU;PA;LBword;VS20;PU0,0PD800,0');
    expect(left).toEqual(['LB', 'WO', 'RD']);
    expect(strokes).toEqual([stroke([[10, 10], [11, 10], [11, 11]], false, 3), stroke([[0, 0], [20, 0]], false, 3)]); // prettier-ignore
  });

  it('refuses what is no HP-GL, what is no number, half a place, nothing, and what is too far', () => {
    expect(() => readHpgl('hello')).toThrow(/no HP-GL/);
    expect(() => readHpgl('PU1..2,3;')).toThrow(/no number/);
    expect(() => readHpgl('PU1,2,3;')).toThrow(/lacks its y/);
    expect(() => writeHpgl([])).toThrow(/no line/);
    expect(() => writeHpgl([stroke([[0, 0], [1e6, 0]])])).toThrow(/200 m/); // prettier-ignore
  });

  it('follows the curves within the tolerance, straight segments by their ends alone', () => {
    const random = seeded(11);
    for (const tolerance of [0.5, 0.05, 0.01]) {
      const path = blob(random, 'p', 100);
      const [drawn] = plotStrokes([{ layer: { id: 'a' }, paths: [path] }], sheet, { tolerance });
      const points = drawn!.points;
      points.forEach((p, i) => {
        const q = points[(i + 1) % points.length]!;
        const middle = { x: ((p.x + q.x) / 2) * PX_PER.mm, y: (HEIGHT_MM - (p.y + q.y) / 2) * PX_PER.mm };
        expect(nearestOnPath(path, middle)!.distance / PX_PER.mm).toBeLessThanOrEqual(tolerance * 1.01);
      });
    }
    expect(
      plotStrokes([{ layer: { id: 'a' }, paths: [squarePath(0, 0, 40)] }], sheet, { tolerance: 0.01 })[0]!
        .points,
    ).toHaveLength(4);
    expect(
      plotStrokes([{ layer: { id: 'a' }, paths: [{ id: 'p', closed: false, anchors: [] }] }], sheet, {
        tolerance: 0.01,
      }),
    ).toEqual([]);
  });

  it('has a pen for each layer', () => {
    let art = changeArt(emptyArt({ width: 200, height: sheet.y1, unit: 'mm' }, 'layer'), addNode('layer', shapeOf('a', { paths: [squarePath(5, 5, 30)] }))).art; // prettier-ignore
    art = changeArt(art, together(addLayer({ id: 'two', type: 'layer', name: 'Score', shown: true, locked: false, opacity: 1, ink: null, children: [] }, null), addNode('two', shapeOf('b', { paths: [squarePath(50, 5, 30)], fill: null, stroke: plainStroke({ hex: '#000000' }, 1) })))).art; // prettier-ignore
    expect(plotStrokes(outlinesOf(paintList(art)), sheet, { tolerance: 0.01 }).map(({ pen }) => pen)).toEqual(
      [1, 2],
    );
  });

  // Source outside: hp2xx.
  it('is drawn by hp2xx where it lies, in its real size', async () => {
    const strokes = plotStrokes([{ layer: { id: 'a' }, paths: [circlePath(30 * PX_PER.mm, 30 * PX_PER.mm, 20 * PX_PER.mm), squarePath(60 * PX_PER.mm, 10 * PX_PER.mm, 25 * PX_PER.mm)] }], sheet, { tolerance: 0.01 }); // prettier-ignore
    const folder = mkdtempSync(join(tmpdir(), 'mirrot-hpgl-'));
    try {
      writeFileSync(join(folder, 'a.hpgl'), writeHpgl(strokes));
      // Encapsulated, from the origin, at real size.
      execFileSync('hp2xx', ['-q', '-m', 'eps', '-t', '-f', join(folder, 'a.eps'), join(folder, 'a.hpgl')], { stdio: 'ignore' }); // prettier-ignore
      const eps = readFileSync(join(folder, 'a.eps'), 'latin1');
      const [, x0, y0, x1, y1] = /%%BoundingBox:\s*([\d.-]+) ([\d.-]+) ([\d.-]+) ([\d.-]+)/
        .exec(eps)!
        .map(Number);
      // From the circle's left to the square's right, 10 to 85 mm, and 10 to 50 mm upward; boxes are whole points.
      expect(Math.abs((x1! - x0!) / (72 / 25.4) - 75)).toBeLessThan(1.2);
      expect(Math.abs((y1! - y0!) / (72 / 25.4) - 40)).toBeLessThan(1.2);
      execFileSync('gs', ['-q', '-dSAFER', '-dBATCH', '-dNOPAUSE', '-dEPSCrop', '-sDEVICE=pnggray', '-r254', `-sOutputFile=${join(folder, 'a.png')}`, join(folder, 'a.eps')]); // prettier-ignore
      const { data, info } = await sharp(readFileSync(join(folder, 'a.png'))).greyscale().raw().toBuffer({ resolveWithObject: true }); // prettier-ignore
      // Ten pixels to the millimetre: dark on the circle and the square, light between, from the box's left and top.
      const dark = (xMm: number, yMm: number): boolean => {
        const [x, y] = [Math.round((xMm - 10) * 10), Math.round((yMm - 10) * 10)];
        for (let dy = -6; dy <= 6; dy++) for (let dx = -6; dx <= 6; dx++) if ((data[(y + dy) * info.width + x + dx] ?? 255) < 128) return true; // prettier-ignore
        return false;
      };
      for (let k = 1; k < 12; k++)
        expect(dark(30 + 20 * Math.cos(k / 2), 30 + 20 * Math.sin(k / 2))).toBe(true);
      expect([dark(60, 20), dark(72, 35), dark(72, 22), dark(30, 30)]).toEqual([true, true, false, false]);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
