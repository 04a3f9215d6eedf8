import { Resvg } from '@resvg/resvg-js';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { MirrotError } from '../error';
import { anchor, circlePath, pathOf, randomCubic, seeded, squarePath } from '../testing';
import { formatPathData, parsePathData } from './data';
import { pathCubics } from './path';
import { pathLength } from './path-measure';

const require = createRequire(import.meta.url);

/** Every path of an open icon set, file by file: the `d` attributes, and the viewBox they are drawn in. */
function iconPaths(pkg: string, folder: string): { name: string; view: string; data: string[] }[] {
  const root = join(dirname(require.resolve(`${pkg}/package.json`)), folder);
  return readdirSync(root)
    .filter((f) => f.endsWith('.svg'))
    .map((name) => {
      const svg = readFileSync(join(root, name), 'utf8');
      return {
        name,
        view: /viewBox="([^"]+)"/.exec(svg)?.[1] ?? '0 0 24 24',
        data: [...svg.matchAll(/<path[^>]*?\sd="([^"]+)"/g)].map((m) => m[1]!),
      };
    })
    .filter((icon) => icon.data.length > 0);
}

const sheet = (view: string, data: readonly string[], stroke: boolean, over: number): string => {
  const [, , w, h] = view.split(' ').map(Number) as [number, number, number, number];
  const style = stroke ? 'fill="none" stroke="#000" stroke-width="2"' : 'fill-rule="evenodd"';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w * over}" height="${h * over}" viewBox="${view}"><rect x="-99" y="-99" width="999" height="999" fill="#fff"/>${data.map((d) => `<path d="${d}" ${style}/>`).join('')}</svg>`;
};

/**
 * Means of over × over pixels, so an icon at its own size. A renderer's edge pixels know a few rows of coverage only:
 * there a shift of 1e-7 can move one by 16/255, which the mean brings back to what it is worth.
 */
function reduced(pixels: Uint8Array, width: number, height: number, over: number): Float64Array {
  const channels = pixels.length / width / height;
  const w = width / over;
  const means = new Float64Array((w * height) / over);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      means[Math.floor(y / over) * w + Math.floor(x / over)]! +=
        pixels[(y * width + x) * channels]! / over ** 2;
  return means;
}

const byResvg = (svg: string, over: number): Float64Array => {
  const { pixels, width, height } = new Resvg(svg, { font: { loadSystemFonts: false } }).render();
  return reduced(pixels, width, height, over);
};

/** librsvg through sharp: its arcs are exact, resvg turns them into cubics within 0.1 unit only. */
const byLibrsvg = async (svg: string, over: number): Promise<Float64Array> => {
  const { data, info } = await sharp(Buffer.from(svg)).raw().toBuffer({ resolveWithObject: true });
  return reduced(data, info.width, info.height, over);
};

// Source: W3C SVG 2, chapter Paths; data: bootstrap-icons and lucide-static, drawn by resvg before and after.
describe.each([
  ['bootstrap-icons', 'icons', false],
  ['lucide-static', 'icons', true],
] as const)('path data of %s', (pkg, folder, stroke) => {
  const icons = iconPaths(pkg, folder);

  it('is the same after parsing, writing and parsing again', () => {
    expect(icons.length).toBeGreaterThan(1000);
    let farthest = 0;
    for (const { name, data } of icons) {
      for (const d of data) {
        const once = parsePathData(d);
        const text = formatPathData(once, 6);
        const again = parsePathData(text);
        expect(again.length, name).toBe(once.length);
        once.forEach((p, i) => {
          const q = again[i]!;
          expect(q.closed, name).toBe(p.closed);
          expect(q.anchors.length, name).toBe(p.anchors.length);
          p.anchors.forEach((a, k) => {
            const b = q.anchors[k]!;
            farthest = Math.max(
              farthest,
              Math.abs(b.x - a.x),
              Math.abs((b.out?.y ?? 0) - (a.out?.y ?? 0)) / 2,
            );
          });
        });
        expect(formatPathData(again, 6), name).toBe(text);
      }
    }
    expect(farthest).toBeLessThanOrEqual(1e-6);
  }, 60_000);

  it('draws the same pixels, none off by more than 1 of 255', async () => {
    for (const { name, view, data } of icons) {
      const draw = data.some((d) => /a/i.test(d)) ? byLibrsvg : byResvg;
      const written = data.map((d) => formatPathData(parsePathData(d), 6));
      const worstAt = async (over: number): Promise<number> => {
        const before = await draw(sheet(view, data, stroke, over), over);
        const after = await draw(sheet(view, written, stroke, over), over);
        return before.reduce((worst, v, i) => Math.max(worst, Math.abs(v - after[i]!)), 0);
      };
      // What eight times leaves in doubt is looked at more closely.
      const worst = await worstAt(8);
      if (worst > 1) expect(await worstAt(40), name).toBeLessThanOrEqual(1);
    }
  }, 180_000);
});

describe('reading path data', () => {
  it('takes the forms the specification allows', () => {
    const [p] = parsePathData('M10-20.5L.5 1e1,3-4h+6v7z');
    expect(p!.closed).toBe(true);
    expect(p!.anchors.map(({ x, y }) => `${x},${y}`)).toEqual(['10,-20.5', '0.5,10', '3,-4', '9,-4', '9,3']);
  });

  it('reads arc flags written without spaces', () => {
    expect(parsePathData('M0 0a1 1 0 01.5.5')[0]!.anchors.at(-1)).toMatchObject({ x: 0.5, y: 0.5 });
  });

  it('goes on from the start of a closed path', () => {
    const paths = parsePathData('M5 5h10v10zl-2 0');
    expect(paths).toHaveLength(2);
    expect(paths[1]!.anchors.map((a) => [a.x, a.y])).toEqual([[5, 5], [3, 5]]); // prettier-ignore
  });

  it('mirrors the handle before for S and T, and none after another command', () => {
    const [p] = parsePathData('M0 0C0 10 10 10 10 0S20-10 20 0');
    expect(p!.anchors[1]!.out).toEqual({ x: 0, y: -10 });
    expect(p!.anchors[1]!.kind).toBe('smooth');
    expect(parsePathData('M0 0L5 0S8 4 9 0')[0]!.anchors[1]!.out).toBeNull();
  });

  it('makes a quarter arc as long as a quarter circle', () => {
    expect(pathLength(parsePathData('M10 0A10 10 0 0 1 0 10')[0]!)).toBeCloseTo(5 * Math.PI, 2);
    // Radii too small are scaled up (SVG 2, out-of-range radii): a half circle over the chord.
    expect(pathLength(parsePathData('M0 0A1 1 0 0 1 20 0')[0]!)).toBeCloseTo(10 * Math.PI, 1);
    expect(parsePathData('M0 0A0 5 0 0 1 20 0')[0]!.anchors).toHaveLength(2);
  });

  it.each([
    ['L0 0', 'begin with a move'],
    ['M0 0L5', 'a number was expected'],
    ['M0 0K5 5', '"K" is not a command'],
    ['M0 0A1 1 0 2 0 5 5', 'flag'],
    ['M0 0L1e999 0', 'too large'],
    ['Mx', 'a number was expected'],
  ])('refuses %s with the place of the fault', (data, words) => {
    expect(() => parsePathData(data)).toThrowError(MirrotError);
    expect(() => parsePathData(data)).toThrowError(words);
    expect(() => parsePathData(data)).toThrowError(/character \d+/);
  });

  it('has no anchor more for a ring that closes a thousandth off, however it was rounded', () => {
    expect(parsePathData('M0 0L10 0 10 10 0.001 0.001Z')[0]!.anchors).toHaveLength(3);
    expect(parsePathData('M0 0C5-5 10-5 10 0 10 5 5 5 .001-.001Z')[0]!.anchors).toHaveLength(2);
    // On a drawing that is itself so small it is a side like another.
    expect(parsePathData('M0 0L.01 0 .01.01 0.001.001Z')[0]!.anchors).toHaveLength(4);
  });

  it('reads smooth anchors of our own files as smooth, however short their handles', () => {
    for (let k = 0; k < 200; k++) {
      const angle = k * 0.7;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const reach = 0.02 + 0.01 * k;
      const path = pathOf([
        anchor(0, 0, null, [1, 2]),
        anchor(20 + c, 5 + s, [-reach * c, -reach * s], [0.6 * reach * c, 0.6 * reach * s], 'smooth'),
        anchor(40, 0, [-1, 2], null),
      ]);
      expect(parsePathData(formatPathData([path]))[0]!.anchors[1]!.kind, `${k}`).toBe('smooth');
    }
    expect(parsePathData('M0 0C1 0 9-.02 10 0 10.02.01 19 1 20 0')[0]!.anchors[1]!.kind).toBe('corner');
  });

  it('gives nothing for nothing', () => {
    expect(parsePathData('')).toEqual([]);
    expect(parsePathData('M3 3')).toEqual([]);
  });
});

describe('writing path data', () => {
  it('is short: H, V, S, relative commands, no needless digits', () => {
    expect(formatPathData([squarePath(10, 10, 5)])).toBe('M10 10h5v5H10Z');
    expect(formatPathData([pathOf([anchor(0.5, -0.25), anchor(100.5, 99.75)])])).toBe('M.5-.25l100 100');
    const circle = formatPathData([circlePath(50, 50, 40)]);
    expect(circle).toMatch(/^M90 50c[^a-z]+S[^a-z]+Z$/i);
  });

  it('is within half a thousandth everywhere, however long the path', () => {
    const random = seeded(11);
    const anchors = Array.from({ length: 2000 }, () => {
      const [a, b, c] = randomCubic(random);
      return anchor(a.x, a.y, [b.x - 50, b.y - 50], [c.x - 50, c.y - 50]);
    });
    const path = pathOf(anchors);
    const back = parsePathData(formatPathData([path]))[0]!;
    pathCubics(back).forEach((c, i) =>
      c.forEach((p, k) => {
        const q = pathCubics(path)[i]![k]!;
        expect(Math.max(Math.abs(p.x - q.x), Math.abs(p.y - q.y))).toBeLessThanOrEqual(0.0005 + 1e-9);
      }),
    );
  });

  it('leaves nothing for empty paths', () => {
    expect(formatPathData([])).toBe('');
    expect(formatPathData([pathOf([])])).toBe('');
  });
});
