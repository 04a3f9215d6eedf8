import { describe, expect, it } from 'vitest';
import { addNode, mapShape, setPath } from '../art/edits';
import { changeArt } from '../art/change';
import { readArt } from '../art/check';
import type { Shape } from '../art/schema';
import { emptyArt } from '../art/blank';
import { findShape } from '../art/tree';
import { rotation, scaling, translation } from '../geometry/affine';
import { pathArea, pathBounds, pathLength } from './path-measure';
import { transformPath } from './path-map';
import { withAnchor } from './path';
import { dragForm, radiusAt, radiusGrip } from './form-drag';
import { fitsForm, formPath } from './form-path';
import { fittedRadii, mapForm, plainForm } from './form';

const shapeOf = (path: Shape['paths'][number]): Shape => ({
  id: 's', type: 'shape', name: 's', shown: true, locked: false, opacity: 1, fill: null, stroke: null, paths: [path],
}); // prettier-ignore

describe('forms as paths', () => {
  it('have the bounds, area and length that their numbers say', () => {
    const box = formPath(plainForm('box', { x: 50, y: 40, width: 60, height: 20 }), 'p');
    expect(pathBounds(box)).toEqual({ x0: 20, y0: 30, x1: 80, y1: 50 });
    expect(pathArea(box)).toBeCloseTo(1200, 9);
    const line = formPath(plainForm('line', { x: 0, y: 0, width: 10, angle: Math.PI / 2 }), 'p');
    expect(line.closed).toBe(false);
    expect(pathLength(line)).toBeCloseTo(10, 12);
    // Area of a regular polygon: ½ n r² sin(2π/n), school geometry.
    for (const sides of [3, 5, 12]) {
      const polygon = formPath(plainForm('polygon', { width: 20, height: 20, sides }), 'p');
      expect(pathArea(polygon)).toBeCloseTo(0.5 * sides * 100 * Math.sin((2 * Math.PI) / sides), 9);
    }
    // Four cubics hold an ellipse's area to about two parts in ten thousand.
    const ellipse = formPath(plainForm('ellipse', { width: 40, height: 20 }), 'p');
    expect(pathArea(ellipse) / (Math.PI * 200)).toBeCloseTo(1, 3);
  });

  it('shrink radii that do not fit, all alike (CSS Backgrounds and Borders 3, corner overlap)', () => {
    const form = plainForm('box', { width: 100, height: 40, radii: [30, 30, 30, 30] });
    expect(fittedRadii(form)).toEqual([20, 20, 20, 20]);
    expect(fittedRadii({ ...form, height: 400 })).toEqual([30, 30, 30, 30]);
    // The sides that are used up have one anchor, not two on one spot.
    expect(formPath(form, 'p').anchors).toHaveLength(6);
    expect(formPath({ ...form, width: 40 }, 'p').anchors).toHaveLength(4);
    expect(formPath({ ...form, radii: [10, 0, 10, 0] }, 'p').anchors).toHaveLength(6);
    const round = formPath({ ...form, width: 40 }, 'p');
    expect(pathArea(round) / (Math.PI * 400)).toBeCloseTo(1, 3);
    expect(round.anchors.every((a) => a.in && a.out)).toBe(true);
  });

  it('stay such when moved, turned and scaled, and are paths once an anchor is edited, without a change of shape', () => {
    const form = plainForm('box', { x: 5, y: 6, width: 30, height: 20, radii: [4, 4, 4, 4] });
    const path = formPath(form, 'p');
    for (const map of [translation(3, 4), rotation(0.7), scaling(2.5), scaling(-1, 1)]) {
      const moved = transformPath(path, map);
      expect(moved.form).toBeDefined();
      expect(fitsForm(moved)).toBe(true);
      expect(pathLength(moved)).toBeCloseTo(pathLength(path) * Math.hypot(map[0], map[1]), 6);
    }
    expect(mapForm(form, scaling(2, 1))).toBeNull();
    expect(
      transformPath(path, scaling(2, 1)).form && fitsForm(transformPath(path, scaling(2, 1))),
    ).toBeFalsy();
    expect(mapForm(plainForm('ellipse', { width: 2, height: 2 }), scaling(3, 1))).toMatchObject({
      width: 6,
      height: 2,
    });

    let art = changeArt(
      emptyArt({ width: 100, height: 100, unit: 'px' }, 'l'),
      addNode('l', shapeOf(path)),
    ).art;
    art = changeArt(art, mapShape(findShape(art, 's')!, translation(1, 1))).art;
    expect(findShape(art, 's')!.paths[0]!.form).toMatchObject({ x: 6, y: 7 });
    const held = findShape(art, 's')!.paths[0]!;
    const edited = withAnchor(held, 0, { ...held.anchors[0]!, x: 0 });
    art = changeArt(art, setPath('s', edited)).art;
    expect(findShape(art, 's')!.paths[0]!.form).toBeUndefined();
    expect(findShape(art, 's')!.paths[0]!.anchors).toEqual(edited.anchors);
    expect(readArt(JSON.parse(JSON.stringify(art)))).toEqual(JSON.parse(JSON.stringify(art)));
  });
});

describe('a form drawn by a drag', () => {
  const plain = { equal: false, centred: false, sides: 5, radius: 3 };
  const [from, to] = [
    { x: 10, y: 10 },
    { x: 50, y: -20 },
  ];

  it('goes from corner to corner, from the centre, with sides alike', () => {
    expect(dragForm('box', from, to, plain)).toMatchObject({
      x: 30,
      y: -5,
      width: 40,
      height: 30,
      radii: [3, 3, 3, 3],
    });
    expect(dragForm('ellipse', from, to, { ...plain, centred: true })).toMatchObject({
      x: 10,
      y: 10,
      width: 80,
      height: 60,
    });
    expect(dragForm('box', from, to, { ...plain, equal: true })).toMatchObject({
      x: 30,
      y: -10,
      width: 40,
      height: 40,
    });
    expect(dragForm('polygon', from, to, plain)).toMatchObject({
      x: 25,
      y: -5,
      width: 30,
      height: 30,
      sides: 5,
    });
    expect(dragForm('line', from, { x: 50, y: 12 }, { ...plain, equal: true })).toMatchObject({
      x: 30,
      y: 10,
      width: 40,
      angle: 0,
    });
    expect(dragForm('line', from, to, { ...plain, centred: true })).toMatchObject({
      x: 10,
      y: 10,
      width: 100,
    });
    expect(dragForm('box', from, from, plain)).toMatchObject({ width: 0, height: 0 });
  });

  it('has a grip in each corner at its radius, and reads the radius there again', () => {
    const form = plainForm('box', { x: 40, y: 30, width: 60, height: 40, angle: 0.4, radii: [2, 8, 12, 20] });
    for (let i = 0; i < 4; i++) {
      const grip = radiusGrip(form, i, 5);
      expect(radiusAt(form, i, grip)).toBeCloseTo(Math.max(5, form.radii[i]!), 9);
    }
    expect(radiusGrip(plainForm('box', { width: 100, height: 60 }), 0, 10)).toEqual({ x: -40, y: -20 });
  });
});
