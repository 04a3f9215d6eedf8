import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addNode, addPicture, setClip, setCutEdge, together } from '../../art/edits';
import { paintedBox, paintedLeaves, paintList, type PaintedGroup } from '../../art/paint-list';
import type { Art, ArtNode, CutEdge, Shape } from '../../art/schema';
import { emptyArt, placedPicture } from '../../art/blank';
import { pathOf, anchor, squarePath } from '../../testing';
import { writeSvg } from './write';

const SIDE = 200;
const shape = (id: string, values: Partial<Shape>): Shape => ({ id, type: 'shape', name: id, shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [squarePath(50, 50, 100)], ...values }); // prettier-ignore
const group = (children: ArtNode[]): ArtNode => ({ id: 'g', type: 'group', name: 'Cut', shown: true, locked: false, opacity: 1, children }); // prettier-ignore

/** A red sheet cut by a shape of these outlines with this edge. */
function cut(edge: CutEdge, paths = [squarePath(50, 50, 100)], more: Partial<Shape> = {}): Art {
  const all = shape('red', { paths: [squarePath(-100, -100, 400, 'r')], fill: { hex: '#ff0000' } });
  return changeArt(
    emptyArt({ width: SIDE, height: SIDE, unit: 'px' }, 'layer'),
    together(addNode('layer', group([shape('outline', { paths, ...more }), all])), setClip('g', 'outline'), setCutEdge('g', edge)), // prettier-ignore
  ).art;
}

/** How much is seen, 0 to 1, at four pixels to the sheet's. Sources outside: resvg, and librsvg through sharp. */
type Seen = (x: number, y: number) => number;
const SCALE = 4;
async function drawers(svg: string): Promise<readonly { readonly at: Seen; readonly area: number }[]> {
  const width = SCALE * SIDE;
  const resvg = new Resvg(svg, { fitTo: { mode: 'width', value: width } }).render().pixels;
  const librsvg = await sharp(Buffer.from(svg), { density: 72 * SCALE }).resize(width, width).ensureAlpha().raw().toBuffer(); // prettier-ignore
  return [resvg, librsvg].map((pixels) => ({
    at: (x, y) => pixels[4 * (Math.floor(y * SCALE) * width + Math.floor(x * SCALE)) + 3]! / 255,
    area: pixels.reduce((sum, v, i) => (i % 4 === 3 ? sum + v / 255 : sum), 0) / SCALE ** 2,
  }));
}

/** Share of a Gaussian step beyond a distance. Source: Abramowitz & Stegun 7.1.26 (erf to 1.5e-7), from memory. */
function beyond(distance: number, deviation: number): number {
  const x = Math.abs(distance) / (deviation * Math.SQRT2);
  const t = 1 / (1 + 0.3275911 * x);
  const tail = (((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t * Math.exp(-x * x)) / 2; // prettier-ignore
  return distance > 0 ? tail : 1 - tail;
}

describe('the edge of a cutout', () => {
  it('lies outside or inside the outline by what is asked, in holes too', async () => {
    const ring = [squarePath(50, 50, 100, 'o'), squarePath(80, 80, 40, 'h')];
    // Grown, corners that stick out are rounded, those of the hole stay sharp; shrunk, the other way round.
    const rounded = (by: number): number => (4 - Math.PI) * by * by;
    for (const [by, area] of [
      [8, 116 ** 2 - rounded(8) - 24 ** 2],
      [-8, 84 ** 2 - (56 ** 2 - rounded(8))],
      [0.5, 101 ** 2 - rounded(0.5) - 39 ** 2],
    ] as const)
      for (const seen of await drawers(writeSvg(cut({ by, soft: 0 }, ring))))
        expect(Math.abs(seen.area / area - 1), `by ${by}`).toBeLessThan(0.002);
  });

  it('runs out like a Gaussian where it is soft', async () => {
    for (const { at } of await drawers(writeSvg(cut({ by: 0, soft: 6 }))))
      for (const d of [-15, -9, -4, 0, 3, 7, 12])
        // At the middle of a pixel; three box blurs, as SVG 1.1 allows, come within 2 % of a Gaussian.
        expect(Math.abs(at(150 + d, 100) - beyond(d + 0.5 / SCALE, 6))).toBeLessThan(0.025);
  });

  it('leaves the shape that cuts as it is painted, and cuts what stands together as a whole', () => {
    const art = cut({ by: 2, soft: 1 }, undefined, { fill: { hex: '#2f6b4f' } });
    const parts = (paintList(art)[0]!.parts[0] as PaintedGroup).parts;
    expect(parts.map((p) => [p.id, p.mask?.kind])).toEqual([
      ['outline', undefined],
      ['outline_within', 'edge'],
    ]);
    expect(paintedLeaves(paintList(art)).map(({ part }) => part.id)).toEqual(['outline', 'red']);
    // As far as it is seen: the outline, grown, and three deviations of its softness.
    expect(paintedBox(paintList(art))).toEqual({ x0: 45, y0: 45, x1: 155, y1: 155 });
  });

  it('that is sharp and at the outline is no edge: a clip, as before', () => {
    const art = cut({ by: 0, soft: 0 });
    expect(writeSvg(art)).toMatch(/clip-path=/);
    expect(writeSvg(art)).not.toMatch(/mask/);
  });

  it('is painted anew only where something changed', () => {
    const art = cut({ by: 2, soft: 1 });
    const first = paintList(art)[0]!.parts[0];
    const next = changeArt(art, addNode('layer', shape('other', { fill: { hex: '#000000' } }))).art;
    expect(paintList(next)[0]!.parts[0]).toBe(first);
    const softer = changeArt(art, setCutEdge('g', { by: 2, soft: 3 })).art;
    expect(paintList(softer)[0]!.parts[0]).not.toBe(first);
  });
});

describe('a shadow that stays', () => {
  /** A grey ground with a dark line under the outline's right side and another over its left one. */
  async function shadowed(edge: CutEdge): Promise<Art> {
    const pixels = Buffer.alloc(SIDE * SIDE * 3, 200);
    for (let y = 90; y < 110; y++)
      for (let x = 0; x < SIDE; x++) if (x > 148 || x < 52) pixels.fill(120, 3 * (y * SIDE + x), 3 * (y * SIDE + x) + 3); // prettier-ignore
    const png = await sharp(pixels, { raw: { width: SIDE, height: SIDE, channels: 3 } })
      .png()
      .toBuffer();
    picture = `data:image/png;base64,${png.toString('base64')}`;
    const one = placedPicture({ id: 'p', source: 's', name: 'Photo', width: SIDE, height: SIDE, placement: [1, 0, 0, 1, 0, 0] }); // prettier-ignore
    const stands = { name: 'Photo', shown: true, locked: false, opacity: 1 } as const;
    return changeArt(
      emptyArt({ width: SIDE, height: SIDE, unit: 'px' }, 'layer'),
      together(
        addPicture(one),
        addNode(
          'layer',
          group([shape('outline', {}), { id: 'n', type: 'picture', picture: 'p', ...stands }]),
        ),
        setClip('g', 'outline'),
        setCutEdge('g', edge),
      ),
    ).art;
  }
  let picture = '';
  const ground = 200 / 255;

  it('is see-through black as dark as the picture beside its ground, on its side alone', async () => {
    const art = await shadowed({ by: 0, soft: 0, shadow: { side: 0, reach: 40, ground } });
    const svg = writeSvg(art, { pictureHref: () => picture });
    // The pixels stand in the file once.
    expect(svg.split('data:image/png')).toHaveLength(2);
    for (const { at } of await drawers(svg)) {
      // Close to the outline nearly all of 1 - 120 / 200; a little less further on; none at its reach.
      expect(at(152, 100)).toBeGreaterThan(0.33);
      expect(at(152, 100)).toBeLessThan(0.41);
      expect(at(165, 100)).toBeLessThan(at(152, 100));
      expect(at(189, 100)).toBeLessThan(0.03);
      // Where the ground is as light as it is said to be, and on the other side.
      expect(at(152, 60)).toBeLessThan(0.01);
      expect(at(40, 100)).toBe(0);
      expect(at(100, 60)).toBe(1);
    }
  });

  it('goes with a cutout that stands several times, turned with it', async () => {
    const art = await shadowed({ by: 0, soft: 0, shadow: { side: 0, reach: 40, ground } });
    const ring = changeArt(art, (draft) => {
      const node = draft.layers[0]!.children[0]!;
      if (node.type === 'group') node.repeat = { kind: 'ring', count: 2, x: 100, y: 100, angle: Math.PI / 2 };
    }).art;
    const parts = (paintList(ring)[0]!.parts[0] as PaintedGroup).parts;
    expect(parts).toHaveLength(4);
    expect(parts[2]!.mask).toMatchObject({ kind: 'shadow', side: Math.PI / 2 });
    expect(parts[0]!.mask).toMatchObject({ kind: 'shadow', side: 0 });
  });

  it('has a box of its reach around the outline', () => {
    const circle = pathOf([anchor(0, 0), anchor(10, 0), anchor(10, 10)], true);
    const art = cut({ by: 0, soft: 0, shadow: { side: 0, reach: 5, ground: 1 } }, [circle]);
    expect(paintedBox(paintList(art))).toEqual({ x0: -5, y0: -5, x1: 15, y1: 15 });
  });
});
