import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { hexAt, seenPaint } from '../art/paint';
import { hexesApart } from '../colour/palette';
import { apply } from '../geometry/affine';
import { parsePathData } from '../path/data';
import type { Raster } from '../picture/raster';
import { fitGradient } from './gradient-fit';

// What gradients are fitted to is drawn by resvg.
const drawn = (inner: string, width = 300, height = 220): Raster => {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${inner}</svg>`;
  const image = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return { width, height, data: new Uint8ClampedArray(image.pixels) };
};
const BOX = 'M40 30H260V190H40Z';
const fit = (defs: string, d = BOX, ground = '#e9e1d2') =>
  fitGradient(
    drawn(
      `<defs>${defs}</defs><rect width="300" height="220" fill="${ground}"/><path d="${d}" fill="url(#g)"/>`,
    ),
    { outlines: parsePathData(d), covers: [], trim: 0 },
  )!;
const STOPS = '<stop stop-color="#1d4e6b"/><stop offset="1" stop-color="#f0c27a"/>';

describe('a gradient from the picture', () => {
  it.each([
    [60, 40, 240, 180],
    [260, 100, 40, 110],
    [150, 190, 150, 30],
  ])('finds a linear one from %d, %d to %d, %d again', (x1, y1, x2, y2) => {
    const found = fit(`<linearGradient id="g" gradientUnits="userSpaceOnUse" x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}">${STOPS}</linearGradient>`); // prettier-ignore
    expect(found.gradient.kind).toBe('linear');
    expect(found.deltaE).toBeLessThan(0.7);
    expect(found.flatDeltaE).toBeGreaterThan(10 * found.deltaE);
    const [a, b] = found.gradient.placement;
    const turn = Math.atan2(b, a) - Math.atan2(y2 - y1, x2 - x1);
    expect(Math.abs(Math.sin(turn))).toBeLessThan(0.02);
  });

  it('finds a radial one and its middle, inside the shape and outside it', () => {
    for (const [x, y] of [[150, 110], [90, 80], [30, 210]] as const) {
      const found = fit(`<radialGradient id="g" gradientUnits="userSpaceOnUse" cx="${x}" cy="${y}" r="320">${STOPS}</radialGradient>`); // prettier-ignore
      expect(found.gradient.kind).toBe('radial');
      expect(found.deltaE).toBeLessThan(0.8);
      const middle = apply(found.gradient.placement, { x: 0, y: 0 });
      expect(Math.hypot(middle.x - x, middle.y - y)).toBeLessThan(6);
    } // prettier-ignore
  });

  it('has more stops only where the colours turn on the way', () => {
    const two = fit(`<linearGradient id="g">${STOPS}</linearGradient>`);
    const turned = fit('<linearGradient id="g"><stop stop-color="#1d4e6b"/><stop offset=".5" stop-color="#f0c27a"/><stop offset="1" stop-color="#7a2034"/></linearGradient>'); // prettier-ignore
    expect(two.gradient.stops).toHaveLength(2);
    expect(turned.gradient.stops.length).toBeGreaterThan(2);
    expect(turned.deltaE).toBeLessThan(1.2);
  });

  it('says the colour that is there, and is not led astray by what lies beside it', () => {
    const found = fit(`<linearGradient id="g">${STOPS}</linearGradient>`, BOX, '#ff00ff');
    const seen = seenPaint(found.gradient, new Map());
    expect(hexesApart(hexAt(seen, { x: 60, y: 110 }), '#305965')).toBeLessThan(4);
    expect(hexesApart(hexAt(seen, { x: 240, y: 110 }), '#dbb778')).toBeLessThan(4);
  });

  it('of one flat colour is flat, of nothing or of a few pixels nothing', () => {
    const raster = drawn('<rect width="300" height="220" fill="#808080"/>');
    const flat = fitGradient(raster, { outlines: parsePathData(BOX), covers: [], trim: 0 });
    expect(flat === null || flat.deltaE < 0.2).toBe(true);
    const of = (d: string, covers: string[] = []) =>
      fitGradient(raster, { outlines: parsePathData(d), covers: covers.map((c) => parsePathData(c)), trim: 0 }); // prettier-ignore
    expect(of('M400 400h50v50z')).toBeNull();
    expect(of(BOX, ['M0 0H300V220H0Z'])).toBeNull();
    expect(of('M10 10h1v1h-1z')).toBeNull();
    expect(of('M10 10h0v0z')).toBeNull();
  });
});
