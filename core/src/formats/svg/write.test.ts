import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addNode, addPicture, setCovering, setNode, setSheet, together } from '../../art/edits';
import { plainStroke, type Gradient } from '../../art/paint';
import type { Blend } from '../../art/paint-kinds';
import { outputBox } from '../../art/output';
import type { Art, PlacedPicture, Shape } from '../../art/schema';
import { emptyArt, placedPicture } from '../../art/blank';
import { toPx } from '../../art/units';
import { circlePath, squarePath } from '../../testing';
import { outputPictures, writeSvg, type SvgOptions } from './write';

const shape = (id: string, name: string, values: Partial<Shape> = {}): Shape => ({
  id,
  type: 'shape',
  name,
  shown: true,
  locked: false,
  opacity: 1,
  fill: { hex: '#ff0000' },
  stroke: null,
  paths: [squarePath(10, 10, 20, `${id}p`)],
  ...values,
});
const sheet = emptyArt({ width: toPx(50, 'mm'), height: toPx(40, 'mm'), unit: 'mm' }, 'layer');
const drawn = (...shapes: Shape[]): Art =>
  changeArt(sheet, together(...shapes.map((s) => addNode('layer', s)))).art;

/** The drawing at its own pixels. Source outside: resvg. */
function pixelsOf(svg: string): {
  alpha: (x: number, y: number) => number;
  rgb: (x: number, y: number) => number[];
} {
  const { width, pixels } = new Resvg(svg, {
    fitTo: { mode: 'width', value: Math.round(4 * toPx(50, 'mm')) },
  }).render();
  const scale = width / toPx(50, 'mm');
  const at = (x: number, y: number): number => 4 * (Math.floor(y * scale) * width + Math.floor(x * scale));
  return { alpha: (x, y) => pixels[at(x, y) + 3]!, rgb: (x, y) => [...pixels.slice(at(x, y), at(x, y) + 3)] };
}

describe('writing SVG', () => {
  it('has its real size in the sheet’s unit and a viewBox in pixels', () => {
    const svg = writeSvg(sheet);
    expect(svg).toContain('width="50mm" height="40mm"');
    expect(svg).toContain('viewBox="0 0 188.976 151.181"');
    expect(svg).toContain('xmlns="http://www.w3.org/2000/svg"');
  });

  it('names groups and paths, each id once, whatever people write', () => {
    const svg = writeSvg(drawn(shape('a', 'Leaf <1> & "co"'), shape('b', 'Leaf 1 co'), shape('c', '🌱'), shape('d', 'שתיל'), shape('e', '3 peas'))); // prettier-ignore
    expect([...svg.matchAll(/ id="([^"]+)"/g)].map((m) => m[1])).toEqual(['drawing', 'leaf-1-co', 'leaf-1-co-2', 'item', 'שתיל', 'n-3-peas']); // prettier-ignore
    expect(svg).toContain('<title>Leaf &lt;1&gt; &amp; &quot;co&quot;</title>');
    expect(() => new Resvg(svg)).not.toThrow();
  });

  it('punches holes by the even-odd rule', () => {
    const ring = shape('r', 'Ring', { paths: [squarePath(0, 0, 90, 'o'), circlePath(45, 45, 20, 'h')] });
    const { pixels, width } = new Resvg(writeSvg(drawn(ring))).render();
    const alpha = (x: number, y: number): number => pixels[(y * width + x) * 4 + 3]!;
    expect(alpha(45, 45)).toBe(0);
    expect(alpha(10, 10)).toBe(255);
  });

  it('has the hole of a line that crosses itself, as the bed has', () => {
    const five = Array.from({ length: 5 }, (_, k) => (k * 4 * Math.PI) / 5);
    const star = { ...squarePath(0, 0, 1, 'star'), anchors: five.map((a) => ({ x: 50 + 40 * Math.sin(a), y: 50 - 40 * Math.cos(a), kind: 'corner' as const, in: null, out: null })) }; // prettier-ignore
    const svg = writeSvg(drawn(shape('p', 'Pentagram', { paths: [star] })));
    // Source outside: resvg.
    const { width, pixels } = new Resvg(svg, { fitTo: { mode: 'width', value: 189 } }).render();
    const alpha = (x: number, y: number): number => pixels[(y * width + x) * 4 + 3]!;
    expect([alpha(50, 50), alpha(50, 20)]).toEqual([0, 255]);
  });

  it('leaves out what is hidden or paints nothing', () => {
    const art = drawn(shape('a', 'A'), shape('b', 'B', { fill: null }), shape('c', 'C', { shown: false }));
    expect([...writeSvg(art).matchAll(/<path id="([^"]+)"/g)].map((m) => m[1])).toEqual(['a']);
    expect(writeSvg(changeArt(art, setNode('layer', { shown: false })).art)).not.toContain('<path');
  });

  it('fits the drawing when asked, stroke included, and the sheet when nothing is drawn', () => {
    const art = drawn(shape('a', 'A', { stroke: plainStroke({ hex: '#000000' }, 2), opacity: 0.5 }));
    expect(outputBox(art, { area: 'drawing' })).toEqual({ x0: 9, y0: 9, x1: 31, y1: 31 });
    const svg = writeSvg(art, { area: 'drawing' });
    expect(svg).toContain('viewBox="9 9 22 22"');
    expect(svg).toContain('opacity="0.5"');
    expect(outputBox(sheet, { area: 'drawing' })).toMatchObject({ x0: 0, x1: toPx(50, 'mm') });
  });

  it('paints the ground only when there is one', () => {
    const art = changeArt(sheet, setSheet({ ground: '#fbf7ee' })).art;
    expect(writeSvg(art)).toContain('fill="#fbf7ee"');
    expect(writeSvg(art, { ground: null })).not.toContain('<rect');
  });

  it('writes groups with their opacity, and pictures only when given an address', () => {
    const base = drawn();
    const art: Art = {
      ...changeArt(base, addNode('layer', { id: 'g', type: 'group', name: 'Petals', shown: true, locked: false, opacity: 0.4, children: [shape('a', 'A')] })).art,
      pictures: [placedPicture({ id: 'p', source: 's', name: 'Photo', width: 10, height: 5, placement: [2, 0, 0, 2, 1, 1], crop: { x0: 1, y0: 1, x1: 5, y1: 4 }, credit: { source: '', author: 'A <b>', licence: 'CC0', address: '' } })],
    }; // prettier-ignore
    expect(writeSvg(art)).toContain('<g id="petals" opacity="0.4">');
    expect(writeSvg(art)).not.toContain('<image');
    expect(writeSvg(art, { pictures: true, pictureHref: () => 'data:x&y' })).toContain('matrix(2 0 0 2 1 1)');
    expect(writeSvg(art, { pictures: true, pictureHref: () => 'data:x&y' })).toContain('href="data:x&amp;y"');
    expect(writeSvg(art, { pictures: true, pictureHref: () => 'x' })).toContain(
      '<desc>A &lt;b&gt; · CC0</desc>',
    );
    expect(writeSvg(art, { pictures: true, pictureHref: () => 'x' })).toMatch(
      /<clipPath id="crop-of-photo"><rect x="1" y="1" width="4" height="3"\/>.*clip-path="url\(#crop-of-photo\)"/s,
    );
  });

  it('holds pixels that are placed many times once, each where it lies', () => {
    const placed = (i: number): PlacedPicture =>
      placedPicture({ id: `p${i}`, source: 's', name: 'can.jpg', width: 8, height: 4, placement: [1, 0, 0, 1, 9 * i, 0] }); // prettier-ignore
    const art = { ...emptyArt({ width: 90, height: 9, unit: 'px' }, 'l'), pictures: Array.from({ length: 10 }, (_, i) => placed(i)) }; // prettier-ignore
    // An 8 × 4 red picture, as SVG within the SVG.
    const red =
      '<svg xmlns="http://www.w3.org/2000/svg" width="8" height="4"><rect width="8" height="4" fill="#f00"/></svg>';
    const href = `data:image/svg+xml;base64,${btoa(red)}`;
    const svg = writeSvg(art, { pictures: true, pictureHref: () => href });
    expect(svg.split(href)).toHaveLength(2);
    expect(svg.match(/<use /g)).toHaveLength(10);
    // Source outside: resvg draws it; the last one lies where it was placed.
    const { width, pixels } = new Resvg(svg).render();
    const alpha = (x: number): number => pixels[(1 * width + x) * 4 + 3]!;
    expect([alpha(82), alpha(88), alpha(89)]).toEqual([255, 255, 0]);
  });

  it('is well-formed whatever an old drawing holds in its names', () => {
    const art = emptyArt({ width: 9, height: 9, unit: 'px' }, 'l');
    const svg = writeSvg({ ...art, layers: [{ ...art.layers[0]!, name: 'a\u0000\ufffe\ud83cb<' }] });
    expect(svg).toContain('<title>ab&lt;</title>');
  });

  it('writes strokes with their ends, joins and dashes, gradients with their stops', () => {
    const fill: Gradient = {
      kind: 'radial',
      placement: [20, 0, 0, 10, 20, 20],
      stops: [
        { at: 0, colour: { hex: '#ffffff' }, opacity: 1 },
        { at: 1, colour: { hex: '#2f6b4f' }, opacity: 0 },
      ],
    };
    const stroke = { ...plainStroke({ ...fill, kind: 'linear' }, 2), ends: 'butt', joins: 'miter', dash: [4, 1.5] } as const; // prettier-ignore
    const svg = writeSvg(drawn(shape('a', 'A', { fill, stroke })));
    expect(svg).toContain('<radialGradient id="fill-of-a" gradientUnits="userSpaceOnUse" cx="0" cy="0" r="1" gradientTransform="matrix(20 0 0 10 20 20)"><stop offset="0" stop-color="#ffffff"/><stop offset="1" stop-color="#2f6b4f" stop-opacity="0"/></radialGradient>'); // prettier-ignore
    expect(svg).toContain('<linearGradient id="stroke-of-a"');
    expect(svg).toContain('fill="url(#fill-of-a)" fill-rule="evenodd" stroke="url(#stroke-of-a)" stroke-width="2" stroke-linecap="butt" stroke-linejoin="miter" stroke-miterlimit="4" stroke-dasharray="4 1.5"'); // prettier-ignore
    // Source outside: resvg. A dash is 4 long, the gap 1.5.
    const line = { ...squarePath(0, 0, 1, 'l'), closed: false, anchors: squarePath(10, 10, 60).anchors.slice(0, 2) }; // prettier-ignore
    const dashed = shape('d', 'D', {
      fill: null,
      stroke: { ...stroke, paint: { hex: '#000000' } },
      paths: [line],
    });
    const { alpha } = pixelsOf(writeSvg(drawn(dashed)));
    expect([10.5, 13.5, 14.75, 16, 19, 20.25].map((x) => alpha(x, 10) > 128)).toEqual([true, true, false, true, true, false]); // prettier-ignore
  });

  it('blends as the standard has it: with what lies beneath, through a group that is no more than its parts', () => {
    const [beneath, above] = [[0xd4, 0x56, 0x1c], [0x2f, 0x9b, 0x4f]]; // prettier-ignore
    const hex = (c: number[]): string => `#${c.map((v) => v.toString(16).padStart(2, '0')).join('')}`;
    // Source outside: W3C Compositing and Blending 1, section 10.1, with resvg.
    const FORMULAS = {
      multiply: (b: number, s: number) => b * s,
      screen: (b: number, s: number) => b + s - b * s,
      darken: Math.min,
      lighten: Math.max,
      difference: (b: number, s: number) => Math.abs(b - s),
      exclusion: (b: number, s: number) => b + s - 2 * b * s,
      'hard-light': (b: number, s: number) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1)),
    };
    for (const [blend, formula] of Object.entries(FORMULAS)) {
      const group = { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1, children: [shape('s', 'S', { fill: { hex: hex(above!) }, blend: blend as Blend })] } as const; // prettier-ignore
      const art = changeArt(
        drawn(shape('b', 'B', { fill: { hex: hex(beneath!) } })),
        addNode('layer', group),
      ).art;
      const { rgb } = pixelsOf(writeSvg(art));
      rgb(20, 20).forEach((v, k) => {
        const expected = 255 * formula(beneath![k]! / 255, above![k]! / 255);
        expect(Math.abs(v - expected), blend).toBeLessThanOrEqual(1);
      });
      // One that is not opaque is painted by itself first: nothing is there to blend with.
      const alone = pixelsOf(writeSvg(changeArt(art, setCovering(['g'], { opacity: 0.5 })).art));
      alone.rgb(20, 20).forEach((v, k) => expect(Math.abs(v - (beneath![k]! + above![k]!) / 2)).toBeLessThanOrEqual(1)); // prettier-ignore
    }
  });

  it('cuts what stands in a clipped group, each by itself, and blurs before it cuts', () => {
    const ring = [squarePath(10, 10, 60, 'c1'), squarePath(30, 30, 20, 'c2')];
    const group = { id: 'g', type: 'group', name: 'G', shown: true, locked: false, opacity: 1, clip: 'c', children: [shape('c', 'C', { fill: null, paths: ring }), shape('s', 'S', { paths: [squarePath(0, 0, 50, 'sp')], blur: 4 })] } as const; // prettier-ignore
    const svg = writeSvg(changeArt(sheet, addNode('layer', group)).art);
    const { alpha } = pixelsOf(svg);
    // Outside the outline, in its hole, inside, and inside beyond the sharp edge at 50 by one standard deviation.
    expect([alpha(5, 5), alpha(40, 40), alpha(20, 20)]).toEqual([0, 0, 255]);
    // The normal distribution's integral at one standard deviation leaves 15.9 %.
    expect(Math.abs(alpha(54, 20) / 255 - 0.159)).toBeLessThan(0.03);
    expect(svg.match(/<clipPath/g)).toHaveLength(1);
  });

  it('has a picture that is part of the drawing also where the pictures are left out', () => {
    const photo = placedPicture({ id: 'p', source: 's', name: 'Photo', width: 10, height: 5, placement: [2, 0, 0, 2, 1, 1] }); // prettier-ignore
    const node = { id: 'n', type: 'picture', name: 'Cutout', shown: true, locked: false, opacity: 0.5, picture: 'p' } as const; // prettier-ignore
    const art = changeArt(sheet, together(addPicture(photo), addNode('layer', node))).art;
    const images = (options: SvgOptions): number =>
      writeSvg(art, options).match(/<(image|use) /g)?.length ?? 0;
    expect(images({})).toBe(0);
    expect(images({ pictureHref: () => 'x' })).toBe(1);
    expect(writeSvg(art, { pictureHref: () => 'x' })).toContain('<g opacity="0.5">');
    // Beneath it too: two uses of pixels that stand in the file once.
    expect(images({ pictures: true, pictureHref: () => 'x' })).toBe(3);
    expect(outputPictures(art, true).map((p) => p.id)).toEqual(['p', 'p']);
  });
});
