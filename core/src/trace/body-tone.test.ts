import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { deltaE2000 } from '../colour/difference';
import { rgbToCielab } from '../colour/cielab';
import { formatHex, parseHex, type Rgb } from '../colour/srgb';
import { parsePathData } from '../path/data';
import { pathBounds } from '../path/path-measure';
import type { Raster } from '../picture/raster';
import { pixelAt } from '../picture/raster';
import { seeded } from '../seed';
import { circlePath, squarePath } from '../testing';
import { bodyTone, borderBlur, type ToneWish } from './body-tone';

const apart = (a: Rgb, b: Rgb): number => deltaE2000(rgbToCielab(a), rgbToCielab(b));
const drawn = (inner: string, width = 400, height = 300): Raster => {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${inner}</svg>`;
  const image = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return { width, height, data: new Uint8ClampedArray(image.pixels) };
};
const wish = (d: string, covers: string[] = [], trim = 0.2): ToneWish => ({
  outlines: parsePathData(d),
  covers: covers.map((c) => parsePathData(c)),
  trim,
});
const SQUARE = 'M50 50H250V250H50Z';

describe('the body tone', () => {
  it('of one flat colour is it, with one group, whatever lies beside it', () => {
    const raster = drawn(
      `<rect width="400" height="300" fill="#e9e1d2"/><path d="${SQUARE}" fill="#2f6b4f"/>`,
    );
    const tone = bodyTone(raster, wish(SQUARE))!;
    expect(formatHex(tone.body)).toBe('#2f6b4f');
    expect(tone.groups).toHaveLength(1);
    expect(tone.open).toBe(1);
    expect(tone.histogram.reduce((a, b) => a + b, 0)).toBeGreaterThan(1000);
  });

  it('looks through holes and past what lies above, and not at a blurred border', () => {
    const raster = drawn(
      `<defs><filter id="b"><feGaussianBlur stdDeviation="3"/></filter></defs><rect width="400" height="300" fill="#f4ead8"/><g filter="url(#b)"><path fill-rule="evenodd" d="${SQUARE}M100 100H200V200H100Z" fill="#d4561c"/></g><circle cx="75" cy="150" r="22" fill="#101010"/>`,
    );
    const ring = `${SQUARE}M100 100H200V200H100Z`;
    const cover = 'M50 125H100V175H50Z';
    const tone = bodyTone(raster, wish(ring, [cover], 0))!;
    expect(apart(tone.body, parseHex('#d4561c'))).toBeLessThan(0.5);
    // The hole is no part of it, and what is covered is told.
    expect(tone.open).toBeCloseTo(1 - 2500 / 30_000, 2);
    expect(tone.inset).toBeGreaterThan(4);
  });

  it('leaves highlight and shadow out, and says what they are', () => {
    const raster = drawn(
      `<path d="${SQUARE}" fill="#4c8c84"/><path d="M50 50H250V80H50Z" fill="#cfe8e4"/><path d="M50 215H250V250H50Z" fill="#123230"/>`,
    );
    const tone = bodyTone(raster, wish(SQUARE, [], 0.2))!;
    expect(apart(tone.body, parseHex('#4c8c84'))).toBeLessThan(0.5);
    expect(apart(tone.light!, parseHex('#cfe8e4'))).toBeLessThan(2);
    expect(apart(tone.shade!, parseHex('#123230'))).toBeLessThan(2);
    const none = bodyTone(raster, wish(SQUARE, [], 0))!;
    expect([none.light, none.shade]).toEqual([null, null]);
    expect(tone.between[0]).toBeGreaterThan(none.between[0]);
    expect(tone.between[1]).toBeLessThan(none.between[1]);
  });

  it('tells colours that lie apart, the larger first, with their shares', () => {
    const raster = drawn(`<path d="${SQUARE}" fill="#a32a21"/><path d="M50 50H250V120H50Z" fill="#6a3fa0"/>`);
    const { groups } = bodyTone(raster, wish(SQUARE))!;
    expect(groups.map(({ colour }) => formatHex(colour))).toEqual(['#a32a21', '#6a3fa0']);
    expect(groups[1]!.share).toBeCloseTo(0.35, 1);
    expect(groups.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
  });

  it('of what is covered, beside the picture, clear or without an area is none; of one pixel it is that pixel', () => {
    const raster = drawn(`<path d="${SQUARE}" fill="#4c8c84"/>`);
    expect(bodyTone(raster, wish('M60 60H90V90H60Z', [SQUARE]))).toBeNull();
    expect(bodyTone(raster, wish('M500 60H590V90H500Z'))).toBeNull();
    expect(bodyTone(raster, wish('M300 60H390V90H300Z'))).toBeNull();
    expect(bodyTone(raster, wish('M60 60H60V60Z'))).toBeNull();
    expect(formatHex(bodyTone(raster, wish('M60 60H61V61H60Z'))!.body)).toBe('#4c8c84');
    // A hair across two hundred pixels is looked at closely.
    expect(formatHex(bodyTone(raster, wish('M60 100.2H240V101.4H60Z'))!.body)).toBe('#4c8c84');
  });

  it('is the same each time', () => {
    const raster = drawn(
      `<path d="${SQUARE}" fill="#a32a21"/><circle cx="150" cy="150" r="60" fill="#6a3fa0"/>`,
    );
    expect(bodyTone(raster, wish(SQUARE))).toEqual(bodyTone(raster, wish(SQUARE)));
  });

  it.each([0.8, 1.5, 3])('sees the blur of a border, %s px, within a fifth', (blur) => {
    const raster = drawn(
      `<defs><filter id="b" x="-20%" y="-20%" width="140%" height="140%"><feGaussianBlur stdDeviation="${blur}"/></filter></defs><rect width="400" height="300" fill="#f4ead8"/><g filter="url(#b)"><circle cx="200" cy="150" r="90" fill="#22313c"/></g>`,
    );
    // Lightness is no linear measure of what is blurred, and half a pixel's width blurs as well.
    expect(borderBlur(raster, [circlePath(200, 150, 90)])).toBeGreaterThan(0.8 * blur);
    expect(borderBlur(raster, [circlePath(200, 150, 90)])).toBeLessThan(1.2 * blur + 0.2);
  });
});

describe('on shaded originals', () => {
  // Things of one material each, as a photograph has them: a highlight, a shadow to one side, a cast shadow of a neighbour, the
  // blur of a lens, grain, and the loss of a JPEG. Made here, so that the material's own colour is known.
  it('lies within ΔE 2.0 of the material for 95 % of shapes, nearer than the mean and than the centre', async () => {
    const random = seeded(1717);
    const off = { body: [] as number[], mean: [] as number[], centre: [] as number[] };
    for (let k = 0; k < 40; k++) {
      const material = [0, 1, 2].map(() => 0.15 + 0.7 * random()) as unknown as Rgb;
      const hex = formatHex(material);
      const [w, h] = [90 + 100 * random(), 90 + 70 * random()];
      const [x, y] = [100 + 60 * random(), 60 + 40 * random()];
      const path = k % 2 === 0 ? `M${x} ${y + h / 2}C${x} ${y - 10} ${x + w} ${y - 10} ${x + w} ${y + h / 2}C${x + w} ${y + h + 10} ${x} ${y + h + 10} ${x} ${y + h / 2}Z` : `M${x} ${y}L${x + w} ${y + 20 * random()}L${x + w - 10} ${y + h}L${x + 6} ${y + h - 12}Z`; // prettier-ignore
      const raw = drawn(
        `<defs><clipPath id="c"><path d="${path}"/></clipPath><filter id="s" x="-50%" y="-50%" width="200%" height="200%"><feGaussianBlur stdDeviation="7"/></filter><filter id="lens"><feGaussianBlur stdDeviation="${0.6 + random()}"/></filter></defs>
<g filter="url(#lens)"><rect x="-50" y="-50" width="500" height="400" fill="${formatHex([random(), random(), random()])}"/><path d="${path}" fill="${hex}"/>
<g clip-path="url(#c)"><ellipse cx="${x + w * (0.25 + 0.4 * random())}" cy="${y + h * 0.28}" rx="${w * 0.2}" ry="${h * 0.12}" fill="#fff" opacity="0.6" filter="url(#s)"/>
<path d="M${x - 20} ${y + h * 0.84}L${x + w + 20} ${y + h * 0.76}V${y + h + 40}H${x - 20}Z" fill="#0c0a08" opacity="0.5" filter="url(#s)"/></g></g>`,
      );
      for (let i = 0; i < raw.data.length; i += 4) {
        const noise = 10 * (random() + random() + random() - 1.5);
        for (let c = 0; c < 3; c++) raw.data[i + c] = raw.data[i + c]! + noise;
      }
      const jpeg = await sharp(Buffer.from(raw.data.buffer), { raw: { width: 400, height: 300, channels: 4 } }).removeAlpha().jpeg({ quality: 84 }).toBuffer(); // prettier-ignore
      const { data } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const raster: Raster = { width: 400, height: 300, data: new Uint8ClampedArray(data) };
      const outlines = parsePathData(path);
      const box = pathBounds(outlines[0]!);
      off.body.push(apart(bodyTone(raster, { outlines, covers: [], trim: 0.2 })!.body, material));
      off.centre.push(
        apart(
          pixelAt(raster, Math.round((box.x0 + box.x1) / 2), Math.round((box.y0 + box.y1) / 2))!,
          material,
        ),
      );
      const inside: Rgb[] = [];
      for (let py = Math.ceil(box.y0); py < box.y1; py += 3)
        for (let px = Math.ceil(box.x0); px < box.x1; px += 3) inside.push(pixelAt(raster, px, py)!);
      const mean = (c: 0 | 1 | 2): number => inside.reduce((sum, v) => sum + v[c], 0) / inside.length;
      off.mean.push(apart([mean(0), mean(1), mean(2)], material));
    }
    const at = (list: number[], share: number): number =>
      list.toSorted((a, b) => a - b)[Math.ceil(share * list.length) - 1]!;
    expect(at(off.body, 0.95)).toBeLessThan(2);
    for (const share of [0.5, 0.95]) {
      expect(at(off.body, share)).toBeLessThan(at(off.mean, share));
      expect(at(off.body, share)).toBeLessThan(at(off.centre, share));
    }
  });

  it('squares and circles are looked at alike', () => {
    const raster = drawn('<rect width="400" height="300" fill="#4c8c84"/>');
    for (const path of [squarePath(100, 100, 40, 's'), circlePath(200, 150, 40)])
      expect(formatHex(bodyTone(raster, { outlines: [path], covers: [], trim: 0.2 })!.body)).toBe('#4c8c84');
  });
});
