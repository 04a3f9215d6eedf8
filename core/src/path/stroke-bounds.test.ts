import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { seeded, squarePath } from '../testing';
import { formatPathData } from './data';
import type { Path } from './path';
import { strokeBounds, type StrokeForm } from './stroke-bounds';

const ENDS = ['butt', 'round', 'square'] as const;
const JOINS = ['miter', 'round', 'bevel'] as const;

/** What a stroke paints, by pixels of a quarter unit. Source outside: resvg. */
function drawnBounds(path: Path, s: StrokeForm): { x0: number; y0: number; x1: number; y1: number } {
  const [at, size, fine] = [-100, 400, 4];
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${at} ${at} ${size} ${size}" width="${size * fine}" height="${size * fine}"><path d="${formatPathData([path], 6)}" fill="none" stroke="#000" stroke-width="${s.width}" stroke-linecap="${s.ends}" stroke-linejoin="${s.joins}" stroke-miterlimit="${s.miterLimit}"/></svg>`;
  const { pixels, width, height } = new Resvg(svg).render();
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (pixels[4 * (y * width + x) + 3]! < 128) continue;
      box.x0 = Math.min(box.x0, x / fine + at);
      box.y0 = Math.min(box.y0, y / fine + at);
      box.x1 = Math.max(box.x1, (x + 1) / fine + at);
      box.y1 = Math.max(box.y1, (y + 1) / fine + at);
    }
  return box;
}

const farthest = (a: object, b: object): number =>
  Math.max(...Object.keys(a).map((k) => Math.abs((a as never)[k] - (b as never)[k])));

function randomPath(random: () => number, closed: boolean): Path {
  const at = (): number => 200 * random();
  const handle = (): { x: number; y: number } | null =>
    random() < 0.5 ? null : { x: 80 * random() - 40, y: 80 * random() - 40 };
  return {
    id: 'p',
    closed,
    anchors: Array.from({ length: 2 + Math.floor(random() * 3) }, () => ({ x: at(), y: at(), kind: 'corner' as const, in: handle(), out: handle() })), // prettier-ignore
  };
}

describe('bounds of a stroke', () => {
  it('are those of what is drawn, for all ends and joins', { timeout: 120_000 }, () => {
    const random = seeded(11);
    for (let k = 0; k < 36; k++) {
      const path = randomPath(random, k % 2 === 1);
      const stroke = { width: 4 + 16 * random(), ends: ENDS[k % 3]!, joins: JOINS[Math.floor(k / 3) % 3]!, miterLimit: 4 }; // prettier-ignore
      // A quarter of a unit is one pixel; the tip of a miter is thinner than one.
      const within = stroke.joins === 'miter' ? 1.2 : 0.6;
      expect(farthest(strokeBounds(path, stroke), drawnBounds(path, stroke)), JSON.stringify([path, stroke])).toBeLessThan(within); // prettier-ignore
    }
  });

  it('are exact on a box: mitred corners whole, rounded and bevelled alike at its sides', () => {
    const box = squarePath(10, 20, 30);
    const stroke = { width: 6, ends: 'butt' as const, miterLimit: 4 };
    for (const joins of JOINS)
      expect(strokeBounds(box, { ...stroke, joins })).toEqual({ x0: 7, y0: 17, x1: 43, y1: 53 });
  });

  it('have a tip only within the miter limit', () => {
    const spike: Path = {
      id: 's',
      closed: false,
      anchors: [[0, 0], [100, 10], [0, 20]].map(([x, y]) => ({ x: x!, y: y!, kind: 'corner', in: null, out: null })), // prettier-ignore
    };
    const stroke = { width: 10, ends: 'butt' as const, joins: 'miter' as const };
    // The angle at the tip is 2 atan(0.1): the miter is 1 / sin(atan(0.1)) = 10.05 widths long.
    expect(strokeBounds(spike, { ...stroke, miterLimit: 11 }).x1).toBeCloseTo(100 + 5 * Math.hypot(1, 10), 9);
    expect(strokeBounds(spike, { ...stroke, miterLimit: 10 }).x1).toBeLessThan(101);
  });

  it('at the edges: nothing, a dot, a line back on itself', () => {
    const dot: Path = {
      id: 'd',
      closed: false,
      anchors: [{ x: 5, y: 5, kind: 'corner', in: null, out: null }],
    };
    const stroke = { width: 4, joins: 'round' as const, miterLimit: 4 };
    expect(strokeBounds({ ...dot, anchors: [] }, { ...stroke, ends: 'round' }).x0).toBe(Infinity);
    expect(strokeBounds(dot, { ...stroke, ends: 'round' })).toEqual({ x0: 3, y0: 3, x1: 7, y1: 7 });
    expect(strokeBounds(dot, { ...stroke, ends: 'butt' })).toEqual({ x0: 5, y0: 5, x1: 5, y1: 5 });
    const back: Path = {
      ...dot,
      anchors: [0, 10, 0].map((x) => ({ x, y: 0, kind: 'corner', in: null, out: null })),
    };
    expect(strokeBounds(back, { ...stroke, ends: 'butt' })).toEqual({ x0: 0, y0: -2, x1: 12, y1: 2 });
  });
});
