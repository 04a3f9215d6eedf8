import { Resvg } from '@resvg/resvg-js';
import { describe, expect, it } from 'vitest';
import { changeArt } from '../../art/change';
import { addNode, setNode, setSheet, together } from '../../art/edits';
import { plainStroke } from '../../art/paint';
import { outputBox } from '../../art/paint-list';
import { emptyArt, placedPicture, type Art, type PlacedPicture, type Shape } from '../../art/schema';
import { toPx } from '../../art/units';
import { circlePath, squarePath } from '../../testing';
import { writeSvg } from './write';

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
    expect(outputBox(art, 'drawing')).toEqual({ x0: 9, y0: 9, x1: 31, y1: 31 });
    const svg = writeSvg(art, { area: 'drawing' });
    expect(svg).toContain('viewBox="9 9 22 22"');
    expect(svg).toContain('opacity="0.5"');
    expect(outputBox(sheet, 'drawing')).toMatchObject({ x0: 0, x1: toPx(50, 'mm') });
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
});
