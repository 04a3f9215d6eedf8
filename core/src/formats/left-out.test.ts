import { describe, expect, it } from 'vitest';
import { changeArt, type Recipe } from '../art/change';
import { addNode, addPicture, setClip, setCovering, setCutEdge, setNode, together } from '../art/edits';
import { emptyArt, placedPicture } from '../art/blank';
import { plainStroke, type Gradient } from '../art/paint';
import type { Art } from '../art/schema';
import { groupOf, shapeOf } from '../art/testing';
import { squarePath } from '../testing';
import { leftOut } from './left-out';

const gradient: Gradient = { kind: 'linear', placement: [10, 0, 0, 10, 0, 0], stops: [{ at: 0, colour: { hex: '#000000' }, opacity: 1 }, { at: 1, colour: { hex: '#ffffff' }, opacity: 0.5 }] }; // prettier-ignore
const flat = { fill: { hex: '#2f6b4f' } } as const;
const art = (...recipes: Recipe[]): Art =>
  changeArt(emptyArt({ width: 100, height: 100, unit: 'px' }, 'layer'), together(...recipes)).art;
const add = (...nodes: Parameters<typeof addNode>[1][]): Recipe =>
  together(...nodes.map((n) => addNode('layer', n)));
const NONE = { hidden: 0, unpainted: 0, traced: 0, outside: 0, pictures: 0, gradients: 0, seeThrough: 0, soft: 0, cutLines: 0 }; // prettier-ignore

describe('what a file leaves out', () => {
  it('is nothing of a plain drawing, whatever the file', () => {
    const plain = art(
      add(shapeOf('a', flat), shapeOf('b', { fill: null, stroke: plainStroke({ hex: '#000000' }, 1) })),
    );
    for (const kind of ['svg', 'png', 'webp', 'pdf', 'eps', 'dxf', 'plt'] as const)
      expect(leftOut(plain, kind)).toEqual(NONE);
  });

  it('is what is hidden, bare or off the sheet, each counted once', () => {
    const drawn = art(
      add(shapeOf('a', flat), shapeOf('bare', { fill: null }), groupOf('g', shapeOf('in', flat)), shapeOf('off', { ...flat, paths: [squarePath(200, 0, 9)] })), // prettier-ignore
      setNode('g', { shown: false }),
    );
    expect(leftOut(drawn, 'svg')).toEqual({ ...NONE, hidden: 1, unpainted: 1, outside: 1 });
    // Of what is chosen alone, and shown as far as it goes.
    expect(leftOut(drawn, 'svg', { only: new Set(['off']), area: 'drawing' })).toEqual(NONE);
  });

  it('is what a kind of file cannot hold', () => {
    const stands = { shown: true, locked: false, opacity: 1 } as const;
    const photo = placedPicture({
      id: 'p',
      source: 's',
      name: 'P',
      width: 50,
      height: 50,
      placement: [1, 0, 0, 1, 0, 0],
    });
    const drawn = art(
      addPicture(photo),
      add(
        shapeOf('fading', { fill: gradient }),
        shapeOf('blended', flat),
        groupOf('g', shapeOf('edge', { fill: null }), shapeOf('line', { fill: null, stroke: plainStroke({ hex: '#000000' }, 1) }), { id: 'n', type: 'picture', name: 'P', picture: 'p', ...stands }), // prettier-ignore
      ),
      setCovering(['blended'], { blend: 'multiply' }),
      setClip('g', 'edge'),
    );
    expect(leftOut(drawn, 'pdf', { pictures: true })).toEqual(NONE);
    expect(leftOut(drawn, 'svg')).toEqual({ ...NONE, traced: 1 });
    expect(leftOut(drawn, 'eps')).toEqual({ ...NONE, traced: 1, pictures: 1, gradients: 1, seeThrough: 1, soft: 1 }); // prettier-ignore
    expect(leftOut(drawn, 'dxf')).toEqual({
      ...NONE,
      traced: 1,
      pictures: 1,
      gradients: 1,
      soft: 1,
      cutLines: 1,
    });
    const soft = changeArt(drawn, setCutEdge('g', { by: 0, soft: 1 })).art;
    expect(leftOut(soft, 'plt')).toMatchObject({ soft: 3, cutLines: 1 });
  });
});
