import { Resvg } from '@resvg/resvg-js';
import paper from 'paper/dist/paper-core';
import { describe, expect, it } from 'vitest';
import { areaByColour } from '../art/area-by-colour';
import { changeArt } from '../art/change';
import { addNode, together } from '../art/edits';
import { emptyArt } from '../art/blank';
import { plainStroke } from '../art/paint';
import { groupOf, shapeOf } from '../art/testing';
import { writeSvg } from '../formats/svg/write';
import { anchor, circlePath, pathOf, squarePath } from '../testing';
import { drawingFigures } from './drawing-figures';

const nodes = [
  shapeOf('disc', { fill: { hex: '#2f6b4f' }, paths: [circlePath(100, 100, 60, 'disc-o'), circlePath(100, 100, 20, 'disc-i')] }), // prettier-ignore
  shapeOf('box', { fill: { hex: '#d4561c' }, stroke: plainStroke({ hex: '#22252b' }, 2), paths: [squarePath(200, 60, 80, 'box-p')] }), // prettier-ignore
  shapeOf('line', { fill: null, stroke: plainStroke({ hex: '#22252b' }, 4), paths: [pathOf([anchor(20, 220, null, [30, -40]), anchor(120, 220, [-30, 40], null), anchor(160, 250)], false, 'line-p')] }), // prettier-ignore
  shapeOf('gone', { shown: false, fill: { hex: '#ffffff' }, paths: [squarePath(0, 0, 10, 'gone-p')] }),
  { ...groupOf('row', shapeOf('dot', { fill: { hex: '#2f6b4f' }, paths: [circlePath(30, 280, 5, 'dot-p')] })), repeat: { kind: 'row' as const, count: 4, x: 40, y: 0 } }, // prettier-ignore
];
const art = changeArt(emptyArt({ width: 300, height: 300, unit: 'px' }, 'layer'), together(...nodes.map((node) => addNode('layer', node)))).art; // prettier-ignore
const figures = drawingFigures(art);

describe('figures of a drawing', () => {
  it('count what the file holds (counted in its text, and measured by paper)', () => {
    const elements = [...writeSvg(art).matchAll(/<path[^>]* d="([^"]*)"/g)].map(([, d]) => d!);
    // The copies of the dot are written out or used: its own path is there once at least.
    const own = elements.slice(0, 3);
    expect([figures.shapes, figures.closed, figures.open]).toEqual([4, 4, 1]);
    expect(own.join('').match(/[Zz]/g)).toHaveLength(figures.closed - 1);
    paper.setup(new paper.Size(1, 1));
    const measured = (d: string): paper.CompoundPath => new paper.CompoundPath(d);
    const anchors = own
      .map(measured)
      .flatMap((c) => c.children.map((p) => (p as paper.Path).segments.length));
    expect(figures.anchors).toBe(anchors.reduce((a, b) => a + b, 0) + 4);
    const long = own.map(measured).flatMap((c) => c.children.map((p) => (p as paper.Path).length));
    expect(figures.length).toBeCloseTo(long.reduce((a, b) => a + b, 0) + 4 * 2 * Math.PI * 5, 1);
    expect(figures.anchorsOf.map(({ shape, anchors }) => [shape.id, anchors])).toEqual([['disc', 8], ['box', 4], ['line', 3], ['dot', 4]]); // prettier-ignore
    expect(figures.colours).toEqual(['#2f6b4f', '#d4561c', '#22252b']);
  });

  it('share the area out by colour as counting pixels does (source outside: resvg)', () => {
    const plain = changeArt(art, (draft) => {
      const layer = draft.layers[0]!;
      layer.children = layer.children.filter(
        (node) => node.type === 'shape' && node.fill !== null && node.shown,
      );
      for (const node of layer.children) if (node.type === 'shape') node.stroke = null;
    }).art;
    const { pixels } = new Resvg(writeSvg(plain), { fitTo: { mode: 'width', value: 1200 } }).render();
    const counts = new Map<string, number>();
    for (let i = 0; i < pixels.length; i += 4) {
      if (pixels[i + 3] !== 255) continue;
      const hex = `#${[0, 1, 2].map((c) => pixels[i + c]!.toString(16).padStart(2, '0')).join('')}`;
      counts.set(hex, (counts.get(hex) ?? 0) + 1);
    }
    const all = [...counts.values()].reduce((a, b) => a + b, 0);
    for (const { hex, share } of areaByColour(plain)) expect(Math.abs(share - counts.get(hex)! / all)).toBeLessThan(0.01); // prettier-ignore
  });

  it('are nothing of an empty drawing', () => {
    expect(drawingFigures(emptyArt({ width: 10, height: 10, unit: 'mm' }, 'layer'))).toEqual({ shapes: 0, open: 0, closed: 0, anchors: 0, anchorsOf: [], colours: [], length: 0 }); // prettier-ignore
  });
});
